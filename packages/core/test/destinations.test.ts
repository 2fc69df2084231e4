import { describe, expect, it } from 'vitest'
import { judge, problemLine, viewOf } from '../src/index.js'
import { tierRank } from '../src/model/tier.js'
import { lintDestinations } from '../src/review/index.js'
import { AS_OF, entriesFor, theKnee, thePack, type Findings } from './support.js'

const firstPlace = (findings: Findings, flag: string) => {
  const { flags } = judge(theKnee(), { complaint: { region: 'knee', sides: ['right'] }, asOf: AS_OF, entries: entriesFor(findings) })
  const [first] = flags.find(({ id }) => id === flag)?.to ?? []
  return thePack().destinations.find(({ id }) => id === first)
}

describe('where a flag sends', () => {
  it('can take the patient in time, and only what is Now goes to the resuscitation room', () =>
    expect(thePack().regions.flatMap(({ id }) => lintDestinations(viewOf(thePack(), id)).map(problemLine))).toEqual([]))
  it('is refused when the place sees too late for the tier', () => {
    const late = { ...theKnee(), destinations: theKnee().destinations.map((place) => ({ ...place, sees: 'weeks' as const })) }
    expect(lintDestinations(late).map(problemLine).join('\n')).toMatch(
      /any\.flag\.septic-joint: sends now to dest\.ortho-oncall first, which sees from weeks on/,
    )
  })
  it('is refused when it is the resuscitation room for what is not Now', () => {
    const flags = theKnee().flags.map((flag) => ({ ...flag, to: ['dest.ed-resus'] }))
    expect(
      lintDestinations({ ...theKnee(), flags })
        .map(problemLine)
        .join('\n'),
    ).toMatch(/knee\.flag\.acl: sends weeks to the resuscitation room first/)
  })
  it('is the place of the clause that is met, where it names its own', () => {
    const wholeLeg: Findings = { 'screen.limb-swollen': { value: 'whole leg', qualifiers: { colour: 'cyanosed' } } }
    expect(firstPlace({ 'screen.limb-swollen': 'calf' }, 'any.flag.dvt')?.id).toBe('dest.dvt-clinic')
    expect(firstPlace(wholeLeg, 'any.flag.dvt')?.id).toBe('dest.ed-resus')
  })
  it('of a finding nothing explains is as urgent as the finding, not the resuscitation room', () =>
    expect(firstPlace({ 'knee.move.forced-extension': 'block' }, 'any.flag.unexplained-finding')?.id).toBe('dest.own-clinic'))
  it('is a team that sees in time when a modifier made it more urgent than its clinic can take', () => {
    const loose: Findings = { 'patient.prosthesis-here': 'total', 'knee.history.pain-pattern': ['on loading'] }
    expect(firstPlace(loose, 'any.flag.painful-arthroplasty')?.id).toBe('dest.arthroplasty')
    const { flags } = judge(theKnee(), {
      complaint: { region: 'knee', sides: ['right'] },
      asOf: AS_OF,
      entries: entriesFor({ 'feel.warmth': 'warmer', ...loose }),
    })
    for (const { to, tier } of flags) {
      const place = thePack().destinations.find(({ id }) => id === to[0])
      expect(tierRank(place?.sees ?? 'here')).toBeLessThanOrEqual(tierRank(tier ?? 'here'))
    }
  })
})
