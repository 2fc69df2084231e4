import { readdirSync } from 'node:fs'
import boundaries from 'eslint-plugin-boundaries'
import tseslint from 'typescript-eslint'
import reactHooks from 'eslint-plugin-react-hooks'

const forbid = (...patterns) => ({ 'no-restricted-imports': ['error', { patterns }] })
const OUTSIDE = {
  group: ['@kneecap-awl/server*', '@kneecap-awl/web*', '**/server/**', '**/web/**'],
  message: 'imports point one way: core imports nothing of server or web',
}
const NODE = { group: ['node:*', 'fs', 'path', 'react*', 'fastify*', 'pg'], message: 'core knows no Node, no React and no HTTP' }
const SERVER = { group: ['@kneecap-awl/server*', '**/server/src/**', 'pg', 'fastify'], message: 'the web application speaks to the server over HTTP' }
const WEB = { group: ['@kneecap-awl/web*', '**/web/src/**'], message: 'the server does not import the web application' }

const ENTRIES = {
  regex: '/queries\\.js$',
  importNames: ['addEntries'],
  message: 'entries are kept by one service: storeEntries or keepEntries of examinations/entries.ts',
}

const SCREENS = readdirSync(new URL('packages/web/src/screens/', import.meta.url))
/** A later rule of the same name replaces an earlier one, so a screen is given everything that holds for it. */
const screenRule = (screen) => ({
  files: [`packages/web/src/screens/${screen}/**`],
  rules: forbid(SERVER, {
    regex: `^\\.\\./(${SCREENS.filter((other) => other !== screen).join('|')})/`,
    message: 'screens do not import each other; move what is shared to parts/',
  }),
})

/** The layers of the core from the ground up: each imports from itself and from those below it, types included. */
const LAYERS = ['model', 'rules', 'measure', 'record', 'pack', 'library', 'judge', 'reason', 'report', 'review']
const LAYERED = {
  files: ['packages/core/src/**'],
  plugins: { boundaries },
  settings: {
    'boundaries/elements': LAYERS.map((type) => ({ type, pattern: `packages/core/src/${type}` })),
    'import/resolver': { typescript: { project: 'packages/core/tsconfig.json' } },
  },
  rules: {
    'boundaries/dependencies': [
      'error',
      {
        default: 'disallow',
        policies: [
          ...LAYERS.map((type, at) => ({ from: { element: { type } }, allow: { to: { element: { types: { anyOf: LAYERS.slice(0, at + 1) } } } } })),
          { allow: { to: { module: { origin: ['external', 'core'] } } } },
        ],
      },
    ],
  },
}

const TESTS = ['**/test/**/*.{ts,tsx}', 'e2e/**/*.ts']
const SCRIPTS = ['scripts/**/*.mjs', '*.mjs', 'e2e/**/*.mjs']

export default tseslint.config(
  { ignores: ['**/dist/**', '**/dist-types/**', '**/node_modules/**', '.data/**', '.test/**', '**/*.d.ts', '*.config.ts', '**/vite.config.ts'] },
  {
    files: ['packages/*/src/**/*.{ts,tsx}', ...TESTS],
    extends: [tseslint.configs.strictTypeChecked],
    rules: {
      '@typescript-eslint/restrict-template-expressions': ['error', { allowNumber: true }],
      '@typescript-eslint/no-confusing-void-expression': 'off',
      '@typescript-eslint/require-await': 'off',
      '@typescript-eslint/no-base-to-string': 'off',
      'no-console': 'error',
      '@typescript-eslint/no-unused-vars': ['error', { ignoreRestSiblings: true }],
    },
  },
  {
    files: ['packages/*/src/**/*.{ts,tsx}'],
    languageOptions: { parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname } },
  },
  {
    files: TESTS,
    languageOptions: { parserOptions: { project: 'tsconfig.tests.json', tsconfigRootDir: import.meta.dirname } },
  },
  { files: SCRIPTS, extends: [tseslint.configs.strict] },
  { files: ['packages/core/src/**'], rules: forbid(OUTSIDE, NODE) },
  LAYERED,
  { files: ['packages/server/src/**'], rules: forbid(WEB, ENTRIES) },
  { files: ['packages/server/src/examinations/entries.ts'], rules: forbid(WEB) },
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
      ...forbid(SERVER),
    },
  },
  ...SCREENS.map(screenRule),
)
