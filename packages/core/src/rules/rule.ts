export type RuleNode =
  | { readonly op: 'all' | 'any'; readonly of: readonly RuleNode[] }
  | { readonly op: 'atLeast'; readonly n: number; readonly of: readonly RuleNode[] }
  | { readonly op: 'not' | 'proven'; readonly of: readonly [RuleNode] }
  | { readonly op: 'leaf'; readonly leaf: Leaf }

export type Comparator = '=' | '!=' | '<' | '<=' | '>' | '>=' | 'in' | 'has' | 'has-any' | 'has-all' | 'is'

/** A term is what stands left of the comparison: an item, a qualifier of it, or a function of both sides. */
export interface Term {
  readonly fn: 'value' | 'other' | 'diff' | 'deficit' | 'gap' | 'worst' | 'change'
  readonly item: string
  readonly qualifier?: string
  /** Further items of `worst`. */
  readonly more?: readonly string[]
  /** How far back `change` looks, hours; any time when left out. */
  readonly window?: number
}

export type Leaf =
  | {
      readonly type: 'compare'
      readonly text: string
      readonly over: 'this' | 'either' | 'both'
      readonly term: Term
      readonly cmp: Comparator
      readonly operand: readonly string[]
    }
  | {
      readonly type: 'calc'
      readonly text: string
      readonly over: 'this' | 'either' | 'both'
      readonly calc: string
      readonly cmp: Comparator
      readonly operand: readonly string[]
    }
  | { readonly type: 'weak'; readonly text: string; readonly item: string }
  | { readonly type: 'differs'; readonly text: string; readonly item: string }
  | { readonly type: 'unseen' | 'not-valid'; readonly text: string; readonly item: string }
  | { readonly type: 'rechecked'; readonly text: string; readonly item: string; readonly window?: number }
  | { readonly type: 'could-not'; readonly text: string; readonly item: string; readonly reason?: string }
  | { readonly type: 'all-examined'; readonly text: string; readonly items: readonly string[] }
  | { readonly type: 'flag' | 'hold' | 'in-play'; readonly text: string; readonly ref: string }
  | { readonly type: 'any-flag'; readonly text: string; readonly self: string }
  | { readonly type: 'always'; readonly text: string }
