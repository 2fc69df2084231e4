import type { FastifyBaseLogger } from 'fastify'
import type pg from 'pg'
import { asSite, isLostDatabase, type Db } from '../db/connect.js'
import type { PackStore } from '../packs/service.js'
import { examinationsById, type ExaminationRow } from './queries.js'
import { loadExamination } from './service.js'

/** A list waits no longer for ranges that are being worked out; without one a row says that it is. */
const PATIENCE_MS = 1500
/** How often the queue is looked at, and how many are taken at once: the threads that judge have others to serve. */
const LOOK_MS = 1000
const AT_ONCE = 2

interface Job {
  readonly examination: string
  readonly site: string
  /** As the database writes it, to the microsecond. */
  readonly due: string
}

/**
 * The ranges at which unsigned examinations stand, worked out in the threads that judge and kept: a list reads them and judges nothing.
 * What is recorded puts its examination into a queue of the database, due once nothing more comes for a moment; any server takes from it.
 * A range that is missing, or of another number of entries, is worked out when it is asked for.
 */
export class Ranges {
  private readonly underWay = new Map<string, Promise<boolean>>()
  private look: NodeJS.Timeout | undefined
  private working = Promise.resolve()

  constructor(
    private readonly pool: pg.Pool,
    private readonly packStore: PackStore,
    private readonly log: FastifyBaseLogger,
  ) {}

  /** Begins to take from the queue. */
  start(): void {
    this.look = setTimeout(() => {
      this.working = this.work().finally(() => this.look && this.start())
    }, LOOK_MS)
  }

  private async work(): Promise<void> {
    try {
      for (let taken = AT_ONCE; taken === AT_ONCE && this.look !== undefined;) {
        const { rows } = await this.pool.query<Job>('select * from claim_range_jobs($1)', [AT_ONCE])
        await Promise.all(rows.map((job) => this.workOff(job)))
        taken = rows.length
      }
    } catch (error) {
      if (!isLostDatabase(error)) this.log.warn({ err: error }, 'the queue of ranges was not read')
    }
  }

  private async workOff({ site, examination, due }: Job): Promise<void> {
    // One that failed is left to whoever claims it next.
    if (!(await this.refresh(site, examination))) return
    await this.pool.query('select finish_range_job($1, $2)', [examination, due])
  }

  /**
   * Works out anew where an examination stands. What is under way may have read it before the last entry, so it is worked out once more behind it.
   * @returns whether it was
   */
  private refresh(site: string, id: string): Promise<boolean> {
    const kept = (this.underWay.get(id) ?? Promise.resolve(true))
      .then(() => this.workOut(site, id))
      .then(() => true)
      .catch((error: unknown) => {
        this.log.warn({ err: error, examination: id }, 'a range was not worked out')
        return false
      })
      .finally(() => {
        if (this.underWay.get(id) === kept) this.underWay.delete(id)
      })
    this.underWay.set(id, kept)
    return kept
  }

  /** The same rows, each with its range as far as it is known within a moment. Called outside of a unit of work. */
  async ranged(site: string, rows: readonly ExaminationRow[]): Promise<ExaminationRow[]> {
    const missing = rows.filter(({ floor }) => floor === null).map(({ id }) => id)
    if (missing.length === 0) return [...rows]
    await Promise.race([
      Promise.all(missing.map((id) => this.underWay.get(id) ?? this.refresh(site, id))),
      new Promise((wake) => setTimeout(wake, PATIENCE_MS)),
    ])
    const found = new Map((await asSite(this.pool, site, (db) => examinationsById(db, missing))).map((row) => [row.id, row]))
    return rows.map((row) => found.get(row.id) ?? row)
  }

  /** Called as the server stops: nothing is left half done. */
  async settled(): Promise<void> {
    clearTimeout(this.look)
    this.look = undefined
    await this.working
    await Promise.all(this.underWay.values())
  }

  private async workOut(site: string, id: string): Promise<void> {
    const { row, pack, examination } = await asSite(this.pool, site, (db) => loadExamination(db, this.packStore, id))
    if (row.signedAt) return
    const standing = await this.packStore.judge.standing(pack, examination)
    await asSite(this.pool, site, (db) => keepRange(db, { id, site, entries: examination.entries.length, sides: row.sides, ...standing }))
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

/** Keeps where an examination stands. Of two servers that worked it out at once, the one that read more stands. */
export async function keepRange(db: Db, { id, site, entries, sides, floor, ceiling, priority }: KeptRange): Promise<void> {
  await db.query(
    `insert into standing_range as s (examination_id, site_id, entries, sides, floor, ceiling, priority) values ($1, $2, $3, $4, $5, $6, $7)
     on conflict (examination_id) do update set entries = excluded.entries, sides = excluded.sides, floor = excluded.floor, ceiling = excluded.ceiling,
       priority = excluded.priority where s.entries <= excluded.entries`,
    [id, site, entries, sides, floor, ceiling, priority],
  )
}

/** Has a range worked out anew, by whichever server takes it. */
export async function addRangeJob(db: Db, examination: string): Promise<void> {
  await db.query('select add_range_job($1)', [examination])
}
