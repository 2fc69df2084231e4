import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { ExaminationFileForm } from '@kneecap-awl/contract'
import { examinationFile, readExamination } from '../src/index.js'
import { calm, exam, thePack } from './support.js'

describe('the examination file', () => {
  it('is described by the published schema', () => {
    const published: unknown = JSON.parse(readFileSync(join(import.meta.dirname, '../../../docs/formats/examination.schema.json'), 'utf8'))
    expect(published).toEqual(JSON.parse(JSON.stringify(ExaminationFileForm)))
  })
  it('is read back as it was written', () => {
    const entries = calm()
    const written = JSON.parse(JSON.stringify(examinationFile(exam(entries), {}))) as unknown
    const read = readExamination(written, thePack())
    expect('faults' in read ? read.faults : read.examination.entries).toEqual(entries)
  })
  it.each<[string, (file: Record<string, unknown>) => void, string]>([
    ['an unknown format', (file) => (file.format = 'other'), '/format'],
    ['a side where the joint has one', (file) => (file.complaint = { region: 'knee', sides: ['none'] }), '/complaint/sides'],
    ['a time without a zone', (file) => (file.asOf = '2026-03-10 09:00'), '/asOf'],
    [
      'a value that the item does not have',
      (file) => ((file.entries as { value: unknown }[])[40] = { ...(file.entries as object[])[40], value: 'purple' }),
      '/entries/40/value',
    ],
  ])('says where and what was expected for %s', (_what, spoil, path) => {
    const file = JSON.parse(JSON.stringify(examinationFile(exam(calm()), {}))) as Record<string, unknown>
    spoil(file)
    const read = readExamination(file, thePack())
    expect('faults' in read && read.faults.map((fault) => fault.path)).toContain(path)
    expect('faults' in read && read.faults.every((fault) => fault.expected !== '')).toBe(true)
  })
})
