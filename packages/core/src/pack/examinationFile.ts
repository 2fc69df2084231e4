import { EntryForm, ExaminationFileForm, MOST_ENTRIES } from '@kneecap-awl/contract'
import { Ajv } from 'ajv'
import addFormats from 'ajv-formats'
import type { Pack } from './pack.js'
import { inTodaysNames } from './formerly.js'
import { checkEntries } from './checkEntry.js'
import type { Entry, Examination } from '../record/entry.js'
import { entriesOfToday } from '../record/firstForm.js'
import { firstFaults, type Fault } from '../model/fault.js'
import { schemaFaults } from '../model/schemaFaults.js'

export interface ExaminationFile extends Examination {
  readonly format: 'kneecap-awl-examination'
  readonly version: 2
  readonly id?: string
  readonly patient?: { readonly name?: string; readonly birthDate?: string; readonly sex?: string; readonly localNumber?: string }
  readonly pack?: { readonly id: string; readonly version: string; readonly hash: string }
  readonly signed?: { readonly at: string; readonly by: string; readonly hash: string }
}

const ajv = new Ajv({ allErrors: true, allowUnionTypes: true, discriminator: true })
addFormats.default(ajv)
/** Many entries: they are checked one by one, so that thousands of wrong ones make no list of thousands. */
const MANY = { type: 'array', maxItems: MOST_ENTRIES }
const validateHead = ajv.compile({
  ...ExaminationFileForm,
  properties: { ...ExaminationFileForm.properties, entries: MANY, previous: MANY },
})
const validateEntry = ajv.compile<Entry>(EntryForm)

/** What is wrong with the shape of a file. */
function shapeFaults(document: unknown): Fault[] {
  if (!validateHead(document)) return schemaFaults(validateHead.errors ?? [])
  const lists = document as { readonly entries: readonly unknown[]; readonly previous?: readonly unknown[] }
  return [...entryFaults(lists.entries, '/entries'), ...entryFaults(lists.previous ?? [], '/previous')]
}

const entryFaults = (list: readonly unknown[], path: string): Fault[] =>
  firstFaults(
    list.map((entry, at) =>
      validateEntry(entry)
        ? []
        : schemaFaults(validateEntry.errors ?? []).map((fault) => ({ ...fault, path: `${path}/${at}${fault.path === '/' ? '' : fault.path}` })),
    ),
    path,
  )

/**
 * Reads an examination that came from outside.
 * @returns the examination, or the faults that keep it from being used; nothing is guessed
 */
export function readExamination(written: unknown, pack: Pack): { readonly examination: ExaminationFile } | { readonly faults: readonly Fault[] } {
  const upgraded = ofVersion2(written)
  const misshapen = shapeFaults(upgraded)
  if (misshapen.length > 0) return { faults: misshapen }
  // Its shape was just checked.
  const document = upgraded as ExaminationFile
  const examination = {
    ...document,
    entries: inTodaysNames(pack, document.entries),
    ...(document.previous === undefined ? {} : { previous: inTodaysNames(pack, document.previous) }),
  }
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

/** A file of version 1, in which decisions stood under `item`, as one of version 2. */
function ofVersion2(document: unknown): unknown {
  if (typeof document !== 'object' || document === null || !('version' in document) || document.version !== 1) return document
  const today = (entries: unknown): unknown => (Array.isArray(entries) ? entriesOfToday(entries) : entries)
  const read = Object.entries(document).map(([key, value]: [string, unknown]) => [key, key === 'entries' || key === 'previous' ? today(value) : value])
  return { ...Object.fromEntries(read), version: 2 }
}

/** The file of an examination, ready to be written as JSON. */
export const examinationFile = (examination: Examination, about: Pick<ExaminationFile, 'id' | 'patient' | 'pack' | 'signed'>): ExaminationFile => ({
  format: 'kneecap-awl-examination',
  version: 2,
  ...about,
  complaint: examination.complaint,
  asOf: examination.asOf,
  ...(examination.setting ? { setting: examination.setting } : {}),
  entries: examination.entries,
  ...(examination.previous ? { previous: examination.previous } : {}),
})
