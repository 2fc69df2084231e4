// @vitest-environment jsdom
import { cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import {
  conditionRanges,
  judgement,
  railOf,
  ruleLines,
  sampleChance,
  sidesOf,
  viewOf,
  type Entry,
  type EntryOf,
  type FindingEntry,
  type Examination,
  type FlagVerdict,
  type Item,
  type RuleLine,
  type Side,
} from '@kneecap-awl/core'
import { AS_OF, calm, daysAgo, entriesFor, packWith, thePack, type Findings } from '../../core/test/support.js'
import { aboutShare, beside, chanceWords, shareWords } from '../src/reason/useChances'
import { LikelihoodPicture, ratiosOf } from '../src/screens/library/LikelihoodPicture'
import { RuleTree } from '../src/screens/library/RuleTree'
import { StoryCard } from '../src/screens/workspace/StoryCard'
import { VerdictRail } from '../src/screens/workspace/VerdictRail'
import type { Job } from '../src/reason/chance.worker'
import type { Draft, FindingDraft } from '../src/record/useRecord'
import { itemOf, show, view } from './show.js'

/** The worker's work, done in place: the test waits for its message as the screen does. */
class SamplesHere extends EventTarget {
  postMessage({ round, estimates }: Job): void {
    queueMicrotask(() => this.dispatchEvent(new MessageEvent('message', { data: { round, chances: estimates.map((one) => sampleChance(one)) } })))
  }
  terminate(): void {
    // Nothing runs on.
  }
}
beforeEach(() => vi.stubGlobal('Worker', SamplesHere))
afterEach(cleanup)

function rail(entries: readonly Entry[], onLift?: (flag: FlagVerdict, reason: string) => void, pack = view('knee')) {
  const onGo = vi.fn<(item: string) => void>()
  const onSet = vi.fn<(draft: Draft) => void>()
  const exam: Examination = { complaint: { region: 'knee', sides: ['right'] }, asOf: AS_OF, entries }
  const judged = judgement(pack, exam)
  show(<VerdictRail rail={railOf(judged)} onGo={onGo} onSet={onSet} onLift={onLift} />)
  return { onGo, onSet }
}
const soft: Findings = {
  'story.trauma': 'present',
  'story.head-injury': 'absent',
  'story.distracting-injury': 'absent',
  'story.pop': 'present',
  'knee.test.lachman right': { value: 8, qualifiers: { 'end-point': 'soft' } },
  'knee.test.lachman left': { value: 2, qualifiers: { 'end-point': 'firm' } },
}

describe('the rail beside the sheet', () => {
  it('of nothing recorded: Here at least, Now at most, and what to ask first', () => {
    const { onGo } = rail([])
    expect(screen.getByTestId('range').textContent).toBe('Not settled: Here to Now')
    const missing = within(screen.getByRole('list', { name: 'Missing findings' })).getAllByRole('button')
    expect(missing.length).toBe(5)
    fireEvent.click(screen.getByRole('button', { name: /^and \d+ more$/ }))
    expect(within(screen.getByRole('list', { name: 'Missing findings' })).getAllByRole('button').length).toBeGreaterThan(30)
    fireEvent.click(screen.getByRole('button', { name: /of the core not examined$/ }))
    const unexamined = screen.getByRole('region', { name: 'Core not examined' })
    for (const { label } of view('knee').items.filter(({ depth }) => depth === 'core')) expect(unexamined.textContent).toContain(label)
    fireEvent.click(missing[0] as HTMLElement)
    expect(onGo).toHaveBeenCalledWith('patient.age-years')
  })
  it('of a calm knee: settled, nothing open', () => {
    rail(calm())
    expect(screen.getByTestId('range').textContent).toBe('Heresettled')
    expect(screen.getByText('Nothing left unexamined could change it.')).toBeTruthy()
    expect(screen.queryByRole('alert')).toBeNull()
  })
  it('of a pulse that is gone: what to do now, whom to call, and why down to the finding', () => {
    rail([...calm(), ...entriesFor({ 'story.trauma': 'present', 'vascular.pulse-dorsalis-pedis right': 'absent', 'vascular.colour-foot right': 'pale' })])
    expect(screen.getByRole('alert').textContent).toMatch(/Act now.*first seen.*Vascular surgery on call.*Avoid:/)
    const [card] = screen.getAllByRole('button', { name: /why\?/ })
    fireEvent.click(card as HTMLElement)
    const proof = screen.getByRole('dialog')
    expect(proof.textContent).toMatch(/Dorsalis pedis pulse \(DP\): absent on the right/)
    expect(proof.textContent).toMatch(/Source: /)
  })
  describe('of a pulse that came back', () => {
    const at = (minutes: number, findings: Findings) => entriesFor(findings, 'right', new Date(Date.parse(AS_OF) + minutes * 60_000).toISOString())
    const foot = (pulse: string, colour: string): Findings => ({ 'vascular.pulse-dorsalis-pedis right': pulse, 'vascular.colour-foot right': colour })
    const back = [...calm(), ...at(6, { 'story.trauma': 'present', ...foot('absent', 'pale') }), ...at(40, foot('normal', 'normal'))]
    const openHeld = (): HTMLElement => {
      fireEvent.click(screen.getByRole('button', { name: /^Arterial injury, hard signs.*held since \d\d:\d\d/ }))
      return screen.getByRole('dialog')
    }
    it('stays Now, with what met it, and is lifted with a reason only', () => {
      const onLift = vi.fn<(flag: FlagVerdict, reason: string) => void>()
      rail(back, onLift)
      expect(screen.getByTestId('range').textContent).toBe('Nowsettled')
      const dialogue = openHeld()
      expect(dialogue.textContent).toMatch(/Dorsalis pedis pulse \(DP\): absent on the right/)
      const button = within(dialogue).getByRole('button', { name: 'Lift this flag in my name' })
      expect(button.hasAttribute('disabled')).toBe(true)
      fireEvent.click(within(dialogue).getByRole('radio', { name: 'normal on both sides when checked again' }))
      fireEvent.click(button)
      expect(onLift.mock.calls[0]?.[0]).toMatchObject({ id: 'any.flag.arterial-hard', side: 'right' })
      expect(onLift.mock.calls[0]?.[1]).toBe('normal on both sides when checked again')
    })
    it('cannot be lifted where nothing can be recorded, and says how', () => {
      rail(back)
      const dialogue = openHeld()
      expect(within(dialogue).queryByRole('button', { name: /Lift/ })).toBeNull()
      expect(dialogue.textContent).toMatch(/amend it to lift the flag/)
    })
    it('is told as earlier once it is lifted, with who did and why', () => {
      const lifts = ['any.flag.arterial-hard', 'any.flag.arterial-injury'].map((flag, index): EntryOf<'lifted'> => ({
        id: `01920000-0000-7000-8000-00000000a00${index}`,
        state: 'lifted',
        flag,
        side: 'right',
        reason: 'both feet alike',
        by: 'Dr Brannock',
        at: '2026-03-10T09:45:00.000Z',
      }))
      rail([...back, ...lifts])
      const earlier = within(screen.getByRole('list', { name: 'Earlier flags' })).getAllByRole('listitem')
      expect(earlier.map((one) => one.textContent).join()).toMatch(/Now right, until \d\d:\d\d; lifted \d\d:\d\d by Dr Brannock: both feet alike/)
    })
  })
  it('of a soft Lachman: what is likely as a range sampled in the worker, and what would tell more', async () => {
    rail([...calm().filter((entry) => !/pivot|drawer/.test(entry.item)), ...entriesFor({ ...soft, 'story.onset-at': daysAgo(3) })])
    await waitFor(() => expect(screen.getAllByRole('img', { name: /^about \d+ % \(\d+ to \d+\)$/ }).length).toBeGreaterThan(0))
    expect(within(screen.getByRole('list', { name: 'Informative tests' })).getAllByText(/tells (much|some|a little)/).length).toBeGreaterThan(0)
  })
  it('always shows the cautions and the version of the content', () => {
    rail([])
    for (const caution of thePack().cautions) expect(screen.getByText(new RegExp(caution.slice(0, 40).replace(/[.?]/g, '.')))).toBeTruthy()
    expect(screen.getByText(new RegExp(`Content pack ${thePack().version}`))).toBeTruthy()
  })
  describe('that a clinician sets', () => {
    const openFor = (entries: readonly Entry[]) => {
      const { onSet } = rail(entries)
      fireEvent.click(screen.getByRole('button', { name: 'Set the priority…' }))
      return { onSet, dialogue: within(screen.getByRole('dialog')) }
    }
    it('is raised by two presses, with no reason', () => {
      const { onSet, dialogue } = openFor(calm())
      fireEvent.click(dialogue.getByRole('radio', { name: 'Today' }))
      fireEvent.click(dialogue.getByRole('button', { name: 'Raise to Today' }))
      expect(onSet).toHaveBeenCalledWith({ state: 'chosen', tier: 'today', from: 'here' })
    })
    it('is lowered from Today with a reason and the name of a senior only', () => {
      const { onSet, dialogue } = openFor([...calm(), ...entriesFor({ 'knee.feel.warmth right': 'hot', 'knee.feel.effusion right': 'moderate' })])
      fireEvent.click(dialogue.getByRole('radio', { name: 'Days' }))
      const lower = dialogue.getByRole('button', { name: 'Lower to Days' })
      fireEvent.change(dialogue.getByLabelText('Why it may wait longer'), { target: { value: 'fluid was clear' } })
      expect(lower.hasAttribute('disabled')).toBe(true)
      fireEvent.change(dialogue.getByLabelText('Senior who has just agreed, with role'), { target: { value: 'Dr Quill, consultant' } })
      fireEvent.click(lower)
      expect(onSet.mock.calls[0]?.[0]).toMatchObject({
        tier: 'days',
        from: 'today',
        reason: 'fluid was clear',
        senior: 'Dr Quill, consultant',
      })
    })
    it('is shown beside what was computed, and can be taken back', () => {
      const chosen: EntryOf<'chosen'> = {
        id: '01920000-0000-7000-8000-00000000b001',
        state: 'chosen',
        tier: 'days',
        from: 'here',
        by: 'Dr Brannock',
        at: AS_OF,
      }
      const { onSet, dialogue } = openFor([...calm(), chosen])
      expect(screen.getByTestId('range').textContent).toBe('Dayssettled')
      expect(screen.getByText(/^Computed Here, set to Days by Dr Brannock/)).toBeTruthy()
      fireEvent.click(dialogue.getByRole('button', { name: 'Back to what the findings give' }))
      expect(onSet).toHaveBeenCalledWith({ state: 'withdrawn', decision: 'chosen' })
    })
  })
  it('says that a verdict goes by a local choice', () => {
    rail([])
    expect(screen.queryByText(/local choice/)).toBeNull()
    cleanup()
    rail([], undefined, viewOf(packWith('knee', { choices: [{ region: 'knee', topic: 'Locked knee', choice: 'today for all' }] }), 'knee'))
    expect(screen.getByText(/Judged by 1 local choice: see the library/)).toBeTruthy()
  })
  it('says a chance as a middle with its ends, and as ends alone until it is sampled', () => {
    const [one] = conditionRanges(judgement(thePack(), { complaint: { region: 'knee', sides: ['right'] }, asOf: AS_OF, entries: entriesFor(soft) }))
    if (!one) throw new Error('nothing is likely')
    expect(chanceWords(one)).toMatch(/^\d+ to \d+ %$/)
    const sampled = { ...one, chance: { low: 0.614, middle: 0.855, high: 0.951 } }
    expect(chanceWords(sampled)).toBe('about 86 % (61 to 95)')
    expect(shareWords(sampled)).toBe('86 % (61–95)')
    expect(aboutShare(one)).toMatch(/^Starts from all who come with this joint\. Its criteria are met and stand by themselves/)
    expect([beside(one), beside(sampled)]).toEqual(['criteria met; the figure starts from every complaint of this joint', 'criteria met'])
    expect(aboutShare(sampled)).not.toMatch(/criteria/)
  })
})

describe('the story on one card', () => {
  function card(entries: readonly FindingEntry[], sides: readonly Side[] = ['right']) {
    const onRecord = vi.fn<(drafts: readonly FindingDraft[]) => void>()
    const entryOf = (item: string, side: Side): FindingEntry | undefined => entries.find((one) => one.item === item && one.side === side)
    const isAnswered = (item: Item): boolean => sidesOf(item, sides).every((side) => entryOf(item.id, side))
    show(
      <StoryCard
        pack={view('knee')}
        items={view('knee').items.filter((item) => item.stage === 'story' && item.depth === 'core')}
        because={new Map()}
        sides={sides}
        startedAt={AS_OF}
        isReadOnly={false}
        entryOf={entryOf}
        isAnswered={isAnswered}
        onAnswer={() => undefined}
        onRecord={onRecord}
      />,
    )
    return onRecord
  }
  it('"none of the rest" shows what it is about to say, answers it as absent, and never what has to be told or asked by itself', () => {
    const onRecord = card(entriesFor({ 'story.trauma': 'present' }))
    fireEvent.click(screen.getByRole('button', { name: 'Asked, none of the rest' }))
    const dialogue = screen.getByRole('dialog')
    expect(dialogue.textContent).toMatch(/Stays open, asked one by one: .*Fever, rigors or night sweats/)
    expect(onRecord).not.toHaveBeenCalled()
    fireEvent.click(within(dialogue).getByRole('button', { name: /^All \d+ were asked/ }))
    const drafts = onRecord.mock.calls[0]?.[0] ?? []
    expect(drafts.length).toBeGreaterThan(5)
    expect(drafts.map((draft) => draft.item)).not.toContain('story.trauma')
    for (const draft of drafts) {
      const item = itemOf('knee', draft.item)
      expect([item.mustBeTold, item.askedAlone, draft.state, draft.value]).toEqual([false, false, 'examined', item.normal?.value])
    }
  })
  it('denies nothing of the patient card while it is closed, and no fact that changes the urgency in one go', () => {
    const onRecord = card([])
    expect(screen.queryByRole('button', { name: /none of the rest/ })?.textContent).toBe('Asked, none of the rest')
    fireEvent.click(screen.getByRole('button', { name: 'Open the rest of the card' }))
    fireEvent.click(screen.getByRole('button', { name: 'All of these asked: none of the rest' }))
    fireEvent.click(screen.getByRole('button', { name: /^All \d+ were asked/ }))
    const said = (onRecord.mock.calls[0]?.[0] ?? []).map((draft) => draft.item)
    expect(said).toContain('patient.renal-function')
    for (const id of ['anticoagulant', 'immunosuppressed', 'cancer', 'pregnant', 'iv-drug-use', 'diabetes', 'sex']) expect(said).not.toContain(`patient.${id}`)
    for (const id of ['prosthesis-here', 'metalwork-here']) expect(said).not.toContain(`knee.patient.${id}`)
  })
  it('names what was not asked yet', () => {
    card([])
    expect(screen.getAllByText(/^not asked yet: /).length).toBe(2)
    cleanup()
    card(calm())
    expect(screen.getAllByText('everything was asked').length).toBe(2)
    expect(screen.getByRole('button', { name: 'Asked, none of the rest' }).hasAttribute('disabled')).toBe(true)
  })
})

describe('a figure and a rule in the library', () => {
  const figure = { finding: 'soft end', source: 'Somebody 2001', certainty: 'study' as const, checked: false }
  it('works ratios out from sensitivity and specificity, and takes those that are given first', () => {
    expect(ratiosOf({ ...figure, sens: 85, spec: 94 }).positive).toBeCloseTo(14.17, 2)
    expect(ratiosOf({ ...figure, sens: 85, spec: 94, lrPositive: 10, lrNegative: 0.2 })).toEqual({ positive: 10, negative: 0.2 })
    expect(ratiosOf({ ...figure, lrPositive: 6.4 })).toEqual({ positive: 6.4 })
    expect(ratiosOf({ ...figure, sens: 97 })).toEqual({})
  })
  it('shows before and after in words beside the picture', () => {
    show(<LikelihoodPicture finding="soft end" ratios={{ positive: 4, negative: 0.25 }} />)
    expect(screen.getByRole('img').getAttribute('aria-label')).toMatch(/soft end: .*20 %.*50 %.*6 %/)
  })
  it('reads a rule from the top, and opens what a line stands on', () => {
    const leads = (one: RuleLine): boolean => one.leads?.kind === 'score' || one.kids.some(leads)
    const line = view('knee')
      .flags.flatMap((flag) => flag.clauses.map((clause) => ruleLines(view('knee'), clause.when)))
      .find(leads)
    if (!line) throw new Error('no rule stands on a calculated value')
    show(<RuleTree pack={view('knee')} line={line} />)
    const [first] = screen.getAllByRole('button', { name: 'what is that?' })
    fireEvent.click(first as HTMLElement)
    expect(screen.getByRole('button', { name: 'close' }).getAttribute('aria-expanded')).toBe('true')
  })
  it('says in words that a finding is compared with the check before', () => {
    const flag = view('knee').flags.find((one) => one.id === 'any.flag.pulse-change')
    const clause = flag?.clauses[0]
    if (!clause) throw new Error('no recheck flag')
    show(<RuleTree pack={view('knee')} line={ruleLines(view('knee'), clause.when)} />)
    expect(screen.getByText('Dorsalis pedis pulse (DP): examined before within 48 h')).toBeTruthy()
    expect(screen.getByText(/Dorsalis pedis pulse \(DP\): reduced or less/)).toBeTruthy()
  })
})
