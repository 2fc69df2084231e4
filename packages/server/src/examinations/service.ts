import { createHash } from 'node:crypto'
import {
  comparedItems,
  judgement,
  priorityOf,
  publicVerdict,
  rangeToAccept,
  shownVerdict,
  type Entry,
  type Examination,
  type Judgement,
  type Pack,
  type ShownVerdict,
} from '@kneecap-awl/core'
import type { Db } from '../db/connect.js'
import { uuid7 } from '../db/uuid7.js'
import { HttpProblem, notFound } from '../http/problem.js'
import type { PackShelf } from '../packs/service.js'
import {
  addVerdict,
  earlierEntriesOf,
  entriesOf,
  entriesOfAll,
  examinationById,
  lockVisit,
  markSigned,
  recentExaminations,
  type ExaminationRow,
} from './queries.js'

export interface Loaded {
  readonly row: ExaminationRow
  readonly pack: Pack
  readonly examination: Examination
}

/** An examination with its entries and the pack that it is judged with. @throws HttpProblem 404 */
export async function loadExamination(db: Db, shelf: PackShelf, id: string): Promise<Loaded> {
  const row = await examinationById(db, id)
  if (!row) throw notFound('examination')
  const pack = await shelf.byHash(db, row.packHash)
  if (!pack) throw notFound('content pack')
  return { row, pack, examination: examinationOf(row, pack, await entriesOf(db, id), (await earlierEntriesOf(db, [id])).get(id)) }
}

/** @param earlier what was found at this joint before; of it only what some rule compares with is kept */
function examinationOf(row: ExaminationRow, pack: Pack, entries: readonly Entry[], earlier: readonly Entry[] = []): Examination {
  const compared = earlier.length > 0 ? comparedItems(pack, row.region) : undefined
  const previous = earlier.filter((entry) => compared?.has(entry.item))
  return {
    complaint: { region: row.region, sides: row.sides },
    asOf: row.startedAt,
    setting: row.setting,
    entries,
    ...(previous.length > 0 ? { previous } : {}),
  }
}

/** Today's examinations. */
export async function deskExaminations(db: Db, shelf: PackShelf): Promise<ExaminationRow[]> {
  return withRange(db, shelf, await recentExaminations(db))
}

/** Each examination with its range; one that is not signed stands at what its findings so far give. */
export async function withRange(db: Db, shelf: PackShelf, rows: readonly ExaminationRow[]): Promise<ExaminationRow[]> {
  const open = rows.filter((row) => row.floor === null).map((row) => row.id)
  const entries = await entriesOfAll(db, open)
  const earlier = await earlierEntriesOf(db, open)
  return Promise.all(
    rows.map(async (row) => {
      const pack = row.floor === null ? await shelf.byHash(db, row.packHash) : undefined
      if (!pack) return row
      const judged = judgement(pack, examinationOf(row, pack, entries.get(row.id) ?? [], earlier.get(row.id)))
      return { ...row, floor: judged.verdict.floor, ceiling: judged.verdict.ceiling, priority: priorityOf(judged).tier }
    }),
  )
}

/**
 * Signs: judges again here, compares with what was shown, seals record and verdict. A difference is refused and told.
 * @throws HttpProblem 409 `already-signed`, `range-open` or `verdict-differs`
 */
export async function signExamination(
  db: Db,
  shelf: PackShelf,
  id: string,
  shown: ShownVerdict,
  by: { readonly id: string; readonly site: string },
): Promise<Loaded> {
  await lockVisit(db, id)
  const loaded = await loadExamination(db, shelf, id)
  if (loaded.row.signedAt) throw new HttpProblem(409, 'already-signed', 'This examination is already signed. Change it by an amendment with a reason.')
  const judged = judgement(loaded.pack, loaded.examination)
  const { floor, ceiling, priority, flags } = shownVerdict(judged)
  if (floor !== shown.floor || ceiling !== shown.ceiling || priority !== shown.priority || [...shown.flags].sort().join() !== flags.join()) {
    throw new HttpProblem(409, 'verdict-differs', 'The server reaches another verdict than the one shown. Load the examination again and look.', {
      floor,
      ceiling,
      priority,
      flags,
    })
  }
  const open = rangeToAccept(judged)
  if (open)
    throw new HttpProblem(409, 'range-open', 'It could still be more urgent. Say why it is left open, and the plan, before you sign.', { ceiling: open })
  if (!(await markSigned(db, id, by.id))) throw new HttpProblem(409, 'already-signed', 'This examination was signed a moment ago.')
  await storeVerdict(db, loaded, judged, 'signed', '', by)
  return loaded
}

/** After an amendment the verdict is reached and sealed again; the earlier one stays. */
export async function storeVerdict(
  db: Db,
  loaded: Loaded,
  judged: Judgement,
  kind: 'signed' | 'amended',
  reason: string,
  by: { readonly id: string; readonly site: string },
): Promise<void> {
  await addVerdict(db, {
    id: uuid7(),
    site: by.site,
    examination: loaded.row.id,
    kind,
    floor: judged.verdict.floor,
    ceiling: judged.verdict.ceiling,
    body: publicVerdict(loaded.pack, loaded.examination, judged),
    recordHash: recordHash([...loaded.examination.entries, ...(loaded.examination.previous ?? [])], loaded.row.packHash),
    reason,
    by: by.id,
  })
}

/** SHA-256 over the entries, with those it was compared with, in order of id and the pack's hash: the same record always seals alike. */
export function recordHash(entries: readonly Entry[], packHash: string): string {
  const sorted = [...entries].sort((a, b) => (a.id < b.id ? -1 : 1))
  return createHash('sha256')
    .update(JSON.stringify(sorted.map(canonical)))
    .update(packHash)
    .digest('hex')
}

/** The same keys in the same order, however they were sent or stored. */
function canonical(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(canonical)
  if (value === null || typeof value !== 'object') return value
  return Object.fromEntries(
    Object.entries(value)
      .sort(([a], [b]) => (a < b ? -1 : 1))
      .map(([key, v]) => [key, canonical(v)]),
  )
}
