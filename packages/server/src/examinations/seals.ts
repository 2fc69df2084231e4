import type { AlteredRow } from '@kneecap-awl/contract'
import { canonicalJson } from '@kneecap-awl/core'
import { sealerOf } from '../audit/queries.js'
import type { Sealer } from '../audit/seal.js'
import type { Db } from '../db/connect.js'

/** Whether a signed record is what was sealed; `unsealed` for one that was signed before there were seals. */
export type SealState = 'whole' | 'altered' | 'unsealed'

/** What is sealed, in its parts. */
interface Content {
  readonly verdict: { readonly id: string }
  readonly entries: readonly { readonly id: string }[] | null
}
/** The seal of each part by itself: which of them was altered can be told. */
interface Parts {
  readonly verdict: string
  readonly examination: string
  /** By the id of the entry. */
  readonly entries: Readonly<Record<string, string>>
}

/** All that is sealed, read as it is stored: entries by id, so that one more or one less is another content. */
const CONTENT = `jsonb_build_object('verdict', to_jsonb(v), 'patient', e.patient_id, 'region', e.region, 'sides', e.sides, 'setting', e.setting,
  'startedAt', e.started_at, 'startedBy', e.started_by, 'pack', e.pack_hash, 'signedAt', e.signed_at, 'signedBy', e.signed_by,
  'entries', (select jsonb_agg(to_jsonb(x) order by x.id) from entry x where x.examination_id = e.id and x.id = any(%)))`

/** Seals the verdict that was just stored, with every entry that stands now. */
export async function sealVerdict(db: Db, verdict: string, site: string): Promise<void> {
  const { rows } = await db.query<{ entries: string[]; content: Content }>(
    `select n.entries, ${CONTENT.replace('%', 'n.entries')} as content
     from verdict v join examination e on e.id = v.examination_id
     cross join lateral (select coalesce(array_agg(x.id order by x.id), '{}') as entries from entry x where x.examination_id = e.id) n
     where v.id = $1`,
    [verdict],
  )
  const [row] = rows
  if (!row) throw new Error('a verdict that is not there is sealed')
  await db.query('insert into seal (verdict_id, site_id, entries, hash, parts) values ($1, $2, $3, $4, $5)', [
    verdict,
    site,
    row.entries,
    hashOf(sealerOf(db), row.content),
    JSON.stringify(partsOf(sealerOf(db), row.content)),
  ])
}

const hashOf = (sealer: Sealer, content: object): string => sealer.hashOfText(canonicalJson(content))
const partsOf = (sealer: Sealer, { verdict, entries, ...examination }: Content): Parts => ({
  verdict: hashOf(sealer, verdict),
  examination: hashOf(sealer, examination),
  entries: Object.fromEntries((entries ?? []).map((entry) => [entry.id, hashOf(sealer, entry)])),
})

interface Sealed {
  readonly examination: string
  readonly content: Content
  readonly hash: string | null
  /** Null for a seal of before. */
  readonly parts: Parts | null
  /** True for the verdict that stands. */
  readonly isLast: boolean
  /** Entries that are there and were not sealed with it. */
  readonly added: readonly string[]
}

const SEALED = `select e.id as examination, ${CONTENT.replace('%', 's.entries')} as content, s.hash, s.parts,
    not exists (select 1 from verdict later where later.examination_id = e.id and (later.at, later.id) > (v.at, v.id)) as "isLast",
    (select coalesce(array_agg(x.id), '{}') from entry x where x.examination_id = e.id and s.entries is not null and x.id <> all(s.entries)) as added
  from verdict v join examination e on e.id = v.examination_id left join seal s on s.verdict_id = v.id`

/** Whether what stands of a signed examination is what was sealed, and which rows are not. */
export async function sealState(db: Db, examination: string): Promise<{ readonly seal: SealState; readonly altered: AlteredRow[] }> {
  const { rows } = await db.query<Sealed>(`${SEALED} where e.id = $1 order by v.at, v.id`, [examination])
  const sealer = sealerOf(db)
  const states = rows.map((row) => stateOf(row, sealer))
  const altered = new Map(rows.flatMap((row) => alteredOf(row, sealer)).map((one) => [`${one.what} ${one.id}`, one]))
  return { seal: states.includes('altered') ? 'altered' : states.includes('unsealed') ? 'unsealed' : 'whole', altered: [...altered.values()] }
}

function alteredOf({ examination, content, parts, isLast, added }: Sealed, sealer: Sealer): AlteredRow[] {
  if (parts === null) return []
  const now = partsOf(sealer, content)
  const changed = (what: AlteredRow['what'], id: string, is: boolean): AlteredRow[] => (is ? [{ what, how: 'altered', id }] : [])
  return [
    ...changed('verdict', content.verdict.id, now.verdict !== parts.verdict),
    ...changed('examination', examination, now.examination !== parts.examination),
    ...Object.entries(parts.entries).flatMap(([id, hash]): AlteredRow[] =>
      id in now.entries ? changed('entry', id, now.entries[id] !== hash) : [{ what: 'entry', how: 'missing', id }],
    ),
    ...(isLast ? added : []).map((id): AlteredRow => ({ what: 'entry', how: 'added', id })),
  ]
}

function stateOf({ content, hash, isLast, added }: Sealed, sealer: Sealer): SealState {
  if (hash === null) return 'unsealed'
  return hash !== hashOf(sealer, content) || (isLast && added.length > 0) ? 'altered' : 'whole'
}

/** What verification of every seal found. */
export interface SealReport {
  readonly whole: number
  readonly unsealed: number
  /** Ids of signed examinations that are not what was sealed. */
  readonly altered: readonly string[]
  /** Which rows of them, as far as their seals name them. */
  readonly rows: readonly AlteredRow[]
}

/** Recomputes every seal. @param db as owner: the records of every site are read */
export async function verifySeals(db: Db, sealer: Sealer): Promise<SealReport> {
  const { rows } = await db.query<Sealed>(`${SEALED} order by e.id, v.at, v.id`)
  const states = rows.map((row) => ({ examination: row.examination, state: stateOf(row, sealer) }))
  const count = (state: SealState): number => states.filter((one) => one.state === state).length
  const unsigned = await db.query<{ id: string }>(
    'select id from examination e where signed_at is not null and not exists (select 1 from verdict where examination_id = e.id)',
  )
  const altered = [...states.filter(({ state }) => state === 'altered').map(({ examination }) => examination), ...unsigned.rows.map(({ id }) => id)]
  return { whole: count('whole'), unsealed: count('unsealed'), altered: [...new Set(altered)], rows: rows.flatMap((row) => alteredOf(row, sealer)) }
}
