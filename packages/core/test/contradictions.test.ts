import { describe, expect, it } from 'vitest'
import { clinicalNote, contradictionsOf, judgement, viewOf } from '../src/index.js'
import { lintAsked, lintQualifiers } from '../src/review/index.js'
import { AS_OF, calm, contentFiles, entriesFor, theKnee, thePack, type Findings } from './support.js'

const judgedKnee = (findings: Findings) =>
  judgement(theKnee(), { complaint: { region: 'knee', sides: ['right'] }, asOf: AS_OF, entries: [...calm(), ...entriesFor(findings)] })
const metBy = (findings: Findings): string[] => judgedKnee(findings).verdict.flags.map(({ id }) => id)

describe('findings that contradict each other', () => {
  const both: Findings = { 'feel.effusion': 'none', 'knee.feel.patellar-tap': 'present' }
  it('are told with what does not agree', () => {
    const [one] = contradictionsOf(judgedKnee(both))
    expect(one).toMatchObject({ id: 'knee.contradiction.effusion', side: 'right' })
    expect(one?.items).toEqual(expect.arrayContaining(['knee.feel.effusion', 'knee.feel.patellar-tap']))
    const note = clinicalNote(judgedKnee(both)).find(({ heading }) => heading === 'Contradictory findings')
    expect(note?.lines.join()).toMatch(/No effusion, and a positive effusion test \(right\): .*effusion.*none.*tap/i)
  })
  it('are none in a calm examination, and none once one of them is corrected', () => {
    expect(contradictionsOf(judgedKnee({}))).toEqual([])
    expect(contradictionsOf(judgedKnee({ ...both, 'feel.effusion': 'moderate' }))).toEqual([])
  })
  it('never let "no referral criterion" stand', () => {
    expect(metBy({})).toContain('any.flag.here')
    expect(metBy(both)).not.toContain('any.flag.here')
  })
  it('are written for every joint', () =>
    expect(
      thePack()
        .regions.filter(({ id }) => !viewOf(thePack(), id).modifiers.some((one) => one.id.startsWith(`${id}.contradiction.`)))
        .map(({ id }) => id),
    ).toEqual(['any-joint']))
})

describe('no referral criterion', () => {
  it('does not stand while something found leaves what is urgent open', () => {
    const hip: Findings = { 'knee.neighbours.hip-reproduces': 'present' }
    const { verdict } = judgedKnee(hip)
    expect(verdict.floor).toBe('here')
    expect(verdict.openFlags.map(({ id }) => id)).toContain('hip.flag.fracture-occult')
    expect(metBy(hip)).not.toContain('any.flag.here')
    expect(metBy({ 'knee.look.skin': ['normal'] })).toContain('any.flag.here')
  })
})

describe('what is asked for', () => {
  const views = thePack().regions.map(({ id }) => viewOf(thePack(), id))
  it('is read by something, or says why it is noted', () => expect(lintAsked(contentFiles(), views)).toEqual([]))
  it('is refused when nothing reads it, and so is an excuse that is not needed', () => {
    const silent = contentFiles().filter(({ path }) => path !== 'noted.yaml')
    const ids = lintAsked(silent, views).map(({ id, reason }) => `${id} ${reason}`)
    expect(ids).toContain('knee.test.dial-90 is asked in the knee and read by nothing')
    const idle = [...contentFiles(), { path: 'noted-more.yaml', text: 'noted:\n  - because: a trial\n    items: [knee.test.lachman]\n' }]
    expect(lintAsked(idle, views).map(({ id }) => id)).toEqual(['knee.test.lachman'])
  })
  it('asks in its row every qualifier that something urgent reads', () => {
    expect(views.flatMap(lintQualifiers)).toEqual([])
    const items = theKnee().items.map((item) =>
      item.id === 'vascular.colour-foot' ? { ...item, qualifiers: { new: { label: 'new', kind: 'sign' as const } } } : item,
    )
    expect(lintQualifiers({ ...theKnee(), items }).map(({ reason }) => reason)).toContain('has "new", which any.flag.arterial-hard reads and no row asks')
  })
})
