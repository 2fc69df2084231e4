import type { ReactNode } from 'react'
import { Link } from 'react-router'
import { sourceNames, usersOf, type LibraryEntry, type RegionPack, type Reviewed } from '@kneecap-awl/core'
import styled from 'styled-components'
import { Soft } from '../../parts/controls'
import { tierName } from '../../parts/PunchedStrip'
import { dayOnly } from '../../parts/times'

/** The address of something in the library; undefined when it has no page. */
export type To = (kind: LibraryEntry['kind'] | 'any', id: string) => string | undefined

/** Where an item or a calculated value comes in: who asks for it, who stops it, who reads it. */
export function UsedBy({ pack, id, to }: { readonly pack: RegionPack; readonly id: string; readonly to: To }) {
  const { flags, calcs, askedBy, stoppedBy, conditions } = usersOf(pack, id)
  return (
    <>
      {askedBy.length > 0 && (
        <Part title="Asked because">
          <ul>
            {askedBy.map((group) => (
              <li key={group.id}>{group.because}</li>
            ))}
          </ul>
        </Part>
      )}
      {stoppedBy.length > 0 && (
        <Part title="On hold while">
          <ul>
            {stoppedBy.map((hold) => (
              <li key={hold.id}>
                {hold.title}: {hold.reason}
              </li>
            ))}
          </ul>
        </Part>
      )}
      {flags.length > 0 && (
        <Part title="Flags that read it">
          <ul>
            {flags.map((flag) => (
              <li key={flag.id}>
                <Named to={to('flag', flag.id)}>{flag.title}</Named> <Soft>{[...new Set(flag.clauses.map((clause) => tierName(clause.tier)))].join(', ')}</Soft>
              </li>
            ))}
          </ul>
        </Part>
      )}
      {calcs.length > 0 && (
        <Part title="Rules and scores that read it">
          <ul>
            {calcs.map((calc) => (
              <li key={calc.id}>
                <Named to={to('score', calc.id)}>{calc.label}</Named>
              </li>
            ))}
          </ul>
        </Part>
      )}
      {conditions.length > 0 && <Part title="Conditions whose probability it changes">{conditions.map((one) => one.name).join(' · ')}</Part>}
      {flags.length + calcs.length + conditions.length + askedBy.length === 0 && <Soft as="p">No rule reads it: it is there for the record.</Soft>}
    </>
  )
}

/** Who read it against the literature; said also when nobody has yet. */
export function ReadBy({ reviewed }: { readonly reviewed: Reviewed | undefined }) {
  return <Part title="Clinical review">{reviewed ? `${reviewed.by}, ${dayOnly(reviewed.on)}: ${reviewed.of}` : 'Not yet read against its sources.'}</Part>
}

/** A name that leads to its own page, where it has one. */
export const Named = ({ to, children }: { readonly to: string | undefined; readonly children: ReactNode }) =>
  to ? (
    <Link to={to} replace>
      {children}
    </Link>
  ) : (
    <>{children}</>
  )

/** Papers and guidelines, each leading to what stands on it. */
export function Sources({ source, to }: { readonly source: string; readonly to: To }) {
  const names = sourceNames(source)
  return names.length === 0 ? (
    <>our own judgement</>
  ) : (
    <>
      {names.map((name, at) => (
        <span key={name}>
          {at > 0 && '; '}
          <Named to={to('source', name)}>{name}</Named>
        </span>
      ))}
    </>
  )
}

/** One part of a page: what it is about on the left. */
export function Part({ title, children }: { readonly title: string; readonly children: ReactNode }) {
  return (
    <Section>
      <h3>{title}</h3>
      <div>{children}</div>
    </Section>
  )
}

const Section = styled.section`
  display: grid;
  grid-template-columns: 150px minmax(0, 72ch);
  gap: 4px 20px;
  padding: 10px 0;
  border-top: 1px solid ${({ theme }) => theme.rule};
  margin-top: 8px;
  h3 {
    font-size: 12px;
    font-weight: 650;
    color: ${({ theme }) => theme.soft};
    padding-top: 3px;
  }
  ol {
    list-style: decimal;
    padding-left: 18px;
  }
  ul {
    display: grid;
    gap: 2px;
  }
`
export const Figure = styled.div`
  display: grid;
  gap: 8px;
  margin-bottom: 14px;
`
