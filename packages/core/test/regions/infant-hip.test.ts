import { describe, expect, it } from 'vitest'
import { calcVerdicts, clinicalNote, judgement, noteText, viewOf } from '../../src/index.js'
import { AS_OF, calmRecord, entriesFor, thePack, type Findings } from '../support.js'
import { regionSuite } from './regionSuite.js'

regionSuite('infant-hip', { core: 36, flags: 37 })

describe('a clunk that is missing', () => {
  const view = viewOf(thePack(), 'infant-hip')
  const at = (days: number, findings: Findings = {}) => {
    const base = calmRecord(view, { ...view.regions[0].ordinary, 'patient.age-days': days, 'patient.age-years': days / 365 })
    const told = entriesFor(findings, 'right', AS_OF, 'infant-hip')
    const entries = [...base.filter(({ item, side }) => !told.some((one) => one.item === item && one.side === side)), ...told]
    const examination = { complaint: { region: 'infant-hip', sides: ['right' as const] }, asOf: AS_OF, entries }
    const judged = judgement(thePack(), examination)
    return {
      state: calcVerdicts(judged).find((one) => one.id === 'infant-hip.calc.state')?.value,
      range: [judged.verdict.floor, judged.verdict.ceiling],
      note: noteText(clinicalNote(judged)),
    }
  }

  it('means a stable hip up to twelve weeks from the due date', () => {
    expect(at(84).state).toBe('stable')
    expect(at(84).note).toContain('Barlow stable, Ortolani negative')
    expect(at(84).note).not.toContain('says nothing by itself')
  })

  it('means nothing by itself afterwards: opening, knees and length have to be seen', () => {
    expect(at(85).state).toBe('stable')
    expect(at(85).note).toContain('after twelve weeks says nothing by itself')
    expect(at(85).note).not.toContain('Barlow stable')
    const unseen = { state: 'not-examined' } as const
    expect(at(85, { 'infant-hip.move.abduction': unseen }).state).toBe('unknown')
    expect(at(85, { 'infant-hip.move.abduction': unseen }).range[1]).toBe('days')
    expect(at(84, { 'infant-hip.move.abduction': unseen }).state).toBe('unknown')
    expect(at(85, { 'infant-hip.test.galeazzi': 'lower' }).state).not.toBe('stable')
  })
})
