#!/usr/bin/env node
// npm run restore: brings a database back from its backups into an empty folder, up to the last archived moment or an earlier one.
import { existsSync, readFileSync } from 'node:fs'
import { join, resolve } from 'node:path'
import { parseArgs } from 'node:util'
import { ROOT, Stop, say, step } from './lib/run.mjs'
import { installDebian, installNpm } from './lib/install.mjs'
import { restoreInto } from './lib/backups.mjs'

const HELP = `npm run restore -- --from FOLDER --secrets FILE [--until TIME]
  --from FOLDER     where the backups lie
  --secrets FILE    the copy of secrets.json that was kept apart: it holds the keys
  --until TIME      no later than this, as 2026-11-30T14:05:00Z; all that was archived when left out
It restores into AWL_DATA, or .data/cluster, which has to be empty. Then start as ever.`

function optionsOf(args) {
  try {
    const text = { type: 'string' }
    const { values } = parseArgs({ args, options: { from: text, secrets: text, until: text } })
    if (!values.from || !values.secrets) throw new Error('--from and --secrets are needed.')
    if (values.until !== undefined && !/^\d{4}-\d\d-\d\dT\d\d:\d\d(:\d\d(\.\d+)?)?Z$/.test(values.until))
      throw new Error(`--until takes a time as 2026-11-30T14:05:00Z, not "${values.until}".`)
    for (const path of [values.from, values.secrets]) if (!existsSync(path)) throw new Error(`There is no ${path}.`)
    return values
  } catch (error) {
    throw new Stop(`${error.message}\n${HELP}`)
  }
}

try {
  const { from, secrets, until } = optionsOf(process.argv.slice(2))
  await step('Debian packages', () => installDebian({ backups: true }))
  await step('npm packages', () => installNpm())
  const { buildServer } = await import('./lib/build.mjs')
  await step('server', () => buildServer())
  const { Cluster } = await import('./lib/postgres.mjs')
  const { countsOf, verifyCopy } = await import('./lib/verifyCopy.mjs')
  const folder = process.env.AWL_DATA ?? join(ROOT, '.data', 'cluster')
  if (existsSync(join(folder, 'pg'))) throw new Stop(`${folder} holds a database already. Move it away first: nothing is overwritten.`)
  const cluster = new Cluster(folder)
  await cluster.adopt(JSON.parse(readFileSync(secrets, 'utf8')))
  await step('restored', () => restoreInto(cluster, resolve(from), until ?? 'archived'))
  const urls = await cluster.start()
  await step('verified', () => verifyCopy(urls))
  const { examination, entry, verdict } = await countsOf(urls.ownerUrl)
  say(`  ${examination} examinations, ${entry} entries, ${verdict} verdicts`)
  cluster.stop()
  say('Restored. Start with: npm start -- --backups FOLDER')
} catch (error) {
  process.stderr.write(`\n${error instanceof Stop ? error.message : error.stack}\n`)
  process.exitCode = 1
}
