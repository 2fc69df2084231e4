// Backups by pgBackRest: whole ones, and every piece of the write-ahead log as it is finished, encrypted, so that any moment since can be restored.
import { spawnSync } from 'node:child_process'
import { chmodSync, chownSync, existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { Stop } from './run.mjs'

const STANZA = 'awl'
/** Whole backups that are kept; the log is kept as far as these need it. */
const KEPT = 4
/** A piece of the log is archived after so long though it is not full: so much is lost with the disk at most. */
const ARCHIVE_S = 60

const configOf = (folder) => join(folder, 'pgbackrest.conf')
const noteOf = (folder) => join(folder, 'backups.json')

/** Where a cluster keeps its backups; undefined where it has none. */
export const repositoryOf = (folder) => (existsSync(noteOf(folder)) ? JSON.parse(readFileSync(noteOf(folder), 'utf8')).repository : undefined)

/** What PostgreSQL is started with besides, where backups are kept. */
export const archiving = ({ folder }) =>
  repositoryOf(folder)
    ? ` -c archive_mode=on -c archive_timeout=${ARCHIVE_S} -c "archive_command=pgbackrest --config=${configOf(folder)} --stanza=${STANZA} archive-push %p"`
    : ''

/** Says that a cluster keeps backups in a folder from its next start on. */
export function keepBackups(cluster, repository) {
  for (const path of [cluster.folder, repository]) {
    cluster.checkFolders(path)
    // What lies in it is closed to others: PostgreSQL and the server have to come through.
    chmodSync(path, path === repository ? 0o700 : 0o711)
    if (cluster.user.uid !== undefined) chownSync(path, cluster.user.uid, cluster.user.gid)
  }
  writeFileSync(noteOf(cluster.folder), JSON.stringify({ repository }))
}

/** The configuration of pgBackRest; it holds the key, so that nobody else reads it. */
function writeConfig(cluster, repository) {
  const { folder, data, secrets, user } = cluster
  const lines = [
    '[global]',
    `repo1-path=${repository}`,
    'repo1-cipher-type=aes-256-cbc',
    `repo1-cipher-pass=${secrets.backup}`,
    `repo1-retention-full=${KEPT}`,
    'start-fast=y',
    'log-level-file=off',
    'log-level-console=warn',
    `lock-path=${join(folder, 'backup-lock')}`,
    `spool-path=${join(folder, 'backup-spool')}`,
    `[${STANZA}]`,
    `pg1-path=${data}`,
    `pg1-port=${secrets.port}`,
    `pg1-socket-path=${folder}`,
    'pg1-user=app',
    'pg1-database=postgres',
    '',
  ]
  writeFileSync(configOf(folder), lines.join('\n'), { mode: 0o600 })
  if (user.uid !== undefined) chownSync(configOf(folder), user.uid, user.gid)
}

/** @throws Stop with what pgBackRest says */
function pgbackrest(cluster, command, args = []) {
  const { folder, secrets, user } = cluster
  const result = spawnSync('pgbackrest', [`--config=${configOf(folder)}`, `--stanza=${STANZA}`, ...args, command], {
    ...user,
    cwd: '/',
    encoding: 'utf8',
    env: { PATH: process.env.PATH, HOME: '/', LC_ALL: 'C.UTF-8', PGPASSWORD: secrets.owner },
  })
  if (result.status !== 0) throw new Stop(`pgbackrest ${command} failed. ${result.stdout ?? ''}${result.stderr ?? result.error?.message ?? ''}`)
  return result.stdout
}

/** Makes the place of the backups ready: called once the cluster runs. @returns where it is */
export function beginBackups(cluster) {
  const repository = repositoryOf(cluster.folder)
  writeConfig(cluster, repository)
  pgbackrest(cluster, 'stanza-create')
  pgbackrest(cluster, 'check')
  return repository
}

/** Takes a whole backup of a cluster that runs. */
export function takeBackup(cluster) {
  writeConfig(cluster, repositoryOf(cluster.folder))
  pgbackrest(cluster, 'backup', ['--type=full'])
}

/** The backups that there are, oldest first: label, when it ended, and how large the database was. */
export function listBackups(cluster) {
  const [stanza] = JSON.parse(pgbackrest(cluster, 'info', ['--output=json']))
  return (stanza?.backup ?? []).map(({ label, timestamp, info }) => ({ label, at: new Date(timestamp.stop * 1000).toISOString(), bytes: info.size }))
}

/**
 * Restores into a cluster that has no data yet.
 * @param repository where the backups lie
 * @param until 'archived' for all that was archived, 'backup' for the end of the last whole backup, or a time (ISO 8601)
 */
export function restoreInto(cluster, repository, until = 'archived') {
  if (existsSync(cluster.data)) throw new Stop(`${cluster.data} is there already: restore into an empty folder.`)
  mkdirSync(cluster.data, { recursive: true, mode: 0o700 })
  if (cluster.user.uid !== undefined) for (const path of [cluster.folder, cluster.data]) chownSync(path, cluster.user.uid, cluster.user.gid)
  writeConfig(cluster, repository)
  const target =
    until === 'archived'
      ? []
      : until === 'backup'
        ? ['--type=immediate', '--target-action=promote']
        : ['--type=time', `--target=${until.replace('T', ' ').replace('Z', '+00')}`, '--target-action=promote']
  try {
    pgbackrest(cluster, 'restore', target)
  } catch (error) {
    // What was made for it goes again, so that another try finds an empty place.
    rmSync(cluster.data, { recursive: true, force: true })
    throw error
  }
  // A restored cluster archives nowhere until it is told where: it never writes into the place that it came from by itself.
  rmSync(noteOf(cluster.folder), { force: true })
}
