import { describe, expect, it } from 'vitest'
import { compilePack, problemLine, viewOf, type SourceFile } from '../src/index.js'
import { lexiconProblems } from '../src/review/index.js'
import { lintNames } from '../src/review/lintNames.js'
import { spelledOut } from '../src/report/abbreviations.js'
import { contentFiles, thePack } from './support.js'

/** The content with one text of one file written otherwise. */
function spoilt(path: string, from: string, to: string): SourceFile[] {
  const files = contentFiles()
  expect(files.find((file) => file.path === path)?.text).toContain(from)
  return files.map((file) => (file.path === path ? { path, text: file.text.replace(from, to) } : file))
}
const told = (files: readonly SourceFile[]): string => lexiconProblems(files).map(problemLine).join('\n')

describe('the words of the pack', () => {
  it('are those of the physician, and of the patient where she reads them', () => expect(told(contentFiles())).toBe(''))

  it.each([
    [
      'a label',
      'regions/knee/tests.yaml',
      'label: Posterior sag sign',
      'label: Sagging of the shin',
      /tests\.yaml.*knee\.test\.posterior-sag.*"shin".*cure: write .*tibia/,
    ],
    ['a technique', 'regions/knee/tests.yaml', 'Stabilise the thigh.', 'Hold the kneecap.', /"kneecap".*cure: write patella/],
    ['a title', 'conditions/knee/acl-rupture.yaml', 'title: ACL rupture', 'title: Torn ligament, inner side', /"inner".*cure: write medial/],
    ['what a patient reads', 'pack.yaml', 'if you cannot pass\n      water', 'with a thrombosis', /"thrombosis".*cure/],
  ])('may not be everyday words in %s, nor the other way round', (_where, path, from, to, fault) => expect(told(spoilt(path, from, to))).toMatch(fault))

  it('has no exception that excuses nothing', () => {
    const files = spoilt('lexicon.yaml', '      - text: upper arm\n', '      - text: upper storey\n')
    expect(told(files)).toMatch(/nothing needs the exception "upper storey"/)
  })
  it('cannot be checked without the list', () =>
    expect(told(contentFiles().filter(({ path }) => path !== 'lexicon.yaml'))).toMatch(/lexicon\.yaml: lexicon: there is none/))
})

describe('a name', () => {
  it('of the shipped pack fits its row, repeats no unit and has no twin', () => expect(lintNames(thePack())).toEqual([]))

  it.each([
    [
      'of more than forty characters',
      'label: Posterior sag sign',
      'label: Posterior sag sign of the tibia at 90 degrees',
      /knee\.test\.posterior-sag.*has 45 characters/,
    ],
    [
      'that another item of the joint has',
      'label: Posterior sag sign',
      'label: Lachman test',
      /is called "Lachman test", as knee\.test\.posterior-sag is, in the knee/,
    ],
  ])('%s is refused', (_what, from, to, fault) =>
    expect(
      lintNames(compilePack(spoilt('regions/knee/tests.yaml', from, to)))
        .map(problemLine)
        .join('\n'),
    ).toMatch(fault),
  )
  it('that repeats its unit is refused', () =>
    expect(
      lintNames(compilePack(spoilt('regions/jaw/move.yaml', 'label: Protrusion', 'label: Protrusion (mm)')))
        .map(problemLine)
        .join('\n'),
    ).toMatch(/"Protrusion \(mm\)" repeats the unit/))
})

describe('an earlier name', () => {
  it('is carried by the joints that have the thing, and by no other', () => {
    const ids = (region: string): object => viewOf(thePack(), region).formerly.ids
    expect(ids('foot')).toHaveProperty(['foot.feel.navicular-inner'], 'foot.feel.navicular-tuberosity')
    expect(ids('knee')).not.toHaveProperty(['foot.feel.navicular-inner'])
    expect(ids('knee')).toHaveProperty(['neuro.touch.sole'], 'neuro.touch.plantar')
  })
})

describe('an abbreviation', () => {
  const spelt = (...texts: readonly string[]): string[] =>
    texts
      .map((text) => ({ heading: 'Impression', text }))
      .map(spelledOut({ ACL: 'anterior cruciate ligament', DVT: 'deep vein thrombosis' }, new Set(['Added'])))
      .map(({ text }) => text)
  it('is spelt out where a letter uses it first, and not again', () =>
    expect(spelt('ACL rupture; no DVT.', 'ACL graft.')).toEqual(['Anterior cruciate ligament (ACL) rupture; no deep vein thrombosis (DVT).', 'ACL graft.']))
  it('is left alone inside brackets, inside a word, and in what a clinician wrote', () => {
    expect(spelt('Anterior cruciate ligament (ACL).', 'MACLEOD.')).toEqual(['Anterior cruciate ligament (ACL).', 'MACLEOD.'])
    expect(spelledOut({ ACL: 'anterior cruciate ligament' }, new Set(['Added']))({ heading: 'Added', text: 'ACL seen at operation.' }).text).toBe(
      'ACL seen at operation.',
    )
  })
})
