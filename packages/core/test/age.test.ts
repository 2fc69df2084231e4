import { describe, expect, it } from 'vitest'
import fc from 'fast-check'
import { ageOn, localDay } from '../src/index.js'

describe('an age by the calendar', () => {
  it.each<[string, string, string, string, number]>([
    ['the day before the eighteenth birthday', '2008-11-29', '2026-11-28T12:00:00Z', 'UTC', 17],
    ['the eighteenth birthday', '2008-11-29', '2026-11-29T00:00:00Z', 'UTC', 18],
    ['the eighteenth birthday, already begun east of here', '2008-11-29', '2026-11-28T22:59:00Z', 'Asia/Tokyo', 18],
    ['the eighteenth birthday, not yet begun west of here', '2008-11-29', '2026-11-29T03:00:00Z', 'America/New_York', 17],
    ['sixty-five on the day', '1961-03-01', '2026-03-01T08:00:00Z', 'Europe/Oslo', 65],
    ['sixteen, a day short', '2010-03-11', '2026-03-10T23:30:00Z', 'UTC', 15],
    ['born on a leap day, 28 February of a plain year', '2008-02-29', '2026-02-28T12:00:00Z', 'UTC', 17],
    ['born on a leap day, 1 March of a plain year', '2008-02-29', '2026-03-01T00:00:00Z', 'UTC', 18],
    ['born on a leap day, in a leap year', '2004-02-29', '2024-02-29T00:00:00Z', 'UTC', 20],
    ['born just after a leap day', '2004-03-01', '2024-02-29T12:00:00Z', 'UTC', 19],
    ['in the hour that the clocks skip', '1971-03-29', '2026-03-29T01:30:00Z', 'Europe/Berlin', 55],
    ['where midnight itself is skipped', '1996-10-20', '2014-10-19T03:00:00Z', 'America/Sao_Paulo', 17],
  ])('%s', (_when, born, at, zone, years) => expect(ageOn(born, at, zone).years).toBe(years))

  it('counts an infant in days, weeks and months, and a fraction of years that reaches 1 on the birthday', () => {
    expect(ageOn('2026-01-01', '2026-02-19T10:00:00Z', 'UTC')).toEqual({ years: 0, months: 1, weeks: 7, days: 49, yearsExactly: 0.13 })
    expect(ageOn('2025-02-19', '2026-02-18T10:00:00Z', 'UTC')).toMatchObject({ years: 0, months: 11, yearsExactly: 0.99 })
    expect(ageOn('2025-02-19', '2026-02-19T10:00:00Z', 'UTC')).toMatchObject({ years: 1, months: 12, yearsExactly: 1 })
    expect(ageOn('2026-02-20', '2026-02-19T10:00:00Z', 'UTC')).toMatchObject({ years: 0, months: 0, days: 0 })
  })
  it('never goes back, and turns over on the birthday alone', () => {
    const day = fc.integer({ min: 0, max: 40_000 }).map((days) => new Date(Date.UTC(1920, 0, 1) + days * 86_400_000).toISOString().slice(0, 10))
    fc.assert(
      fc.property(day, fc.integer({ min: 0, max: 36_000 }), fc.constantFrom('UTC', 'Asia/Tokyo', 'America/Sao_Paulo'), (born, later, zone) => {
        const at = (days: number): string => new Date(Date.parse(`${born}T12:00:00Z`) + days * 86_400_000).toISOString()
        const [before, after] = [ageOn(born, at(later), zone), ageOn(born, at(later + 1), zone)]
        expect(after.years - before.years).toBeGreaterThanOrEqual(0)
        if (after.years > before.years) {
          const today = localDay(at(later + 1), zone).slice(5)
          expect([born.slice(5), ...(born.endsWith('02-29') ? ['03-01'] : [])]).toContain(today)
        }
        expect(after.yearsExactly).toBeGreaterThanOrEqual(before.yearsExactly)
        expect(Math.floor(after.yearsExactly)).toBe(after.years)
      }),
    )
  })
  it('refuses what is no date and no zone', () => {
    expect(() => ageOn('1980-02-30', '2026-01-01T00:00:00Z', 'UTC')).toThrow()
    expect(() => ageOn('1980-02-20', '2026-01-01T00:00:00Z', 'Nowhere/Town')).toThrow()
  })
})
