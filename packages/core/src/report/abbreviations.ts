import { oncePer } from '../model/oncePer.js'
import type { Words } from '../pack/renamed.js'

type Paragraph = { readonly heading: string; readonly text: string }

const patterns = oncePer((abbreviations: Words) =>
  Object.entries(abbreviations).map(([short, long]) => ({ short, long, found: new RegExp(`(?<![\\p{L}\\p{N}(])${short}(?![\\p{L}\\p{N}])`, 'u') })),
)

/**
 * Spells each abbreviation out where a letter uses it first, from one paragraph to the next.
 * @param abbreviations short form to long, as the pack lists them
 * @param verbatim headings of paragraphs that stay as they are: names, and what a clinician wrote
 * @example [{ heading: 'Impression', text: 'ACL rupture. ACL graft.' }].map(spelledOut({ ACL: 'anterior cruciate ligament' }, new Set()))
 *   // [{ heading: 'Impression', text: 'Anterior cruciate ligament (ACL) rupture. ACL graft.' }]
 */
export function spelledOut(abbreviations: Words, verbatim: ReadonlySet<string>): (paragraph: Paragraph) => Paragraph {
  const used = new Set<string>()
  const spelt = (text: string): string =>
    patterns(abbreviations).reduce((said, { short, long, found }) => {
      const at = found.exec(said)?.index
      if (at === undefined || used.has(short)) return said
      used.add(short)
      const isFirst = at === 0 || /[.:;]\s$/.test(said.slice(0, at))
      const full = isFirst ? `${long.charAt(0).toUpperCase()}${long.slice(1)}` : long
      return `${said.slice(0, at)}${full} (${short})${said.slice(at + short.length)}`
    }, text)
  return ({ heading, text }) => ({ heading, text: verbatim.has(heading) ? text : spelt(text) })
}
