import { describe, expect, it } from 'vitest'
import { compilePack, judgement, PackError, viewOf, type RegionPack, type Side } from '../src/index.js'
import { truthOf, type Truth } from '../src/rules/truth.js'
import type { RuleSource } from '../src/rules/parseRule.js'
import { AS_OF, contentFiles, entriesFor, type Findings } from './support.js'

const PULSE = 'vascular.pulse-dorsalis-pedis'
const GIRTH = 'vascular.calf-girth'
const POWER = 'neuro.strength.knee-extension'
const LINE = 'knee.feel.medial-joint-line'
const both = (id: string, right: Findings[string], left: Findings[string]): Findings => ({ [`${id} right`]: right, [`${id} left`]: left })
const lost = { state: 'not-valid', reason: 'technique lost' } as const
const stopped = (reason: string) => ({ state: 'could-not', reason }) as const
const [met, no, unknown] = ['met', 'not-met', 'unknown'] as const

/** Kleene's strong logic: of two truths their "all" and their "any". */
const KLEENE: readonly (readonly [a: Truth, b: Truth, all: Truth, any: Truth])[] = [
  [met, met, met, met],
  [met, no, no, met],
  [met, unknown, unknown, met],
  [no, met, no, met],
  [no, no, no, no],
  [no, unknown, no, unknown],
  [unknown, met, unknown, met],
  [unknown, no, no, unknown],
  [unknown, unknown, unknown, unknown],
]
const told = (item: string, truth: Truth): Findings => (truth === unknown ? {} : { [item]: truth === met ? 'present' : 'absent' })
const pair = ['story.trauma', 'story.pop']
const kleene = KLEENE.flatMap(([a, b, all, any]): (readonly [RuleSource, Findings, Truth])[] => {
  const findings = { ...told('story.trauma', a), ...told('story.pop', b) }
  return [
    [{ all: pair }, findings, all],
    [{ any: pair }, findings, any],
    [{ atLeast: { n: 2, of: pair } }, findings, all],
    [{ atLeast: { n: 1, of: pair } }, findings, any],
    [{ not: { any: pair.map((item) => ({ not: item })) } }, findings, all],
  ]
})

/** Each word of the rule language, with findings that decide it and findings that do not. */
const WORDS: readonly (readonly [rule: RuleSource, findings: Findings, truth: Truth])[] = [
  ...kleene,
  // a sign by itself
  ['story.trauma', { 'story.trauma': 'present' }, met],
  ['story.trauma', { 'story.trauma': 'absent' }, no],
  ['story.trauma', {}, unknown],
  ['always', {}, met],
  // words of a grade by their order, of a choice by name
  [`${PULSE} <= reduced`, { [`${PULSE} right`]: 'absent' }, met],
  [`${PULSE} <= reduced`, { [`${PULSE} right`]: 'normal' }, no],
  [`${PULSE} < normal`, { [`${PULSE} right`]: stopped('declined') }, unknown],
  [`${PULSE} < normal`, { [`${PULSE} left`]: 'absent' }, unknown],
  ['screen.weight-bearing-steps = with a limp', { 'screen.weight-bearing-steps': 'with a limp' }, met],
  ['screen.weight-bearing-steps != freely', { 'screen.weight-bearing-steps': 'with a limp' }, met],
  ['screen.weight-bearing-steps != freely', {}, unknown],
  ['screen.weight-bearing-steps in {with a limp, few steps only}', { 'screen.weight-bearing-steps': 'few steps only' }, met],
  ['screen.weight-bearing-steps in {with a limp, few steps only}', { 'screen.weight-bearing-steps': 'freely' }, no],
  // a list of several
  ['story.infection-source has pharyngeal', { 'story.infection-source': ['dental', 'pharyngeal'] }, met],
  ['story.infection-source has pharyngeal', { 'story.infection-source': ['dental'] }, no],
  ['story.infection-source has-any {pharyngeal, dental}', { 'story.infection-source': ['dental'] }, met],
  ['story.infection-source has-all {pharyngeal, dental}', { 'story.infection-source': ['dental'] }, no],
  ['story.infection-source has-all {pharyngeal, dental}', { 'story.infection-source': ['dental', 'pharyngeal'] }, met],
  ['story.infection-source != none', { 'story.infection-source': ['none'] }, no],
  ['story.infection-source != none', { 'story.infection-source': ['dental'] }, met],
  ['story.infection-source has pharyngeal', {}, unknown],
  // numbers, readings and qualifiers
  ['knee.move.flexion.active < 90°', { 'knee.move.flexion right': { qualifiers: { active: 89 } } }, met],
  ['knee.move.flexion.active < 90°', { 'knee.move.flexion right': { qualifiers: { active: 90 } } }, no],
  ['knee.move.flexion.active < 90°', { 'knee.move.flexion right': { qualifiers: { passive: 60 } } }, unknown],
  ['knee.test.lachman.end-point = soft', { 'knee.test.lachman right': { value: 8, qualifiers: { 'end-point': 'soft' } } }, met],
  ['knee.test.lachman.end-point = soft', { 'knee.test.lachman right': lost }, unknown],
  // the other side, either, both
  [`other(${PULSE}) = absent`, { [`${PULSE} left`]: 'absent' }, met],
  [`other(${PULSE}) = absent`, { [`${PULSE} right`]: 'absent' }, unknown],
  [`either(${PULSE} = absent)`, both(PULSE, 'normal', 'absent'), met],
  [`either(${PULSE} = absent)`, { [`${PULSE} right`]: 'normal' }, unknown],
  [`either(${PULSE} = absent)`, both(PULSE, 'normal', 'normal'), no],
  [`both(${PULSE} = absent)`, both(PULSE, 'absent', 'normal'), no],
  [`both(${PULSE} = absent)`, { [`${PULSE} right`]: 'absent' }, unknown],
  // arithmetic between the sides and the readings
  [`diff(${GIRTH}) >= 30 mm`, both(GIRTH, 392, 360), met],
  [`diff(${GIRTH}) >= 30 mm`, both(GIRTH, 360, 392), no],
  [`diff(${GIRTH}) >= 30 mm`, { [`${GIRTH} right`]: 392 }, unknown],
  [`deficit(${GIRTH}) >= 20 %`, both(GIRTH, 300, 400), met],
  [`deficit(${GIRTH}) >= 20 %`, both(GIRTH, 350, 400), no],
  ['gap(knee.move.flexion) >= 20°', { 'knee.move.flexion right': { qualifiers: { active: 100, passive: 125 } } }, met],
  ['gap(knee.move.flexion) >= 20°', { 'knee.move.flexion right': { qualifiers: { active: 100 } } }, unknown],
  [`worst(${LINE}, knee.feel.lateral-joint-line) >= 2`, { [`${LINE} right`]: '0', 'knee.feel.lateral-joint-line right': '2' }, met],
  // power and likeness
  [`weak(${POWER})`, { [`${POWER} right`]: '4' }, met],
  [`weak(${POWER})`, both(POWER, '4+', '5'), met],
  [`weak(${POWER})`, both(POWER, '4+', '4+'), no],
  [`weak(${POWER})`, { [`${POWER} right`]: '4+' }, unknown],
  [`weak(${POWER})`, { [`${POWER} right`]: '5' }, no],
  [`weak(${POWER})`, { [`${POWER} right`]: stopped('pain') }, unknown],
  [`differs(${PULSE})`, both(PULSE, 'normal', 'reduced'), met],
  [`differs(${PULSE})`, both(PULSE, 'normal', 'normal'), no],
  [`differs(${PULSE})`, { [`${PULSE} right`]: 'normal' }, unknown],
  // states: always met or not met
  [`unseen(${PULSE})`, {}, met],
  [`unseen(${PULSE})`, { [`${PULSE} right`]: 'normal' }, no],
  [`unseen(${PULSE})`, { [`${PULSE} right`]: stopped('pain') }, met],
  [`could-not(${LINE}, pain)`, { [`${LINE} right`]: stopped('pain') }, met],
  [`could-not(${LINE}, pain)`, { [`${LINE} right`]: stopped('declined') }, no],
  [`could-not(${LINE})`, { [`${LINE} right`]: stopped('declined') }, met],
  ['not-valid(knee.test.lachman)', { 'knee.test.lachman right': lost }, met],
  ['not-valid(knee.test.lachman)', {}, no],
  [`rechecked(${PULSE}, 48h)`, { [`${PULSE} right`]: 'normal' }, no],
  [`change(${PULSE}, 48h) < 0`, { [`${PULSE} right`]: 'reduced' }, unknown],
  // structure in three values
  [{ all: ['story.trauma', `${PULSE} = absent`] }, { 'story.trauma': 'absent' }, no],
  [{ all: ['story.trauma', `${PULSE} = absent`] }, { 'story.trauma': 'present' }, unknown],
  [{ any: ['story.trauma', `${PULSE} = absent`] }, { 'story.trauma': 'present' }, met],
  [{ any: ['story.trauma', `${PULSE} = absent`] }, { 'story.trauma': 'absent' }, unknown],
  [{ not: 'story.trauma' }, {}, unknown],
  [{ not: 'story.trauma' }, { 'story.trauma': 'absent' }, met],
  [{ not: { proven: 'story.trauma' } }, {}, met],
  [{ not: { proven: 'story.trauma' } }, { 'story.trauma': 'present' }, no],
  [{ atLeast: { n: 2, of: ['story.trauma', 'story.pop', 'story.fever'] } }, { 'story.trauma': 'present', 'story.fever': 'present' }, met],
  [{ atLeast: { n: 2, of: ['story.trauma', 'story.pop', 'story.fever'] } }, { 'story.trauma': 'present' }, unknown],
  [{ atLeast: { n: 2, of: ['story.trauma', 'story.pop', 'story.fever'] } }, { 'story.trauma': 'absent', 'story.pop': 'absent' }, no],
]

const numbered = new Map([...new Set(WORDS.map(([rule]) => JSON.stringify(rule)))].map((rule, at) => [rule, `knee.calc.word-${at}`]))
const file = (calcs: readonly object[]) => ({ path: 'regions/knee/words.yaml', text: JSON.stringify({ calcs }) })
const calcOf = (id: string, when: unknown): object => ({ id, label: 'a word of the language', when, source: 'expert' })
let made: RegionPack | undefined
/** The knee, with each rule of the table as a calculated value of its own. */
const knee = (): RegionPack =>
  (made ??= viewOf(compilePack([...contentFiles('knee'), file([...numbered].map(([rule, id]) => calcOf(id, JSON.parse(rule) as unknown)))]), 'knee'))

describe('the rule language', () => {
  it.each(
    WORDS.map(([rule, findings, truth]) => [typeof rule === 'string' ? rule : JSON.stringify(rule), JSON.stringify(findings), truth, rule, findings] as const),
  )('%s with %s is %s', (_rule, _findings, truth, rule, findings) => {
    const { compiled, context } = judgement(knee(), {
      complaint: { region: 'knee', sides: ['right'] satisfies Side[] },
      asOf: AS_OF,
      entries: entriesFor(findings),
    })
    // A record of its own, in which nothing is left aside because nobody asked for it.
    const bare = compiled.context(context.slots, context.previous, context.asOf)
    expect(truthOf(compiled.compiledCalc(numbered.get(JSON.stringify(rule)) ?? '').truth(bare, 0))).toBe(truth)
  })

  it.each<[string, string, RegExp]>([
    ['a name that is nowhere', 'knee.feel.aura >= 2', /"knee\.feel\.aura" in .* is no item/],
    ['a number without its unit', 'knee.move.flexion.active < 90', /not in the unit .*/],
    ['a number in another unit', `diff(${GIRTH}) >= 3 cm`, /"3 cm" in .* is not in the unit/],
    ['a word that is no function', 'sum(story.trauma) > 1', /"sum" is not a function/],
    ['a state that is none', 'forgotten(story.trauma)', /"forgotten" is not a word of the rule language/],
    ['a time that is none', `change(${PULSE}, soon) < 0`, /"soon" is no time/],
    ['a set that is none', 'all-examined($knee.everything)', /the set "\$?knee\.everything" is not defined|is not defined/],
    ['a flag that is none', 'flag(knee.flag.tail)', /"knee\.flag\.tail" in .* is no item/],
    ['both of a state', `both(unseen(${PULSE}))`, /both\(\) takes a comparison/],
  ])('refuses %s, and says how to mend it', (_what, rule, reason) => {
    const compile = () => compilePack([...contentFiles('knee'), file([calcOf('knee.calc.wrong', rule)])])
    expect(compile).toThrow(PackError)
    try {
      compile()
    } catch (error) {
      const [problem] = (error as PackError).problems
      expect(problem?.reason).toMatch(reason)
      expect(problem).toMatchObject({ file: 'regions/knee/words.yaml', id: 'knee: knee.calc.wrong', cure: expect.stringMatching(/.{8,}/) as string })
    }
  })
})
