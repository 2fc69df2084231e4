#!/usr/bin/env node
// npm run check: types, lint, format and unit tests, for daily use; no database and no browser.
import { Stop, say } from './lib/run.mjs'
import { checkNode, installNpm } from './lib/install.mjs'
import { format, lint, runAll, types, unit } from './lib/suites.mjs'

try {
  checkNode()
  installNpm()
  process.exitCode = await runAll([types, lint, format, () => unit('core', 'packages/core'), () => unit('web', 'packages/web')])
} catch (error) {
  say(error instanceof Stop ? error.message : error.stack)
  process.exitCode = 1
}
