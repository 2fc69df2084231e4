import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { ExaminationFileForm } from '@kneecap-awl/contract'
import { examinationFile, judgement, priorityOf, readExamination, recordHash } from '../src/index.js'
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

describe('an examination file of version 1', () => {
  const written: unknown = JSON.parse(readFileSync(join(import.meta.dirname, 'files/examination-1.json'), 'utf8'))
  const read = readExamination(written, thePack())
  if ('faults' in read) throw new Error(read.faults.map(({ path, reason }) => `${path} ${reason}`).join('; '))
  const { entries } = read.examination

  it('is read in the form of today, each decision as what it decides', () => {
    expect(entries.map(({ state }) => state)).toEqual([
      ...['examined', 'examined', 'examined', 'could-not', 'lifted', 'withdrawn', 'released', 'chosen', 'accepted', 'withdrawn'],
    ])
    expect(entries[5]).toMatchObject({ decision: 'lifted', of: 'any.flag.arterial-hard', side: 'right' })
    expect(entries[7]).toMatchObject({ tier: 'days', from: 'now', senior: 'Dr Quill', seniorAt: '2026-03-10T09:28:00.000Z' })
    expect(entries[8]).toMatchObject({ ceiling: 'now', plan: 'again at noon' })
    expect(entries.some((entry) => 'item' in entry && (entry.item === 'priority' || entry.item === 'range'))).toBe(false)
  })
  it('counts what was decided and what was withdrawn', () => {
    const judged = judgement(thePack(), read.examination)
    const { choice, acceptance, lifts, releases } = judged.record.decisions
    expect([choice, acceptance?.plan, lifts, releases.length]).toEqual([undefined, 'again at noon', [], 1])
    expect(priorityOf(judged).set).toBeUndefined()
  })
  it('bears the seal that it bore when it was written', () =>
    expect(recordHash({ entries }, 'pack')).toBe('00d1857cee8e5c1ebc49e6514112c6cb467b7e156ff8d45b06ca2038a70c713c'))
  it('is refused where a decision says more than it decides', () => {
    const file = JSON.parse(JSON.stringify(written)) as { entries: Record<string, unknown>[] }
    file.entries[7] = { ...file.entries[7], item: 'story.trauma' }
    const refused = readExamination(file, thePack())
    expect('faults' in refused && refused.faults.map(({ path }) => path)).toContain('/entries/7/item')
  })
})
