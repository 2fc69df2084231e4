/**
 * A time as every answer writes it: ISO 8601, UTC, to the millisecond.
 * @param sql a timestamp with time zone
 * @example isoTime('e.started_at') // to_char(e.started_at at time zone 'UTC', …), which reads 2026-03-10T09:00:00.000Z
 */
export const isoTime = (sql: string): string => `to_char(${sql} at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"')`
