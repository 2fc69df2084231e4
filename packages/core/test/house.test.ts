import { readdirSync, readFileSync, statSync } from 'node:fs'
import { dirname, join, normalize, relative } from 'node:path'
import { ESLint } from 'eslint'
import { describe, expect, it } from 'vitest'

const ROOT = join(import.meta.dirname, '../../..')
const walk = (dir: string): string[] =>
  readdirSync(dir).flatMap((name) => (statSync(join(dir, name)).isDirectory() ? walk(join(dir, name)) : [join(dir, name)]))
const PACKAGES = readdirSync(join(ROOT, 'packages'))
const files = PACKAGES.flatMap((name) => walk(join(ROOT, 'packages', name, 'src')))
  .filter((path) => /\.tsx?$/.test(path) && !path.endsWith('.d.ts'))
  .map((path) => relative(ROOT, path))
const known = new Set(files)

/** The file of the project that an import names; nothing for a package. */
function fileOf(from: string, spec: string): string[] {
  const path = normalize(join(dirname(from), spec)).replace(/\.js$/, '')
  return [`${path}.ts`, `${path}.tsx`].filter((file) => known.has(file))
}
const importsOf = new Map(
  files.map((file) => {
    const named = readFileSync(join(ROOT, file), 'utf8').matchAll(/(?:from|import\() ?'(\.[^']+)'/g)
    return [file, [...named].flatMap(([, spec = '']) => fileOf(file, spec))] as const
  }),
)

describe('the house', () => {
  it('has no circle of imports, imports of types included', () => {
    const circles: string[] = []
    const done = new Set<string>()
    const visit = (file: string, path: readonly string[]): void => {
      if (path.includes(file)) return void circles.push([...path.slice(path.indexOf(file)), file].join(' -> '))
      if (done.has(file)) return
      for (const other of importsOf.get(file) ?? []) visit(other, [...path, file])
      done.add(file)
    }
    for (const file of files) visit(file, [])
    expect(circles).toEqual([])
  })
  it('has no source file over 300 lines', () => {
    expect(files.filter((file) => readFileSync(join(ROOT, file), 'utf8').trimEnd().split('\n').length > 300)).toEqual([])
  })
})

describe('the linter', () => {
  const linter = new ESLint({ cwd: ROOT })
  const bans = async (file: string): Promise<string> => {
    const config = (await linter.calculateConfigForFile(file)) as { readonly rules: Readonly<Record<string, unknown>> } | undefined
    return JSON.stringify(config?.rules['no-restricted-imports'])
  }
  it.each(readdirSync(join(ROOT, 'packages/web/src/screens')))('keeps the screen %s from the server and from every other screen', async (screen) => {
    const text = await bans(`packages/web/src/screens/${screen}/any.tsx`)
    expect(text).toContain('speaks to the server over HTTP')
    expect(text).toContain('screens do not import each other')
  })
  it.each(['packages/core/test/any.test.ts', 'e2e/any.spec.ts', 'scripts/any.mjs'])('reads %s', async (file) => {
    expect(await linter.isPathIgnored(file)).toBe(false)
  })
})
