import { useState } from 'react'
import { useQuery } from '@tanstack/react-query'
import styled from 'styled-components'
import { people, type AuditRow } from '@kneecap-awl/contract'
import { auditRows, type AuditQuery } from '../../api/queries'
import { Button, Card, Download, Input, Reading, Soft } from '../../parts/controls'
import { Loaded } from '../../parts/Loaded'
import { Shell } from '../../parts/Shell'
import { Select, Table } from '../../parts/Table'
import { dayAndTime } from '../../parts/times'
import { Label, TextField } from 'react-aria-components'

/** Who did and read what at this site: a page at a time, narrowed down, or taken away as a file. */
export default function AuditPage() {
  const [filter, setFilter] = useState<AuditQuery>({})
  /** The numbers before which each page so far begins: the last is the one that is shown. */
  const [pages, setPages] = useState<readonly string[]>([])
  const query = useQuery(auditRows(filter, pages.at(-1)))
  const narrow = (key: keyof AuditQuery, value: string): void => {
    setPages([])
    setFilter(({ [key]: _, ...rest }) => (value === '' ? rest : { ...rest, [key]: value }))
  }
  const file = `${people.exportAudit.url}?${new URLSearchParams({ ...filter }).toString()}`
  return (
    <Shell
      heading={<h1 style={{ fontSize: 18 }}>Audit</h1>}
      actions={
        <Download href={file} download="audit.csv">
          Take away as a file
        </Download>
      }
    >
      <Page>
        <Filters role="search" aria-label="Narrow down">
          <div>
            <label htmlFor="audit-action">Action</label>
            <Select id="audit-action" value={filter.action ?? ''} onChange={({ target }) => narrow('action', target.value)}>
              <option value="">all</option>
              {query.data?.actions.map((one) => (
                <option key={one}>{one}</option>
              ))}
            </Select>
          </div>
          <TextField value={filter.about ?? ''} onChange={(value) => narrow('about', value)}>
            <Label>About (an id or address)</Label>
            <Input $mono />
          </TextField>
          <DayBound label="From" onChange={(day) => narrow('from', day)} />
          <DayBound label="Before" onChange={(day) => narrow('until', day)} />
          {filter.account && <Button onPress={() => narrow('account', '')}>Everybody again</Button>}
        </Filters>
        <Card>
          <Loaded query={query} what="the audit">
            {({ rows, hasMore }) => (
              <>
                <Rows rows={rows} onWho={(id) => narrow('account', id)} />
                {rows.length === 0 && <Empty>Nothing fits.</Empty>}
                <Pages>
                  <Button isDisabled={pages.length === 0} onPress={() => setPages(pages.slice(0, -1))}>
                    Newer
                  </Button>
                  <Button isDisabled={!hasMore} onPress={() => setPages([...pages, String(rows.at(-1)?.seq ?? 0)])}>
                    Older
                  </Button>
                </Pages>
              </>
            )}
          </Loaded>
        </Card>
        <Soft>
          Each row is sealed over the one before it with a key that the database does not hold: the chain is proven by audit:verify. Rows hold ids, never
          patient data.
        </Soft>
      </Page>
    </Shell>
  )
}

function Rows({ rows, onWho }: { readonly rows: readonly AuditRow[]; readonly onWho: (account: string) => void }) {
  return (
    <Wide>
      <thead>
        <tr>
          <th>When</th>
          <th>Who</th>
          <th>What</th>
          <th>About</th>
        </tr>
      </thead>
      <tbody>
        {rows.map(({ seq, at, who, account, action, about }) => (
          <tr key={seq}>
            <td>
              <Reading>{dayAndTime(at)}</Reading>
            </td>
            <td>
              {account ? (
                <Button $tone="quiet" aria-label={`Only ${who}`} onPress={() => onWho(account)}>
                  {who}
                </Button>
              ) : (
                <Soft>nobody signed in</Soft>
              )}
            </td>
            <td>{action}</td>
            <td>
              <About title={about}>{about}</About>
            </td>
          </tr>
        ))}
      </tbody>
    </Wide>
  )
}

/** A day, as the beginning of it in UTC. */
function DayBound({ label, onChange }: { readonly label: string; readonly onChange: (instant: string) => void }) {
  return (
    <TextField type="date" onChange={(day) => onChange(day === '' ? '' : `${day}T00:00:00Z`)}>
      <Label>{label}</Label>
      <Input />
    </TextField>
  )
}

const Page = styled.div`
  max-width: 1160px;
  margin: 0 auto;
  padding: 20px;
  display: grid;
  gap: 12px;
`
const Filters = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 12px;
  label {
    display: block;
    margin-bottom: 4px;
    font-size: 12px;
    font-weight: 600;
  }
  select {
    min-width: 200px;
  }
`
const Wide = styled(Table)`
  table-layout: fixed;
  th:nth-child(1) {
    width: 190px;
  }
  th:nth-child(2) {
    width: 210px;
  }
  th:nth-child(3) {
    width: 230px;
  }
`
const About = styled(Reading)`
  display: block;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  font-size: 12px;
`
const Empty = styled.p`
  padding: 16px;
`
const Pages = styled.nav`
  display: flex;
  gap: 8px;
  padding: 12px;
`
