import type { Pack } from '@kneecap-awl/core'
import type { Db } from '../db/connect.js'
import { v7 as uuid7 } from 'uuid'
import type { Loaded } from '../examinations/service.js'
import { HttpProblem, notFound } from '../http/problem.js'
import type { Judge, Referred } from '../judging/judge.js'
import { patientById } from '../patients/queries.js'
import { addReferral, addReferralEvent, referralsOfExamination } from './queries.js'

interface Sender {
  readonly id: string
  readonly site: string
  readonly siteName: string
  readonly name: string
  readonly zone: string
}

/** What a referral says of its examination: where to, how urgent, until when. The clock runs from the examination, not from the signature. */
async function referralFor(
  db: Db,
  judge: Judge,
  { row, pack, examination }: Loaded,
  by: Sender,
  added?: string,
): Promise<Referred & { readonly patient: string; readonly flaggedAt: string }> {
  const patient = await patientById(db, row.patientId)
  if (!patient) throw notFound('patient')
  const referred = await judge.referral(pack, examination, {
    patient,
    examiner: row.signedBy ?? by.name,
    site: by.siteName,
    zone: by.zone,
    ...(added ? { added } : {}),
  })
  return { ...referred, patient: patient.id, flaggedAt: row.startedAt }
}

/** Makes a referral of a signed examination, as its verdict stands. @returns its id @throws HttpProblem 409 while it is not signed */
export async function makeReferral(db: Db, judge: Judge, loaded: Loaded, by: Sender, added?: string): Promise<string> {
  if (!loaded.row.signedAt) throw new HttpProblem(409, 'not-allowed', 'Sign the examination before you refer.')
  const id = uuid7()
  const { patient, letter, tier, flaggedAt, dueAt } = await referralFor(db, judge, loaded, by, added)
  await addReferral(db, {
    id,
    examination: loaded.row.id,
    site: by.site,
    patient,
    destination: letter.destination,
    tier,
    flaggedAt,
    dueAt,
    letter,
    by: by.id,
  })
  await addReferralEvent(db, { id: uuid7(), referral: id, site: by.site, kind: 'made', note: '', by: by.id })
  return id
}

/**
 * After an amendment a referral that is not closed follows the verdict: its tier, its clock and its letter, and whoever received it has to be
 * told, also when it was accepted already. What its sender added stays.
 */
export async function followAmendment(db: Db, judge: Judge, loaded: Loaded, by: Sender): Promise<void> {
  const open = (await referralsOfExamination(db, loaded.row.id)).filter((referral) => referral.lastEvent !== 'closed')
  for (const referral of open) {
    const { letter, tier, dueAt } = await referralFor(db, judge, loaded, by, referral.added ?? undefined)
    if (referral.tier === tier && referral.destination === letter.destination && sameInstant(referral.dueAt) === sameInstant(dueAt)) continue
    await addReferralEvent(db, {
      id: uuid7(),
      referral: referral.id,
      site: by.site,
      kind: 'changed',
      note: changeWords(loaded.pack, referral.tier, tier, letter),
      by: by.id,
      changed: { tier, dueAt, letter },
    })
  }
}

const sameInstant = (iso: string | null): number | null => (iso === null ? null : Date.parse(iso))

function changeWords(pack: Pack, was: string, becomes: string, letter: Referred['letter']): string {
  const name = (id: string): string => pack.tiers.find((tier) => tier.id === id)?.name ?? id
  return was === becomes ? `changed by an amendment; tell ${letter.to}` : `${name(was)} became ${name(becomes)} by an amendment; tell ${letter.to}`
}
