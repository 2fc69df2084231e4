import { examinationFile } from '@kneecap-awl/core'
import type { Db } from '../db/connect.js'
import type { PackStore } from '../packs/service.js'
import { patientById } from '../patients/queries.js'
import { lastVerdict } from './queries.js'
import { loadExamination } from './service.js'

/** An examination as the file that programs read. @throws HttpProblem 404 */
export async function fileOf(db: Db, packStore: PackStore, id: string): Promise<ReturnType<typeof examinationFile>> {
  const { row, pack, examination } = await loadExamination(db, packStore, id)
  const verdict = await lastVerdict(db, id)
  const { name, birthDate, localNumber, sex } = (await patientById(db, row.patientId)) ?? {}
  return examinationFile(examination, {
    id,
    ...(name && birthDate && localNumber ? { patient: { name, birthDate, localNumber, ...(sex ? { sex } : {}) } } : {}),
    pack: { id: pack.id, version: pack.version, hash: pack.hash },
    ...(row.signedAt && verdict ? { signed: { at: row.signedAt, by: row.signedBy ?? '', hash: verdict.recordHash } } : {}),
  })
}
