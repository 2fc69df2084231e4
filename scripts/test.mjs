#!/usr/bin/env node
// npm test: installs what is missing, then types, lint, format, unit tests, server tests against a real PostgreSQL, and journeys in a real browser.
import { mkdirSync } from 'node:fs'
import { join } from 'node:path'
import { ROOT, Stop, say, step } from './lib/run.mjs'
import { checkNode, installDebian, installNpm } from './lib/install.mjs'
import { format, journeys, lint, runAll, types, unit, unused } from './lib/suites.mjs'

try {
  checkNode()
  mkdirSync(join(ROOT, '.test'), { recursive: true })
  await step('Debian packages', () => installDebian({ browser: true, backups: true }))
  await step('npm packages', () => installNpm())
  const { buildPack, buildServer } = await import('./lib/build.mjs')
  await step('server', () => buildServer())
  await step('content pack', () => buildPack())
  process.exitCode = await runAll([
    [
      [types, lint],
      [() => unit('core', 'packages/core'), () => unit('web', 'packages/web'), format, unused],
    ],
    () => unit('server', 'packages/server'),
    journeys,
  ])
} catch (error) {
  say(error instanceof Stop ? error.message : error.stack)
  say('0 passed, 1 failed')
  process.exitCode = 1
}
