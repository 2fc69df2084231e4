import type { Described } from './frozen.js'
import { Type } from 'typebox'
import { EntryForm } from './entry.js'
import { ExaminationFileForm } from './examinationFile.js'
import { ExaminationSummary } from './examinationSummary.js'
import { NewPatientForm } from './patients.js'
import { route } from './route.js'
import { Form, Instant, OneOf, Setting, Side, Sides, Tier, Uuid, Whole, Words } from './shapes.js'

const params = Form({ id: Uuid })
const reason = Words(300)
const Done = Form({ id: Uuid })
/** Entries as they are stored: none of their fields is left out, or the seal would not fit. */
const Stored = Type.Array(Whole<EntryForm>('an entry, as in the examination file'))

const JointForm = Form({ region: Type.String(), sides: Sides, sameEvent: Type.Boolean() })
export type AddedJoint = Described<typeof JointForm>
const ToldForm = Form({
  item: Type.String({ maxLength: 120, description: 'an item of the history' }),
  side: Type.Optional(Side),
  value: Type.Unsafe<string | readonly string[]>({ type: ['string', 'array'], items: { type: 'string' }, description: 'a word of the item, or several' }),
})
export type Told = Described<typeof ToldForm>

export const startExamination = route({
  method: 'POST',
  url: '/api/examinations',
  summary: 'Begins a visit of a patient that is known or new: one joint or several, with what was told at once',
  may: 'examine',
  status: 201,
  body: Form({
    id: Type.Optional({ ...Uuid, description: 'chosen by the sender, so that what is sent twice is begun once' }),
    patientId: Type.Optional(Uuid),
    patient: Type.Optional(NewPatientForm),
    region: Type.String(),
    sides: Sides,
    setting: Setting,
    told: Type.Optional(Type.Array(ToldForm, { maxItems: 40, description: 'told of the first joint: of every side in question where no side is given' })),
    also: Type.Optional(Type.Array(JointForm, { maxItems: 8, description: 'other joints of the same visit; with the same event they share its history' })),
  }),
  answer: Done,
})
export const addJoint = route({
  method: 'POST',
  url: '/api/examinations/:id/also',
  summary: 'Adds another joint to the visit',
  may: 'examine',
  status: 201,
  params,
  body: JointForm,
  answer: Done,
})

export const readDesk = route({
  method: 'GET',
  url: '/api/desk',
  summary: 'Drafts or signed examinations, a page at a time',
  may: 'read-patients',
  query: Type.Object({
    search: Type.String({ maxLength: 80, default: '' }),
    region: Type.String({ maxLength: 40, default: '' }),
    state: Type.Unsafe<'draft' | 'signed' | 'review'>({ type: 'string', enum: ['draft', 'signed', 'review'], default: 'draft' }),
    limit: Type.String({ pattern: '^([1-9][0-9]?|100)$', default: '20' }),
    offset: Type.String({ pattern: '^[0-9]{1,7}$', default: '0' }),
  }),
  answer: Form({
    total: Type.Integer(),
    oldest: Type.Unsafe<{ readonly id: string; readonly patientName: string; readonly startedAt: string } | null>({
      ...Form({ id: Uuid, patientName: Type.String(), startedAt: Instant }),
      nullable: true,
    }),
    examinations: Type.Array(ExaminationSummary),
  }),
})
export type DeskPage = Described<typeof readDesk.answer>

const VERDICT = { recordHash: Type.String(), floor: Tier, ceiling: Tier, kind: OneOf(['signed', 'amended']) }
const VerdictSummary = Form(VERDICT)
/** A verdict with whether what stands is what was sealed; `unsealed` of one that was signed before there were seals. */
const AlteredForm = Form({
  what: OneOf(['entry', 'verdict', 'examination']),
  how: OneOf(['altered', 'missing', 'added']),
  /** Of the row. */
  id: Uuid,
})
export type AlteredRow = Described<typeof AlteredForm>
const SealedVerdict = Form({
  ...VERDICT,
  seal: OneOf(['whole', 'altered', 'unsealed']),
  altered: Type.Array(AlteredForm, { description: 'which rows are not what was sealed, as far as the seal names them' }),
})

export const readExamination = route({
  method: 'GET',
  url: '/api/examinations/:id',
  summary: 'An examination with every entry',
  may: 'read-patients',
  params,
  answer: Form({
    ...ExaminationSummary.properties,
    entries: Stored,
    previous: Stored,
    verdict: Type.Optional(SealedVerdict),
    visitWith: Type.Array(ExaminationSummary),
  }),
})
export type ExaminationDetail = Described<typeof readExamination.answer>

/** What became of one entry that was sent. */
export const OutcomeForm = Form({
  id: Uuid,
  state: OneOf(['stored', 'already', 'refused']),
  at: Type.Optional(Type.String({ format: 'date-time', description: 'the time under which it stands; of one that is not refused' })),
  reason: Type.Optional(Type.String({ description: 'why it was refused' })),
})
export type Outcome = Described<typeof OutcomeForm>

export const sendEntries = route({
  method: 'POST',
  url: '/api/examinations/:id/entries',
  summary: 'Adds entries; of a signed examination they are amendments',
  may: 'examine',
  params,
  body: Form({
    entries: Type.Array(EntryForm, { minItems: 1, maxItems: 500 }),
    sentAt: Type.Optional({ ...Instant, description: 'the time by the clock that stamped the entries' }),
  }),
  answer: Form({ outcomes: Type.Array(OutcomeForm) }),
})
export type SentEntries = Described<typeof sendEntries.body>

export const signExamination = route({
  method: 'POST',
  url: '/api/examinations/:id/sign',
  summary: 'Signs what was shown: record and verdict must be those of the server',
  may: 'sign',
  params,
  body: Form({
    record: Type.String({ pattern: '^[0-9a-f]{64}$' }),
    floor: Tier,
    ceiling: Tier,
    priority: Tier,
    flags: Type.Array(Type.String()),
  }),
  answer: Form({ signed: Type.Literal(true), verdict: Type.Optional(VerdictSummary) }),
})
export const discardDraft = route({
  method: 'POST',
  url: '/api/examinations/:id/discard',
  summary: 'Puts a draft away with a reason',
  may: 'examine',
  params,
  body: Form({ reason }),
  answer: Form({ discarded: Type.Literal(true) }),
})
export const correctSides = route({
  method: 'POST',
  url: '/api/examinations/:id/sides',
  summary: 'Corrects which side hurts, before it is signed',
  may: 'examine',
  params,
  body: Form({ sides: Sides, reason }),
  answer: Form({ corrected: Type.Literal(true) }),
})
export const readFile = route({
  method: 'GET',
  url: '/api/examinations/:id/file',
  summary: 'The examination as a file',
  may: 'read-patients',
  params,
  answer: Whole<Described<typeof ExaminationFileForm>>('an examination file: docs/formats/examination.schema.json'),
})
export const readBack = route({
  method: 'POST',
  url: '/api/examinations/read-back',
  summary: 'A draft from an examination file; decisions of others are not taken over',
  may: 'examine',
  status: 201,
  body: Whole<object>('an examination file: docs/formats/examination.schema.json'),
  answer: Form({
    id: Uuid,
    notTaken: Type.Array(Form({ about: Type.String(), state: Type.String(), by: Type.String(), reason: Type.String() })),
  }),
})
