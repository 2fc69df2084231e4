/** Words, each with the word of today. */
export type Words = Readonly<Record<string, string>>

/** Earlier words of an item's options, and of its qualifiers by the name that they had then: the name and words of today. */
export interface FormerItem {
  readonly words: Words
  readonly qualifiers: Readonly<Record<string, { readonly name: string; readonly words: Words }>>
}

/** What things were called before. */
export interface Formerly {
  /** Earlier id to the id of today. */
  readonly ids: Words
  /** By the item's id of today. */
  readonly items: Readonly<Record<string, FormerItem>>
}
