// @vitest-environment jsdom
import { act, cleanup, fireEvent, screen } from '@testing-library/react'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { judgement, type FindingEntry, type Side } from '@kneecap-awl/core'
import { AS_OF, entriesFor, type Findings } from '../../core/test/support.js'
import type { FindingDraft } from '../src/record/useRecord'
import { CouldNotDialogue, LiftDialogue } from '../src/screens/workspace/dialogues'
import { ItemDetail } from '../src/screens/workspace/ItemDetail'
import { NormsPicker, useReferenceRange } from '../src/screens/workspace/NormsPicker'
import { SinceWhen } from '../src/screens/workspace/SinceWhen'
import { SheetRow } from '../src/screens/workspace/SheetRow'
import { ValueControl, type Answer } from '../src/screens/workspace/ValueControl'
import { itemOf, show, view } from './show.js'

afterEach(() => {
  cleanup()
  localStorage.clear()
})
const press = (name: string | RegExp): void => void fireEvent.click(screen.getByRole('button', { name }))
const pickWord = (button: string | RegExp, word: string): void => {
  press(button)
  fireEvent.click(screen.getByRole('option', { name: word }))
}

/** One item as it is answered on the right side, and what that recorded. */
function answering(region: string, id: string, told?: Findings[string], isDisabled = false) {
  const onAnswer = vi.fn<(answer: Answer) => void>()
  const item = itemOf(region, id)
  const side: Side = item.sided ? 'right' : 'none'
  const [entry] = told === undefined ? [] : entriesFor({ [`${id} ${side}`]: told }, 'right', undefined, region)
  show(<ValueControl pack={view(region)} item={item} side={side} entry={entry} isDisabled={isDisabled} mirrored={false} onAnswer={onAnswer} />)
  return onAnswer
}

/** The row in hand, opened, of a right joint in which some findings were recorded. */
function opened(region: string, id: string, findings: Findings = {}, onGo: (item: string) => void = vi.fn(), onAnswer: (answer: Answer) => void = vi.fn()) {
  const entries = entriesFor(findings, 'right', AS_OF, region)
  const judged = judgement(view(region), { complaint: { region, sides: ['right'] }, asOf: AS_OF, entries })
  return (
    <ItemDetail
      pack={view(region)}
      item={itemOf(region, id)}
      judged={judged}
      sides={['right']}
      isReadOnly={false}
      entryOf={(item, side) => judged.record.finding(item, side)}
      onAnswer={(_item, _side, answer) => onAnswer(answer)}
      onGo={onGo}
    />
  )
}

describe('how a finding is answered', () => {
  it('a sign by one of two words', () => {
    const answer = answering('knee', 'vascular.pitting')
    fireEvent.click(screen.getByRole('radio', { name: /present$/ }))
    expect(answer).toHaveBeenCalledWith({ value: 'present', qualifiers: {} })
  })
  it('a long list by its calm word in one touch, the rest in a picker', () => {
    const answer = answering('knee', 'vascular.pulse-dorsalis-pedis')
    press('Dorsalis pedis pulse (DP), right: normal')
    pickWord(/Dorsalis pedis pulse \(DP\), right$/, 'reduced')
    expect(answer.mock.calls.map(([one]) => one.value)).toEqual(['normal', 'reduced'])
  })
  it('a list of several: none in one touch, or each word ticked', () => {
    const answer = answering('knee', 'screen.rash')
    press(/: none$/)
    expect(answer).toHaveBeenLastCalledWith({ value: ['none'], qualifiers: {} })
  })
  it('a movement with two readings keeps the one while the other is entered', () => {
    const answer = answering('knee', 'knee.move.flexion', { qualifiers: { active: 120 } })
    const passive = screen.getByLabelText('Knee flexion, right, passive')
    fireEvent.change(passive, { target: { value: '125' } })
    fireEvent.blur(passive)
    expect(answer).toHaveBeenCalledWith({ qualifiers: { active: 120, passive: 125 } })
  })
  it('a range as full by eye in one touch, without a number, and a number takes its place', () => {
    const answer = answering('knee', 'knee.move.flexion')
    press('Knee flexion, right: full, visual estimate')
    expect(answer).toHaveBeenLastCalledWith({ value: 'normal' })
    cleanup()
    const again = answering('knee', 'knee.move.flexion', { value: 'normal' })
    const passive = screen.getByLabelText('Knee flexion, right, passive')
    fireEvent.change(passive, { target: { value: '95' } })
    fireEvent.blur(passive)
    expect(again).toHaveBeenLastCalledWith({ qualifiers: { passive: 95 } })
  })
  it('what needs a reading has no such touch', () => {
    answering('knee', 'vascular.ankle-index')
    expect(screen.queryByRole('button')).toBeNull()
  })
  it('laxity as equal in one touch, or as millimetres, which are then not equal', () => {
    const answer = answering('knee', 'knee.test.lachman')
    press(/equal to the other side, firm/)
    expect(answer).toHaveBeenLastCalledWith({ qualifiers: { 'end-point': 'firm', equal: true } })
    const box = screen.getByLabelText('Lachman test, right')
    fireEvent.change(box, { target: { value: '8' } })
    fireEvent.blur(box)
    expect(answer).toHaveBeenLastCalledWith({ value: 8, qualifiers: { equal: false } })
  })
  it('what only qualifies a finding is asked once there is one', () => {
    answering('foot', 'screen.feels-digits-foot', 'same')
    expect(screen.queryByLabelText(/right, site/)).toBeNull()
    cleanup()
    answering('foot', 'screen.feels-digits-foot', 'none')
    expect(screen.getByRole('button', { name: /right, site/ })).toBeTruthy()
  })
  it('not at all while it is on hold', () => {
    answering('knee', 'vascular.pitting', undefined, true)
    for (const radio of screen.getAllByRole('radio')) expect(radio.hasAttribute('disabled')).toBe(true)
  })
})

describe('since when', () => {
  const started = '2026-03-10T09:00:00.000Z'
  const since = (entry?: FindingEntry) => {
    const onSet = vi.fn<(answer: Answer) => void>()
    show(<SinceWhen label="Onset" usual={undefined} entry={entry} startedAt={started} isDisabled={false} onSet={onSet} />)
    return onSet
  }
  const type = (text: string): void => {
    const box = screen.getByLabelText('Onset, how long ago')
    fireEvent.change(box, { target: { value: text } })
    fireEvent.keyDown(box, { key: 'Enter' })
  }
  it('stores the start of the span, and how exactly it is known', () => {
    const onSet = since()
    type('3')
    expect(onSet).toHaveBeenCalledWith({ value: '2026-03-07T09:00:00.000Z', qualifiers: { precision: 'day' } })
  })
  it('in weeks when weeks are meant', () => {
    const onSet = since()
    type('2')
    pickWord(/Onset, unit/, 'weeks')
    expect(onSet).toHaveBeenLastCalledWith({ value: '2026-02-24T09:00:00.000Z', qualifiers: { precision: 'week' } })
  })
  it.each(['', 'long', '-2', '4000'])('stores nothing for "%s"', (text) => {
    const onSet = since()
    type(text)
    expect(onSet).not.toHaveBeenCalled()
  })
  it('shows again what was told', () => {
    const [entry] = entriesFor({ 'story.onset-at': { value: '2026-02-24T09:00:00.000Z', qualifiers: { precision: 'week' } } })
    since(entry)
    expect(screen.getByLabelText<HTMLInputElement>('Onset, how long ago').value).toBe('2')
    expect(screen.getByRole('button', { name: /Onset, unit/ }).textContent).toContain('weeks')
  })
})

describe('what could not be done', () => {
  const ask = (id: string, sides: readonly Side[] = ['right']) => {
    const onRecord = vi.fn<(drafts: readonly FindingDraft[]) => void>()
    show(<CouldNotDialogue item={itemOf('knee', id)} sides={sides} onClose={() => undefined} onRecord={onRecord} />)
    return onRecord
  }
  it('offers every way in which this test loses its technique, and stores it as not valid', () => {
    const onRecord = ask('knee.test.swain')
    press('not valid: rotated at the hip')
    expect(onRecord).toHaveBeenCalledWith([{ item: 'knee.test.swain', side: 'right', state: 'not-valid', reason: 'rotated at the hip' }])
  })
  it('stores pain as the reason, on both sides when both are meant', () => {
    const onRecord = ask('knee.test.mcmurray', ['right', 'left'])
    press('pain')
    expect(onRecord.mock.calls[0]?.[0].map(({ side, state, reason }) => `${side} ${state} ${reason ?? ''}`).sort()).toEqual([
      'left could-not pain',
      'right could-not pain',
    ])
  })
  it('a hold is lifted only with a reason that says something', () => {
    const onLift = vi.fn<(reason: string, isForAll: boolean) => void>()
    const awaits = [{ item: 'story.injury-at', side: 'none' as const, label: 'When the injury was' }]
    const hold = { id: 'h', title: 'Fracture not excluded', side: 'right' as const, reason: 'It may shift.', allowed: 'pulse', stops: ['a', 'b'], awaits }
    show(<LiftDialogue about={{ item: itemOf('knee', 'knee.test.mcmurray'), hold }} onClose={() => undefined} onLift={onLift} />)
    expect(screen.getByText(/not known: when the injury was/)).toBeTruthy()
    const [all, one] = ['Release it for all 2 tests', 'Only for this test'].map((name) => screen.getByRole('button', { name })) as [HTMLElement, HTMLElement]
    const reason = screen.getByLabelText('Your reason for going on')
    fireEvent.change(reason, { target: { value: ' - … -' } })
    expect([all, one].map((button) => button.hasAttribute('disabled'))).toEqual([true, true])
    fireEvent.change(reason, { target: { value: 'film seen, no break' } })
    fireEvent.click(all)
    fireEvent.click(one)
    expect(onLift.mock.calls).toEqual([
      ['film seen, no break', true],
      ['film seen, no break', false],
    ])
  })
})

describe('the usual range', () => {
  function Chosen() {
    const norms = useReferenceRange()
    return (
      <>
        <NormsPicker references={view('elbow').referenceRanges} {...norms} />
        <output>{norms.chosen ?? 'all'}</output>
      </>
    )
  }
  const told = (): string | null => screen.getByRole('status').textContent

  it('is of all references until one is chosen, and stays with the device', () => {
    show(<Chosen />)
    expect(told()).toBe('all')
    pickWord(/Norms by/, 'Measured')
    expect(told()).toBe('measured')
    cleanup()
    show(<Chosen />)
    expect(told()).toBe('measured')
    pickWord(/Norms by/, 'All together')
    expect([told(), localStorage.length]).toEqual(['all', 0])
  })
  it('of children is no choice: they have it anyway', () => {
    show(<Chosen />)
    press(/Norms by/)
    expect(screen.queryByRole('option', { name: 'Children' })).toBeNull()
  })
})

describe('a row of the sheet', () => {
  const row = (id: string, more: object = {}) =>
    show(
      <SheetRow
        pack={view('elbow')}
        item={itemOf('elbow', id)}
        right={undefined}
        left={undefined}
        none={undefined}
        isCurrent
        because={undefined}
        usual={undefined}
        hold={undefined}
        isLifted={false}
        isReadOnly={false}
        disagreements={[]}
        since={[]}
        conclusions={[]}
        contradictions={[]}
        onFocus={() => undefined}
        onGo={() => undefined}
        onAnswer={() => undefined}
        onDecide={() => undefined}
        onLift={() => undefined}
        onCouldNot={() => undefined}
        {...more}
      />,
    )
  it('shows the range in degrees, and words as they are', () => {
    row('elbow.move.flexion', { usual: '140' })
    expect(screen.getByText(/norm 140/).textContent).toBe('norm 140°')
    cleanup()
    row('elbow.move.extension', { usual: '0 or beyond' })
    expect(screen.getByText(/norm 0 or beyond/).textContent).toBe('norm 0 or beyond')
  })
  it('says why it is asked, and why it is on hold', () => {
    const hold = { id: 'h', title: 'Bent and cut', side: 'right', reason: 'A cut tendon tears on.', allowed: 'touch', stops: [], awaits: [] }
    row('elbow.test.cozen', { because: 'the outer epicondyle is sore', hold })
    expect(screen.getByText('asked because: the outer epicondyle is sore')).toBeTruthy()
    expect(screen.getByText(/On hold, bent and cut: A cut tendon tears on\./)).toBeTruthy()
    expect(screen.getByRole('button', { name: 'Go on anyway…' })).toBeTruthy()
  })
  it('offers nothing to do when it is only read', () => {
    row('elbow.test.cozen', { isReadOnly: true })
    expect(screen.queryByRole('button', { name: /could not be done/ })).toBeNull()
  })
  it('asks for what its hold waits for, and shows what two devices found until somebody says which is right', () => {
    const [onGo, onDecide] = [vi.fn(), vi.fn()]
    const awaits = [{ item: 'elbow.feel.radial-head', side: 'right', label: 'Radial head' }]
    const [one, two] = [
      ...entriesFor({ 'elbow.test.cozen': 'present' }, 'right', undefined, 'elbow'),
      ...entriesFor({ 'elbow.test.cozen': 'absent' }, 'right', undefined, 'elbow'),
    ]
    row('elbow.test.cozen', {
      hold: { id: 'h', title: 'Not excluded', side: 'right', reason: 'It may shift.', allowed: 'touch', stops: [], awaits },
      disagreements: [{ stands: one, other: two }],
      onGo,
      onDecide,
    })
    press('Radial head')
    expect(onGo).toHaveBeenCalledWith('elbow.feel.radial-head')
    press(/absent is right$/)
    expect(onDecide).toHaveBeenCalledWith(two, one)
  })
  it('says what the two sides say beside each other', () => {
    const bent = (active: number, side: Side) =>
      entriesFor({ [`elbow.move.flexion ${side}`]: { qualifiers: { active, passive: active } } }, 'right', undefined, 'elbow')[0]
    row('elbow.move.flexion', { right: bent(100, 'right'), left: bent(140, 'left') })
    expect(screen.getByText('passive right 40° less than left (measurement error 8°) · right active 100°, passive 100°: restriction of the joint')).toBeTruthy()
  })
  it('says which other finding it contradicts', () => {
    row('elbow.test.cozen', { contradictions: ['The biceps tendon is hooked, and supination is absent on the squeeze'] })
    expect(screen.getByRole('alert').textContent).toMatch(/Contradictory: The biceps tendon is hooked/)
  })
  it('says what it means together with findings before it, and goes to what separates it from a rival', () => {
    const onGo = vi.fn()
    const rivals = [{ is: 'radial head fracture', by: 'elbow.feel.radial-head', shows: 'tender' }]
    const springy = {
      id: 'elbow.conclusion.springy',
      says: 'Springy block: loose body',
      side: 'right' as const,
      items: ['elbow.move.end-feel'],
      rivals,
      source: 'expert',
    }
    row('elbow.move.end-feel', { conclusions: [springy], onGo })
    expect(screen.getByText('Springy block: loose body, right')).toBeTruthy()
    fireEvent.click(screen.getByRole('button', { name: /^radial head fracture: to / }))
    expect(onGo).toHaveBeenCalledWith('elbow.feel.radial-head')
  })
  it('asks of a radiograph what belongs to what it showed, with the bones and the series of the joint', () => {
    const filmed = (word: string) => entriesFor({ 'imaging.film': [word] }, 'right', undefined, 'elbow')[0]
    row('elbow.imaging.film', { right: filmed('fracture') })
    expect(screen.getByRole('button', { name: /right, displacement/ })).toBeTruthy()
    fireEvent.click(screen.getByRole('button', { name: /right, bone/ }))
    expect(screen.getByText('radial head or neck')).toBeTruthy()
    expect(screen.getByText('supracondylar humerus')).toBeTruthy()
    expect(screen.queryByText('tibial plateau')).toBeNull()
    cleanup()
    row('elbow.imaging.film', { right: filmed('normal') })
    expect(screen.queryByRole('button', { name: /right, bone/ })).toBeNull()
    expect(screen.getByText('full series: AP and true lateral')).toBeTruthy()
  })
  it('has the place for "could not" in every row, in hand or not', () => {
    for (const isCurrent of [true, false]) {
      row('elbow.test.cozen', { isCurrent })
      expect(screen.getByRole('button', { name: /could not be done, or not valid/ })).toBeTruthy()
      cleanup()
    }
  })
  it('opened, tells technique, meaning, trap and every figure with its source and that nobody checked it', () => {
    show(opened('neck', 'neuro.test.spurling'))
    for (const text of [/Sitting; first without compression/, /The pain radiates down the arm/]) expect(screen.getByText(text)).toBeTruthy()
    const figures = screen.getAllByText(/not yet checked against the paper/).map((one) => one.textContent)
    expect(figures.join()).toContain('arm pain: sensitivity 50, specificity 86 (Wainner 2003, review')
    cleanup()
    show(opened('neck', 'neuro.test.hoffmann'))
    for (const text of [/Flick the nail down/, /Trap: /, /figure not verified/]) expect(screen.getByText(text)).toBeTruthy()
  })
  it('opened, offers the other ways, and says what a negative leaves open and what would lower it', () => {
    const gone: string[] = []
    show(opened('knee', 'knee.test.lachman', {}, (item) => gone.push(item)))
    fireEvent.click(screen.getByRole('button', { name: 'Record it there' }))
    expect(gone).toEqual(['knee.test.lachman-drop-leg'])
    cleanup()
    show(opened('knee', 'knee.test.pivot-shift', { 'knee.test.pivot-shift': '0' }, (item) => gone.push(item)))
    expect(screen.getByText(/it misses \d+ of 100 who have it/)).toBeTruthy()
    fireEvent.click(screen.getByRole('button', { name: 'Lachman test' }))
    expect(gone.at(-1)).toBe('knee.test.lachman')
  })
  it('opened, keeps how it was done: where the familiar pain was, once there is a finding', () => {
    const answers: Answer[] = []
    show(opened('knee', 'knee.test.mcmurray', { 'knee.test.mcmurray': 'pain only' }, vi.fn(), (answer) => answers.push(answer)))
    pickWord(/McMurray test, right, familiar pain in$/, 'pes anserinus')
    expect(answers).toEqual([{ value: 'pain only', qualifiers: { site: 'pes anserinus' } }])
    expect(screen.getByRole('button', { name: /McMurray test, left, familiar pain in$/ }).hasAttribute('disabled')).toBe(true)
  })
  it('opened, counts the seconds that it is held', () => {
    vi.useFakeTimers({ toFake: ['setInterval', 'clearInterval', 'performance'] })
    const answers: Answer[] = []
    show(opened('wrist', 'wrist.test.phalen', { 'wrist.test.phalen': 'negative' }, vi.fn(), (answer) => answers.push(answer)))
    fireEvent.click(screen.getAllByRole('button', { name: 'Time 60 s' })[0] as HTMLElement)
    act(() => void vi.advanceTimersByTime(31_000))
    press('Stop at 31 of 60 s')
    expect(answers).toEqual([{ value: 'negative', qualifiers: { held: 31 } }])
    vi.useRealTimers()
  })
})
