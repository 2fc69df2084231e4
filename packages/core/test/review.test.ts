import { describe, expect, it } from 'vitest'
import { compilePack, viewOf } from '../src/index.js'
import { reviewDocument, thresholdsCsv, thresholdsOf } from '../src/review/index.js'
import { contentFiles, thePack } from './support.js'

describe('the thresholds of a pack', () => {
  const all = thresholdsOf(thePack())
  it('name item, comparator, value, unit, what reads them, where, and the source', () => {
    expect(all).toContainEqual({
      item: 'screen.compartment-delta',
      of: 'value',
      comparator: '<=',
      value: '30',
      unit: 'mmHg',
      kind: 'flag',
      id: 'any.flag.compartment',
      region: 'knee',
      source: 'Ulmer 2002',
      certainty: 'named',
    })
  })
  it('are there for every region, and every one has a number', () => {
    expect(new Set(all.map(({ region }) => region))).toEqual(new Set(thePack().regions.map(({ id }) => id)))
    for (const { value } of all) for (const figure of value.split(' ')) expect(Number(figure)).not.toBeNaN()
  })
  it('are written as comma-separated values, with commas and quotes kept apart', () => {
    const [first] = all
    if (!first) throw new Error('no threshold')
    const lines = thresholdsCsv([{ ...first, source: 'A "B", C' }]).split('\r\n')
    expect(lines).toHaveLength(2)
    expect(lines[1]).toContain('"A ""B"", C"')
  })
})

describe('the document of a condition', () => {
  const page = reviewDocument(thePack(), { title: 'Compartment syndrome', ids: new Set(['any.flag.compartment', 'knee.cond.compartment']) })
  it('has a part for each region that carries it, and says who has read it', () => {
    const carrying = thePack().regions.filter(({ id }) => viewOf(thePack(), id).flags.some((flag) => flag.id === 'any.flag.compartment'))
    expect([...page.matchAll(/<section><h2>/g)]).toHaveLength(carrying.length)
    expect(page).toContain('Not yet read against its sources')
    expect(page).toContain('Name and role')
  })
  it('says rules in words, and lets no text become markup', () => {
    expect(page).toContain('30 mmHg')
    expect(reviewDocument(thePack(), { title: '<b>x</b>', ids: new Set() })).not.toContain('<b>x</b>')
  })
  it('tells a review that the file records', () => {
    const path = 'conditions/knee/patella-unreduced.yaml'
    const reviewed = "reviewed:\n  by: Dr Isolde Brannock\n  'on': '2026-11-01'\n  of: the rule and its source\n"
    const files = contentFiles('knee').map((file) => (file.path === path ? { path, text: `${file.text}${reviewed}` } : file))
    const pack = compilePack(files)
    expect(reviewDocument(pack, { title: 'x', ids: new Set(['knee.flag.patella-unreduced']) })).toContain(
      'Read by Dr Isolde Brannock, 2026-11-01: the rule and its source',
    )
  })
})
