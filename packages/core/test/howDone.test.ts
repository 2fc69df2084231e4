import { describe, expect, it } from 'vitest'
import { clinicalNote, inTodaysNames, itemsById, judgement, residualOf, standingHolds, viewOf, type Entry } from '../src/index.js'
import { calmRecord as calmForReport, examinationOf, idsFrom, toldOf } from '../src/review/calmRecord.js'
import { AS_OF, entriesFor, packWith, thePack, type Findings } from './support.js'

const judgedOf = (region: string, findings: Findings) =>
  judgement(thePack(), { complaint: { region, sides: ['right'] }, asOf: AS_OF, entries: entriesFor(findings, 'right', AS_OF, region) })
const itemOf = (region: string, id: string) => {
  const item = itemsById(viewOf(thePack(), region)).get(id)
  if (!item) throw new Error(`${region} has no ${id}`)
  return item
}
const asked = (region: string, findings: Findings, item: string): boolean => {
  const { compiled, verdict } = judgedOf(region, findings)
  return verdict.asked.level[compiled.index(item)] === 2
}

describe('how long a test was held', () => {
  const phalen = (value: string, held?: number): Findings => ({ 'wrist.test.phalen': { value, qualifiers: held === undefined ? {} : { held } } })
  const stateOf = (findings: Findings): string => {
    const { context, compiled } = judgedOf('wrist', findings)
    const reading = [...context.slots].find((slot, at) => slot !== undefined && Math.floor(at / 3) === compiled.index('wrist.test.phalen'))
    return reading?.notValid ? 'not valid' : 'counts'
  }
  it.each([
    ['negative', 20, 'not valid'],
    ['negative', 59, 'not valid'],
    ['negative', 60, 'counts'],
    ['negative', undefined, 'counts'],
    ['median paraesthesia', 20, 'counts'],
  ])('%s after %s s %s', (value, held, expected) => expect(stateOf(phalen(value, held))).toBe(expected))
  it('says so in the note', () => {
    const lines = clinicalNote(judgedOf('wrist', phalen('negative', 20))).flatMap((section) => section.lines)
    expect(lines.join(' ')).toContain('held 20 of 60 s: a negative result does not count')
  })
})

describe('where the familiar pain was', () => {
  it('is kept for tests and ranges, in the words in which the joint asks where it hurts', () => {
    for (const [region, id] of [
      ['knee', 'knee.test.mcmurray'],
      ['shoulder', 'shoulder.test.painful-arc'],
      ['hip', 'hip.move.flexion'],
    ] as const)
      expect(itemOf(region, id).qualifiers.site?.options).toEqual(itemOf(region, `${region}.history.pain-site`).options)
    expect(itemOf('hip', 'hip.move.flexion').qualifiers['pain-from']?.unit).toBe('°')
  })
  it('is not asked again of a test whose options say it', () => expect(itemOf('hip', 'hip.test.faber').qualifiers.site).toBeUndefined())
  it('is asked in every joint but an infant hip and one that was named', () => {
    const without = thePack().regions.filter(({ id }) => !viewOf(thePack(), id).items.some((item) => /\.history\.(first-)?pain-site$/.test(item.id)))
    expect(without.map(({ id }) => id).sort()).toEqual(['any-joint', 'infant-hip'])
  })
  it('changes what is asked', () => {
    expect(asked('shoulder', { 'shoulder.history.pain-site': ['top (AC joint)'] }, 'shoulder.test.cross-body')).toBe(true)
    expect(asked('foot', { 'foot.history.pain-site': ['metatarsal heads'] }, 'foot.test.mulder')).toBe(true)
    expect(asked('foot', { 'foot.history.pain-site': ['plantar heel'] }, 'foot.test.mulder')).toBe(false)
  })
})

describe('what a negative leaves open', () => {
  it('is told with its figure, and what would lower it', () => {
    const judged = judgedOf('knee', { 'knee.test.pivot-shift': '0' })
    const residual = residualOf(itemOf('knee', 'knee.test.pivot-shift'), judged, 'right')
    const sens = itemOf('knee', 'knee.test.pivot-shift').accuracy.find((one) => one.sens !== undefined && !one.unverified)?.sens ?? 0
    expect(residual?.missed).toBe(100 - sens)
    expect(residual?.lowers.map(({ item }) => item)).toEqual(['knee.test.lachman'])
  })
  it('is nothing after a positive, and on a side where it was not done', () => {
    const judged = judgedOf('knee', { 'knee.test.pivot-shift': '2' })
    for (const side of ['right', 'left'] as const) expect(residualOf(itemOf('knee', 'knee.test.pivot-shift'), judged, side)).toBeUndefined()
  })
})

describe('what is asked alongside', () => {
  it('a chaperone with every intimate examination, and only there', () => {
    expect(asked('hip', {}, 'screen.chaperone')).toBe(true)
    expect(asked('back', { 'back.history.saddle': ['altered sensation'] }, 'screen.chaperone')).toBe(true)
    expect(itemsById(viewOf(thePack(), 'wrist')).get('screen.chaperone')?.depth).toBe('on-demand')
  })
  it('consent and exposure first in every joint', () => {
    for (const { id, stops } of thePack().regions) {
      expect(asked(id, { 'patient.age-years': 40 }, 'screen.preparation')).toBe(true)
      expect(stops[1]?.items[0]).toBe('screen.preparation')
    }
  })
})

describe('before a provocative nerve test', () => {
  const stopped = (region: string, findings: Findings) => standingHolds(judgedOf(region, findings)).find(({ id }) => id === 'any.hold.irritable-nerve')
  it.each(['back', 'neck'])('the irritability of a %s is asked, and a high one stops it', (region) => {
    expect(stopped(region, {})?.awaits.map(({ item }) => item)).toEqual(['story.irritability'])
    expect(stopped(region, { 'story.irritability': 'low' })).toBeUndefined()
    expect(stopped(region, { 'story.irritability': 'high' })?.stops.every((id) => id.startsWith(region))).toBe(true)
  })
  it.each(['back', 'neck'])('an earlier record of a %s reads in the words of today', (region) => {
    const [entry] = inTodaysNames(thePack(), [
      { id: 'a', item: `${region}.history.irritable`, side: 'none', state: 'examined', value: 'present', by: 'test', at: AS_OF },
    ] as Entry[])
    expect(entry).toMatchObject({ item: 'story.irritability', value: 'high' })
  })
  it.each<[string, Findings]>([
    ['rheumatoid arthritis', { 'patient.inflammatory-arthritis': ['rheumatoid arthritis'] }],
    ['trisomy 21', { 'patient.cervical-disorder': ['Down syndrome'] }],
    ['a connective tissue disorder', { 'patient.connective-tissue': 'present' }],
  ])('%s stops the craniocervical tests, and says what instead', (_, findings) => {
    const hold = standingHolds(judgedOf('neck', findings)).find(({ id }) => id === 'neck.hold.craniocervical-risk')
    expect(hold?.stops).toContain('neck.test.sharp-purser')
    expect(hold?.reason).toMatch(/Instead of the tests .*MRI/)
  })
})

describe('a local choice', () => {
  it('changes what the row shows: angle, hold and landmark', () => {
    const label = (region: string, topic: string, choice: string, id: string) =>
      itemsById(viewOf(packWith(region, { choices: [{ region, topic, choice }] }), region)).get(id)
    expect(label('knee', 'Angle of varus and valgus stress', '20° and 0°', 'knee.test.valgus-30')?.label).toBe('Valgus stress test at 20°')
    expect(label('wrist', 'Phalen test duration', '30 s', 'wrist.test.phalen')).toMatchObject({ holdSeconds: 30, label: 'Phalen test, 30 s' })
    expect(label('hip', 'Apparent leg length from', 'xiphisternum', 'hip.look.apparent-leg-length')?.label).toContain('xiphisternum')
  })
})

describe('after a trivial injury of a calm limb', () => {
  /** A neck that was injured has its cord examined, whatever else. */
  const BY_INJURY = new Set(['neck.ask.cord'])
  const NOBODY_WOULD = /vascular\.(ankle-index|arm-index|bruit|thrill)|^lab\./
  it.each(thePack().regions.map(({ id }) => id))('%s: nothing is asked that its own reason does not support', (id) => {
    const view = viewOf(thePack(), id)
    const told = toldOf({ 'story.trauma': 'present', 'story.energy': 'trivial', 'story.onset-at': '2026-01-14T09:00:00.000Z' }, idsFrom(5000))
    const calm = calmForReport(view).filter((entry) => !told.some(({ item }) => item === entry.item))
    const { compiled, context, sides, verdict } = judgement(view, examinationOf(view, [...calm, ...told]))
    const unsupported = verdict.asked.prompts.filter(({ id: group }) => {
      const own = compiled.prompts.find((one) => one.group.id === group)
      return !BY_INJURY.has(group) && !sides.some((side) => own?.rule.run(context, side) === 2)
    })
    expect(unsupported.map(({ id: group }) => group)).toEqual([])
    const items = view.items.filter((item, at) => item.depth === 'prompted' && verdict.asked.level[at] === 2).map((item) => item.id)
    expect(items.filter((item) => NOBODY_WOULD.test(item) || /\.imaging\.film$/.test(item))).toEqual([])
  })
})
