import { defineConfig } from 'vitest/config'

export default defineConfig({
  test: {
    environment: 'node', pool: 'threads', maxWorkers: 2, testTimeout: 60_000, hookTimeout: 60_000,
    projects: [
      { extends: true, test: { name: 'core', include: ['tests/core/**/*.test.ts'] } },
      { extends: true, test: { name: 'server', include: ['tests/server/**/*.test.ts'], fileParallelism: false } },
    ],
  },
})
