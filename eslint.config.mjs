// @ts-check
import withNuxt from './.nuxt/eslint.config.mjs'

export default withNuxt(
  { ignores: ['.data/**', '.output/**', 'test-results/**'] },
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
    // The computation knows nobody: no framework, no Node, no clock, no chance.
    files: ['core/**/*.ts'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            {
              regex:
                '^(?!\\.{1,2}/|decimal\\.js$|temporal-polyfill$|minisearch$|libphonenumber-js/min$|fastest-levenshtein$|papaparse$).*',
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
    files: ['server/**/service.ts', 'server/**/routes.ts'],
    rules: {
      'no-restricted-syntax': [
        'error',
        {
          selector: 'Literal[value=/^(SELECT|INSERT|UPDATE|DELETE) /]',
          message: 'SQL lives in queries.ts',
        },
      ],
    },
  },
)
