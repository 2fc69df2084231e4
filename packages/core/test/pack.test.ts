/* eslint-disable @typescript-eslint/no-unsafe-assignment, @typescript-eslint/no-unsafe-call, @typescript-eslint/no-unsafe-member-access, @typescript-eslint/no-unsafe-return, @typescript-eslint/no-explicit-any --
   files of the content are spoilt here by name, as somebody would who writes them */
import { CORE_SCHEMA, load } from 'js-yaml'
import { describe, expect, it } from 'vitest'
import { compilePack, PackError, problemLine, inTodaysKeys, upgradePack, viewOf, type SourceFile } from '../src/index.js'
import { lintPack } from '../src/review/index.js'
import { lintRegion } from '../src/review/lint.js'
import { contentFiles, theKnee, thePack } from './support.js'

const compileFaults = (files: readonly SourceFile[]): string => {
  try {
    compilePack(files)
  } catch (error) {
    if (error instanceof PackError) return error.problems.map(problemLine).join('\n')
    throw error
  }
  return ''
}
const lintFaults = (files: readonly SourceFile[]): string =>
  lintPack(compilePack(files), ['back.flag.cauda-equina', 'knee.flag.extensor-unclear']).map(problemLine).join('\n')

describe('the shipped pack', () => {
  it('asks 61 core items of a knee in about four minutes', () => {
    const core = theKnee().items.filter((item) => item.depth === 'core')
    expect(core).toHaveLength(61)
    expect(core.reduce((sum, item) => sum + item.seconds, 0)).toBeLessThan(300)
  })

  it('says for every joint with a route of its own where good practitioners differ, and by what it goes', () => {
    const { regions, practiceVariants } = thePack()
    for (const { id } of regions.filter((region) => !['jaw', 'any-joint'].includes(region.id)))
      expect(practiceVariants.filter((one) => one.region === id).length).toBeGreaterThan(5)
    expect(viewOf(thePack(), 'elbow').practiceVariants.every((one) => one.region === 'elbow')).toBe(true)
  })

  it('names a source for every accuracy figure and marks it unchecked', () => {
    for (const item of thePack().items)
      for (const figure of item.accuracy) expect(figure).toMatchObject({ source: expect.stringMatching(/[12]\d{3}/) as string, checked: false })
  })

  it('keeps the least certain figures out of every probability', () => {
    const unverified = thePack().items.flatMap((item) => item.accuracy.filter((figure) => figure.unverified).map((figure) => figure.source))
    expect(new Set(unverified).size).toBeGreaterThan(20)
    const used = thePack()
      .conditions.flatMap((condition) => condition.evidence.map((evidence) => evidence.source))
      .join(' ')
    expect(unverified.length).toBeGreaterThan(0)
    for (const source of unverified) expect(used).not.toContain(source)
  })
})

describe('every joint of a limb', () => {
  const LIMBS = ['shoulder', 'elbow', 'wrist', 'hand', 'hip', 'knee', 'ankle', 'foot', 'any-joint']
  /** What may threaten any limb, by the flags that say so; one of those named is enough. */
  const threats: readonly { readonly threat: string; readonly flags: readonly string[]; readonly but?: readonly string[] }[] = [
    { threat: 'a lost artery after an injury', flags: ['any.flag.arterial-hard'] },
    { threat: 'one soft sign of an artery', flags: ['any.flag.arterial-soft'] },
    { threat: 'a compartment', flags: ['any.flag.compartment'] },
    { threat: 'skin over bone', flags: ['any.flag.skin-at-risk'], but: ['hip'] },
    { threat: 'a hole into the joint', flags: ['any.flag.joint-wound', 'any.flag.open-fracture'] },
    { threat: 'dying skin', flags: ['any.flag.necrotising'] },
    { threat: 'a spreading skin infection', flags: ['any.flag.cellulitis'] },
    { threat: 'a septic joint', flags: ['any.flag.septic-joint'] },
    { threat: 'infected metal', flags: ['any.flag.septic-joint-prosthetic'] },
    { threat: 'a bleed into a joint of a haemophiliac', flags: ['any.flag.haemophilia-bleed'] },
    { threat: 'a break', flags: ['any.flag.fracture-suspected', 'hip.flag.fracture-occult'] },
    { threat: 'a tumour of bone', flags: ['any.flag.bone-tumour-adult'] },
    { threat: 'muscle that breaks down', flags: ['any.flag.rhabdomyolysis'], but: ['hand'] },
    { threat: 'an injury that does not fit its story', flags: ['any.flag.safeguarding'] },
  ]
  it.each(threats)('looks for $threat', ({ flags, but = [] }) => {
    const without = LIMBS.filter((region) => !but.includes(region) && !viewOf(thePack(), region).flags.some((flag) => flags.includes(flag.id)))
    expect(without).toEqual([])
  })
})

describe('an item', () => {
  const itemOf = (id: string) => thePack().items.find((item) => item.id === id)

  it('that a joint words for itself keeps what it shares with the other joints', () => {
    const [shared, own] = [itemOf('knee.screen.micro-motion'), itemOf('ankle.screen.micro-motion')]
    expect(own?.positive).not.toBe(shared?.positive)
    expect(own?.options).toEqual(shared?.options)
    expect(own?.adverseIfPain).toBe(shared?.adverseIfPain)
    expect(own?.adverseIfPain).toBeDefined()
  })

  it('has the same keys as every other, whatever its file says, and is written without those that say nothing', () => {
    const shapes = new Set(thePack().items.map((item) => Object.keys(item).join()))
    expect(shapes.size).toBe(1)
    expect(JSON.parse(JSON.stringify(itemOf('story.trauma')))).not.toHaveProperty('norms')
  })
})

/** A file of the knee's pack read, changed and written again. */
const edited = (path: string, edit: (document: Any) => void): SourceFile[] => {
  const files = contentFiles('knee')
  expect(files.map((file) => file.path)).toContain(path)
  return files.map((file) => (file.path === path ? { path, text: JSON.stringify(editedOf(file.text, edit)) } : file))
}
function editedOf(text: string, edit: (document: Any) => void): unknown {
  const document = load(text, { schema: CORE_SCHEMA }) as Any
  const before = JSON.stringify(document)
  edit(document)
  expect(JSON.stringify(document), 'the edit changes something').not.toBe(before)
  return document
}
type Any = any
const named = (things: Any, id: string): Any => things.find((thing: Any) => thing.id === id)
const item = (id: string) => (document: Any) => named(document.items, id)
/** Replaces text wherever it stands in a part of a document. */
const swap = (part: Any, from: string, to: string): Any => {
  const text = JSON.stringify(part)
  expect(text).toContain(from)
  return JSON.parse(text.replace(from, to))
}

describe('a bad pack is refused with file, id and cure', () => {
  const tests = 'regions/knee/tests.yaml'
  const prompts = 'regions/knee/prompts.yaml'
  const phrases = 'regions/knee/phrases.yaml'
  const region = 'regions/knee/region.yaml'
  const calcs = 'regions/knee/calcs.yaml'
  const out = 'conditions/knee/patella-unreduced.yaml'
  const cauda = 'conditions/back/cauda-equina.yaml'

  it.each<[string, string, (document: Any) => void, RegExp]>([
    [
      'an unknown item in a rule',
      out,
      (d) => (d.regions = swap(d.regions, 'knee.screen.deformity = patella lateral', 'knee.screen.deformed = patella lateral')),
      /conditions\/knee\/patella-unreduced\.yaml.*knee\.flag\.patella-unreduced.*knee\.screen\.deformed.*cure/,
    ],
    ['a word that is not an option', out, (d) => (d.regions = swap(d.regions, 'patella lateral', 'patella gone')), /"patella gone".*is not among the options/],
    ['a key that is not known', tests, (d) => (item('knee.test.valgus-30')(d).hynt = 'x'), /knee\.test\.valgus-30.*additional properties: "hynt"/],
    ['a kind that is not known', tests, (d) => (item('knee.test.valgus-30')(d).kind = 'looseness'), /must be equal to one of the allowed values/],
    ['two items with one id', tests, (d) => (item('knee.test.varus-30')(d).id = 'knee.test.valgus-30'), /knee\.test\.valgus-30: the id is already used/],
    [
      'a joint that says more than all joints do, and not why',
      'conditions/limb/compartment-syndrome.yaml',
      (d) => delete d.regions.knee.because,
      /knee: any\.flag\.compartment: says more than all joints do, and not why/,
    ],
    ['a word that is no function', prompts, (d) => (d.prompts = swap(d.prompts, 'diff(knee.move', 'delta(knee.move')), /"delta" is not a function/],
    ['an item without its meaning', tests, (d) => delete item('knee.test.squat-pain')(d).positive, /knee\.test\.squat-pain.*positive/],
    [
      'a condition that weighs with figures that nobody verified',
      'conditions/knee/acl-rupture.yaml',
      (d) => (d.likelihood = swap(d.likelihood, 'Benjaminse 2006; van Eck 2013', 'Kim 2007')),
      /knee\.cond\..*: weighs with figures of Kim 2007, which are not verified/,
    ],
    ['an item that is no mapping', tests, (d) => d.items.unshift('squat'), /regions\/knee\/tests\.yaml.*must be object/],
    ['a phrase of nothing', phrases, (d) => delete named(d.phrases, 'knee.note.hip').covers, /knee\.note\.hip: is said of nothing/],
    ['a group that does not exist', out, (d) => (d.regions.knee.asks = ['bowd']), /asks the group "bowd"/],
    ['a criterion that does not exist', out, (d) => (d.regions.knee.inPlay = 'criterion(knee.kneecap)'), /the criterion "knee\.kneecap" is not defined/],
    ['a flag in a file of its own kind', 'regions/knee/holds.yaml', (d) => ((d.flags = [{ id: 'knee.flag.x' }]), delete d.holds), /no key that the pack knows/],
  ])('%s', (_what, path, edit, told) => expect(compileFaults(edited(path, edit))).toMatch(told))

  const criteria = (...more: object[]): SourceFile[] => [...contentFiles(), { path: 'criteria/more.yaml', text: JSON.stringify({ criteria: more }) }]
  const aCriterion = { id: 'more.fall', says: 'a fall', when: 'story.trauma', source: 'expert', reason: 'expert' }
  it('a criterion that no rule names', () => expect(compileFaults(criteria(aCriterion))).toMatch(/criteria\/more\.yaml: more\.fall: is named by no rule/))
  it('two criteria of one name', () =>
    expect(compileFaults(criteria({ ...aCriterion, id: 'common.implant-here' }))).toMatch(/common\.implant-here: stands in criteria\/common\.yaml already/))

  it('YAML that does not parse', () => {
    const files = contentFiles('knee').map((file) => (file.path === 'regions/knee/look.yaml' ? { ...file, text: 'stage: [look' } : file))
    expect(compileFaults(files)).toMatch(/not valid YAML/)
  })

  it.each<[string, string, (document: Any) => void, RegExp]>([
    [
      'a phrase that speaks for a measurement',
      phrases,
      (d) => (named(d.phrases, 'knee.note.hip').covers = ['vascular.ankle-index']),
      /knee\.note\.hip: covers vascular\.ankle-index, which has no plain word for normal/,
    ],
    [
      'a phrase over two stages',
      phrases,
      (d) => named(d.phrases, 'knee.note.meniscus').covers.push('knee.feel.calf'),
      /knee\.note\.meniscus: covers items of (feel and test|test and feel)/,
    ],
    [
      'a flag that nothing can meet',
      cauda,
      (d) => (
        (d.some = undefined),
        (d.common.clauses = undefined),
        (d.regions.knee.clauses = [{ tier: 'now', when: { all: ['story.trauma', { not: { proven: 'story.trauma' } }] } }])
      ),
      /back\.flag\.cauda-equina: no findings meet it/,
    ],
    [
      'a flag that is met without being in play',
      'conditions/knee/extensor-unclear.yaml',
      (d) => d.regions.knee.inPlay.any.shift(),
      /knee\.flag\.extensor-unclear: is met by core findings without being in play/,
    ],
    [
      'inPlay that reads a prompted item',
      'conditions/limb/joint-wound.yaml',
      (d) => (d.regions.knee.inPlay = 'screen.bleeding = pulsatile'),
      /inPlay reads knee\.screen\.bleeding, which is not core/,
    ],
    [
      'a test that does not say how it is done',
      tests,
      (d) => delete item('knee.test.bounce-home')(d).technique,
      /knee\.test\.bounce-home: is a test that does not say how it is done/,
    ],
    [
      'a test that does not say how its technique is lost',
      tests,
      (d) => delete item('knee.test.swain')(d).lost,
      /knee\.test\.swain: is a test that does not say how its technique is lost/,
    ],
    [
      'a usual range by a reference that does not exist',
      'regions/knee/move.yaml',
      (d) => (item('knee.move.flexion')(d).norms = { textbok: '135' }),
      /knee\.move\.flexion: has a usual range by "textbok", which is none of the reference ranges/,
    ],
    [
      'a practice variant that goes by a way it does not name',
      'regions/knee/practice-variants.yaml',
      (d) => (d.practiceVariants = swap(d.practiceVariants, '"default":"by position"', '"default":"by heart"')),
      /knee: Order of the examination: goes by "by heart", which is none of its choices/,
    ],
    ['two items with one key', region, (d) => (d.region.core = swap(d.region.core, '"key":"jll"', '"key":"jlm"')), /has the key "jlm"/],
    [
      'too many core items',
      region,
      (d) => d.region.core.unshift({ item: 'knee.feel.mcl', seconds: 2, why: 'common', key: 'mcl' }),
      /core items of feel; the ceiling is 12/,
    ],
    [
      'a comparison without its reading',
      calcs,
      (d) => (d.calcs = swap(d.calcs, 'knee.move.flexion.active < 90°', 'knee.move.flexion < 90°')),
      /does not say which reading/,
    ],
    [
      'a rule that depends on itself',
      calcs,
      (d) => named(d.calcs, 'knee.calc.joint-line-tenderness').when.any.unshift('knee.calc.joint-line-tenderness'),
      /knee\.calc\.joint-line-tenderness: depends on itself/,
    ],
    [
      'proven outside a not',
      cauda,
      (d) => (d.regions.knee.clauses = [{ tier: 'now', when: { proven: 'screen.bladder-bowel-saddle != none' } }]),
      /uses proven outside a not/,
    ],
    ['an action that does not exist', cauda, (d) => (d.common.doNow = ['now.phon']), /"now\.phon" first, which is no action/],
  ])('%s', (_what, path, edit, told) => expect(lintFaults(edited(path, edit))).toMatch(told))
})

describe('a letter', () => {
  it('looks only for what can be recorded', () => {
    const files = contentFiles().map((file) => (file.path === 'pack.yaml' ? { ...file, text: file.text.replace('- lab.lactate', '- lab.laktate') } : file))
    expect(lintPack(compilePack(files)).map(problemLine).join('\n')).toMatch(/dest\.medical-oncall: looks for lab\.laktate, which is no item/)
  })
})

describe('a region', () => {
  it('may not read what only another joint has', () => {
    const path = 'conditions/foot/child-rigid-flatfoot.yaml'
    const files = contentFiles().map((file) =>
      file.path === path ? { path, text: file.text.replace('foot.test.peroneal-spasm = peroneal spasm', 'ankle.move.subtalar-motion = rigid') } : file,
    )
    expect(
      lintRegion(viewOf(compilePack(files), 'foot'))
        .map(problemLine)
        .join('\n'),
    ).toMatch(/foot\..*: reads ankle\.move\.subtalar-motion, which this region does not have/)
  })
})

describe('a pack of an earlier version', () => {
  it('is completed with what that version did not know, and judges as before', () => {
    const pack = thePack()
    const before: Readonly<Record<string, string>> = { prompts: 'groups', practiceVariants: 'schools', referenceRanges: 'normSchools' }
    const parts = Object.entries(JSON.parse(JSON.stringify(pack)) as object).filter(([key]) => key !== 'nerveLesions')
    const old = Object.fromEntries(parts.map(([key, part]: [string, unknown]) => [before[key] ?? key, part])) as Record<string, Record<string, unknown>[]>
    for (const item of old.items ?? []) {
      delete item.lost
      delete item.also
    }
    for (const calc of old.calcs ?? []) delete calc.also
    for (const region of old.regions ?? []) delete region.ordinary
    const upgraded = upgradePack(inTodaysKeys(old) as never)
    expect(upgraded.nerveLesions.lesions).toEqual([])
    expect(upgraded.items.every((item) => Array.isArray(item.lost) && Array.isArray(item.also))).toBe(true)
    expect([upgraded.flags, upgraded.prompts, upgraded.practiceVariants]).toEqual([pack.flags, pack.prompts, pack.practiceVariants])
  })
})

describe('places where nerves may be hurt', () => {
  it('name only items and places that exist', () => {
    const files = contentFiles()
    const broken = (from: string, to: string) =>
      files.map((file) => (file.path === 'shared/nerve-lesions.yaml' ? { ...file, text: file.text.replace(from, to) } : file))
    expect(() => compilePack(broken('neuro.strength.great-toe-extension', 'neuro.strength.great-toe-extention'))).toThrow(/great-toe-extention/)
    expect(() => compilePack(broken('      - common-peroneal', '      - comon-peroneal'))).toThrow(/comon-peroneal/)
  })
})
