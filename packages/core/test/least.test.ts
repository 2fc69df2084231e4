import { describe, expect, it } from 'vitest'
import { problemLine, viewOf } from '../src/index.js'
import { aloneRows, aloneTable, leastTiers, tooLow } from '../src/review/index.js'
import { contentFiles, thePack } from './support.js'

const files = contentFiles()
const rowsOf = (region: string) => {
  const view = viewOf(thePack(), region)
  return aloneRows(view, leastTiers(files, view))
}

describe('what a recorded value deserves by itself', () => {
  it.each(thePack().regions.map(({ id }) => id))('is what the rules of the %s give it, alone and in every context', (region) =>
    expect(tooLow(rowsOf(region)).map(problemLine)).toEqual([]),
  )
  it('is stated for an item that a joint has for itself as for the shared one, the later statement over the earlier', () => {
    const view = viewOf(thePack(), 'knee')
    const more = { path: 'least.yaml', text: 'least: [{ items: [imaging.film], values: { fracture: none }, because: healed }]' }
    expect(leastTiers(files, view).get('knee.imaging.film')?.get('fracture')?.tier).toBe('days')
    expect(
      leastTiers([...files, more], view)
        .get('knee.imaging.film')
        ?.get('fracture'),
    ).toEqual({ tier: 'none', because: 'healed' })
  })
  it('is missed when the rules leave it lower, and the fault names item, value, context and cure', () => {
    const view = viewOf(thePack(), 'knee')
    const asked = { path: 'least.yaml', text: 'least: [{ items: [look.gait], values: { waddling: now }, because: a trial }]' }
    const faults = tooLow(aloneRows(view, leastTiers([asked], view))).map(problemLine)
    expect(faults.join('\n')).toMatch(
      /knee\.look\.gait: "Gait: waddling" deserves now by itself \(a trial\) and is here with nothing else \(cure: let a clause be met/,
    )
  })
})

describe('the table of values alone', () => {
  it('has a row for each abnormal value in each context, with what it deserves, floor, ceiling and flags', () => {
    const [head = '', ...lines] = aloneTable(rowsOf('ankle')).split('\n')
    expect(head.split('\t')).toEqual(['item', 'label', 'value', 'context', 'deserved', 'floor', 'ceiling', 'flags'])
    expect(lines).toContain('vascular.pulse-dorsalis-pedis\tDorsalis pedis pulse (DP)\tabsent\tnothing else\ttoday\ttoday\tnow\tany.flag.pulse-absent')
    expect(lines.filter((line) => line.includes('\tnormal\t'))).toEqual([])
  })
})
