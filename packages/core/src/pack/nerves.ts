/** A place where a nerve may be hurt, and what is lost when it is. */
export interface NerveLesion {
  readonly id: string
  readonly name: string
  readonly kind: 'root' | 'plexus' | 'nerve'
  readonly limb: 'arm' | 'leg'
  /** Items that are abnormal when this place is hurt. */
  readonly expected: readonly string[]
  /** Items that may share in it. */
  readonly shared: readonly string[]
}

export interface NerveLesions {
  readonly lesions: readonly NerveLesion[]
  readonly neighbouringRoots: readonly (readonly [string, string])[]
  readonly ties: readonly { readonly between: readonly [string, string]; readonly next: readonly string[]; readonly reading: string }[]
  readonly pointers: readonly {
    readonly item?: string
    readonly value?: string
    readonly calc?: string
    readonly add: number
    readonly to: readonly string[]
  }[]
  readonly quick: Readonly<Record<'arm' | 'leg', readonly string[]>>
  /** A count that stands for a graded movement: below `lost` it is weak, below `severe` hardly there. */
  readonly readAs: readonly { readonly item: string; readonly as: string; readonly lost: number; readonly severe: number }[]
  /** Calculated values that are a pattern over both sides, and those that are a sign of the cord. */
  readonly patterns: readonly string[]
  readonly cordSigns: readonly string[]
  /** What is said when single nerves of two limbs are each the best explanation. */
  readonly severalNerves?: { readonly name: string; readonly meaning: string }
}
