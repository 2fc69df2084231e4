import { describe, expect, it } from 'vitest'
import { localise as localiseRecord, recordOf, viewOf, type FindingEntry, type AnyPack, type Side } from '../src/index.js'
import { entriesFor, thePack, type Findings } from './support.js'

const pack = thePack()
const full = (name: string): string =>
  name.startsWith('t:')
    ? `neuro.touch.${name.slice(2)}`
    : name.startsWith('r:')
      ? `neuro.reflex.${name.slice(2)}`
      : name.includes('.')
        ? name
        : `neuro.strength.${name}`
/** Every item of a limb that any place can lose. */
const itemsOf = (limb: 'arm' | 'leg'): string[] => [
  ...new Set(pack.nerveLesions.lesions.filter((one) => one.limb === limb).flatMap((one) => [...one.expected, ...one.shared])),
]
const normalOf = (item: string): string => (item.startsWith('neuro.strength') ? '5' : 'normal')
/** What is not named is examined and normal on this side; the other side is whole. */
function record(limb: 'arm' | 'leg', found: Readonly<Record<string, string>>, side: Side = 'right'): FindingEntry[] {
  const told = Object.fromEntries(Object.entries(found).map(([name, value]) => [full(name), value]))
  const other = side === 'right' ? 'left' : 'right'
  const all: Findings = Object.fromEntries(
    itemsOf(limb).flatMap((item) => [
      [`${item} ${side}`, told[item] ?? normalOf(item)],
      [`${item} ${other}`, normalOf(item)],
    ]),
  )
  return entriesFor(all, side)
}
const limbOf = (place: string): 'arm' | 'leg' => pack.nerveLesions.lesions.find((one) => one.id === place)?.limb ?? 'arm'
const localise = (view: AnyPack, entries: readonly FindingEntry[], isMet?: (calc: string) => boolean) => localiseRecord(view, recordOf(entries), isMet)
const best = (view: AnyPack, entries: readonly FindingEntry[]) => localise(view, entries)[0]

const UPPER_TRUNK = {
  'shoulder-abduction': '2',
  'shoulder-external-rotation': '2',
  'elbow-flexion': '2',
  'elbow-flexion-neutral': '2',
  't:regimental-badge': 'reduced',
  't:lateral-forearm': 'reduced',
  'r:biceps': 'absent',
  'r:brachioradialis': 'absent',
}

describe('where the nerve is hurt', () => {
  it.each<[string, Record<string, string>]>([
    [
      'L5',
      {
        'ankle-dorsiflexion': '3',
        'great-toe-extension': '3',
        'ankle-eversion': '4',
        'ankle-inversion': '4-',
        'hip-abduction': '4',
        't:dorsum-foot': 'reduced',
        't:first-web': 'reduced',
      },
    ],
    [
      'common-peroneal',
      {
        'ankle-dorsiflexion': '2',
        'great-toe-extension': '2',
        'ankle-eversion': '3',
        't:dorsum-foot': 'reduced',
        't:first-web': 'reduced',
        't:lateral-leg': 'reduced',
      },
    ],
    ['deep-peroneal', { 'ankle-dorsiflexion': '3', 'great-toe-extension': '2', 't:first-web': 'reduced' }],
    ['S1', { 'ankle-plantarflexion': '4', 'hip-extension': '4', 'knee-flexion': '4+', 't:lateral-foot': 'reduced', 'r:ankle': 'absent' }],
    ['tibial', { 'ankle-plantarflexion': '3', 'toe-flexion': '3', 'ankle-inversion': '3', 't:plantar': 'reduced', 'r:ankle': 'absent' }],
    ['femoral', { 'knee-extension': '3', 't:anterior-thigh': 'reduced', 't:medial-leg': 'reduced', 'r:knee': 'absent', 'hip-flexion': '4' }],
    ['L4', { 'knee-extension': '4', 'ankle-dorsiflexion': '4', 't:medial-leg': 'reduced', 'r:knee': 'absent' }],
    ['L3', { 'knee-extension': '4', 'hip-adduction': '4', 't:medial-knee': 'reduced', 'r:knee': 'absent' }],
    ['lumbar-plexus', { 'hip-flexion': '3', 'knee-extension': '3', 'hip-adduction': '3', 't:anterior-thigh': 'reduced', 'r:knee': 'absent' }],
    ['obturator', { 'hip-adduction': '3', 't:medial-thigh': 'reduced' }],
    ['lateral-cutaneous-thigh', { 't:lateral-thigh': 'reduced' }],
    [
      'sciatic',
      {
        'knee-flexion': '3',
        'ankle-dorsiflexion': '2',
        'great-toe-extension': '2',
        'ankle-eversion': '2',
        'ankle-inversion': '2',
        'ankle-plantarflexion': '3',
        'toe-flexion': '3',
        't:dorsum-foot': 'reduced',
        't:first-web': 'reduced',
        't:lateral-foot': 'reduced',
        't:plantar': 'reduced',
        'r:ankle': 'absent',
      },
    ],
    ['C5', { 'shoulder-abduction': '4', 'shoulder-external-rotation': '4', 'elbow-flexion': '4', 'r:biceps': 'absent', 't:regimental-badge': 'reduced' }],
    ['axillary', { 'shoulder-abduction': '2', 't:regimental-badge': 'reduced' }],
    [
      'C6',
      {
        'wrist-extension': '4',
        'elbow-flexion-neutral': '4',
        'elbow-flexion': '4+',
        't:thumb': 'reduced',
        't:lateral-forearm': 'reduced',
        'r:brachioradialis': 'absent',
      },
    ],
    ['C7', { 'elbow-extension': '4', 'wrist-flexion': '4', 'finger-extension': '4+', 't:middle': 'reduced', 'r:triceps': 'absent' }],
    [
      'radial-humerus',
      {
        'elbow-flexion-neutral': '2',
        'wrist-extension': '1',
        'finger-extension': '1',
        'thumb-extension': '1',
        't:dorsal-web': 'reduced',
        'r:brachioradialis': 'absent',
      },
    ],
    ['posterior-interosseous', { 'finger-extension': '2', 'thumb-extension': '2' }],
    [
      'C8',
      {
        'fdp-index': '4',
        fpl: '4',
        'fdp-little': '4',
        'thumb-extension': '4',
        'finger-abduction': '4',
        't:little-pulp': 'reduced',
        't:dorsal-ulnar': 'reduced',
      },
    ],
    ['anterior-interosseous', { 'fdp-index': '2', fpl: '2' }],
    ['ulnar-elbow', { 'finger-abduction': '3', 't:little-pulp': 'reduced', 't:dorsal-ulnar': 'reduced' }],
    ['ulnar-wrist', { 'finger-abduction': '3', 't:little-pulp': 'reduced' }],
    ['T1', { 'finger-abduction': '3', 'thumb-abduction': '3', 't:medial-forearm': 'reduced' }],
    [
      'lower-trunk',
      {
        'finger-abduction': '3',
        'thumb-abduction': '3',
        'fdp-index': '3',
        fpl: '3',
        'fdp-little': '3',
        't:little-pulp': 'reduced',
        't:medial-forearm': 'reduced',
      },
    ],
    ['upper-trunk', UPPER_TRUNK],
    ['median-carpal-tunnel', { 't:index-pulp': 'reduced', 't:middle': 'reduced', 'thumb-abduction': '4' }],
  ])('%s is the best explanation of its own pattern', (place, found) => {
    const result = best(pack, record(limbOf(place), found))
    expect([result?.places[0]?.id, result?.side]).toEqual([place, 'right'])
    expect(result?.verdict).toMatch(Object.keys(found).length === 1 ? /possible/ : /likely|undecided/)
  })
  it('says nothing when nothing is lost', () => expect(localise(pack, record('leg', {}))).toEqual([]))
  it('counts what was not examined neither way, and names it', () => {
    const some = entriesFor({ 'neuro.strength.ankle-dorsiflexion': '3', 'neuro.strength.great-toe-extension': '3', 'neuro.touch.first-web': 'reduced' })
    const result = best(pack, some)
    expect(result?.verdict).toBe('undecided')
    expect(result?.places.map((place) => place.id)).toEqual(expect.arrayContaining(['L5', 'common-peroneal', 'deep-peroneal']))
    expect(result?.places.find((place) => place.id === 'L5')?.untested).toContain('neuro.strength.hip-abduction')
    expect(result?.next?.reading).toBeTruthy()
  })
  it('asks for turning the foot in first to tell the fifth root from the nerve at the fibula', () => {
    const two = {
      'neuro.strength.ankle-dorsiflexion': '3',
      'neuro.strength.great-toe-extension': '3',
      'neuro.strength.ankle-eversion': '4',
      'neuro.touch.dorsum-foot': 'reduced',
      'neuro.touch.first-web': 'reduced',
    }
    const open = best(pack, entriesFor(two))
    expect(open?.next).toMatchObject({ item: 'neuro.strength.ankle-inversion' })
    expect(best(pack, entriesFor({ ...two, 'neuro.strength.ankle-inversion': '5', 'neuro.strength.hip-abduction': '5' }))?.places[0]?.id).toBe(
      'common-peroneal',
    )
    expect(best(pack, entriesFor({ ...two, 'neuro.strength.ankle-inversion': '4', 'neuro.strength.hip-abduction': '4' }))?.places[0]?.id).toBe('L5')
  })
  it('gives no single place when both sides have lost the same', () => {
    const both = {
      'neuro.reflex.ankle': 'reduced',
      'neuro.reflex.ankle left': 'reduced',
      'neuro.touch.plantar': 'reduced',
      'neuro.touch.plantar left': 'reduced',
    }
    expect(localise(pack, entriesFor(both)).map((one) => one.verdict)).toEqual(['alike', 'alike'])
  })
  it('does not count power that pain stopped, a jerk absent on both sides, or touch that is heightened', () => {
    const none = {
      'neuro.strength.knee-extension': { state: 'could-not' as const, reason: 'pain' },
      'neuro.reflex.ankle': 'absent',
      'neuro.reflex.ankle left': 'absent',
      'neuro.touch.plantar': 'increased',
    }
    expect(localise(pack, entriesFor(none))).toEqual([])
  })
  it('takes nearly full power as lost only against a full other side', () => {
    expect(localise(pack, entriesFor({ 'neuro.strength.knee-extension': '4+' }))).toEqual([])
    expect(best(pack, entriesFor({ 'neuro.strength.knee-extension': '4+', 'neuro.strength.knee-extension left': '5' }))?.verdict).toBe('possible')
  })
  it('reads heel raises as the push of the foot', () => {
    const entries = entriesFor({
      'ankle.strength.heel-raise-single': 0,
      'neuro.touch.lateral-foot': 'reduced',
      'neuro.reflex.ankle': 'absent',
      'neuro.reflex.ankle left': 'normal',
    })
    expect(best(viewOf(pack, 'back'), entries)?.places[0]).toMatchObject({
      id: 'S1',
      explains: expect.arrayContaining(['neuro.strength.ankle-plantarflexion']) as unknown,
    })
  })
  it('lets a leg raise that speaks for a root count for roots only', () => {
    const entries = entriesFor({ 'neuro.strength.great-toe-extension': '4', 'neuro.touch.first-web': 'reduced' })
    const score = (isMet: boolean): number | undefined =>
      localise(pack, entries, (calc) => isMet && calc === 'back.calc.slr-neural')[0]?.places.find((place) => place.id === 'L5')?.score
    expect((score(true) ?? 0) - (score(false) ?? 0)).toBe(2)
  })
  it.each([
    ['slept on the arm', 'radial-humerus', { 'neuro.strength.wrist-extension': '2', 'neuro.strength.finger-extension': '3' }],
    ['leaning on the elbow', 'ulnar-elbow', { 'neuro.strength.finger-abduction': '4', 'neuro.touch.little-pulp': 'reduced' }],
    ['leg crossing or squatting', 'common-peroneal', { 'neuro.strength.ankle-dorsiflexion': '3', 'neuro.touch.dorsum-foot': 'reduced' }],
  ])('a nerve that was pressed (%s) counts for its place: %s', (pressed, place, found) => {
    const score = (told: Findings): number => localise(pack, entriesFor({ ...found, ...told }))[0]?.places.find(({ id }) => id === place)?.score ?? Number.NaN
    expect(score({ 'story.nerve-pressed': [pressed] }) - score({ 'story.nerve-pressed': ['none'] })).toBe(2)
  })
  it('a tap that tingles counts for the nerve under it, on its side only', () => {
    const found = { 'neuro.touch.index-pulp': 'reduced', 'neuro.touch.middle': 'reduced' }
    const score = (side: Side): number =>
      best(pack, entriesFor({ ...found, [`wrist.test.tinel-median ${side}`]: 'median paraesthesia' }))?.places.find(({ id }) => id === 'median-carpal-tunnel')
        ?.score ?? Number.NaN
    expect(score('right') - score('left')).toBe(2)
  })
  it('a weak mover of the blade speaks against the plexus: those branches leave before the trunks', () => {
    const leader = (isWeak: boolean): string | undefined => {
      const blade = isWeak ? { 'scapula-retraction': '4', 'scapula-protraction': '4' } : {}
      return localise(pack, record('arm', { ...UPPER_TRUNK, ...blade }), (calc) => isWeak && calc === 'calc.periscapular-weakness')[0]?.places[0]?.kind
    }
    expect([leader(false), leader(true)]).toEqual(['plexus', 'root'])
  })
  it('never names an item as explained and unexplained at once', () => {
    for (const place of localise(pack, record('arm', { 'elbow-extension': '3', 't:middle': 'reduced', 'finger-abduction': '4' }))[0]?.places ?? [])
      expect(place.explains.filter((item) => place.against.includes(item))).toEqual([])
  })
})
