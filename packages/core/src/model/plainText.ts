/** Control and direction marks, lines, and signs without width, save the joiners that some scripts are written with. */
const MARKS = /[\p{Cc}\p{Zl}\p{Zp}\u00ad\u061c\u200b\u200e\u200f\u202a-\u202e\u2060-\u2064\u2066-\u206f\ufeff\ufff9-\ufffb]/gu

/**
 * Text as it is kept: composed, on one line, without marks that turn what stands after it around. A reason with a line break in it could
 * otherwise give a note a heading that nobody wrote.
 * @example plainText('Marsh\u202e\n Odile ') // 'Marsh Odile'
 */
export const plainText = (text: string): string => text.normalize('NFC').replaceAll(MARKS, ' ').replaceAll(/\s+/g, ' ').trim()

/** Whether somebody can read it: a name of spaces or signs is none. */
export const hasLetters = (text: string): boolean => /\p{L}/u.test(text)

/** A name between marks that keep its direction from turning what stands beside it (Unicode 6.3, isolates). */
export const isolated = (name: string): string => `\u2068${plainText(name)}\u2069`
