import { join } from 'node:path'
import { pathToFileURL } from 'node:url'

export const ROOT = join(import.meta.dirname, '../../..')

export interface Cluster {
  start(): Promise<{ ownerUrl: string; appUrl: string; auditKey: string; anchors: string }>
  stop(): void
  remove(): void
  pid(): number | undefined
}

/** A PostgreSQL of the test's own, on loopback, gone afterwards. */
export async function newCluster(name: string): Promise<Cluster> {
  const { Cluster } = (await import(pathToFileURL(join(ROOT, 'scripts/lib/postgres.mjs')).href)) as { Cluster: new (folder: string) => Cluster }
  const cluster = new Cluster(join(ROOT, '.test', `${name}-${process.pid}`))
  cluster.remove()
  return cluster
}
