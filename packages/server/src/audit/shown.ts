import type { FastifyRequest } from 'fastify'
import type pg from 'pg'
import type { Account } from '../accounts/queries.js'
import { addAudit, idsOf } from './queries.js'

/** Shown again within so long, and nobody new among them, a list tells its reader nothing: a screen that reads itself anew is no further look. */
const KEPT_MS = 15 * 60_000

/** Whom each session was shown by which list a while ago, so that the audit holds looks, and not the clock of a screen. */
export class Shown {
  private readonly last = new Map<string, { readonly ids: ReadonlySet<string>; readonly until: number }>()

  /**
   * Whether a list shows its reader somebody new, or after a while again.
   * @param session whose it is @param list which @param ids whose names it shows
   */
  isNews(session: string, list: string, ids: readonly string[], now = Date.now()): boolean {
    for (const [key, { until }] of this.last) if (until < now) this.last.delete(key)
    const key = `${session} ${list}`
    const before = this.last.get(key)
    if (before && ids.every((id) => before.ids.has(id))) return false
    this.last.set(key, { ids: new Set([...(before?.ids ?? []), ...ids]), until: before?.until ?? now + KEPT_MS })
    return true
  }

  /** Adds to the audit that a list was read, where it tells its reader anything. @param db in the unit of work that read it */
  note(db: pg.PoolClient, { session }: Pick<FastifyRequest, 'session'>, account: Account, list: string, shown: readonly { readonly id: string }[]): void {
    const ids = shown.map(({ id }) => id)
    if (this.isNews(session?.id ?? account.id, list, ids)) addAudit(db, { site: account.site, account: account.id, action: list, about: idsOf(shown) })
  }
}
