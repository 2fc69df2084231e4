import { describe, expect, it } from 'vitest'
import { ageAt, fromNow } from '../src/parts/times'

const NOW = Date.parse('2026-05-31T12:00:00Z')

describe('times as people say them', () => {
  it.each([
    ['2026-05-31T11:36:00Z', '24 min ago'],
    ['2026-05-31T10:00:00Z', '2 h ago'],
    ['2026-05-29T11:00:00Z', '2 days ago'],
    ['2026-06-01T08:00:00Z', 'in 20 h'],
    ['2026-07-10T12:00:00Z', 'in 40 days'],
  ])('%s is %s', (iso, words) => expect(fromNow(iso, NOW)).toBe(words))
  it('counts an age only once the birthday has come', () => {
    expect(ageAt('1980-06-01', NOW)).toBe(45)
    expect(ageAt('1980-05-31', NOW)).toBe(46)
  })
})
