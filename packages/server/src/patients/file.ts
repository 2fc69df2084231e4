import type { PatientFile } from '@kneecap-awl/contract'
import type { Db } from '../db/connect.js'
import { fileOf } from '../examinations/file.js'
import { notFound } from '../http/problem.js'
import type { PackStore } from '../packs/service.js'
import { correctionsOf, mergedInto, mergesOf, patientById } from './queries.js'
import { isoTime } from '../db/isoTime.js'

/**
 * Everything that is recorded of a patient, for the patient or for another practice: who, every examination with its verdicts and referrals as they
 * were sent, what was corrected and merged, and who read it.
 * @throws HttpProblem 404
 */
export async function patientFile(db: Db, packStore: PackStore, id: string): Promise<PatientFile> {
  const patient = await patientById(db, id)
  if (!patient) throw notFound('patient')
  const merged = await mergedInto(db, id)
  const { rows } = await db.query<{ id: string; visit: string; discardedAt: string | null; discardReason: string; verdicts: object[]; referrals: object[] }>(
    `select e.id, e.visit, ${isoTime('e.discarded_at')} as "discardedAt", e.discard_reason as "discardReason",
       (select coalesce(json_agg(json_build_object('kind', v.kind, 'at', ${isoTime('v.at')}, 'by', a.name, 'floor', v.floor, 'ceiling', v.ceiling, 'reason', v.reason,
          'record', v.record_hash, 'verdict', v.body) order by v.at, v.id), '[]') from verdict v join account a on a.id = v.by_account where v.examination_id = e.id) as verdicts,
       (select coalesce(json_agg(json_build_object('destination', r.destination, 'tier', r.tier, 'flaggedAt', ${isoTime('r.flagged_at')}, 'dueAt', ${isoTime('r.due_at')},
          'by', a.name, 'letter', r.letter, 'events', (select coalesce(json_agg(json_build_object('kind', v.kind, 'note', v.note, 'at', ${isoTime('v.at')}, 'tier', v.tier,
            'letter', v.letter) order by v.at, v.id), '[]') from referral_event v where v.referral_id = r.id)) order by r.flagged_at), '[]')
        from referral r join account a on a.id = r.by_account where r.examination_id = e.id) as referrals
     from examination e join patient p on p.id = e.patient_id where p.person = $1 order by e.started_at, e.id`,
    [id],
  )
  const examinations: PatientFile['examinations'][number][] = []
  for (const { id: examination, visit, discardedAt, discardReason, verdicts, referrals } of rows)
    examinations.push({
      ...(await fileOf(db, packStore, examination)),
      visit,
      ...(discardedAt === null ? {} : { discarded: { at: discardedAt, reason: discardReason } }),
      verdicts,
      referrals,
    })
  return {
    format: 'kneecap-awl-patient',
    version: 1,
    writtenAt: new Date().toISOString(),
    patient,
    merged,
    merges: await mergesOf(db, id),
    corrections: await correctionsOf(db, id),
    examinations,
    access: await accessOf(db, [id, ...merged.map((one) => one.id), ...rows.map((one) => one.id)]),
  }
}

/** Who did and read what of these, oldest first. */
async function accessOf(db: Db, ids: readonly string[]): Promise<PatientFile['access']> {
  const { rows } = await db.query<PatientFile['access'][number]>(
    `select ${isoTime('r.at')} as at, coalesce(a.name, '') as who, r.action from audit r left join account a on a.id = r.account_id
     where r.about ~ any($1) order by r.seq`,
    [ids],
  )
  return rows
}
