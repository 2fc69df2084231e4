import type { DeskPage, ExaminationDetail, ExaminationSummary } from '@kneecap-awl/contract'
import { entriesOfToday, REVIEW_ITEM, subjectOf, type Entry } from '@kneecap-awl/core'
import type { Db } from '../db/connect.js'
import { isoTime } from '../db/isoTime.js'

export type ExaminationRow = ExaminationSummary

/** The day on which the patient is to be seen again, as it was set last. */
const REVIEW = `lateral (select body ->> 'value' as day from entry where examination_id = e.id and about = '${REVIEW_ITEM}' order by at desc, id desc limit 1) r on true`
const COLUMNS = `e.id, e.visit, p.id as "patientId", p.name as "patientName", to_char(p.birth_date, 'YYYY-MM-DD') as "birthDate", e.region, e.sides, e.setting,
  ${isoTime('e.started_at')} as "startedAt", a.name as "startedBy", e.pack_hash as "packHash",
  ${isoTime('e.signed_at')} as "signedAt", b.name as "signedBy",
  ${isoTime('e.discarded_at')} as "discardedAt", e.discard_reason as "discardReason", coalesce(v.floor, g.floor) as floor, coalesce(v.ceiling, g.ceiling) as ceiling,
  coalesce(v.body -> 'priority' ->> 'tier', v.floor, g.priority) as priority, v.kind as "verdictKind", r.day as "reviewOn"`
/** An examination stands with the person, whichever of two records it was begun with. */
const WHOSE = 'join patient whose on whose.id = e.patient_id join patient p on p.id = whose.person'
const FROM = `from examination e ${WHOSE} join account a on a.id = e.started_by left join account b on b.id = e.signed_by
  left join lateral (select floor, ceiling, kind, body from verdict where examination_id = e.id order by at desc limit 1) v on true
  left join entry_count c on c.examination_id = e.id
  left join standing_range g on g.examination_id = e.id and e.signed_at is null and g.sides = e.sides and g.entries = coalesce(c.entries, 0)
  left join ${REVIEW}`

/** Who writes, and for which site. */
export interface Writer {
  readonly id: string
  readonly site: string
}

/** What storing needs of an examination: read from its own row alone. */
export type ExaminationHead = Pick<ExaminationRow, 'id' | 'visit' | 'region' | 'sides' | 'packHash' | 'startedAt' | 'signedAt' | 'discardedAt'>
const HEAD = `select id, visit, region, sides, pack_hash as "packHash", ${isoTime('started_at')} as "startedAt", ${isoTime('signed_at')} as "signedAt",
  ${isoTime('discarded_at')} as "discardedAt" from examination`

/** The head of an examination, whose visit is held until the transaction ends: two signatures, or a signature and a shared entry, cannot cross. */
export async function heldHead(db: Db, id: string): Promise<ExaminationHead | undefined> {
  await lockVisit(db, id)
  // Read in a statement after that of the lock: what the one before it committed is seen.
  return (await db.query<ExaminationHead>(`${HEAD} where id = $1`, [id])).rows[0]
}

/** The other joints of a visit; a discarded one is no part of it. */
export async function otherHeads(db: Db, { id, visit }: ExaminationHead): Promise<ExaminationHead[]> {
  return (await db.query<ExaminationHead>(`${HEAD} where visit = $1 and id <> $2 and discarded_at is null order by id`, [visit, id])).rows
}

export async function examinationById(db: Db, id: string): Promise<ExaminationRow | undefined> {
  const { rows } = await db.query<ExaminationRow>(`select ${COLUMNS} ${FROM} where e.id = $1`, [id])
  return rows[0]
}

export async function examinationsById(db: Db, ids: readonly string[]): Promise<ExaminationRow[]> {
  const { rows } = await db.query<ExaminationRow>(`select ${COLUMNS} ${FROM} where e.id = any($1)`, [ids])
  return rows
}

export async function examinationsOfPatient(db: Db, patient: string): Promise<ExaminationRow[]> {
  const { rows } = await db.query<ExaminationRow>(`select ${COLUMNS} ${FROM} where whose.person = $1 order by e.started_at desc limit 100`, [patient])
  return rows
}

/** The joints of one visit, in the order in which they were begun; a discarded one is no part of it. */
export async function examinationsOfVisit(db: Db, visit: string): Promise<ExaminationRow[]> {
  const { rows } = await db.query<ExaminationRow>(`select ${COLUMNS} ${FROM} where e.visit = $1 and e.discarded_at is null order by e.id`, [visit])
  return rows
}

/** What the desk lists: drafts that are neither signed nor discarded, what was signed, or whom to see again, and nobody has yet. */
export interface DeskList {
  readonly state: 'draft' | 'signed' | 'review'
  /** Part of the patient's name or number; empty for all. */
  readonly search: string
  readonly region: string
  readonly limit: number
  readonly offset: number
}

const DESK: Readonly<Record<DeskList['state'], { readonly where: string; readonly order: string }>> = {
  draft: { where: 'e.signed_at is null and e.discarded_at is null', order: 'e.started_at desc, e.id desc' },
  signed: { where: 'e.signed_at is not null', order: 'e.signed_at desc, e.id desc' },
  review: {
    where: `e.signed_at is not null and r.day is not null and not exists (select 1 from examination later join patient same on same.id = later.patient_id
      where same.person = p.id and later.region = e.region and later.started_at > e.started_at and later.discarded_at is null)`,
    order: 'r.day, e.id',
  },
}
const LISTED = `($1 = '' or p.name ilike '%' || $1 || '%' or p.local_number ilike $1 || '%') and ($2 = '' or e.region = $2)`

export async function listedExaminations(db: Db, { state, search, region, limit, offset }: DeskList): Promise<ExaminationRow[]> {
  const { where, order } = DESK[state]
  const { rows } = await db.query<ExaminationRow>(`select ${COLUMNS} ${FROM} where ${where} and ${LISTED} order by ${order} limit $3 offset $4`, [
    search,
    region,
    limit,
    offset,
  ])
  return rows
}

/** How many a list has in all, and when the first of them was begun, by whom the patient is called. */
export async function countListed(
  db: Db,
  { state, search, region }: Pick<DeskList, 'state' | 'search' | 'region'>,
): Promise<Pick<DeskPage, 'total' | 'oldest'>> {
  const { rows } = await db.query<{ total: number; id: string; patientName: string; startedAt: string }>(
    `select count(*) over ()::int as total, e.id, p.name as "patientName", ${isoTime('e.started_at')} as "startedAt"
     from examination e ${WHOSE} left join ${REVIEW} where ${DESK[state].where} and ${LISTED} order by e.started_at limit 1`,
    [search, region],
  )
  const [first] = rows
  return { total: first?.total ?? 0, oldest: first ? { id: first.id, patientName: first.patientName, startedAt: first.startedAt } : null }
}

/** Unsigned examinations of a patient: a corrected birth date or sex is told to each. */
export async function draftsOfPatient(db: Db, patient: string): Promise<readonly string[]> {
  const { rows } = await db.query<{ id: string }>(
    'select e.id from examination e join patient p on p.id = e.patient_id where p.person = $1 and e.signed_at is null and e.discarded_at is null',
    [patient],
  )
  return rows.map(({ id }) => id)
}

export interface NewExamination {
  readonly id: string
  /** Left out for the first joint of a visit. */
  readonly visit?: string
  readonly site: string
  readonly patient: string
  readonly region: string
  readonly sides: readonly string[]
  readonly setting: string
  readonly startedAt: string
  readonly by: string
  readonly packHash: string
}

export async function addExamination(db: Db, e: NewExamination): Promise<void> {
  await db.query(
    'insert into examination (id, site_id, patient_id, region, sides, setting, started_at, started_by, pack_hash, visit) values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10)',
    [e.id, e.site, e.patient, e.region, e.sides, e.setting, e.startedAt, e.by, e.packHash, e.visit ?? e.id],
  )
}

export async function entriesOf(db: Db, examination: string): Promise<Entry[]> {
  const { rows } = await db.query<{ body: Entry }>('select body from entry where examination_id = $1 order by at, id', [examination])
  return entriesOfToday(rows.map((row) => row.body))
}

export async function earlierEntriesOf(db: Db, examinations: readonly string[]): Promise<ReadonlyMap<string, Entry[]>> {
  const { rows } = await db.query<{ examination: string; entries: Entry[] | null }>(
    `select examination, jsonb_agg(body) filter (where body ->> 'state' = 'examined') as entries from (
       select distinct on (now.id, entry.about, entry.side) now.id as examination, entry.body
       from examination now
       join patient whose on whose.id = now.patient_id join patient same on same.person = whose.person
       join examination past on past.patient_id = same.id and past.region = now.region and past.signed_at < now.started_at
       join entry on entry.examination_id = past.id and entry.received_at < now.started_at
       where now.id = any($1)
       order by now.id, entry.about, entry.side, entry.at desc, entry.id desc
     ) last group by examination`,
    [examinations],
  )
  return new Map(rows.flatMap(({ examination, entries }) => (entries ? [[examination, entries]] : [])))
}

/** Entries of this site that are stored under these ids, each with its examination. */
export async function entriesById(db: Db, ids: readonly string[]): Promise<ReadonlyMap<string, { readonly examination: string; readonly entry: Entry }>> {
  const { rows } = await db.query<{ id: string; examination: string; entry: Entry }>(
    'select id, examination_id as examination, body as entry from entry where id = any($1)',
    [ids],
  )
  return new Map(rows.flatMap(({ id, examination, entry }) => entriesOfToday([entry]).map((one) => [id, { examination, entry: one }] as const)))
}

/** The times, in milliseconds, that entries of the same subjects bear already: "about|side|time". */
export async function timesOf(db: Db, examination: string, about: readonly string[]): Promise<Set<string>> {
  const { rows } = await db.query<{ about: string; side: string; at: Date }>(
    'select about, side, at from entry where examination_id = $1 and about = any($2)',
    [examination, about],
  )
  return new Set(rows.map(({ about: of, side, at }) => `${of}|${side}|${at.getTime()}`))
}

/** Adds entries; one that is already stored is left as it is. @returns the ids of those that were new */
/** @param by the account that sent them */
export async function addEntries(db: Db, by: Writer, examination: string, entries: readonly Entry[]): Promise<ReadonlySet<string>> {
  const { rows } = await db.query<{ id: string }>(
    `insert into entry (id, examination_id, site_id, account_id, about, side, body, at)
     select (e -> 'body' ->> 'id')::uuid, $1, $2, $4, e ->> 'about', e ->> 'side', e -> 'body', (e -> 'body' ->> 'at')::timestamptz from jsonb_array_elements($3::jsonb) e
     on conflict (id) do nothing returning id`,
    [examination, by.site, JSON.stringify(entries.map((body) => ({ body, ...subjectOf(body) }))), by.id],
  )
  return new Set(rows.map((row) => row.id))
}

export async function markSigned(db: Db, examination: string, account: string): Promise<boolean> {
  const { rowCount } = await db.query('update examination set signed_at = now(), signed_by = $2 where id = $1 and signed_at is null', [examination, account])
  return rowCount === 1
}

/** @returns false when it is signed or discarded already */
export async function markDiscarded(db: Db, examination: string, account: string, reason: string): Promise<boolean> {
  const { rowCount } = await db.query(
    'update examination set discarded_at = now(), discarded_by = $2, discard_reason = $3 where id = $1 and signed_at is null and discarded_at is null',
    [examination, account, reason],
  )
  return rowCount === 1
}

/** @returns false when it is signed or discarded already */
export async function changeSides(db: Db, examination: string, sides: readonly string[]): Promise<boolean> {
  const { rowCount } = await db.query('update examination set sides = $2 where id = $1 and signed_at is null and discarded_at is null', [examination, sides])
  return rowCount === 1
}

/** Holds the visit of an examination until the transaction ends, so that two signatures, or a signature and a shared entry, cannot cross. */
export async function lockVisit(db: Db, examination: string): Promise<void> {
  await db.query('select pg_advisory_xact_lock(hashtextextended(visit::text, 0)) from examination where id = $1', [examination])
}

export interface NewVerdict {
  readonly id: string
  readonly site: string
  readonly examination: string
  readonly kind: 'signed' | 'amended'
  readonly floor: string
  readonly ceiling: string
  readonly body: object
  readonly recordHash: string
  readonly reason: string
  readonly by: string
}

export async function addVerdict(db: Db, v: NewVerdict): Promise<void> {
  await db.query(
    'insert into verdict (id, examination_id, site_id, kind, floor, ceiling, body, record_hash, reason, by_account) values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10)',
    [v.id, v.examination, v.site, v.kind, v.floor, v.ceiling, JSON.stringify(v.body), v.recordHash, v.reason, v.by],
  )
}

type LastVerdict = Omit<NonNullable<ExaminationDetail['verdict']>, 'seal'>

export async function lastVerdict(db: Db, examination: string): Promise<LastVerdict | undefined> {
  const { rows } = await db.query<LastVerdict>(
    'select record_hash as "recordHash", floor, ceiling, kind from verdict where examination_id = $1 order by at desc, id desc limit 1',
    [examination],
  )
  return rows[0]
}
