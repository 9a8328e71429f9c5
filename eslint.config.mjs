// @ts-check
// What types cannot say. What is older than a rule stands in eslint-suppressions.json, file by file with
// its count: a count that grows fails, and so does one that shrank, until
// `npx eslint . --prune-suppressions` takes it down.
import importX, { createNodeResolver } from 'eslint-plugin-import-x'
import withNuxt from './.nuxt/eslint.config.mjs'

const SQL = '/^\\s*(SELECT|INSERT|UPDATE|DELETE|REPLACE) /'
const sqlLivesInQueries = [
  'error',
  { selector: `Literal[value=${SQL}]`, message: 'SQL lives in queries.ts' },
  { selector: `TemplateElement[value.raw=${SQL}]`, message: 'SQL lives in queries.ts' },
]
const PURE = [
  'decimal\\.js$',
  'temporal-polyfill$',
  'minisearch$',
  'ibantools$',
  'libphonenumber-js/min$',
  'country-to-currency$',
  'fastest-levenshtein$',
  'papaparse$',
]

const SUBJECTS =
  'access|agreements|calls|collections|customers|dispatch|documents|invoices|ledger|messages|' +
  'payments|pricebook|quotes|settings|visits'

export default withNuxt(
  { ignores: ['.data/**', '.firm/**', '.output/**', 'test-results/**'] },
  {
    rules: {
      'vue/multi-word-component-names': 'off',
      'vue/html-self-closing': 'off',
      '@typescript-eslint/no-unused-vars': [
        'error',
        { argsIgnorePattern: '^_', varsIgnorePattern: '^_' },
      ],
      'no-control-regex': 'off',
      '@typescript-eslint/no-invalid-void-type': 'off',
    },
  },
  {
    // What is read, and not decoded.
    files: ['{app,core,demo,scripts,server,shared,standins}/**/*.{ts,vue,mjs}'],
    rules: {
      complexity: ['error', 12],
      'max-lines': ['error', { max: 300, skipBlankLines: true, skipComments: true }],
      'max-lines-per-function': ['error', { max: 60, skipBlankLines: true, skipComments: true }],
      'max-params': ['error', 4],
      'no-nested-ternary': 'error',
    },
  },
  {
    // Fields, tables and dialogs of the office are the kit's. What draws for itself says so in its first line.
    files: ['app/**/*.vue'],
    ignores: [
      'app/base/**',
      // On a phone the native fields are the better ones.
      'app/pages/field/**',
      'app/visits/field/**',
      'app/layouts/field.vue',
      'app/pages/i/**',
      'app/pages/q/**',
      'app/pages/request.vue',
      'app/components/pricebook/BookGrid.vue',
      'app/pages/schedule/week.vue',
    ],
    rules: {
      'vue/no-restricted-html-elements': [
        'error',
        ...['input', 'select', 'textarea', 'table', 'dialog'].map((element) => ({
          element,
          message: 'The office takes its fields, tables and dialogs from app/base.',
        })),
      ],
    },
  },
  {
    // Element Plus is known in one place.
    files: ['app/**/*.vue'],
    ignores: ['app/base/**'],
    rules: {
      'vue/no-restricted-syntax': [
        'error',
        {
          selector: 'VElement[rawName=/^el-/]',
          message: 'Only app/base knows Element Plus.',
        },
      ],
    },
  },
  {
    // No circles: neither of files, nor through the aliases of the app.
    files: ['{app,core,demo,server,shared}/**/*.{ts,vue}'],
    plugins: { 'import-x': importX },
    settings: {
      'import-x/resolver-next': [
        createNodeResolver({
          extensions: ['.ts', '.mjs', '.vue'],
          alias: { '~~': [import.meta.dirname], '~': [`${import.meta.dirname}/app`] },
        }),
      ],
      'import-x/parsers': { '@typescript-eslint/parser': ['.ts'], 'vue-eslint-parser': ['.vue'] },
    },
    rules: { 'import-x/no-cycle': ['error', { ignoreExternal: true }] },
  },
  {
    // What needs types to be seen: promises that nobody waits for, cases that nobody handles.
    files: ['{app,core,demo,scripts,server,shared,tests}/**/*.ts'],
    languageOptions: {
      parserOptions: {
        project: ['./tsconfig.all.json', './.nuxt/tsconfig.app.json'],
        tsconfigRootDir: import.meta.dirname,
      },
    },
    rules: {
      '@typescript-eslint/no-floating-promises': 'error',
      '@typescript-eslint/await-thenable': 'error',
      '@typescript-eslint/switch-exhaustiveness-check': 'error',
    },
  },
  {
    // The computation knows nobody: no framework, no Node, no clock, no chance.
    files: ['core/**/*.ts'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            {
              regex: `^(?!\\.{1,2}/|${PURE.join('|')}).*`,
              message: 'core imports only core and a few pure libraries',
            },
            { group: ['**/server/**', '**/app/**', '**/shared/**'], message: 'core knows nobody' },
          ],
        },
      ],
      'no-restricted-globals': [
        'error',
        'Date',
        'fetch',
        'process',
        'window',
        'document',
        'setTimeout',
        'performance',
      ],
      'no-restricted-properties': [
        'error',
        { object: 'Math', property: 'random', message: 'randomness is an argument' },
      ],
    },
  },
  {
    // A subject's tables are written by itself, and through what it hands out (`index.ts`).
    files: ['server/**/*.ts'],
    ignores: ['server/**/index.ts'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            {
              regex: `^\\.\\./(${SUBJECTS})/.*queries$`,
              importNamePattern:
                '^(insert|update|set|put|keep|mark|delete|remove|forget|add|take|lock|close|move)([A-Z]|$)',
              message: 'Another subject is written through what its index.ts hands out.',
            },
          ],
        },
      ],
    },
  },
  {
    files: ['server/**/*.ts', 'demo/**/*.ts', 'core/**/*.ts', 'shared/**/*.ts'],
    // What makes tables and connections is SQL itself.
    ignores: ['{demo,server}/**/*queries.ts', 'server/db/{migrate,pool}.ts'],
    rules: { 'no-restricted-syntax': sqlLivesInQueries },
  },
)
