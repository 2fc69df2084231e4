import { describe, expect, it } from 'vitest'
import { libraryIndex } from '@kneecap-awl/core'
import { thePack } from '../../core/test/support.js'
import { findEntries, searchIndex, type LibraryFilter } from '../src/parts/librarySearch.js'

const entries = libraryIndex(thePack())
const index = searchIndex(entries)
const anything: LibraryFilter = { search: '', kind: '', region: '', stage: '', position: '', tier: '' }
const found = (filter: Partial<LibraryFilter>) => findEntries(entries, index, { ...anything, ...filter })

describe('searching the library', () => {
  it.each([
    ['lachmann', 'knee.test.lachman'],
    ['lackman', 'knee.test.lachman'],
    ['lackmann', 'knee.test.lachman'],
    ['mcmuray', 'knee.test.mcmurray'],
    ['thessally', 'knee.test.thessaly'],
    ['thomson', 'ankle.test.calf-squeeze'],
    ['simonds', 'ankle.test.calf-squeeze'],
    ['ortolanni', 'infant-hip.test.ortolani'],
    ['galleazzi', 'infant-hip.test.galeazzi'],
    ['spurlng', 'neuro.test.spurling'],
    ['hofmann', 'neuro.test.hoffmann'],
    ['babinsky', 'neuro.test.plantar'],
    ['slmup', 'back.test.slump'],
    ['lasegue', 'back.test.slr'],
    ['finklestein', 'wrist.test.finkelstein'],
    ['phallen', 'wrist.test.phalen'],
    ['kanaval', 'hand.feel.flexor-sheath'],
    ['elsen', 'hand.test.elson'],
    ['patrik', 'hip.test.faber'],
    ['trendelenberg', 'hip.test.trendelenburg'],
    ['hawkin', 'shoulder.test.hawkins'],
    ['napolean', 'shoulder.test.belly-press'],
    ['mulders', 'foot.test.mulder'],
    ['coleman blok', 'foot.test.coleman-block'],
    ['sharp pursor', 'neck.test.sharp-purser'],
    ['neers', 'shoulder.test.neer'],
    ['yergusson', 'shoulder.test.yergason'],
    ['thomas', 'hip.test.thomas'],
    ['ely', 'hip.test.ely'],
    ['creig', 'hip.test.craig'],
    ['puranen', 'hip.test.puranen-orava'],
    ['eichoff', 'wrist.test.eichhoff'],
    ['revers phalen', 'wrist.test.reverse-phalen'],
    ['kleinmann', 'wrist.test.lt-shear'],
    ['bunnel', 'hand.move.intrinsic-tightness'],
    ['silverskiold', 'ankle.test.silfverskiold'],
    ['royal londen', 'ankle.test.royal-london'],
    ['windlas', 'foot.test.windlass-standing'],
    ['piano kee', 'foot.test.piano-key'],
    ['gaenslin', 'back.test.sij-gaenslen'],
    ['bow string', 'back.test.bowstring'],
    ['valsava', 'neck.test.valsalva'],
    ['adsons', 'neck.test.adson'],
    ['bakodi', 'neck.test.bakody'],
    ['beighten', 'calc.beighton'],
    ['nursemaid', 'elbow.test.hyperpronation-reduction'],
  ])('"%s" finds %s among the first three', (search, id) => {
    expect(
      found({ search })
        .slice(0, 3)
        .map((entry) => entry.id),
    ).toContain(id)
  })
  it.each([
    ['lackmann', 'knee.test.lachman'],
    ['mcmuray', 'knee.test.mcmurray'],
  ])('puts the bare test before its variants and before what practitioners differ about: %s', (search, id) => expect(found({ search })[0]?.id).toBe(id))
  it('filters by kind, joint, stage, position and tier at once', () => {
    const some = found({ kind: 'flag', region: 'back', tier: 'now' })
    expect(some.length).toBeGreaterThan(5)
    expect(some.every((entry) => entry.kind === 'flag' && entry.regions.includes('back') && entry.tier === 'now')).toBe(true)
    const prone = found({ position: 'prone', stage: 'test' })
    expect(prone.length).toBeGreaterThan(3)
    expect(prone.every((entry) => entry.position === 'prone' && entry.stage === 'test')).toBe(true)
  })
  it('finds nothing for a word that nothing resembles', () => expect(found({ search: 'xqzzxqzz' })).toEqual([]))
})
