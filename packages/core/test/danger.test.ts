import { describe, expect, it } from 'vitest'
import { compilePack, problemLine, viewOf } from '../src/index.js'
import { lintDanger, lintReassurance, lintThreats } from '../src/review/index.js'
import { contentFiles, thePack } from './support.js'

/** The knee's pack with one clause of the danger of a locked knee written as given. */
const withClause = (clause: string, lint = lintDanger): string[] => {
  const files = contentFiles('knee').map((file) =>
    file.path === 'conditions/knee/locked.yaml' ? { ...file, text: file.text.replace(/^    clauses:\n/m, `    clauses:\n      - ${clause}\n`) } : file,
  )
  return lint(viewOf(compilePack(files), 'knee')).map(problemLine)
}

describe('how a danger clause is written', () => {
  it('hides nothing in the pack as it ships', () =>
    expect(thePack().regions.flatMap(({ id }) => lintDanger(viewOf(thePack(), id)).map(problemLine))).toEqual([]))
  it.each([
    ['{ tier: now, when: { all: [story.pop, { not: story.fever }] } }', 'not: story.fever'],
    ['{ tier: today, when: { all: [story.pop, story.onset-days <= 7 days] } }', 'story.onset-days <= 7 days'],
    ['{ tier: days, when: { all: [story.pop, screen.wound = none] } }', 'screen.wound = none'],
    ['{ tier: days, when: { all: [story.pop, { any: [{ not: { any: [story.fever, screen.rigors] } }] }] } }', 'not: any of 2'],
  ])('refuses %s, with the cure', (clause, what) =>
    expect(withClause(clause).join('\n')).toMatch(
      new RegExp(`knee\\.flag\\.locked: is hidden while "${what.replace(/[.*+?^$|()[\]{}]/g, '\\$&')}" is not known \\(cure: write not: \\{ proven: …`),
    ),
  )
  it.each([
    '{ tier: now, when: { all: [story.pop, { not: { proven: story.fever } }] } }',
    '{ tier: weeks, when: { all: [story.pop, { not: story.fever }] } }',
    '{ tier: now, because: a trial, when: { all: [story.pop, story.onset-days <= 7 days] } }',
    '{ tier: now, when: { all: [story.pop, story.onset-days >= 7 days] } }',
  ])('lets %s stand', (clause) => expect(withClause(clause)).toEqual([]))
})

describe('what a reassuring result clears', () => {
  it('is said with its date in the pack as it ships', () =>
    expect(thePack().regions.flatMap(({ id }) => lintReassurance(viewOf(thePack(), id)).map(problemLine))).toEqual([]))
  it('is refused of any date, with the cure', () =>
    expect(withClause('{ tier: today, when: { all: [story.pop, { not: { proven: imaging.film has normal } }] } }', lintReassurance).join()).toMatch(
      /knee\.flag\.locked: is cleared by "imaging\.film has normal" of any date \(cure: ask for \.taken = since onset beside it\)/,
    ))
  it.each([
    '{ tier: today, when: { all: [story.pop, { not: { proven: { all: [imaging.film has normal, imaging.film.taken = since onset] } } }] } }',
    '{ tier: today, when: { all: [story.pop, { not: { proven: criterion(common.radiograph-clear) } }] } }',
    '{ tier: weeks, when: { all: [story.pop, { not: { proven: imaging.film has normal } }] } }',
  ])('lets %s stand', (clause) => expect(withClause(clause, lintReassurance)).toEqual([]))
})

describe('the same danger in every region', () => {
  const views = thePack().regions.map(({ id }) => viewOf(thePack(), id))
  const told = (text: string): string[] => lintThreats([{ path: 'threats.yaml', text: `threats:\n  - ${text}\n` }], views).map(problemLine)
  it('has a flag that is urgent enough, or the region says why not', () => expect(lintThreats(contentFiles(), views).map(problemLine)).toEqual([]))
  it('is missed where it is missing or too slow', () => {
    expect(told('{ concept: acute-ischaemia, least: now }')).toEqual([
      'the pack: jaw: has no flag of "acute-ischaemia" that reaches now (cure: let one reach it, or say in content/threats.yaml why it cannot show here)',
    ])
    expect(told('{ concept: osteoarthritis, least: now }').length).toBeGreaterThan(5)
  })
  it('is not excused where it is there', () =>
    expect(told('{ concept: sepsis, least: now, except: { knee: a trial } }').join()).toMatch(/knee: is said to have no "sepsis", and has it/))
})
