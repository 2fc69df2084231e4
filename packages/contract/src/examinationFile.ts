import { Type } from 'typebox'
import { EntryForm } from './entry.js'
import { Day, Form, Instant, Setting, Sides } from './shapes.js'

/** Entries of one file at most. */
export const MOST_ENTRIES = 5000

/** An examination as a file, version 2. Published as docs/formats/examination.schema.json. */
export const ExaminationFileForm = Form(
  {
    format: Type.Literal('kneecap-awl-examination'),
    version: Type.Literal(2),
    id: Type.Optional(Type.String()),
    patient: Type.Optional(
      Form({
        name: Type.Optional(Type.String()),
        birthDate: Type.Optional(Day),
        sex: Type.Optional(Type.String()),
        localNumber: Type.Optional(Type.String()),
      }),
    ),
    complaint: Form({ region: Type.String(), sides: Sides }),
    asOf: { ...Instant, description: 'the time that "days since" is counted to' },
    setting: Type.Optional(Setting),
    pack: Type.Optional(Form({ id: Type.Optional(Type.String()), version: Type.Optional(Type.String()), hash: Type.Optional(Type.String()) })),
    entries: Type.Array(EntryForm, { maxItems: MOST_ENTRIES }),
    previous: Type.Optional(Type.Array(EntryForm, { maxItems: MOST_ENTRIES })),
    signed: Type.Optional(Form({ at: Type.Optional(Type.String()), by: Type.Optional(Type.String()), hash: Type.Optional(Type.String()) })),
  },
  { $schema: 'http://json-schema.org/draft-07/schema#', title: 'Kneecap Awl examination, version 2' },
)
