import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { libraryIndex } from '@kneecap-awl/core'
import { thePack } from '../../core/test/support.js'
import { findEntries, searchIndex } from '../src/parts/librarySearch.js'

/** What is typed and what has to come first, a line each. */
const SEARCHES = readFileSync(new URL('files/searches.tsv', import.meta.url), 'utf8')
  .trim()
  .split('\n')
  .map((line) => line.split('\t') as [string, string])
const entries = libraryIndex(thePack())
const index = searchIndex(entries)

describe('what physicians look for', () => {
  it('is asked in three hundred ways and more, each once', () => {
    expect(SEARCHES.length).toBeGreaterThan(300)
    expect(new Set(SEARCHES.map(([typed]) => typed)).size).toBe(SEARCHES.length)
  })
  it.each(SEARCHES)('"%s" finds %s first', (search, label) =>
    expect(findEntries(entries, index, { search, kind: '', region: '', stage: '', position: '', tier: '' })[0]?.label).toBe(label),
  )
})
