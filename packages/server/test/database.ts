import { join } from 'node:path'
import { pathToFileURL } from 'node:url'

export const ROOT = join(import.meta.dirname, '../../..')

export interface Cluster {
  readonly folder: string
  readonly data: string
  start(): Promise<{ ownerUrl: string; appUrl: string; auditKey: string; anchors: string }>
  adopt(secrets: object): Promise<void>
  stop(): void
  remove(): void
  pid(): number | undefined
}

/** The part of the start command that takes backups. */
interface Backups {
  readonly keepBackups: (cluster: Cluster, repository: string) => void
  readonly beginBackups: (cluster: Cluster) => string
  readonly takeBackup: (cluster: Cluster) => void
  readonly restoreInto: (cluster: Cluster, repository: string, until?: string) => void
}
export const backups = async (): Promise<Backups> => (await import(pathToFileURL(join(ROOT, 'scripts/lib/backups.mjs')).href)) as Backups

/** A PostgreSQL of the test's own, on loopback, gone afterwards. */
export async function newCluster(name: string): Promise<Cluster> {
  const { Cluster } = (await import(pathToFileURL(join(ROOT, 'scripts/lib/postgres.mjs')).href)) as { Cluster: new (folder: string) => Cluster }
  const cluster = new Cluster(join(ROOT, '.test', `${name}-${process.pid}`))
  cluster.remove()
  return cluster
}
