// @vitest-environment jsdom
import { cleanup, fireEvent, screen, waitFor } from '@testing-library/react'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { nerveLevels, recordOf, viewOf, type FindingEntry, type Side } from '@kneecap-awl/core'
import { entriesFor, judged, thePack } from '../../core/test/support.js'
import type { ExaminationDetail, ExaminationSummary } from '../src/api/queries'
import { NerveLevel } from '../src/parts/NerveLevel'
import { regionsFor } from '../src/parts/regionsFor'
import { SameVisit } from '../src/screens/verdict/SameVisit'
import { VisitRail } from '../src/screens/workspace/VisitRail'
import { show } from './show.js'

vi.mock('../src/record/sendWaiting', () => ({ sendWaiting: () => Promise.resolve() }))

const pack = thePack()
const knee = viewOf(pack, 'knee')
const joint = (more: Partial<ExaminationSummary>): ExaminationSummary => ({
  id: 'the-hip',
  visit: 'the-visit',
  patientId: 'p',
  patientName: 'Limping Lapwing',
  birthDate: '1970-05-04',
  region: 'hip',
  sides: ['right'],
  setting: 'primary-care',
  startedAt: '2026-03-10T09:00:00.000Z',
  startedBy: 'test',
  packHash: pack.hash,
  signedAt: null,
  signedBy: null,
  discardedAt: null,
  discardReason: '',
  floor: 'now',
  ceiling: 'now',
  priority: 'now',
  verdictKind: null,
  reviewOn: null,
  ...more,
})
const detail = (visitWith: readonly ExaminationSummary[] = []): ExaminationDetail => ({
  ...joint({ id: 'the-knee', region: 'knee' }),
  entries: [],
  previous: [],
  visitWith,
})

const reader = (entries: readonly FindingEntry[]) => {
  const record = recordOf(entries)
  return (item: string, side: Side): FindingEntry | undefined => record.finding(item, side)
}
const rail = (entries: readonly FindingEntry[], visitWith: readonly ExaminationSummary[] = []) =>
  show(<VisitRail detail={detail(visitWith)} pack={knee} sides={['right']} entryOf={reader(entries)} />)
const answer = vi.fn<(path: string, init: RequestInit) => Promise<Response>>()
const json = (status: number, body: object): Response => new Response(JSON.stringify(body), { status })

beforeEach(() => vi.stubGlobal('fetch', answer))
afterEach(() => {
  cleanup()
  answer.mockReset()
  vi.unstubAllGlobals()
})

describe('the joints of one visit beside the sheet', () => {
  const hipHurts = entriesFor({ 'knee.neighbours.hip-reproduces right': 'present' })

  it('offers nothing while every neighbour is calm or not looked at', () => {
    rail(entriesFor({ 'knee.neighbours.hip-reproduces right': 'absent' }))
    expect(screen.queryByText(/not calm/)).toBeNull()
    expect(screen.getByRole('button', { name: 'Also examine…' })).toBeTruthy()
  })
  it('never heads another joint with its floor alone, and says what a clinician set', () => {
    rail([], [joint({ floor: 'today' }), joint({ id: 'the-foot', region: 'foot', floor: 'here', ceiling: 'here', priority: 'weeks' })])
    const [hip, foot] = screen.getAllByRole('link', { name: /^Also: / })
    expect(hip?.textContent).toContain('Not settled: Today to Now')
    expect(foot?.textContent).toMatch(/Here.*set to Weeks/)
  })
  it('adds a neighbour that is not calm in one step, with the sore side and the story, and goes to it', async () => {
    answer.mockResolvedValue(json(201, { id: 'new-hip' }))
    const router = rail(hipHurts)
    fireEvent.click(screen.getByRole('button', { name: 'Examine right hip too' }))
    await waitFor(() => expect(router.state.location.pathname).toBe('/examinations/new-hip'))
    const [path, init] = answer.mock.calls[0] ?? []
    expect(path).toBe('/api/examinations/the-knee/also')
    expect(JSON.parse(String(init?.body))).toEqual({ region: 'hip', sides: ['right'], sameEvent: true })
  })
  it('says so when it could not be added, and stays', async () => {
    answer.mockRejectedValue(new TypeError('failed to fetch'))
    const router = rail(hipHurts)
    fireEvent.click(screen.getByRole('button', { name: 'Examine right hip too' }))
    expect((await screen.findByRole('alert')).textContent).toContain('not added')
    expect(router.state.location.pathname).toBe('/')
  })
  it('does not offer a joint that is examined already, and links to it with its tier', () => {
    rail(hipHurts, [joint({})])
    expect(screen.queryByRole('button', { name: 'Examine right hip too' })).toBeNull()
    const link = screen.getByRole('link', { name: /right hip/ })
    expect(link.getAttribute('href')).toBe('/examinations/the-hip')
    expect(link.textContent).toContain('Now')
  })
})

describe('the joints of one visit on the verdict', () => {
  const visit = (floor: 'now' | 'weeks', others: readonly ExaminationSummary[]) => show(<SameVisit floor={floor} others={others} />)
  it('says first when another joint is more urgent', () => {
    visit('weeks', [joint({})])
    expect(screen.getByRole('status').textContent).toContain('More urgent than this: right hip, Now.')
  })
  it('names a less urgent one without alarm', () => {
    visit('now', [joint({ floor: 'weeks', priority: 'weeks', ceiling: 'today' })])
    expect(screen.queryByRole('status')).toBeNull()
    expect(screen.getByRole('link', { name: 'right hip' }).getAttribute('href')).toBe('/examinations/the-hip/verdict')
    expect(screen.getByText(/Not settled: Weeks to Today/)).toBeTruthy()
  })
})

describe('which joints are offered', () => {
  const offered = (birthDate: string): string[] => regionsFor(pack.regions, birthDate).map((region) => region.id)
  const born = (years: number): string => new Date(Date.now() - years * 365.25 * 86_400_000).toISOString().slice(0, 10)
  it('an infant has an infant hip, an adult a hip', () => {
    expect(offered(born(0.2))).toContain('infant-hip')
    expect(offered(born(0.2))).not.toContain('hip')
    expect(offered(born(40))).toContain('hip')
    expect(offered(born(40))).not.toContain('infant-hip')
  })
  it('without a birth date yet, what is for everybody', () => expect(offered('')).not.toContain('infant-hip'))
})

describe('where the nerve is hurt', () => {
  it('is not shown while nothing is lost', () => {
    show(<NerveLevel pack={knee} {...nerveLevels(judged([]))} />)
    expect(screen.queryByRole('region', { name: 'Nerve' })).toBeNull()
  })
  it('names the places, and the item that separates them leads to its row', () => {
    const entries = entriesFor({ 'neuro.strength.ankle-dorsiflexion right': '3', 'neuro.strength.great-toe-extension right': '3' })
    const levels = nerveLevels(judged(entries))
    const onGo = vi.fn()
    show(<NerveLevel pack={knee} {...levels} onGo={onGo} />)
    expect(screen.getByRole('region', { name: 'Nerve' }).textContent).toMatch(/L5 root/)
    fireEvent.click(screen.getByRole('button', { name: /Next/ }))
    expect(onGo).toHaveBeenCalledWith(levels.levels[0]?.next?.item)
  })
})
