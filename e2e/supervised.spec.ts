import { spawnSync } from 'node:child_process'
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { expect, test } from '@playwright/test'
import { start } from './support/startCommand'

const DATA = join(import.meta.dirname, '../.test/supervised')
/** The number of a process that a file names; 0 while it is not there, or just being written. */
const pidIn = (file: string): number => {
  try {
    return Number(
      /"server":(\d+)|^(\d+)$/m
        .exec(readFileSync(join(DATA, file), 'utf8'))
        ?.slice(1)
        .find(Boolean) ?? 0,
    )
  } catch {
    return 0
  }
}
const serverNow = (): number => pidIn('running.json')
const databaseNow = (): number => pidIn('pg/postmaster.pid')
const isWell = (url: string): Promise<boolean> =>
  fetch(`${url}/api/health`).then(
    ({ ok }) => ok,
    () => false,
  )

test('whatever dies is started again, what a killed launcher left behind is taken over, and a server that does not stay up is told', async () => {
  test.setTimeout(180_000)
  const app = await start('supervised', ['--fresh'])
  const server = serverNow()
  process.kill(server, 'SIGKILL')
  await expect.poll(async () => ![0, server].includes(serverNow()) && (await isWell(app.url)), { timeout: 20_000 }).toBe(true)
  const database = databaseNow()
  process.kill(database, 'SIGKILL')
  await expect.poll(async () => ![0, database].includes(databaseNow()) && (await isWell(app.url)), { timeout: 30_000 }).toBe(true)
  expect(app.said()).toContain('The database ended. It is started again.')

  const besides = spawnSync(process.execPath, [join(import.meta.dirname, '../scripts/start.mjs')], {
    encoding: 'utf8',
    env: { ...process.env, AWL_DATA: DATA },
  })
  expect([besides.status, besides.stdout]).toEqual([1, expect.stringContaining('It runs already')])

  const orphan = serverNow()
  app.process.kill('SIGKILL')
  const again = await start('supervised')
  expect(again.said()).toContain(`the server of a run that was killed (process ${orphan}) is ended`)
  expect(await isWell(again.url)).toBe(true)

  const ended = new Promise<number | null>((resolve) => again.process.once('exit', resolve))
  for (let kills = 0, last = 0; kills < 5; kills++) {
    await expect.poll(async () => ![0, last].includes(serverNow()) && (await isWell(again.url)), { timeout: 20_000 }).toBe(true)
    last = serverNow()
    process.kill(last, 'SIGKILL')
  }
  expect(await ended).toBe(1)
  expect(again.said()).toContain('5 times within five minutes and is not started again')
})
