import { createHash } from 'node:crypto'
import { fileURLToPath } from 'node:url'
import vue from '@vitejs/plugin-vue'
import icons from 'unplugin-icons/vite'
import { defineConfig } from 'vitest/config'
import { BaseSequencer, type TestSpecification } from 'vitest/node'

/** Files in the order of their names, or in another one that a word says: no file may rely on one before it. */
class ByName extends BaseSequencer {
  override sort(files: TestSpecification[]): Promise<TestSpecification[]> {
    const word = process.env.TEST_ORDER
    const place = ({ moduleId }: TestSpecification) =>
      word ? createHash('sha256').update(`${word} ${moduleId}`).digest('hex') : moduleId
    return Promise.resolve(files.toSorted((a, b) => place(a).localeCompare(place(b))))
  }
}

const at = (path: string) => fileURLToPath(new URL(path, import.meta.url))

export default defineConfig({
  test: {
    environment: 'node',
    pool: 'threads',
    maxWorkers: 2, // Bounds for a slow machine; nothing waits for them when all is well.
    testTimeout: 240_000,
    hookTimeout: 120_000,
    sequence: { sequencer: ByName },
    projects: [
      { extends: true, test: { name: 'core', include: ['tests/core/**/*.test.ts'] } },
      {
        extends: true,
        plugins: [vue(), icons({ compiler: 'vue3', autoInstall: false })],
        resolve: {
          alias: {
            '~~': at('.'),
            '~': at('app'),
            '#build/addresses': at('.nuxt/addresses.ts'),
            '#build/help': at('.nuxt/help.ts'),
          },
        },
        test: {
          name: 'app',
          include: ['tests/app/**/*.test.ts'],
          environment: 'happy-dom',
          setupFiles: ['tests/app/setup.ts'],
        },
      },
      {
        extends: true,
        test: {
          name: 'server',
          include: ['tests/server/**/*.test.ts'],
          setupFiles: ['tests/server/everywhere.ts'],
          fileParallelism: false,
        },
      },
    ],
  },
})
