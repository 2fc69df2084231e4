import type { FastifyBaseLogger } from 'fastify'
import type pg from 'pg'
import { asSite, type Db } from '../db/connect.js'
import type { PackStore } from '../packs/service.js'
import { examinationsById, type ExaminationRow } from './queries.js'
import { loadExamination } from './service.js'

/** A list waits no longer for ranges that are being worked out; without one a row says that it is. */
const PATIENCE_MS = 1500

/**
 * The ranges at which unsigned examinations stand, worked out in the threads that judge and kept: a list reads them and judges nothing.
 * A range that is missing, or of another number of entries, is worked out when it is asked for.
 */
export class Ranges {
  private readonly underWay = new Map<string, Promise<void>>()

  constructor(
    private readonly pool: pg.Pool,
    private readonly packStore: PackStore,
    private readonly log: FastifyBaseLogger,
  ) {}

  /** Works out anew where examinations stand, after something was added to them. It keeps nobody waiting. */
  refresh(site: string, ids: readonly string[]): Promise<void> {
    const fresh = ids.map((id) => {
      const before = this.underWay.get(id)
      // What is under way may have read the record before the last entry: it is worked out once more behind it.
      const work = (before ?? Promise.resolve()).then(() => this.workOut(site, id))
      const kept = work.catch((error: unknown) => this.log.warn({ err: error, examination: id }, 'a range was not worked out'))
      this.underWay.set(id, kept)
      return kept.finally(() => {
        if (this.underWay.get(id) === kept) this.underWay.delete(id)
      })
    })
    return Promise.all(fresh).then(() => undefined)
  }

  /** The same rows, each with its range as far as it is known within a moment. Called outside of a unit of work. */
  async ranged(site: string, rows: readonly ExaminationRow[]): Promise<ExaminationRow[]> {
    const missing = rows.filter(({ floor }) => floor === null).map(({ id }) => id)
    if (missing.length === 0) return [...rows]
    await Promise.race([
      Promise.all(missing.map((id) => this.underWay.get(id) ?? this.refresh(site, [id]))),
      new Promise((wake) => setTimeout(wake, PATIENCE_MS)),
    ])
    const found = new Map((await asSite(this.pool, site, (db) => examinationsById(db, missing))).map((row) => [row.id, row]))
    return rows.map((row) => found.get(row.id) ?? row)
  }

  /** Called as the server stops: nothing is left half done. */
  async settled(): Promise<void> {
    await Promise.all(this.underWay.values())
  }

  private async workOut(site: string, id: string): Promise<void> {
    const { row, pack, examination } = await asSite(this.pool, site, (db) => loadExamination(db, this.packStore, id))
    if (row.signedAt) return
    const { shown } = await this.packStore.judge.verdict(pack, examination)
    await asSite(this.pool, site, (db) => keepRange(db, { id, site, entries: examination.entries.length, sides: row.sides, ...shown }))
  }
}

interface KeptRange {
  readonly id: string
  readonly site: string
  readonly entries: number
  readonly sides: readonly string[]
  readonly floor: string
  readonly ceiling: string
  readonly priority: string
}

/** Of two servers that worked it out at once, the one that read more stands. */
async function keepRange(db: Db, { id, site, entries, sides, floor, ceiling, priority }: KeptRange): Promise<void> {
  await db.query(
    `insert into standing_range as s (examination_id, site_id, entries, sides, floor, ceiling, priority) values ($1, $2, $3, $4, $5, $6, $7)
     on conflict (examination_id) do update set entries = excluded.entries, sides = excluded.sides, floor = excluded.floor, ceiling = excluded.ceiling,
       priority = excluded.priority where s.entries <= excluded.entries`,
    [id, site, entries, sides, floor, ceiling, priority],
  )
}
