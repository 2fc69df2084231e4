import type pg from 'pg'
import { addAudit } from '../audit/queries.js'
import { asOne } from '../db/connect.js'
import { isoTime } from '../db/isoTime.js'

/** How long records are kept, as the law of the place says it. */
export interface RetentionRule {
  /** Years since the person was last seen, or anything was last recorded. */
  readonly years: number
  /** Of somebody who was a minor then: in any case until this age. */
  readonly minorsUntil: number
}

/** A person whose records are past the rule. */
export interface PastKeeping {
  readonly person: string
  readonly site: string
  readonly localNumber: string
  /** ISO 8601, the last time that anything was recorded. */
  readonly lastAt: string
  readonly examinations: number
  /** A referral that nobody accepted or closed: such a person is kept until it is. */
  readonly hasOpenReferral: boolean
}

const MAJORITY_YEARS = 18

/**
 * Whose records are past the rule, by the database's clock: the last of all that was recorded of them is long enough ago.
 * @param db as owner: every site is read
 * @example await pastKeeping(owner, { years: 10, minorsUntil: 28 }) // [{ localNumber: 'H12', lastAt: '2012-03-04T…', … }]
 */
export async function pastKeeping(db: pg.Pool, { years, minorsUntil }: RetentionRule): Promise<PastKeeping[]> {
  const { rows } = await db.query<PastKeeping>(
    `with latest as (
       select p.person, max(greatest(p.created_at, e.started_at, e.signed_at, e.discarded_at, n.at, v.at, c.at, m.at, r.at)) as at,
         count(distinct e.id)::int as examinations,
         bool_or(exists (select 1 from referral f where f.examination_id = e.id and (select kind from referral_event where referral_id = f.id order by at desc, id desc limit 1)
           not in ('closed', 'accepted'))) as open
       from patient p left join examination e on e.patient_id = p.id
       left join lateral (select max(received_at) as at from entry where examination_id = e.id) n on true
       left join lateral (select max(at) as at from verdict where examination_id = e.id) v on true
       left join lateral (select max(at) as at from correction where patient_id = p.id or examination_id = e.id) c on true
       left join lateral (select max(at) as at from merge where patient_id = p.id or into_patient = p.id) m on true
       left join lateral (select max(v.at) as at from referral f join referral_event v on v.referral_id = f.id where f.examination_id = e.id) r on true
       group by p.person)
     select l.person, p.site_id as site, p.local_number as "localNumber", ${isoTime('l.at')} as "lastAt",
       l.examinations, l.open as "hasOpenReferral"
     from latest l join patient p on p.id = l.person
     where l.at < now() - make_interval(years => $1)
       and (p.birth_date + make_interval(years => $3) <= l.at or p.birth_date + make_interval(years => $2) <= now())
     order by l.at`,
    [years, minorsUntil, MAJORITY_YEARS],
  )
  return rows
}

/** What keeps rows from being deleted in everyday use; it stands again before the transaction ends. */
const KEEPERS = ['entry', 'verdict', 'seal', 'referral', 'referral_event', 'correction', 'merge']
const EXAMINATIONS = 'select id from examination where patient_id in (select id from patient where person = any($1))'
const REFERRALS = `select id from referral where examination_id in (${EXAMINATIONS})`
const PATIENTS = 'select id from patient where person = any($1)'
/** What belongs to others before what it belongs to. */
const DELETIONS = [
  `delete from referral_event where referral_id in (${REFERRALS})`,
  `delete from referral where id in (${REFERRALS})`,
  `delete from seal where verdict_id in (select id from verdict where examination_id in (${EXAMINATIONS}))`,
  ...['verdict', 'standing_range', 'range_job', 'entry_count', 'entry'].map((table) => `delete from ${table} where examination_id in (${EXAMINATIONS})`),
  `delete from correction where patient_id in (${PATIENTS}) or examination_id in (${EXAMINATIONS})`,
  `delete from merge where patient_id in (${PATIENTS}) or into_patient in (${PATIENTS})`,
  `delete from examination where patient_id in (${PATIENTS})`,
  // Records that another stands for go first: they refer to it.
  'delete from patient where person = any($1) and id <> person',
  'delete from patient where person = any($1)',
]

/**
 * Erases everything of people, all or none. The audit keeps who did and read what, by ids that lead nowhere any more, and says that and by which rule
 * they were erased.
 * @param db as owner
 */
export async function erase(db: pg.Pool, people: readonly PastKeeping[], { years, minorsUntil }: RetentionRule): Promise<void> {
  await asOne(db, async (owner) => {
    // Who waits for the tables waits no longer than a request does.
    await owner.query("set local lock_timeout = '5s'")
    for (const table of KEEPERS) await owner.query(`alter table ${table} disable trigger append_only`)
    const ids = people.map(({ person }) => person)
    for (const deletion of DELETIONS) await owner.query(deletion, [ids])
    for (const table of KEEPERS) await owner.query(`alter table ${table} enable trigger append_only`)
    for (const { person, site } of people)
      addAudit(owner, { site, account: null, action: 'patient erased by rule', about: `${person} after ${years} years, minors until ${minorsUntil}` })
  })
}
