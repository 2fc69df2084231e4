import tseslint from 'typescript-eslint'
import reactHooks from 'eslint-plugin-react-hooks'

const forbid = (patterns) => ({ 'no-restricted-imports': ['error', { patterns }] })
const OUTSIDE = {
  group: ['@kneecap-awl/server*', '@kneecap-awl/web*', '**/server/**', '**/web/**'],
  message: 'imports point one way: core imports nothing of server or web',
}
const NODE = { group: ['node:*', 'fs', 'path', 'react*', 'fastify*', 'pg'], message: 'core knows no Node, no React and no HTTP' }

export default tseslint.config(
  {
    ignores: [
      '**/dist/**',
      '**/dist-types/**',
      '**/node_modules/**',
      '.data/**',
      '.test/**',
      'scripts/**',
      '*.mjs',
      '**/*.d.ts',
      'playwright.config.ts',
      '**/vite.config.ts',
      'vitest.config.ts',
      '**/test/**',
      'e2e/**',
    ],
  },
  ...tseslint.configs.strictTypeChecked,
  {
    languageOptions: { parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname } },
    rules: {
      '@typescript-eslint/restrict-template-expressions': ['error', { allowNumber: true }],
      '@typescript-eslint/no-confusing-void-expression': 'off',
      '@typescript-eslint/require-await': 'off',
      '@typescript-eslint/no-base-to-string': 'off',
      'no-console': 'error',
    },
  },
  { files: ['packages/core/src/**'], rules: forbid([OUTSIDE, NODE]) },
  {
    files: ['packages/server/src/**'],
    rules: forbid([{ group: ['@kneecap-awl/web*', '**/web/src/**'], message: 'the server does not import the web application' }]),
  },
  {
    files: ['packages/web/src/**'],
    plugins: { 'react-hooks': reactHooks },
    rules: {
      ...reactHooks.configs.recommended.rules,
      'no-restricted-syntax': [
        'error',
        {
          selector: "CallExpression[callee.name='tierName'] MemberExpression[property.name='floor']",
          message: 'a floor alone heads nothing: say rangeWords(floor, ceiling), which says "Not settled" while the two differ',
        },
      ],
      ...forbid([{ group: ['@kneecap-awl/server*', 'pg', 'fastify'], message: 'the web application speaks to the server over HTTP' }]),
    },
  },
  ...['sign-in', 'desk', 'start', 'workspace', 'verdict', 'patient'].map((screen) => ({
    files: [`packages/web/src/screens/${screen}/**`],
    rules: forbid([
      {
        regex: `^\\.\\./(?!${screen})(sign-in|desk|start|workspace|verdict|patient)/`,
        message: 'screens do not import each other; move what is shared to parts/',
      },
    ]),
  })),
)
