// @vitest-environment jsdom
import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { gzipSync } from 'node:zlib'
import { cleanup, fireEvent, screen, waitFor } from '@testing-library/react'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { isSiteOfPain, viewOf, type FindingEntry, type Localisation, type Side } from '@kneecap-awl/core'
import { lintPlates } from '../../core/src/review/lintPlates.js'
import { AS_OF, entriesFor, thePack, type Findings } from '../../core/test/support.js'
import { FeelPlates } from '../src/screens/workspace/FeelPlates'
import { PlatesFound } from '../src/screens/verdict/PlatesFound'
import { SitePlates } from '../src/plates/SitePlates'
import { placesOf } from '../src/screens/start/places'
import { markOf, nextWord, patternWords } from '../src/plates/marks'
import { nearest } from '../src/plates/nearest'
import { nerveSigns, signWords } from '../src/plates/nerveSigns'
import { PictureOf } from '../src/plates/PictureOf'
import type { Answer } from '../src/screens/workspace/ValueControl'
import { itemOf, show, view } from './show.js'

afterEach(() => {
  cleanup()
  localStorage.clear()
})

const DRAWINGS = join(import.meta.dirname, '../../../content/plates')
const drawn = new Set(readdirSync(DRAWINGS).map((file) => file.replace(/\.svg$/, '')))
const regions = thePack().regions.map(({ id }) => id)

describe('the plates of a joint', () => {
  it.each(regions)('%s: every core item of palpation has a place, no two too close, nothing outside', (id) => {
    expect(lintPlates(viewOf(thePack(), id)).map(({ id: at, reason }) => `${at} ${reason}`)).toEqual([])
    expect(view(id).plates.length).toBeGreaterThan(0)
  })
  it.each(regions)('%s: has its drawings, under 60 kB of them', (id) => {
    const names = [...new Set(view(id).plates.map(({ drawing }) => drawing))]
    expect(names.filter((name) => !drawn.has(name))).toEqual([])
    expect(gzipSync(names.map((name) => readFileSync(join(DRAWINGS, `${name}.svg`), 'utf8')).join('')).length).toBeLessThan(60_000)
  })
  it('names no colour: drawings follow the theme, and print in black', () => {
    for (const name of drawn)
      expect([name, /#[0-9a-f]{3,6}\b|rgb\(/i.exec(readFileSync(join(DRAWINGS, `${name}.svg`), 'utf8'))?.[0]]).toEqual([name, undefined])
  })
  it('shows where it hurts in every joint that asks it', () => {
    const asked = regions.filter((id) => view(id).items.some((item) => isSiteOfPain(item.id)))
    expect(asked.filter((id) => !view(id).plates.some(({ sites = [] }) => sites.length > 3))).toEqual([])
  })
})

describe('the landmarks of a palpation station', () => {
  const rows = ['knee.feel.quads-tendon', 'knee.feel.medial-joint-line', 'knee.feel.fibular-head', 'knee.feel.prepatellar-bursa'].map((id) =>
    itemOf('knee', id),
  )
  function opened(findings: Findings = {}) {
    const entries = entriesFor(findings, 'right', AS_OF, 'knee')
    const entryOf = (item: string, side: Side): FindingEntry | undefined => entries.find((one) => one.item === item && one.side === side)
    const answers: [string, Side, Answer][] = []
    const gone: string[] = []
    show(
      <FeelPlates
        pack={view('knee')}
        rows={rows}
        rowId=""
        isReadOnly={false}
        isStopped={() => false}
        levels={[]}
        entryOf={entryOf}
        onFocus={() => undefined}
        onAnswer={(item, side, answer) => answers.push([item.id, side, answer])}
        onGo={(item) => gone.push(item)}
      />,
    )
    return { answers, gone }
  }
  const touch = (name: string | RegExp): void => void fireEvent.click(screen.getAllByRole('button', { name })[0] as HTMLElement)

  it('say what they are and what was found, each side by itself', () => {
    opened({ 'knee.feel.medial-joint-line': '2' })
    expect(screen.getByRole('button', { name: /^Medial joint-line tenderness, right: 2/ })).toBeTruthy()
    expect(screen.getByRole('button', { name: 'Medial joint-line tenderness, left: not examined' })).toBeTruthy()
    expect(screen.getByText(/Right: medial joint-line 2; 1 of 15 examined\. Left: not examined/)).toBeTruthy()
  })
  it('take one grade more with each touch, and none again after the last', async () => {
    const { answers } = opened({ 'knee.feel.medial-joint-line': '2', 'knee.feel.fibular-head left': '3' })
    touch(/^Medial joint-line tenderness, right/)
    touch(/^Medial joint-line tenderness, left/)
    touch(/^Fibular head tenderness, left/)
    await waitFor(() => expect(answers).toHaveLength(3))
    expect(answers).toEqual([
      ['knee.feel.medial-joint-line', 'right', { value: '3', qualifiers: {} }],
      ['knee.feel.medial-joint-line', 'left', { value: '0', qualifiers: {} }],
      ['knee.feel.fibular-head', 'left', { value: '0', qualifiers: {} }],
    ])
  })
  it('show a touch at once, and count the next from it before the record has followed', async () => {
    const { answers } = opened()
    for (let touches = 0; touches < 3; touches++) touch(/^Medial joint-line tenderness, right/)
    expect(screen.getByRole('button', { name: /^Medial joint-line tenderness, right: 2/ })).toBeTruthy()
    expect(answers).toEqual([])
    await waitFor(() => expect(answers.map(([, , answer]) => answer.value)).toEqual(['0', '1', '2']))
  })
  it('are graded by a digit and walked by arrows', async () => {
    const { answers } = opened()
    const [first] = screen.getAllByRole('button', { name: /^Quadriceps tendon.*right/ })
    first?.focus()
    fireEvent.keyDown(first as HTMLElement, { key: '2' })
    await waitFor(() => expect(answers).toEqual([['knee.feel.quads-tendon', 'right', { value: '2', qualifiers: {} }]]))
    fireEvent.keyDown(first as HTMLElement, { key: 'ArrowDown' })
    expect(document.activeElement?.getAttribute('aria-label')).toMatch(/^Patella \(bone\) tenderness, right/)
  })
  it('open their row when held', () => {
    vi.useFakeTimers()
    const { gone, answers } = opened()
    const [first] = screen.getAllByRole('button', { name: /^Fibular head tenderness, right/ })
    fireEvent.pointerDown(first as HTMLElement)
    vi.advanceTimersByTime(600)
    fireEvent.pointerUp(first as HTMLElement)
    fireEvent.click(first as HTMLElement)
    vi.useRealTimers()
    expect([gone, answers]).toEqual([['knee.feel.fibular-head'], []])
  })
  it('are hidden on wish, and stay so on this device', () => {
    opened()
    fireEvent.click(screen.getByRole('button', { name: 'Hide the plates' }))
    cleanup()
    opened()
    expect(screen.queryByRole('group', { name: 'Right, anterior' })).toBeNull()
    expect(screen.getByRole('button', { name: 'Show the plates' })).toBeTruthy()
  })
})

describe('where it hurts', () => {
  const opened = (region: string, sides: readonly Side[], findings: Findings = {}) => {
    const entries = entriesFor(findings, 'right', AS_OF, region)
    const answers: [Side, readonly string[]][] = []
    show(
      <SitePlates
        pack={view(region)}
        items={view(region).items}
        sides={sides}
        isReadOnly={false}
        wordsOf={(item, side) => (entries.find((one) => one.item === item.id && one.side === side)?.value ?? []) as readonly string[]}
        onWords={(_item, side, words) => answers.push([side, words])}
      />,
    )
    return answers
  }
  const touch = (name: string): void => void fireEvent.click(screen.getAllByRole('button', { name })[0] as HTMLElement)
  it('is touched, several places, and taken back by a second touch', () => {
    const answers = opened('shoulder', ['left'], { 'shoulder.history.pain-site left': ['axilla', 'upper arm'] })
    touch('top (AC joint): not told')
    touch('axilla: painful')
    expect(answers).toEqual([
      ['left', ['axilla', 'upper arm', 'top (AC joint)']],
      ['left', ['upper arm']],
    ])
  })
  it('of a back is told of the side that is touched, in the middle of both', () => {
    const answers = opened('back', ['right', 'left'])
    touch('paraspinal, left: not told')
    touch('lumbar midline: not told')
    expect(answers).toEqual([
      ['left', ['paraspinal']],
      ['right', ['lumbar midline']],
      ['left', ['lumbar midline']],
    ])
  })
})

describe('the plates of a note', () => {
  const found = (findings: Findings): void => {
    const entries = entriesFor(findings, 'right', AS_OF, 'knee')
    show(<PlatesFound pack={view('knee')} entryOf={(item, side) => entries.find((one) => one.item === item && one.side === side)} />)
  }
  it('show what was found, both sides, and say it in words', () => {
    found({ 'knee.feel.medial-joint-line': '2', 'knee.feel.medial-joint-line left': '0', 'knee.feel.fibular-head': '0' })
    expect(screen.getAllByRole('img').map((one) => one.getAttribute('aria-label'))).toEqual(['Found, right, anterior', 'Found, left, anterior'])
    expect(screen.getAllByRole('img').map((one) => one.textContent)).toEqual(['20', '0'])
    expect(screen.queryByRole('button')).toBeNull()
    expect(screen.getByText(/^Anterior\. Right: medial joint-line 2; 2 of 15 examined\. Left: 1 of 15 examined, none abnormal\.$/)).toBeTruthy()
  })
  it('are none where nothing abnormal was felt', () => {
    found({ 'knee.feel.medial-joint-line': '0' })
    expect(screen.queryByRole('img')).toBeNull()
  })
})

describe('a mark', () => {
  const joint = itemOf('knee', 'knee.feel.medial-joint-line')
  const entry = (value: string, state: FindingEntry['state'] = 'examined') =>
    ({ ...entriesFor({ 'knee.feel.medial-joint-line': value })[0], state }) as FindingEntry
  it('differs for what is open, normal, tender and could not be done, by sign and size as well as by colour', () => {
    const marks = [
      markOf(joint, undefined, false),
      markOf(joint, entry('0'), false),
      markOf(joint, entry('3'), true),
      markOf(joint, entry('0', 'could-not'), false),
    ]
    expect(marks).toEqual([
      { mark: '', state: 'open', size: 0 },
      { mark: '0', state: 'normal', size: 0 },
      { mark: '3', state: 'abnormal', size: 3 },
      { mark: '⌀', state: 'could-not', size: 1 },
    ])
  })
  it('goes from normal to reduced before absent, and back to normal', () => {
    const touch = itemOf('wrist', 'neuro.touch.index-pulp')
    const of = (value: string) => entriesFor({ 'neuro.touch.index-pulp': value }, 'right', AS_OF, 'wrist')[0]
    expect([undefined, of('normal'), of('reduced'), of('increased'), of('absent')].map((one) => nextWord(touch, one))).toEqual([
      'normal',
      'reduced',
      'increased',
      'absent',
      'normal',
    ])
  })
  it('takes no number by touch', () => expect(nextWord(itemOf('ankle', 'ankle.feel.syndesmosis-extent'), undefined)).toBeUndefined())
  it('tells the pattern of a view', () => {
    expect(patternWords(view('knee'), [joint], (_item, side) => (side === 'right' ? entry('1') : undefined))).toBe(
      'Right: medial joint-line 1; 1 of 1 examined. Left: not examined',
    )
  })
  it('is left by an arrow for the nearest ahead', () => {
    const places = [
      { x: 0, y: 0 },
      { x: 10, y: 2 },
      { x: 40, y: 0 },
      { x: 0, y: 30 },
    ]
    expect([nearest(places, 0, 'right'), nearest(places, 0, 'down'), nearest(places, 0, 'left'), nearest(places, 9, 'up')]).toEqual([
      1,
      3,
      undefined,
      undefined,
    ])
  })
})

describe('what explains a loss best', () => {
  const place = {
    id: 'c6',
    name: 'C6 root',
    kind: 'root',
    score: 5,
    explains: ['neuro.touch.thumb'],
    against: ['neuro.touch.little-pulp'],
    spared: ['neuro.touch.lateral-forearm'],
    untested: ['neuro.reflex.brachioradialis', 'neuro.touch.index-pulp'],
  } as const
  const levels: Localisation[] = [
    { side: 'right', limb: 'arm', verdict: 'likely', abnormal: ['neuro.touch.thumb'], places: [place], next: { item: 'neuro.touch.index-pulp', reading: '' } },
  ]
  it('lies over the territories: what fits, what does not, what should be lost, what separates', () => {
    const signs = nerveSigns(levels)
    const badge = (item: string, side = 'right'): string | undefined => signs.get(`neuro.touch.${item} ${side}`)?.badge
    expect([badge('thumb'), badge('little-pulp'), badge('lateral-forearm'), badge('index-pulp')]).toEqual(['✓', '✗', '≠', '?'])
    expect(badge('thumb', 'left')).toBeUndefined()
  })
  it('is named with the signs that are on the plate, and no others', () => {
    expect(signWords(levels, new Set(['neuro.touch.thumb', 'neuro.touch.middle']))).toEqual(['Right arm, C6 root: ✓ fits'])
    expect(signWords(levels, new Set(['neuro.touch.middle']))).toEqual([])
  })
})

describe('the picture of the row in hand', () => {
  const flexion = itemOf('knee', 'knee.move.flexion')
  const drawnFor = (findings: Findings, item = flexion): void => {
    const entries = entriesFor(findings, 'right', AS_OF, 'knee')
    show(<PictureOf pack={view('knee')} item={item} sides={['right']} entryOf={(id, side) => entries.find((one) => one.item === id && one.side === side)} />)
  }
  it('turns the limb as far as it was read, with the other side and the norm as ticks', () => {
    drawnFor({ 'knee.move.flexion': 95, 'knee.move.flexion left': 140 })
    expect(screen.getByText('right: 95°')).toBeTruthy()
    const [right, left] = [...document.querySelectorAll<HTMLElement>('[style*="--turned"]')]
    expect([right?.style.getPropertyValue('--turned'), left?.style.getPropertyValue('--turned')]).toEqual(['rotate(95deg)', 'rotate(140deg)'])
    expect([right?.querySelectorAll('.tick').length, right?.querySelectorAll('.short').length, left?.querySelectorAll('.short').length]).toEqual([2, 1, 0])
  })
  it('turns nothing where nothing was read: not examined is not zero', () => {
    drawnFor({ 'knee.move.flexion left': 140 })
    expect(screen.getByText('right: not measured')).toBeTruthy()
    const [right] = [...document.querySelectorAll<HTMLElement>('[style*="--turned"]')]
    expect([right?.style.getPropertyValue('--turned'), right?.dataset.open, right?.querySelectorAll('.read').length]).toEqual(['none', 'true', 0])
  })
  it('shows where the hand sweeps, in words as well', () => {
    drawnFor({}, itemOf('knee', 'knee.feel.bulge'))
    expect(document.querySelectorAll('.sweep').length).toBe(2)
    expect(screen.getByText(/^Sweep the medial side proximally/)).toBeTruthy()
  })
  it('has its drawing, and moves a part of it where a limb turns', () => {
    const pictures = regions.flatMap((id) => view(id).pictures)
    expect(pictures.length).toBeGreaterThan(15)
    for (const { drawing, arc } of pictures)
      expect([drawing, readFileSync(join(DRAWINGS, `${drawing}.svg`), 'utf8').includes('class="moving"')]).toEqual([drawing, arc !== undefined])
  })
})

describe('the figure on which a joint is chosen', () => {
  it.each(['front', 'back'] as const)('names every joint apart from every other, from %s', (side) => {
    const joints = placesOf(thePack().regions, side)
    for (const column of ['left', 'right'] as const) {
      const tops = joints.filter((joint) => joint.column === column).map(({ top }) => top)
      tops.slice(1).forEach((top, at) => expect((top - (tops[at] ?? 0)) * 5.4).toBeGreaterThan(44))
    }
    expect(new Set(joints.map(({ key }) => key)).size).toBe(joints.length)
  })
  it('offers every joint from the front', () => {
    const joints = placesOf(thePack().regions, 'front')
    expect(thePack().regions.filter(({ id }) => !joints.some(({ region }) => region === id))).toEqual([])
  })
})
