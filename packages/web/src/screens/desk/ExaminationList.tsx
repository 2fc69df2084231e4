import { useState } from 'react'
import { Link } from 'react-router'
import { useQuery } from '@tanstack/react-query'
import { complaintWords } from '@kneecap-awl/core'
import styled from 'styled-components'
import { desk, PAGE, type DeskList, type DeskPage, type ExaminationSummary } from '../../api/queries'
import { Button, Card, Reading, SmallTitle, Soft } from '../../parts/controls'
import { Loaded } from '../../parts/Loaded'
import { PriorityTag } from '../../parts/PriorityTag'
import { ageWords, dayOnly, fromNow, isOlderThan } from '../../parts/times'

interface Props extends Omit<DeskList, 'page'> {
  readonly title: string
  readonly empty: string
}

/** One list of the desk, a page at a time, with how many there are in all and the draft that has waited longest. */
export function ExaminationList({ title, empty, ...about }: Props) {
  const [page, setPage] = useState(0)
  const query = useQuery(desk({ ...about, page }))
  const isFiltered = about.search !== '' || about.region !== ''
  return (
    <section aria-label={title}>
      <Title>
        {title}
        {query.data ? `, ${query.data.total}${isFiltered ? ' found' : ''}` : ''}
      </Title>
      <Card>
        <Loaded query={query} what={NAMES[about.state]}>
          {(data) => (
            <>
              {about.state === 'draft' && <Oldest data={data} />}
              <ul>
                {data.examinations.map((one) => (
                  <Row key={one.id} one={one} />
                ))}
                {data.total === 0 && <Empty>{isFiltered ? 'Nothing fits. Clear the search to see all.' : empty}</Empty>}
              </ul>
              {data.total > PAGE && <Pages page={page} total={data.total} onGo={setPage} />}
            </>
          )}
        </Loaded>
      </Card>
    </section>
  )
}

const NAMES: Readonly<Record<DeskList['state'], string>> = { draft: 'the drafts', signed: 'what was signed', review: 'the reviews' }
const DAY_MS = 86_400_000

/** A draft of another day is named, so that it is not left lying on a later page. */
function Oldest({ data: { oldest } }: { readonly data: DeskPage }) {
  if (!oldest || !isOlderThan(oldest.startedAt, DAY_MS)) return null
  return (
    <Note>
      Oldest unsigned: <Link to={`/examinations/${oldest.id}`}>{oldest.patientName}</Link>, begun {fromNow(oldest.startedAt)}
    </Note>
  )
}

function Row({ one }: { readonly one: ExaminationSummary }) {
  return (
    <Line>
      <div>
        <Name to={one.signedAt ? `/examinations/${one.id}/verdict` : `/examinations/${one.id}`}>
          <bdi>{one.patientName}</bdi>
        </Name>{' '}
        <Reading>{ageWords(one.birthDate)}</Reading>
        <Soft as="div">
          {complaintWords(one)} · begun {fromNow(one.startedAt)} by {one.startedBy}
          {one.verdictKind === 'amended' ? ' · amended' : ''}
          {one.reviewOn && <ReviewDay on={one.reviewOn} />}
        </Soft>
      </div>
      <PriorityTag of={one} />
    </Line>
  )
}

/** The day of the review; one that has passed stands out. */
function ReviewDay({ on }: { readonly on: string }) {
  const isPast = isOlderThan(on, DAY_MS / 2)
  return <> · {isPast ? <Late>review was due {dayOnly(on)}</Late> : `review ${dayOnly(on)}`}</>
}

function Pages({ page, total, onGo }: { readonly page: number; readonly total: number; readonly onGo: (page: number) => void }) {
  const last = Math.ceil(total / PAGE) - 1
  return (
    <Note as="nav" aria-label="Pages">
      <Button isDisabled={page === 0} onPress={() => onGo(page - 1)}>
        Newer
      </Button>
      <Soft aria-live="polite">
        {page * PAGE + 1} to {Math.min(total, (page + 1) * PAGE)} of {total}
      </Soft>
      <Button isDisabled={page >= last} onPress={() => onGo(page + 1)}>
        Older
      </Button>
    </Note>
  )
}

const Title = styled(SmallTitle)`
  margin: 16px 0 8px;
`
export const Line = styled.li<{ $urgent?: boolean }>`
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 16px;
  padding: 10px 14px;
  border-bottom: 1px solid ${({ theme }) => theme.rule};
  border-left: 4px solid ${({ theme, $urgent }) => ($urgent ? theme.copper : 'transparent')};
  &:last-child {
    border-bottom: none;
  }
  > :first-child {
    min-width: 0;
    overflow-wrap: anywhere;
  }
  @media (max-width: 480px) {
    flex-wrap: wrap;
    gap: 6px;
  }
`
const Late = styled.strong`
  color: ${({ theme }) => theme.copper};
`
const Name = styled(Link)`
  font-weight: 650;
`
const Note = styled.div`
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 8px;
  padding: 8px 14px;
  border-bottom: 1px solid ${({ theme }) => theme.rule};
  &:last-child {
    border-bottom: none;
  }
`
const Empty = styled.li`
  padding: 14px;
  color: ${({ theme }) => theme.soft};
`
