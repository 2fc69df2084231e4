import type { AddedJoint } from '@kneecap-awl/contract'
import { carriedEntries, type Entry, type Pack } from '@kneecap-awl/core'
import type { Db } from '../db/connect.js'
import { v7 as uuid7 } from 'uuid'
import { badInput } from '../http/problem.js'
import type { PackStore } from '../packs/service.js'
import { addExamination, examinationsOfVisit, lockVisit, otherHeads, type ExaminationHead, type ExaminationRow, type Writer } from './queries.js'
import { keepEntries } from './entries.js'
import { checkSides, loadExamination } from './service.js'

/**
 * Adds another joint to the visit of an examination: the same patient, setting, pack and time, with what need not be asked again.
 * @returns the id of its examination
 * @throws HttpProblem 400 when the joint cannot be added, or is examined in this visit already; 404
 */
export async function addJoint(db: Db, packStore: PackStore, to: string, joint: AddedJoint, by: Writer): Promise<string> {
  await lockVisit(db, to)
  const { row, pack, examination } = await loadExamination(db, packStore, to)
  checkSides(pack, joint)
  if ((await examinationsOfVisit(db, row.visit)).some((one) => one.region === joint.region && one.sides.some((side) => joint.sides.includes(side))))
    throw badInput([{ path: '/region', reason: `"${joint.region}" is already examined in this visit`, expected: 'another joint, or its other side' }])
  const id = uuid7()
  await addExamination(db, {
    id,
    visit: row.visit,
    site: by.site,
    patient: row.patientId,
    region: joint.region,
    sides: joint.sides,
    setting: row.setting,
    startedAt: row.startedAt,
    by: by.id,
    packHash: row.packHash,
  })
  await keepEntries(db, pack, id, carriedEntries(pack, examination, joint.region, joint.sameEvent).map(copied), by)
  return id
}

/** What was just recorded of the person, a named artery or a muscle stands for the other joints of the visit that are not signed. */
export async function shareEntries(db: Db, pack: Pack, from: ExaminationHead, recorded: readonly Entry[], by: Writer): Promise<void> {
  if (recorded.length === 0) return
  for (const other of await otherHeads(db, from)) {
    if (other.signedAt) continue
    const carried = carriedEntries(pack, { complaint: from, entries: recorded }, other.region, false)
    if (carried.length === 0) continue
    await keepEntries(db, pack, other.id, carried.map(copied), by)
  }
}

/** The other joints of the visit. */
export async function otherJoints(db: Db, of: ExaminationRow): Promise<ExaminationRow[]> {
  return (await examinationsOfVisit(db, of.visit)).filter((one) => one.id !== of.id)
}

/** The same finding, by the same hand at the same time, as an entry of another examination. */
const copied = (entry: Entry): Entry => ({ ...entry, id: uuid7() })
