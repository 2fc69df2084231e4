import { Ajv } from 'ajv'
import addFormats from 'ajv-formats'
import type { Pack } from './pack.js'
import { checkEntries } from './checkEntry.js'
import { STATES, type Examination } from '../record/entry.js'
import type { Fault } from '../model/fault.js'

const scalar = { type: ['string', 'number', 'boolean'] }
const words = { type: 'array', items: { type: 'string' } }

export const ENTRY_SCHEMA = {
  type: 'object',
  required: ['id', 'item', 'side', 'state', 'by', 'at'],
  additionalProperties: false,
  properties: {
    id: { type: 'string', format: 'uuid', description: 'UUID v7; sending the same entry twice stores it once' },
    item: { type: 'string', minLength: 1, maxLength: 120 },
    side: { enum: ['right', 'left', 'none'] },
    state: { enum: STATES },
    reason: { type: 'string', maxLength: 300 },
    value: { anyOf: [scalar, words] },
    qualifiers: { type: 'object', additionalProperties: { anyOf: [scalar, words] } },
    by: { type: 'string', minLength: 1, maxLength: 120 },
    at: { type: 'string', format: 'date-time' },
    device: { type: 'string', maxLength: 120 },
    deviceAt: { type: 'string', format: 'date-time' },
    undoes: { type: 'array', maxItems: 400, items: { type: 'string', format: 'uuid' } },
    settles: { type: 'array', maxItems: 20, items: { type: 'string', format: 'uuid' } },
    override: {
      type: 'object',
      required: ['hold', 'reason'],
      additionalProperties: false,
      properties: { hold: { type: 'string' }, reason: { type: 'string', minLength: 1, maxLength: 500 } },
    },
    amends: { type: 'string', maxLength: 500 },
  },
} as const

/** JSON Schema of an examination file, version 1. Published as docs/formats/examination.schema.json. */
export const EXAMINATION_FILE_SCHEMA = {
  $schema: 'http://json-schema.org/draft-07/schema#',
  title: 'Kneecap Awl examination, version 1',
  type: 'object',
  required: ['format', 'version', 'complaint', 'asOf', 'entries'],
  additionalProperties: false,
  properties: {
    format: { const: 'kneecap-awl-examination' },
    version: { const: 1 },
    id: { type: 'string' },
    patient: {
      type: 'object',
      additionalProperties: false,
      properties: { name: { type: 'string' }, birthDate: { type: 'string', format: 'date' }, sex: { type: 'string' }, localNumber: { type: 'string' } },
    },
    complaint: {
      type: 'object',
      required: ['region', 'sides'],
      additionalProperties: false,
      properties: {
        region: { type: 'string' },
        sides: { type: 'array', minItems: 1, maxItems: 2, uniqueItems: true, items: { enum: ['right', 'left', 'none'] } },
      },
    },
    asOf: { type: 'string', format: 'date-time', description: 'the time that "days since" is counted to' },
    setting: { enum: ['primary-care', 'emergency'] },
    pack: { type: 'object', additionalProperties: false, properties: { id: { type: 'string' }, version: { type: 'string' }, hash: { type: 'string' } } },
    entries: { type: 'array', maxItems: 5000, items: ENTRY_SCHEMA },
    previous: { type: 'array', maxItems: 5000, items: ENTRY_SCHEMA },
    signed: { type: 'object', additionalProperties: false, properties: { at: { type: 'string' }, by: { type: 'string' }, hash: { type: 'string' } } },
  },
} as const

export interface ExaminationFile extends Examination {
  readonly format: 'kneecap-awl-examination'
  readonly version: 1
  readonly id?: string
  readonly patient?: { readonly name?: string; readonly birthDate?: string; readonly sex?: string; readonly localNumber?: string }
  readonly pack?: { readonly id: string; readonly version: string; readonly hash: string }
  readonly signed?: { readonly at: string; readonly by: string; readonly hash: string }
}

const ajv = new Ajv({ allErrors: true, allowUnionTypes: true })
addFormats.default(ajv)
const validate = ajv.compile(EXAMINATION_FILE_SCHEMA)

/**
 * Reads an examination that came from outside.
 * @returns the examination, or the faults that keep it from being used; nothing is guessed
 */
export function readExamination(document: unknown, pack: Pack): { readonly examination: ExaminationFile } | { readonly faults: readonly Fault[] } {
  if (!validate(document)) {
    const faults = (validate.errors ?? [])
      .filter((error) => error.keyword !== 'anyOf')
      .map((error) => ({
        path: error.instancePath || '/',
        reason: error.message ?? 'has the wrong shape',
        expected: 'params' in error ? JSON.stringify(error.params) : 'see docs/formats/examination.schema.json',
      }))
    return { faults }
  }
  const examination = document as unknown as ExaminationFile
  const region = pack.regions.find((r) => r.id === examination.complaint.region)
  const faults: Fault[] = region
    ? []
    : [
        {
          path: '/complaint/region',
          reason: `"${examination.complaint.region}" is not a region of this pack`,
          expected: pack.regions.map((r) => r.id).join(', '),
        },
      ]
  if (region?.side && examination.complaint.sides.includes('none'))
    faults.push({ path: '/complaint/sides', reason: `a ${region.name.toLowerCase()} has a side`, expected: 'right, left or both' })
  faults.push(...checkEntries(pack, examination.entries), ...checkEntries(pack, examination.previous ?? [], '/previous'))
  return faults.length > 0 ? { faults } : { examination }
}

/** The file of an examination, ready to be written as JSON. */
export const examinationFile = (examination: Examination, about: Pick<ExaminationFile, 'id' | 'patient' | 'pack' | 'signed'>): ExaminationFile => ({
  format: 'kneecap-awl-examination',
  version: 1,
  ...about,
  complaint: examination.complaint,
  asOf: examination.asOf,
  ...(examination.setting ? { setting: examination.setting } : {}),
  entries: examination.entries,
  ...(examination.previous ? { previous: examination.previous } : {}),
})
