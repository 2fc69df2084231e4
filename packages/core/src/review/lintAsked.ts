import { CORE_SCHEMA, load } from 'js-yaml'
import type { Item } from '../model/item.js'
import type { NerveLesions } from '../pack/nerves.js'
import type { Problem } from '../pack/problem.js'
import type { RegionPack } from '../pack/pack.js'
import { rulesOf } from '../pack/rulesOf.js'
import type { SourceFile } from '../pack/source.js'
import { isWanted } from '../pack/wantedItem.js'
import { itemsOfLeaf, leavesOf } from '../rules/leaves.js'
import { problem } from './lintProblem.js'

/** Items that are asked for although no rule reads them, and why: the note and the letter tell them. */
interface Noted {
  readonly because: string
  readonly items: readonly string[]
}

/**
 * What the program asks for by itself is read: by a rule, a score, a condition, the nerve localiser or a letter's wishes. What is asked for the
 * note alone says why in a `noted` file.
 * @param files the whole content
 * @example lintAsked(files, pack.regions.map(({ id }) => viewOf(pack, id))) // [{ id: 'knee.test.dial-90', reason: 'is asked in the knee and read by nothing', … }]
 */
export function lintAsked(files: readonly SourceFile[], views: readonly RegionPack[]): Problem[] {
  const noted = files
    .filter(({ path }) => path.startsWith('noted'))
    .flatMap(({ text }) => (load(text, { schema: CORE_SCHEMA }) as { readonly noted: readonly Noted[] }).noted)
  const excused = new Set(noted.flatMap(({ items }) => items))
  const unread = views.flatMap((view) => unreadOf(view).map((item) => [item.id, view.regions[0].name] as const))
  const idle = new Set(unread.map(([id]) => id))
  return [
    ...unread
      .filter(([id]) => !excused.has(id))
      .map(([id, region]) =>
        problem(id, `is asked in the ${region.toLowerCase()} and read by nothing`, 'let a rule read it, ask it no more, or say in content/noted.yaml why'),
      ),
    ...[...excused]
      .filter((id) => !idle.has(id))
      .map((id) => problem(id, 'is said to be noted only, and is read or not asked', 'take it out of content/noted.yaml')),
  ]
}

function unreadOf(view: RegionPack): Item[] {
  const read = new Set([
    ...rulesOf(view).flatMap(([, rule]) => leavesOf(rule).flatMap((leaf) => itemsOfLeaf(leaf))),
    ...view.items.flatMap((item) => Object.values(item.derive?.from ?? {}).flatMap(sourceOf)),
    ...nerveItems(view.nerveLesions),
  ])
  const wishes = view.destinations.flatMap(({ letter }) => letter.flatMap((row) => (typeof row === 'string' ? [] : row.items)))
  const isAsked = ({ depth }: Item): boolean => depth === 'core' || depth === 'prompted'
  return view.items.filter((item) => isAsked(item) && !read.has(item.id) && !wishes.some((wish) => isWanted(item.id, wish)))
}

/** The item behind a path of a derivation, with and without its qualifier. */
function sourceOf(path: string): string[] {
  const plain = path.replace(/^other\((.*)\)$/, '$1')
  return [plain, plain.slice(0, plain.lastIndexOf('.'))]
}

const nerveItems = ({ lesions, pointers, quick, readAs }: NerveLesions): string[] => [
  ...lesions.flatMap(({ expected, shared }) => [...expected, ...shared]),
  ...pointers.flatMap(({ item }) => item ?? []),
  ...quick.arm,
  ...quick.leg,
  ...readAs.flatMap(({ item, as }) => [item, as]),
]
