import { useMemo } from 'react'
import { SearchField } from 'react-aria-components'
import { Link, useSearchParams } from 'react-router'
import { useQuery } from '@tanstack/react-query'
import styled from 'styled-components'
import { LIBRARY_KINDS, POSITIONS, STAGES, TIERS, type LibraryEntry } from '@kneecap-awl/core'
import { currentPack } from '../../api/queries'
import { Input, Soft } from '../../parts/controls'
import { Picker } from '../../parts/Picker'
import { tierName } from '../../parts/PunchedStrip'
import { Shell } from '../../parts/Shell'
import { EntryPage } from './EntryPage'
import type { LibraryFilter } from '../../parts/librarySearch'
import { useLibrary } from './useLibrary'

const SHOWN = 80
const KIND_WORDS: Readonly<Record<string, string>> = {
  test: 'tests',
  item: 'items',
  score: 'rules and scores',
  flag: 'flags',
  variant: 'where practice differs',
  condition: 'conditions',
  source: 'sources',
}

/** Everything the program knows, to be looked up: found by a misspelt name, read with what it stands on. */
export default function Library() {
  const [params, setParams] = useSearchParams()
  const get = (name: string): string => params.get(name) ?? ''
  const filter = useMemo(
    (): LibraryFilter => ({
      search: params.get('search') ?? '',
      kind: params.get('kind') ?? '',
      region: params.get('region') ?? '',
      stage: params.get('stage') ?? '',
      position: params.get('position') ?? '',
      tier: params.get('tier') ?? '',
    }),
    [params],
  )
  const { data: pack } = useQuery(currentPack)
  const { hash, found, formerly, error } = useLibrary(filter)
  const set = (name: string, value: string): void => {
    const next = new URLSearchParams(params)
    if (value === '') next.delete(name)
    else next.set(name, value)
    if (name !== 'open' && name !== 'in') {
      next.delete('open')
      next.delete('in')
    }
    setParams(next, { replace: true })
  }
  const address = (entry: LibraryEntry): string => {
    const next = new URLSearchParams(params)
    next.set('open', `${entry.kind}:${entry.id}`)
    next.set('in', homeOf(entry, filter.region))
    return `?${next.toString()}`
  }
  const open = get('open') || (filter.search !== '' && found[0] ? `${found[0].kind}:${found[0].id}` : '')
  // An address that was sent when the thing was called otherwise.
  const [kind = '', id = ''] = open.split(':')
  const opened = found.find((entry) => entry.kind === kind && entry.id === (formerly[id] ?? id))
  const region = get('in') || (opened ? homeOf(opened, filter.region) : '') || 'knee'
  const regions = pack?.regions ?? []
  return (
    <Shell heading={<h1 style={{ fontSize: 18 }}>Library</h1>}>
      <Frame>
        <Side>
          <SearchField value={filter.search} onChange={(value) => set('search', value)} autoFocus aria-label="Search the library">
            <Input placeholder="Lachman, hook, cauda, gout…" />
          </SearchField>
          <Filters>
            <Choice name="kind" value={filter.kind} options={LIBRARY_KINDS.map((kind) => [kind, KIND_WORDS[kind] ?? kind])} onChange={set} />
            <Choice name="region" value={filter.region} options={regions.map((one) => [one.id, one.name.toLowerCase()])} onChange={set} />
            <Choice name="stage" value={filter.stage} options={STAGES.map((one) => [one, one])} onChange={set} />
            <Choice name="position" value={filter.position} options={POSITIONS.map((one) => [one, one.replace('-', ' ')])} onChange={set} />
            <Choice name="tier" value={filter.tier} options={TIERS.map((one) => [one, tierName(one)])} onChange={set} />
          </Filters>
          <Soft role="status">
            {error
              ? 'The library could not be read. Try again.'
              : found.length === 0
                ? 'Nothing fits. Take a filter away, or try another word.'
                : `${found.length} found`}
          </Soft>
          <ul aria-label="Found">
            {found.slice(0, SHOWN).map((entry) => (
              <li key={`${entry.kind} ${entry.id}`}>
                <Line to={address(entry)} replace aria-current={opened === entry ? 'true' : undefined}>
                  <span>{entry.label}</span>
                  <Soft>
                    {entry.tier ? `${tierName(entry.tier)} · ` : ''}
                    {entry.kind === 'item' ? (entry.stage ?? 'item') : entry.kind === 'variant' ? 'practice differs' : entry.kind} ·{' '}
                    {whereWords(entry.regions, regions.length)}
                  </Soft>
                </Line>
              </li>
            ))}
          </ul>
          {found.length > SHOWN && <Soft>and {found.length - SHOWN} more: narrow it down</Soft>}
        </Side>
        <Page>
          {opened && hash ? (
            <EntryPage key={`${open} ${region}`} hash={hash} entry={opened} region={region} onRegion={(one) => set('in', one)} address={address} />
          ) : (
            <Empty>
              <p>Type a name, even misspelt, or pick what you want to see.</p>
              <Soft>
                A test shows how it is done, what positive means, its trap and its likelihood ratios. A flag shows the rule that meets it, down to each finding.
              </Soft>
            </Empty>
          )}
        </Page>
      </Frame>
    </Shell>
  )
}

/** The joint through whose eyes it is read first: the one filtered for, else the one that it belongs to. */
const homeOf = ({ id, regions }: LibraryEntry, wished: string): string =>
  [wished, regions.find((one) => id.startsWith(`${one}.`)) ?? ''].find((one) => regions.includes(one)) ?? regions[0] ?? ''

const whereWords = (regions: readonly string[], all: number): string =>
  regions.length >= all
    ? 'every joint'
    : regions.length > 3
      ? `${regions.slice(0, 3).join(', ')} and ${regions.length - 3} more`
      : regions.join(', ').replaceAll('-', ' ')

function Choice({
  name,
  value,
  options,
  onChange,
}: {
  readonly name: string
  readonly value: string
  readonly options: readonly (readonly [id: string, words: string])[]
  readonly onChange: (name: string, value: string) => void
}) {
  const words = new Map(options)
  return (
    <Picker
      label={name}
      value={value === '' ? 'any' : value}
      options={['any', ...options.map(([id]) => id)]}
      words={(id) => words.get(id) ?? `any ${name}`}
      isPlain={value === ''}
      onPick={(id) => onChange(name, id === 'any' ? '' : id)}
    />
  )
}

const Frame = styled.div`
  display: grid;
  grid-template-columns: 400px minmax(0, 1fr);
  height: calc(100vh - 56px);
`
const Side = styled.div`
  padding: 16px;
  overflow: auto;
  display: grid;
  align-content: start;
  gap: 10px;
  border-right: 1px solid ${({ theme }) => theme.rule};
  ul {
    display: grid;
    gap: 2px;
  }
`
const Filters = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
`
const Line = styled(Link)`
  display: grid;
  padding: 6px 10px;
  border-radius: 8px;
  text-decoration: none;
  color: inherit;
  &:hover {
    background: ${({ theme }) => theme.wash};
  }
  &[aria-current] {
    background: ${({ theme }) => theme.sheet};
    box-shadow: inset 0 0 0 1px ${({ theme }) => theme.rule};
    font-weight: 650;
  }
  &:focus-visible {
    outline: 2px solid ${({ theme }) => theme.copper};
  }
`
const Page = styled.div`
  padding: 20px 28px 40px;
  overflow: auto;
`
const Empty = styled.div`
  max-width: 52ch;
  margin-top: 12vh;
  display: grid;
  gap: 8px;
`
