import type { Described } from './frozen.js'
import { Type } from 'typebox'
import type { ExaminationFileForm } from './examinationFile.js'
import { ExaminationSummary } from './examinationSummary.js'
import { route } from './route.js'
import { Day, Form, Instant, Nullable, OneOf, SEXES, Uuid, Whole, Words } from './shapes.js'

export const PatientForm = Form({
  id: Uuid,
  localNumber: Type.String(),
  name: Type.String(),
  birthDate: Day,
  sex: Nullable(OneOf(SEXES)),
  contact: Type.String(),
})
export type PatientSummary = Described<typeof PatientForm>

const person = { name: Type.String({ minLength: 1, maxLength: 120 }), birthDate: Day }
const facts = { sex: Type.Optional(OneOf(SEXES)), contact: Type.Optional(Words(200)) }

export const NewPatientForm = Form({
  ...person,
  ...facts,
  isNew: Type.Optional(Type.Boolean({ description: 'said by whoever has looked at those who may be the same person' })),
})
export type NewPatient = Described<typeof NewPatientForm>

export const CorrectionForm = Form({ name: Type.Optional(person.name), birthDate: Type.Optional(Day), ...facts, reason: Words(300) })
export type Correction = Described<typeof CorrectionForm>

/** One thing that was corrected of a patient or an examination. */
export const CorrectedForm = Form({
  field: Type.String(),
  was: Type.String(),
  becomes: Type.String(),
  reason: Type.String(),
  by: Type.String(),
  at: Instant,
})
export type Corrected = Described<typeof CorrectedForm>

/** One time that another record of the same person was merged into this one, or separated from it. */
const MergedForm = Form({
  kind: OneOf(['merged', 'separated']),
  patient: Uuid,
  localNumber: Type.String(),
  name: Type.String(),
  birthDate: Day,
  reason: Type.String(),
  by: Type.String(),
  at: Instant,
})
export type Merged = Described<typeof MergedForm>

const Patients = Form({ patients: Type.Array(PatientForm) })
const params = Form({ id: Uuid })

export const findPatients = route({
  method: 'GET',
  url: '/api/patients',
  summary: 'Patients by part of a name or number',
  may: 'read-patients',
  query: Type.Object({ search: Type.Optional(Words(80)) }),
  answer: Patients,
})
export const likePatients = route({
  method: 'GET',
  url: '/api/patients/like',
  summary: 'Those who may be the person that is about to be added',
  may: 'read-patients',
  query: Type.Object({ name: Words(120), birthDate: Day }),
  answer: Patients,
})
export const addPatient = route({
  method: 'POST',
  url: '/api/patients',
  summary: 'Adds a patient',
  may: 'examine',
  status: 201,
  body: NewPatientForm,
  answer: PatientForm,
})
export const readPatient = route({
  method: 'GET',
  url: '/api/patients/:id',
  summary: 'A patient with every examination and correction',
  may: 'read-patients',
  params,
  answer: Form({
    patient: PatientForm,
    examinations: Type.Array(ExaminationSummary),
    corrections: Type.Array(CorrectedForm),
    /** The record that stands for this one. */
    mergedInto: Nullable(PatientForm),
    /** Records that this one stands for. */
    merged: Type.Array(PatientForm),
    merges: Type.Array(MergedForm),
  }),
})
export type PatientDetail = Described<typeof readPatient.answer>
export const correctPatient = route({
  method: 'POST',
  url: '/api/patients/:id/corrections',
  summary: 'Corrects who a patient is; what it was stays in the trace',
  may: 'examine',
  params,
  body: CorrectionForm,
  answer: Form({ patient: PatientForm }),
})
const MergeForm = Form({ patient: Uuid, reason: Words(300) })
export type Merge = Described<typeof MergeForm>
export const mergePatient = route({
  method: 'POST',
  url: '/api/patients/:id/merge',
  summary: 'Another record of the same person: this one stands for both from now on. Nothing is moved, and the two can be separated again',
  may: 'keep-records',
  status: 204,
  params,
  body: MergeForm,
  answer: Type.Null(),
})
export const separatePatient = route({
  method: 'POST',
  url: '/api/patients/:id/separate',
  summary: 'A record that was merged by mistake stands for itself again, with the examinations that were begun with it',
  may: 'keep-records',
  status: 204,
  params,
  body: MergeForm,
  answer: Type.Null(),
})
export const exportPatient = route({
  method: 'GET',
  url: '/api/patients/:id/file',
  summary: 'Everything that is recorded of a patient, and who read it, as one file',
  may: 'keep-records',
  params,
  answer: Whole<PatientFile>('a patient file: docs/formats/README.md'),
})
/** Everything of one patient. Its examinations are examination files, each with its verdicts and referrals. */
export interface PatientFile {
  readonly format: 'kneecap-awl-patient'
  readonly version: 1
  readonly writtenAt: string
  readonly patient: PatientSummary
  readonly merged: readonly PatientSummary[]
  readonly merges: readonly Merged[]
  readonly corrections: readonly Corrected[]
  readonly examinations: readonly (Described<typeof ExaminationFileForm> & {
    readonly visit: string
    readonly discarded?: { readonly at: string; readonly reason: string }
    readonly verdicts: readonly object[]
    readonly referrals: readonly object[]
  })[]
  /** Who did and read what of this patient, by the audit of the site. */
  readonly access: readonly { readonly at: string; readonly who: string; readonly action: string }[]
}
