import { readdirSync, readFileSync, statSync } from 'node:fs'
import { join, relative } from 'node:path'
import { describe, expect, it } from 'vitest'

const CONTENT = join(import.meta.dirname, '../../../content')
const walk = (dir: string): string[] =>
  readdirSync(dir).flatMap((name) => (statSync(join(dir, name)).isDirectory() ? walk(join(dir, name)) : [join(dir, name)]))
const lines = walk(CONTENT)
  .filter((path) => path.endsWith('.yaml'))
  .flatMap((path) =>
    readFileSync(path, 'utf8')
      .split('\n')
      .map((text, at) => ({ at: `${relative(CONTENT, path)}:${at + 1}`, text })),
  )

describe('the content', () => {
  it('has no line over 120 characters', () => expect(lines.filter(({ text }) => text.length > 120).map(({ at }) => at)).toEqual([]))
  it('says everything about a condition in one file, which is called as it', () => {
    const files = lines.filter(({ at, text }) => at.startsWith('conditions/') && text.startsWith('condition: '))
    expect(files.length).toBe(walk(join(CONTENT, 'conditions')).length)
    for (const { at, text } of files) expect(at.split('/')[2]).toBe(`${text.replace('condition: ', '')}.yaml:1`)
  })
})
