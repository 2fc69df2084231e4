import { createHash } from 'node:crypto'
import { readdirSync, readFileSync, statSync } from 'node:fs'
import { join, relative } from 'node:path'
import { describe, expect, it } from 'vitest'
import { thePack } from './support.js'

const CONTENT = join(import.meta.dirname, '../../../content')
const walk = (dir: string): string[] =>
  readdirSync(dir).flatMap((name) => (statSync(join(dir, name)).isDirectory() ? walk(join(dir, name)) : [join(dir, name)]))
const lines = walk(CONTENT).flatMap((path) =>
  readFileSync(path, 'utf8')
    .split('\n')
    .map((text, at) => ({ at: `${relative(CONTENT, path)}:${at + 1}`, text })),
)

/** The same value whatever the order of its keys. */
const inOrder = (value: unknown): unknown =>
  Array.isArray(value)
    ? value.map(inOrder)
    : typeof value === 'object' && value !== null
      ? Object.fromEntries(
          Object.entries(value)
            .sort(([a], [b]) => (a < b ? -1 : 1))
            .map(([key, one]) => [key, inOrder(one)]),
        )
      : value
const texts = (things: readonly object[]): string[] => things.map((thing) => JSON.stringify(inOrder(thing))).sort()

describe('the content', () => {
  it('has no line over 120 characters', () => expect(lines.filter(({ text }) => text.length > 120).map(({ at }) => at)).toEqual([]))
  it('says everything about a condition in one file, which is called as it', () => {
    const files = lines.filter(({ at, text }) => at.startsWith('conditions/') && text.startsWith('condition: '))
    expect(files.length).toBe(walk(join(CONTENT, 'conditions')).length)
    for (const { at, text } of files) expect(at.split('/')[2]).toBe(`${text.replace('condition: ', '')}.yaml:1`)
  })
  /** Of the pack as it was before each condition had a file of its own. To be taken out with the first change of what the content says. */
  it('compiles to what it was before it was put in order', () => {
    const {
      hash: _hash,
      flags,
      conditions,
      ...rest
    } = JSON.parse(JSON.stringify(thePack())) as {
      hash: string
      flags: { clauses: object[] }[]
      conditions: { evidence: object[] }[]
    } & Record<string, unknown>
    const whole = [
      ...texts(flags.map((flag) => ({ ...flag, clauses: texts(flag.clauses) }))),
      ...texts(conditions.map((condition) => ({ ...condition, evidence: texts(condition.evidence) }))),
      ...Object.entries(rest).flatMap(([key, value]) => [
        key,
        ...(Array.isArray(value) ? texts(value.map((one: unknown) => ({ one }))) : [JSON.stringify(inOrder(value))]),
      ]),
    ]
    expect(createHash('sha256').update(whole.join('\n')).digest('hex')).toBe('860b903fc2c2a7acb44855cc0f5b1991923b50646e05d149d3d09e9fa993e9a2')
  })
})
