import { defineConfig } from 'vitest/config'

export default defineConfig({
  test: {
    environment: 'node', pool: 'threads', maxWorkers: 2, // Bounds for a slow machine; nothing waits for them when all is well.
    testTimeout: 240_000, hookTimeout: 120_000,
    projects: [
      { extends: true, test: { name: 'core', include: ['tests/core/**/*.test.ts'] } },
      { extends: true, test: { name: 'server', include: ['tests/server/**/*.test.ts'], fileParallelism: false } },
    ],
  },
})
