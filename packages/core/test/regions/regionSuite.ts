import { describe, expect, it } from 'vitest'
import { conditionRanges, judge, judgeAlong, judgedSides, judgement, nerveLevels, problemLine, viewOf } from '../../src/index.js'
import { lintRegion, searchFlags, WitnessSearch, type Witness } from '../../src/review/index.js'
import { NO, YES } from '../../src/rules/truth.js'
import { AS_OF, calmRecord, thePack } from '../support.js'

interface About {
  /** Core items of the brief for this region. */
  readonly core: number
  readonly flags: number
}

/** What holds for every region of the pack: sound, provable flag by flag, calm when all of its core is normal. */
export function regionSuite(id: string, { core, flags }: About): void {
  const view = viewOf(thePack(), id)
  const ordinary = view.regions[0].ordinary
  describe(id, () => {
    it('has no fault that can be seen without searching', () => expect(lintRegion(view).map(problemLine)).toEqual([]))
    it(`asks ${core} core items in about five minutes`, () => {
      const asked = view.items.filter((item) => item.depth === 'core')
      expect(asked).toHaveLength(core)
      expect(asked.reduce((sum, item) => sum + item.seconds, 0)).toBeLessThan(300)
    })
    it(`carries ${flags} flags`, () => expect(view.flags).toHaveLength(flags))
    it('is Here to Here when its whole core is normal', () => {
      for (const side of judgedSides(view, { region: id, sides: ['right'] })) {
        const verdict = judge(view, { complaint: { region: id, sides: [side] }, asOf: AS_OF, entries: calmRecord(view, ordinary) })
        expect([verdict.floor, verdict.ceiling, verdict.openFlags.map((flag) => flag.id)]).toEqual(['here', 'here', []])
      }
    })
    it('weighs its conditions and places nerves when calm, without one that is likely', () => {
      const judged = judgement(view, {
        complaint: { region: id, sides: judgedSides(view, { region: id, sides: ['right'] }) },
        asOf: AS_OF,
        entries: calmRecord(view, ordinary),
      })
      for (const condition of conditionRanges(judged)) expect(condition.low).toBeLessThan(0.9)
      expect(nerveLevels(judged).patterns).toEqual([])
    })
    it('is judged along a growing record as it is judged anew', () => {
      const about = { complaint: { region: id, sides: judgedSides(view, { region: id, sides: ['right'] }) }, asOf: AS_OF }
      const along = judgeAlong(view, about)
      const record = calmRecord(view, ordinary)
      for (let known = 0; known <= record.length; known += 9) {
        const entries = record.slice(0, known)
        expect(along(entries).verdict).toEqual(judge(view, { ...about, entries }))
      }
    })
    it('meets no flag that is not in play', () => expect(searchFlags(view, undefined).map(problemLine)).toEqual([]))

    const search = new WitnessSearch(view)
    const provable = search.compiled.flags.filter(({ flag }) => flag.concept !== 'review-here')
    it.each(provable.map((flag) => [flag.flag.id, flag.any] as const))('%s can be met, can be excluded, and needs each finding of a least set', (_id, rule) => {
      const met = search.find([{ rule, want: YES }])
      expect(met.found).toBeDefined()
      expect(search.find([{ rule, want: NO }]).found).toBeDefined()
      const truth = (witness: Witness): number => rule.run(search.contextOf(witness), 0)
      const least = new Map(met.found)
      const without = (slot: number): Witness => new Map([...least].filter(([one]) => one !== slot))
      for (const slot of [...least.keys()]) if (truth(without(slot)) === YES) least.delete(slot)
      expect(truth(least)).toBe(YES)
      for (const slot of least.keys()) expect(truth(without(slot))).not.toBe(YES)
    })
  })
}
