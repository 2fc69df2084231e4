const rules = new Intl.PluralRules('en')

/**
 * A count with its noun.
 * @example counted(1, 'choice', 'choices') // '1 choice'
 */
export const counted = (count: number, one: string, other: string): string => `${count} ${rules.select(Math.abs(count)) === 'one' ? one : other}`

/** A unit said of one; a short one is a sign and stays. @example singular('years') // 'year' */
export const singular = (unit: string): string => (unit.length > 2 ? unit.replace(/s$/, '') : unit)
