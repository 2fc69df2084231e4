#!/usr/bin/env node
// npm run backup: takes a whole backup of the running database, restores it beside, and compares what came back before it says that it is one.
import { existsSync } from 'node:fs'
import { join } from 'node:path'
import { ROOT, Stop, say, step } from './lib/run.mjs'
import { installDebian, installNpm } from './lib/install.mjs'
import { listBackups, repositoryOf, restoreInto, takeBackup } from './lib/backups.mjs'

try {
  await step('Debian packages', () => installDebian({ backups: true }))
  await step('npm packages', () => installNpm())
  const { buildServer } = await import('./lib/build.mjs')
  await step('server', () => buildServer())
  const { Cluster } = await import('./lib/postgres.mjs')
  const { countsOf, compareCounts, verifyCopy } = await import('./lib/verifyCopy.mjs')
  const folder = process.env.AWL_DATA ?? join(ROOT, '.data', 'cluster')
  const cluster = new Cluster(folder)
  if (!existsSync(join(folder, 'secrets.json'))) throw new Stop(`There is no database in ${folder}.`)
  const repository = repositoryOf(folder)
  if (!repository) throw new Stop('Nothing is archived yet. Start with: npm start -- --backups FOLDER, on another disk than the database.')
  const { ownerUrl } = await cluster.start()
  const before = await countsOf(ownerUrl)
  await step('whole backup', () => takeBackup(cluster))
  const after = await countsOf(ownerUrl)
  const scratch = new Cluster(`${folder}-backup-check`)
  await step('restored beside', async () => {
    scratch.remove()
    await scratch.adopt(cluster.secrets)
    restoreInto(scratch, repository, 'backup')
  })
  try {
    const urls = await scratch.start()
    await step('compared', async () => {
      compareCounts(before, await countsOf(urls.ownerUrl), after)
      return verifyCopy(urls)
    })
  } finally {
    scratch.remove()
  }
  for (const { label, at, bytes } of listBackups(cluster)) say(`  ${label}  ${at}  ${(bytes / 1024 / 1024).toFixed(0)} MB`)
  say(`Kept in ${repository}, encrypted. Without ${join(folder, 'secrets.json')} nobody can read it, you neither: keep a copy of that file apart from both.`)
} catch (error) {
  process.stderr.write(`\n${error instanceof Stop ? error.message : error.stack}\n`)
  process.exitCode = 1
}
