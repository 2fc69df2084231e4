import { fileURLToPath } from 'node:url'
import { defineConfig } from 'vitest/config'

const core = (file: string): string => fileURLToPath(new URL(`./packages/core/src/${file}`, import.meta.url))

// Files share their worker, and with it the compiled pack: nothing in the tests may rest on a module being loaded afresh.
export default defineConfig({
  resolve: {
    alias: [
      { find: /^@kneecap-awl\/contract$/, replacement: fileURLToPath(new URL('./packages/contract/src/index.ts', import.meta.url)) },
      { find: /^@kneecap-awl\/core$/, replacement: core('index.ts') },
      { find: /^@kneecap-awl\/core\/review$/, replacement: core('review/index.ts') },
    ],
  },
  test: { include: ['**/test/**/*.test.{ts,tsx}'], testTimeout: 60_000, hookTimeout: 120_000, pool: 'forks', isolate: false, maxWorkers: 2 },
})
