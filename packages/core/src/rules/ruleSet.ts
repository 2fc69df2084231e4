import type { TermValue } from '../model/interval.js'
import type { Item } from '../model/item.js'
import type { Measure } from '../model/measure.js'
import type { SideIndex } from '../model/side.js'
import type { CompiledCalc } from './compiledCalc.js'
import type { Compiled, Context, RetainedFlag } from './runtime.js'
import type { T } from './truth.js'

/** The worth of a term on a side; null when it is not known. */
export type Read = (context: Context, side: SideIndex) => TermValue

/** What a rule needs of the pack that it belongs to: its items, its measures, and the other rules that it names. */
export interface RuleSet {
  /** @throws Error when there is no such item: the compiler never lets that through */
  index(id: string): number
  item(index: number): Item
  /** One compiled rule for each text, however often it stands in the pack. */
  shared(key: string, make: (id: number) => Compiled): Compiled
  measure(name: string): Measure
  /** A reader for a path written in a derivation: `item`, `item.qualifier` or `other(item)`. */
  reader(path: string, owner: Item): Read
  compiledCalc(id: string): CompiledCalc
  compiledFlag(id: string): { readonly any: Compiled }
  retainedFlag(id: string, context: Context, side: SideIndex): RetainedFlag | undefined
  flagTruth(id: string, context: Context, side: SideIndex): T
  holdTruth(id: string, context: Context, side: SideIndex): T
  inPlayTruth(id: string, context: Context, side: SideIndex): T
  moreUrgentFlag(self: string, context: Context, side: SideIndex): T
}
