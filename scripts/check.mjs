#!/usr/bin/env node
// npm run check: types, lint, format and unit tests, for daily use; no database and no browser. The generated proofs of the
// regions, which take minutes, are left to npm test.
import { Stop, say } from './lib/run.mjs'
import { checkNode, installNpm } from './lib/install.mjs'
import { format, lintChanged, runAll, types, unit, unused } from './lib/suites.mjs'

try {
  checkNode()
  installNpm()
  process.exitCode = await runAll([
    types,
    lintChanged,
    format,
    unused,
    () => unit('core', 'packages/core', ['--exclude', '**/regions/**']),
    () => unit('web', 'packages/web'),
  ])
} catch (error) {
  say(error instanceof Stop ? error.message : error.stack)
  process.exitCode = 1
}
