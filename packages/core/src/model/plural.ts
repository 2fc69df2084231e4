const rules = new Intl.PluralRules('en')

/**
 * A count with its noun.
 * @example counted(1, 'choice', 'choices') // '1 choice'
 */
export const counted = (count: number, one: string, other: string): string => `${count} ${rules.select(Math.abs(count)) === 'one' ? one : other}`
