import type { AuditRow } from '@kneecap-awl/contract'
import type { Db } from '../db/connect.js'
import { isoTime } from '../db/isoTime.js'

const PAGE = 100
/** Rows of a file: more than a site writes in a year. Who needs more asks for a span of time. */
const MOST_EXPORTED = 500_000

export interface AuditFilter {
  readonly account?: string
  readonly action?: string
  readonly about?: string
  readonly from?: string
  readonly until?: string
  /** Rows with a smaller number. */
  readonly before?: string
}

/** Row-level security leaves the rows of the site. */
const SELECT = `select r.seq::int as seq, ${isoTime('r.at')} as at, r.account_id as account, coalesce(a.name, '') as who,
    r.action, r.about, r.hash
  from audit r left join account a on a.id = r.account_id
  where ($1::uuid is null or r.account_id = $1) and ($2::text is null or position(lower($2) in lower(r.action)) > 0) and ($3::text is null or position($3 in r.about) > 0)
    and ($4::timestamptz is null or r.at >= $4) and ($5::timestamptz is null or r.at < $5) and ($6::bigint is null or r.seq < $6)`
const valuesOf = ({ account, action, about, from, until, before }: AuditFilter): unknown[] =>
  [account, action, about, from, until, before].map((one) => (one === undefined || one === '' ? null : one))

/** One page, the newest first. @param db as the site */
export async function auditRows(db: Db, filter: AuditFilter): Promise<{ readonly rows: AuditRow[]; readonly hasMore: boolean }> {
  const { rows } = await db.query<AuditRow>(`${SELECT} order by r.seq desc limit ${PAGE + 1}`, valuesOf(filter))
  return { rows: rows.slice(0, PAGE), hasMore: rows.length > PAGE }
}

/** What there is to choose from. */
export async function auditActions(db: Db): Promise<string[]> {
  const { rows } = await db.query<{ action: string }>('select distinct action from audit order by action')
  return rows.map(({ action }) => action)
}

/** The rows as comma-separated values (RFC 4180), oldest first. A value that a spreadsheet would take for a formula is kept from being one. */
export async function auditFile(db: Db, filter: AuditFilter): Promise<string> {
  const { rows } = await db.query<AuditRow>(`${SELECT} order by r.seq limit ${MOST_EXPORTED}`, valuesOf(filter))
  const cell = (value: unknown): string =>
    `"${String(value ?? '')
      .replace(/^(?=[=+\-@\t\r])/, "'")
      .replaceAll('"', '""')}"`
  const lines = rows.map(({ seq, at, account, who, action, about, hash }) => [seq, at, account, who, action, about, hash].map(cell).join(','))
  return ['seq,at,account,who,action,about,hash', ...lines, ''].join('\r\n')
}
