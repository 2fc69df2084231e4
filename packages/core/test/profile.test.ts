import { describe, expect, it } from 'vitest'
import {
  clinicalNote,
  judge,
  judgedSides,
  judgement,
  localChoices,
  noteText,
  PackError,
  problemLine,
  viewOf,
  windowsOf,
  type Examination,
  type Pack,
} from '../src/index.js'
import { lintPack } from '../src/review/index.js'
import { AS_OF, calm, calmRecord, entriesFor, packWith, thePack, type Findings } from './support.js'

const about = (
  region: string,
  findings: Findings,
  base = calmRecord(viewOf(thePack(), region), thePack().regions.find((one) => one.id === region)?.ordinary ?? {}),
): Examination => {
  const side = thePack().regions.find((one) => one.id === region)?.side === false ? 'none' : 'right'
  return { complaint: { region, sides: [side] }, asOf: AS_OF, entries: [...base, ...entriesFor(findings, 'right', AS_OF, region)] }
}
const faultsOf = (profile: Parameters<typeof packWith>[1]): string[] => {
  try {
    packWith('knee', profile)
    return []
  } catch (error) {
    if (!(error instanceof PackError)) throw error
    return error.problems.map(problemLine)
  }
}

describe('the pack as it ships', () => {
  it('goes by the default on every matter, and by the windows of the tiers', () => {
    for (const { id } of thePack().regions) expect(localChoices(thePack().practiceVariants, id)).toEqual([])
    expect(windowsOf(thePack())).toEqual({ now: 1, today: 24, days: 168, weeks: 1008, routine: 3024, here: null })
  })
  it('has choices that change rules or rows in most joints', () => {
    const switching = thePack().practiceVariants.filter((variant) => variant.switches.length > 0)
    expect(new Set(switching.map((variant) => variant.region)).size).toBeGreaterThanOrEqual(7)
  })
})

const choices = thePack().practiceVariants.flatMap((variant) => variant.switches.map((choice) => ({ region: variant.region, topic: variant.topic, choice })))

/** On each matter of a joint one choice is held, together in a pack: the first of each, the second of each, until every choice was. */
const nth = ({ region, topic, choice }: (typeof choices)[number]): number =>
  choices.filter((one) => one.region === region && one.topic === topic).findIndex((one) => one.choice === choice)
const nameOf = (choice: (typeof choices)[number]): string => `${choice.region}, choice ${nth(choice) + 1} of each matter`
const packs = [...new Set(choices.map(nameOf))].map((name) => [name, choices.filter((choice) => nameOf(choice) === name)] as const)

describe.each(packs)('%s', (_name, held) => {
  const region = held[0]?.region ?? ''
  const pack = packWith(region, { choices: held })
  const view = viewOf(pack, region)
  it('is a pack without a fault, whose calm joint is Here to Here', () => {
    expect(lintPack(pack).map(problemLine)).toEqual([])
    for (const side of judgedSides(pack, { region, sides: ['right'] })) {
      const verdict = judge(pack, { complaint: { region, sides: [side] }, asOf: AS_OF, entries: calmRecord(view, view.regions[0].ordinary) })
      expect([verdict.floor, verdict.ceiling]).toEqual(['here', 'here'])
    }
  })
  it.each(held)('reads some rule, or shows some row, otherwise than the pack as it ships: $topic, $choice', (choice) => {
    const rules = (one: Pack): string => JSON.stringify([one.calcs, one.flags, one.holds, one.prompts, one.items])
    expect(rules(packWith(region, { choices: [choice] }))).not.toBe(rules(packWith(region, { choices: [] })))
  })
})

describe('a local choice', () => {
  const hot = packWith('knee', { choices: [{ region: 'knee', topic: 'Native hot joint in an adult', choice: 'now for all' }] })
  const hotKnee = about('knee', { 'knee.feel.warmth right': 'hot', 'knee.feel.effusion right': 'moderate', 'vitals.temperature': 37 }, calm())
  it.each<[string, string, string, string, Findings, string, string]>([
    [
      'knee',
      'Native hot joint in an adult',
      'now for all',
      'any.flag.septic-joint',
      { 'knee.feel.warmth right': 'hot', 'knee.feel.effusion right': 'moderate' },
      'today',
      'now',
    ],
    [
      'hand',
      'Thumb UCL rupture, criterion',
      'no end point alone',
      'hand.flag.thumb-ucl',
      { 'hand.feel.thumb-ucl right': '1', 'hand.test.thumb-ucl right': { value: 32, qualifiers: { 'end-point': 'firm' } } },
      'weeks',
      '',
    ],
    [
      'neck',
      'Degenerative cervical myelopathy, referral',
      'weeks',
      'neck.flag.myelopathy',
      { 'neuro.test.hoffmann right': 'present', 'neuro.test.hoffmann left': 'present', 'screen.myelopathy-symptoms': ['clumsy hands'] },
      'days',
      'weeks',
    ],
  ])('%s, %s by %s: %s', (region, topic, choice, flag, findings, before, after) => {
    const tierIn = (pack: Pack): string => judge(pack, about(region, findings)).flags.find(({ id }) => id === flag)?.tier ?? ''
    expect([tierIn(thePack()), tierIn(packWith(region, { choices: [{ region, topic, choice }] }))]).toEqual([before, after])
  })
  it('changes the hash of the pack, and no other joint', () => {
    expect(hot.hash).not.toBe(packWith('knee', { choices: [] }).hash)
    const shared = packWith('back', { choices: [{ region: 'back', topic: 'Myotomal weakness', choice: 'any weakness today' }] })
    expect(shared.flags.find(({ id }) => id === 'neuro.flag.motor-loss-mild')?.clauses.map(({ tier }) => tier)).toContain('today')
    expect(
      thePack()
        .flags.find(({ id, region }) => id === 'neuro.flag.motor-loss-mild' && region === 'neck')
        ?.clauses.map(({ tier }) => tier),
    ).toContain('days')
  })
  it('is told in the note, and nothing is while none is made', () => {
    const note = (pack: Pack): string => noteText(clinicalNote(judgement(pack, hotKnee)))
    expect(note(hot)).toMatch(/Judged by local choices\n {2}Native hot joint in an adult: now for all/)
    expect(note(thePack())).not.toMatch(/local choices/)
  })
  it('may shorten how long a tier waits, and the note is due by it', () => {
    const quick = packWith('knee', { choices: [], windows: { today: 12 } })
    expect(windowsOf(quick).today).toBe(12)
    expect(noteText(clinicalNote(judgement(quick, hotKnee)))).toMatch(/Today; due by Tue 10 Mar 2026, 21:00 UTC/)
  })
  it('may say how far the hospital is: the way comes off the window of an infection, not of a ligament', () => {
    const far = packWith('knee', { choices: [], journeyHours: 3 })
    const due = (pack: Pack, examination: Examination): string => noteText(clinicalNote(judgement(pack, examination)))
    expect(due(far, hotKnee)).toMatch(/Today; due by Wed 11 Mar 2026, 06:00 UTC/)
    expect(due(packWith('knee', { choices: [], journeyHours: 1 }), hotKnee)).toMatch(/Today; due by Wed 11 Mar 2026, 09:00 UTC/)
    const torn = about('knee', { 'knee.test.lachman': { value: 9, qualifiers: { 'end-point': 'soft' } }, 'story.giving-way': 'on pivoting' })
    expect(due(far, torn)).toMatch(/Weeks.*; due by Tue 21 Apr 2026, 09:00 UTC/)
  })
  it.each<[string, Parameters<typeof packWith>[1], RegExp]>([
    ['a topic that is none', { choices: [{ region: 'knee', topic: 'Colour of the couch', choice: 'blue' }] }, /no matter on which practice differs/],
    ['a choice that is none', { choices: [{ region: 'knee', topic: 'Locked knee', choice: 'never' }] }, /has no choice "never".*days, today when acute/],
    ['a matter chosen twice', { choices: [1, 2].map(() => ({ region: 'knee', topic: 'Locked knee', choice: 'today for all' })) }, /chosen twice/],
    ['windows that do not rise', { choices: [], windows: { days: 20 } }, /no longer than today/],
    ['a window of nothing', { choices: [], windows: { days: 0 } }, /windows\/days/],
    ['a way back in time', { choices: [], journeyHours: -1 }, /journeyHours/],
    ['a key that is none', { choices: [{ region: 'knee', topic: 'Locked knee', choice: 'today for all', because: 'x' }] }, /"because"/],
  ])('refuses %s, and says why', (_what, profile, why) => expect(faultsOf(profile).join('\n')).toMatch(why))
})
