// The build: what is rendered where, which modules are on, and what the server bundle carries.
import { fileURLToPath } from 'node:url'
import { build } from 'esbuild'

const OWN_TEMPORAL = fileURLToPath(new URL('app/lib/temporal.ts', import.meta.url))
export default defineNuxtConfig({
  compatibilityDate: '2026-05-01',
  telemetry: false,
  // A build leaves alone what an editor, the linter and the type checker read.
  buildDir: process.env.BUILD_DIR ?? '.nuxt',
  devtools: { enabled: false },
  modules: [
    '@pinia/nuxt',
    '@element-plus/nuxt',
    '@nuxt/eslint',
    ['unplugin-icons/nuxt', { compiler: 'vue3', scale: 1.15, autoInstall: false }],
  ],
  // Own code is imported by name, so that every dependency can be seen and followed.
  imports: { scan: false },
  components: { dirs: [] },
  app: {
    head: {
      title: 'Open Ledger',
      htmlAttrs: { lang: 'en' },
      link: [{ rel: 'icon', type: 'image/svg+xml', href: '/icon.svg' }],
      meta: [{ name: 'viewport', content: 'width=device-width, initial-scale=1' }],
    },
  },
  css: [
    '@fontsource-variable/atkinson-hyperlegible-next',
    '@fontsource-variable/atkinson-hyperlegible-mono',
    '~/assets/main.css',
    '~/assets/kit.css',
    '~/assets/print.css',
  ],
  features: { inlineStyles: false },
  // A page's script is fetched when somebody points at its link, not for every link in sight.
  experimental: {
    // What is done where a page's script cannot be had: app/plugins/pageLost.client.ts.
    emitRouteChunkError: 'manual',
    defaults: { nuxtLink: { prefetchOn: { visibility: false, interaction: true } } },
  },
  hooks: {
    // The first screen has the line to itself: what it does not need is not fetched beside it; its type is, so that it is laid out once.
    'build:manifest'(manifest) {
      for (const part of Object.values(manifest)) {
        part.dynamicImports = []
        if (part.file.includes('next-latin-wght-normal')) part.preload = true
      }
    },
  },
  elementPlus: { importStyle: 'css', themes: [] },
  // Signed-in pages are drawn in the browser; on the server the customer's pages, readable without JavaScript, and the day of
  // a phone (server/middleware/drawn.ts).
  routeRules: {
    '/**': { ssr: false },
    '/field': { ssr: true },
    '/i/**': { ssr: true },
    '/q/**': { ssr: true },
    '/request': { ssr: true },
  },
  nitro: {
    // Not in the app: parts of the screen take what is undefined as left out, like everywhere in Vue.
    typescript: {
      tsConfig: {
        compilerOptions: { noImplicitReturns: true, exactOptionalPropertyTypes: true },
      },
    },
    // Sent compressed where the browser takes it.
    ...({ compressPublicAssets: { gzip: true, brotli: false } } as object),
    hooks: {
      // What computes for long runs in a thread of its own, from a bundle of its own beside the server.
      async compiled(nitro) {
        await build({
          entryPoints: ['server/work/planWorker.ts', 'server/work/roadsWorker.ts'],
          bundle: true,
          platform: 'node',
          format: 'esm',
          outdir: nitro.options.output.serverDir,
          outExtension: { '.js': '.mjs' },
        })
      },
    },
    serverAssets: [{ baseName: 'fonts', dir: './assets/fonts' }],
  },
  vite: {
    $client: {
      // Over a weak signal ten small files come later than one: parts without an effect of their own are put together.
      build: { rollupOptions: { output: { experimentalMinChunkSize: 12_000 } } },
      resolve: {
        ...({ alias: [{ find: /^temporal-polyfill$/, replacement: OWN_TEMPORAL }] } as object),
      },
    },
    optimizeDeps: {
      include: [
        'dayjs',
        'dayjs/plugin/*.js',
        'lodash-unified',
        'yup',
        'signature_pad',
        'd3',
        'decimal.js',
        'temporal-polyfill',
        'minisearch',
        'uuid',
      ],
    },
  },
  typescript: {
    strict: true,
    tsConfig: {
      include: ['../tests/app/**/*'],
      compilerOptions: { noImplicitReturns: true },
    },
  },
  eslint: { config: { stylistic: false } },
})
