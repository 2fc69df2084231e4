import type { Referral } from '@kneecap-awl/contract'
import type { Db } from '../db/connect.js'
import { isoTime } from '../db/isoTime.js'

const SELECT = `select r.id, r.examination_id as "examinationId", p.id as "patientId", p.name as "patientName",
  coalesce(ch.letter ->> 'destination', r.destination) as destination, coalesce(ch.tier, r.tier) as tier,
  jsonb_path_query_first(coalesce(ch.letter, r.letter), '$.paragraphs[*] ? (@.heading == "Added").text') #>> '{}' as added,
  ${isoTime('r.flagged_at')} as "flaggedAt",
  ${isoTime('(case when ch.tier is null then r.due_at else ch.due_at end)')} as "dueAt", ev.kind as "lastEvent", ${isoTime('ev.at')} as "lastEventAt", ev.note as "lastNote"
  from referral r join patient whose on whose.id = r.patient_id join patient p on p.id = whose.person
  join lateral (select kind, note, at from referral_event where referral_id = r.id order by at desc, id desc limit 1) ev on true
  left join lateral (select tier, due_at, letter from referral_event where referral_id = r.id and kind = 'changed' order by at desc, id desc limit 1) ch on true`

/** Referrals that nobody has accepted or closed, the one that is due first on top. */
export async function openReferrals(db: Db): Promise<Referral[]> {
  const { rows } = await db.query<Referral>(`${SELECT} where ev.kind not in ('closed', 'accepted') order by "dueAt" nulls last limit 100`)
  return rows
}

export async function referralsOfExamination(db: Db, examination: string): Promise<Referral[]> {
  const { rows } = await db.query<Referral>(`${SELECT} where r.examination_id = $1 order by r.flagged_at desc`, [examination])
  return rows
}

/** Whether the referral is one of this site: a reference alone would also find those of others. */
export async function hasReferral(db: Db, id: string): Promise<boolean> {
  const { rowCount } = await db.query('select 1 from referral where id = $1', [id])
  return rowCount === 1
}

export interface NewReferral {
  readonly id: string
  readonly examination: string
  readonly site: string
  readonly patient: string
  readonly destination: string
  readonly tier: string
  readonly flaggedAt: string
  readonly dueAt: string | null
  readonly letter: object
  readonly by: string
}

export async function addReferral(db: Db, r: NewReferral): Promise<void> {
  await db.query(
    'insert into referral (id, examination_id, site_id, patient_id, destination, tier, flagged_at, due_at, letter, by_account) values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10)',
    [r.id, r.examination, r.site, r.patient, r.destination, r.tier, r.flaggedAt, r.dueAt, JSON.stringify(r.letter), r.by],
  )
}

export interface NewReferralEvent {
  readonly id: string
  readonly referral: string
  readonly site: string
  readonly kind: string
  readonly note: string
  readonly by: string
  /** Of an event `changed`: what holds from now on. */
  readonly changed?: { readonly tier: string; readonly dueAt: string | null; readonly letter: object }
}

export async function addReferralEvent(db: Db, e: NewReferralEvent): Promise<void> {
  await db.query(
    'insert into referral_event (id, referral_id, site_id, kind, note, by_account, tier, due_at, letter) values ($1, $2, $3, $4, $5, $6, $7, $8, $9)',
    [e.id, e.referral, e.site, e.kind, e.note, e.by, e.changed?.tier ?? null, e.changed?.dueAt ?? null, e.changed ? JSON.stringify(e.changed.letter) : null],
  )
}
