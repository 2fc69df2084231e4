import { describe, expect, it } from 'vitest'
import { problemLine, viewOf } from '../src/index.js'
import { aloneRows, aloneTable, deservingRows, leastTiers, numbersFrom, randomlyTooLow, tooLow, unstated } from '../src/review/index.js'
import { contentFiles, thePack } from './support.js'

/** Some thousand verdicts. */
const LONG = 240_000
const files = contentFiles()
const regions = thePack().regions.map(({ id }) => id)
const leastOf = (region: string, more = files) => leastTiers(more, viewOf(thePack(), region))
const with1 = (statement: string) => [...files, { path: 'least-more.yaml', text: `least: [${statement}]` }]

describe('what a recorded value deserves by itself', () => {
  it.each(regions)('is stated for every abnormal value of the %s', (region) => expect(unstated(leastOf(region)).map(problemLine)).toEqual([]))
  it.each(regions)(
    'is what the rules of the %s give it, alone and in every context',
    (region) => expect(tooLow(deservingRows(viewOf(thePack(), region), leastOf(region))).map(problemLine)).toEqual([]),
    LONG,
  )
  it.each(regions)(
    'is what the rules of the %s give it among whatever else was drawn',
    (region) => expect(randomlyTooLow(viewOf(thePack(), region), leastOf(region), 300, numbersFrom(20261130)).map(problemLine)).toEqual([]),
    LONG,
  )
  it('is stated for an item that a joint has for itself as for the shared one; the item over the set, the later over the earlier', () => {
    const tierOf = (item: string, word: string, more?: typeof files) => leastOf('knee', more).get(item)?.get(word)?.[0]?.tier
    expect(tierOf('knee.imaging.film', 'fracture')).toBe('days')
    expect(tierOf('neuro.strength.knee-extension', '2')).toBe('days')
    expect(tierOf('neuro.strength.knee-extension', '2', with1('{ because: a trial, of: { neuro.strength.knee-extension: none } }'))).toBe('none')
    expect(tierOf('knee.imaging.film', 'fracture', with1('{ because: a trial, of: { imaging.film: { now: [fracture] } } }'))).toBe('now')
    expect(tierOf('knee.look.gait', 'antalgic')).toBe('none')
  })
  it('is missed when the rules leave it lower, and the fault names item, value, context and cure', () => {
    const least = leastOf('knee', with1('{ because: a trial, of: { look.gait: { now: [waddling] } }, unless: [child] }'))
    const faults = tooLow(deservingRows(viewOf(thePack(), 'knee'), least))
      .map(problemLine)
      .join('\n')
    expect(faults).toMatch(/knee\.look\.gait: "Gait: waddling" deserves now by itself \(a trial\) and is here with nothing else \(cure: let a clause be met/)
    expect(faults).not.toContain('with child')
    expect(randomlyTooLow(viewOf(thePack(), 'knee'), leastOf('knee', with1('{ because: a trial, of: { look.*: now } }')), 200, numbersFrom(1))).not.toEqual([])
  })
  it('that nobody states is a fault', () => {
    const silent = files.map((file) => (file.path.startsWith('least') ? { ...file, text: 'least: []' } : file))
    expect(unstated(leastOf('knee', silent)).map(problemLine).join('\n')).toMatch(/knee\.look\.gait: "waddling" is said to deserve neither a tier nor none/)
  })
})

describe('the table of values alone', () => {
  it('has a row for each abnormal value in each context, with what it deserves, floor, ceiling and flags', () => {
    const [head = '', ...lines] = aloneTable(aloneRows(viewOf(thePack(), 'infant-hip'), leastOf('infant-hip'))).split('\n')
    expect(head.split('\t')).toEqual(['item', 'label', 'value', 'context', 'deserved', 'floor', 'ceiling', 'flags'])
    const row = lines.find((line) => line.startsWith('vascular.pulse-dorsalis-pedis\tDorsalis pedis pulse (DP)\tabsent\tnothing else\t'))
    expect(row?.split('\t').slice(4, 6)).toEqual(['today', 'today'])
    expect(lines.filter((line) => line.includes('\tnormal\t'))).toEqual([])
  })
})
