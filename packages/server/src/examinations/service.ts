import {
  comparedItems,
  inTodaysNames,
  isReason,
  LEAST_WORDS,
  plainText,
  type Entry,
  type Examination,
  type Pack,
  type ShownVerdict,
  isFinding,
} from '@kneecap-awl/core'
import type { DeskPage } from '@kneecap-awl/contract'
import type { Db } from '../db/connect.js'
import { v7 as uuid7 } from 'uuid'
import { badInput, HttpProblem, notFound } from '../http/problem.js'
import type { Judged } from '../judging/judge.js'
import type { PackStore } from '../packs/service.js'
import { sealVerdict } from './seals.js'
import { addCorrection } from '../patients/queries.js'
import {
  addVerdict,
  changeSides,
  earlierEntriesOf,
  entriesOf,
  examinationById,
  lockVisit,
  markDiscarded,
  markSigned,
  countListed,
  listedExaminations,
  type DeskList,
  heldHead,
  type ExaminationHead,
  type ExaminationRow,
} from './queries.js'

export interface Loaded {
  readonly row: ExaminationRow
  readonly pack: Pack
  readonly examination: Examination
}

/** The head of an examination, its visit held, and the pack that it is judged with. @throws HttpProblem 404 */
export async function loadHead(db: Db, packStore: PackStore, id: string): Promise<{ readonly head: ExaminationHead; readonly pack: Pack }> {
  const head = await heldHead(db, id)
  if (!head) throw notFound('examination')
  return { head, pack: await packOf(db, packStore, head) }
}

async function packOf(db: Db, packStore: PackStore, { packHash }: Pick<ExaminationRow, 'packHash'>): Promise<Pack> {
  const pack = await packStore.byHash(db, packHash)
  if (!pack) throw notFound('content pack')
  return pack
}

/** An examination with its entries and the pack that it is judged with. @throws HttpProblem 404 */
export async function loadExamination(db: Db, packStore: PackStore, id: string): Promise<Loaded> {
  const row = await examinationById(db, id)
  if (!row) throw notFound('examination')
  const pack = await packOf(db, packStore, row)
  return { row, pack, examination: examinationOf(row, pack, await entriesOf(db, id), (await earlierEntriesOf(db, [id])).get(id)) }
}

/** @param earlier what was found at this joint before; of it only what some rule compares with is kept */
function examinationOf(row: ExaminationRow, pack: Pack, entries: readonly Entry[], earlier: readonly Entry[] = []): Examination {
  const compared = earlier.length > 0 ? comparedItems(pack, row.region) : undefined
  const previous = inTodaysNames(pack, earlier).filter((entry) => isFinding(entry) && compared?.has(entry.item))
  return {
    complaint: { region: row.region, sides: row.sides },
    asOf: row.startedAt,
    setting: row.setting,
    entries,
    ...(previous.length > 0 ? { previous } : {}),
  }
}

/** One page of a list of the desk, with how many there are in all. */
export async function deskPage(db: Db, list: DeskList): Promise<DeskPage> {
  const { total, oldest } = await countListed(db, list)
  return { total, oldest, examinations: await listedExaminations(db, list) }
}

/**
 * Signs: judges again here, compares with what was shown, seals record and verdict. A difference is refused and told.
 * @throws HttpProblem 409 `already-signed`, `discarded`, `record-differs`, `verdict-differs` or `range-open`
 */
export async function signExamination(
  db: Db,
  packStore: PackStore,
  id: string,
  shown: ShownVerdict,
  by: { readonly id: string; readonly site: string },
): Promise<Loaded> {
  await lockVisit(db, id)
  const loaded = await loadExamination(db, packStore, id)
  if (loaded.row.discardedAt) throw new HttpProblem(409, 'discarded', 'This draft was discarded. It cannot be signed.')
  if (loaded.row.signedAt) throw new HttpProblem(409, 'already-signed', 'This examination is already signed. Change it by an amendment with a reason.')
  const judged = await packStore.judge.verdict(loaded.pack, loaded.examination)
  const { record, floor, ceiling, priority, flags } = judged.shown
  if (record !== shown.record)
    throw new HttpProblem(409, 'record-differs', 'The record is not the one that was shown: something was recorded since. Look at it again before you sign.', {
      record,
      entries: loaded.examination.entries.length,
    })
  if (floor !== shown.floor || ceiling !== shown.ceiling || priority !== shown.priority || [...shown.flags].sort().join() !== flags.join()) {
    throw new HttpProblem(409, 'verdict-differs', 'The server reaches another verdict than the one shown. Load the examination again and look.', {
      floor,
      ceiling,
      priority,
      flags,
    })
  }
  if (judged.toAccept)
    throw new HttpProblem(409, 'range-open', 'It could still be more urgent. Say why it is left open, and the plan, before you sign.', {
      ceiling: judged.toAccept,
    })
  if (!(await markSigned(db, id, by.id))) throw new HttpProblem(409, 'already-signed', 'This examination was signed a moment ago.')
  await storeVerdict(db, loaded, judged, 'signed', '', by)
  return loaded
}

/** After an amendment the verdict is reached and sealed again; the earlier one stays. */
export async function storeVerdict(
  db: Db,
  loaded: Loaded,
  judged: Judged,
  kind: 'signed' | 'amended',
  reason: string,
  by: { readonly id: string; readonly site: string },
): Promise<void> {
  const id = uuid7()
  await addVerdict(db, {
    id,
    site: by.site,
    examination: loaded.row.id,
    kind,
    floor: judged.shown.floor,
    ceiling: judged.shown.ceiling,
    body: judged.body,
    recordHash: judged.shown.record,
    reason,
    by: by.id,
  })
  await sealVerdict(db, id, by.site)
}

/**
 * Puts a draft away: nothing of it is deleted, it stands with the patient, and it takes no entry any more.
 * @throws HttpProblem 400 without a reason, 409 when it is signed or discarded already
 */
export async function discardDraft(db: Db, id: string, reason: string, by: { readonly id: string }): Promise<void> {
  if (!isReason(reason)) throw badInput([{ path: '/reason', reason: 'says no reason', expected: LEAST_WORDS }])
  await lockVisit(db, id)
  if (!(await examinationById(db, id))) throw notFound('examination')
  if (!(await markDiscarded(db, id, by.id, plainText(reason))))
    throw new HttpProblem(409, 'already-signed', 'It is signed or discarded already, so it cannot be discarded.')
}

/**
 * Corrects which side hurts, before it is signed. The findings stay where they were recorded; what it was stays in the trace.
 * @throws HttpProblem 400 when the sides do not suit the joint or nothing changes, 409 when it is signed or discarded
 */
export async function correctSides(
  db: Db,
  packStore: PackStore,
  id: string,
  { sides, reason }: { readonly sides: readonly string[]; readonly reason: string },
  by: { readonly id: string; readonly site: string },
): Promise<void> {
  if (!isReason(reason)) throw badInput([{ path: '/reason', reason: 'says no reason', expected: LEAST_WORDS }])
  await lockVisit(db, id)
  const { row, pack } = await loadExamination(db, packStore, id)
  checkSides(pack, { region: row.region, sides })
  if (row.sides.join() === sides.join()) throw badInput([{ path: '/sides', reason: 'are what they were', expected: 'another side' }])
  if (!(await changeSides(db, id, sides))) throw new HttpProblem(409, 'already-signed', 'It is signed or discarded already: the side stays as it is.')
  await addCorrection(db, {
    id: uuid7(),
    site: by.site,
    examination: id,
    field: 'side',
    was: row.sides.join(', '),
    becomes: sides.join(', '),
    reason: plainText(reason),
    by: by.id,
  })
}

/** @throws HttpProblem 400 when the pack has no such region, or the sides do not suit it */
export function checkSides(pack: Pack, { region: id, sides }: { readonly region: string; readonly sides: readonly string[] }): void {
  const region = pack.regions.find((one) => one.id === id)
  if (!region) throw badInput([{ path: '/region', reason: `"${id}" cannot be examined yet`, expected: pack.regions.map((one) => one.id).join(', ') }])
  if (sides.includes('none') === region.side)
    throw badInput([{ path: '/sides', reason: `do not suit a ${region.name.toLowerCase()}`, expected: region.side ? 'right, left or both' : 'none' }])
}
