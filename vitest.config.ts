import { fileURLToPath } from 'node:url'
import { defineConfig } from 'vitest/config'

// Files share their worker, and with it the compiled pack: nothing in the tests may rest on a module being loaded afresh.
export default defineConfig({
  resolve: { alias: { '@kneecap-awl/core': fileURLToPath(new URL('./packages/core/src/index.ts', import.meta.url)) } },
  test: { include: ['**/test/**/*.test.{ts,tsx}'], testTimeout: 60_000, hookTimeout: 120_000, pool: 'forks', isolate: false, maxWorkers: 2 },
})
