import { describe, expect, it } from 'vitest'
import { calcLines, libraryIndex, ruleLines, sourceNames, usersOf, viewOf, type RuleLine } from '../src/index.js'
import { thePack } from './support.js'

const pack = thePack()
const index = libraryIndex(pack)
const flat = (line: RuleLine): string[] => [line.text, ...line.kids.flatMap(flat)]

describe('the library', () => {
  it('has every item, calculated value, flag and condition of the pack in one of its entries', () => {
    const kinds = (kind: string): number => index.filter((entry) => entry.kind === kind).length
    expect(kinds('test')).toBeGreaterThan(150)
    expect(new Set(pack.flags.map((flag) => flag.id)).size).toBe(kinds('flag'))
    expect(pack.conditions.every((one) => index.some((entry) => entry.kind === 'condition' && entry.label === one.name))).toBe(true)
    expect(pack.items.every((item) => index.some((entry) => entry.label === item.label))).toBe(true)
  })
  it('shows what every joint has only once, with its joints', () => {
    const wound = index.filter((entry) => entry.label === 'Wound, deepest structure')
    expect(wound).toHaveLength(1)
    expect(wound[0]?.regions.length).toBeGreaterThan(10)
    const keys = index.map((entry) => `${entry.kind} ${entry.id}`)
    expect(new Set(keys).size).toBe(keys.length)
  })
  it('gives a flag its most urgent tier over all joints', () => {
    expect(index.find((entry) => entry.id === 'any.flag.septic-joint')?.tier).toBe('now')
    expect(index.find((entry) => entry.id === 'hand.flag.dupuytren')?.tier).toBe('routine')
  })
  it('knows every source by name and none called expert', () => {
    expect(sourceNames('Wells 2003; Chan 2009')).toEqual(['Wells 2003', 'Chan 2009'])
    expect(sourceNames('expert')).toEqual([])
    expect(index.filter((entry) => entry.kind === 'source').map((entry) => entry.label)).toContain('Stiell 2001')
  })
})

describe('a rule in words', () => {
  const hip = viewOf(pack, 'hip')
  it('reads a comparison, a side, a calculated value and a negation as a sentence', () => {
    const lines = hip.flags.flatMap((flag) => flag.clauses.flatMap((clause) => flat(ruleLines(hip, clause.when))))
    expect(lines).toContain('Log roll test (passive supine rotation): present')
    expect(lines).toContain('Unable to bear weight')
    expect(lines.some((line) => line.startsWith('Absent'))).toBe(true)
    expect(lines.some((line) => line.endsWith(', on both sides'))).toBe(true)
    expect(lines.some((line) => /calc\.|undefined/.test(line))).toBe(false)
  })
  it('gives a unit to a number and none to a word', () => {
    const knee = viewOf(pack, 'knee')
    const lines = pack.regions.flatMap((region) => {
      const view = viewOf(pack, region.id)
      return view.calcs.flatMap((calc) => calcLines(view, calc).flatMap(flat))
    })
    expect(lines).toContain('Calf circumference: at least 30 mm more than on the other side')
    expect(calcLines(knee, knee.calcs.find((calc) => calc.kind === 'score') ?? (undefined as never))[0]?.text).toMatch(/point/)
  })
  it('names every rule of every joint without an id in it', () => {
    for (const region of pack.regions) {
      const view = viewOf(pack, region.id)
      const texts = [
        ...view.flags.flatMap((flag) => [flag.inPlay, ...flag.clauses.map((clause) => clause.when)]),
        ...view.holds.map((hold) => hold.when),
      ].flatMap((rule) => flat(ruleLines(view, rule)))
      expect(texts.filter((text) => /\b[a-z-]+\.(calc|flag|test|look|feel|move|history)\./.test(text))).toEqual([])
    }
  })
})

describe('what reads a finding', () => {
  const knee = viewOf(pack, 'knee')
  it('finds flags that read it through a calculated value', () => {
    const direct = knee.flags.filter((flag) => JSON.stringify(flag.clauses).includes('test.lachman'))
    expect(usersOf(knee, 'knee.test.lachman').flags.length).toBeGreaterThanOrEqual(direct.length)
    expect(usersOf(viewOf(pack, 'hip'), 'test.log-roll').flags.map((flag) => flag.id)).toContain('any.flag.septic-joint')
  })
  it('finds who asks for it and what stops it', () => {
    const back = viewOf(pack, 'back')
    expect(usersOf(back, 'back.test.slump').askedBy.map((group) => group.id)).toEqual(['back.ask.slr-equivocal'])
    expect(usersOf(back, 'back.test.slump').stoppedBy.map((hold) => hold.id)).toContain('back.hold.cauda')
  })
  it('finds users of a calculated value', () => {
    expect(usersOf(viewOf(pack, 'back'), 'back.calc.cauda-strong').flags.map((flag) => flag.id)).toContain('back.flag.cauda-equina')
  })
})
