import { people as contract, type Person } from '@kneecap-awl/contract'
import { hasLetters, plainText } from '@kneecap-awl/core'
import type { FastifyInstance } from 'fastify'
import { v7 as uuid7 } from 'uuid'
import { addAudit } from '../audit/queries.js'
import { auditActions, auditFile, auditRows } from '../audit/reading.js'
import { asSite, type Db } from '../db/connect.js'
import { badInput, HttpProblem, notFound } from '../http/problem.js'
import { serve } from '../http/serve.js'
import { addInvitation } from './invitations.js'
import { addAccount, endSessions, NO_PASSWORD, setPassword, setSecondFactor } from './queries.js'

async function peopleOf(db: Db): Promise<Person[]> {
  const { rows } = await db.query<Person & { disabledAt: Date | null; invitedUntil: Date | null }>(
    `select a.id, a.name, a.sign_in as "signIn", a.role, a.is_demo as "isDemo", exists (select 1 from recovery_code r where r.account_id = a.id) as "hasSecondFactor",
            a.disabled_at as "disabledAt", i.until as "invitedUntil"
     from account a left join lateral (select max(expires_at) as until from invitation where account_id = a.id and used_at is null and expires_at > now()) i on true
     order by a.name`,
  )
  return rows.map((row) => ({ ...row, disabledAt: row.disabledAt?.toISOString() ?? null, invitedUntil: row.invitedUntil?.toISOString() ?? null }))
}

/** The accounts of a site, as its administrator sees and changes them, and who did what. */
export async function people(app: FastifyInstance): Promise<void> {
  const { pool } = app
  serve(app, contract.readPeople, async ({ account }) => ({ people: await asSite(pool, account.site, peopleOf) }))
  serve(app, contract.invite, ({ account, body: { name, signIn, role } }) =>
    asSite(pool, account.site, async (db) => {
      if (!hasLetters(plainText(name))) throw badInput([{ path: '/name', reason: 'is no name', expected: 'a name with letters' }])
      const id = uuid7()
      if (!(await addAccount(db, { id, site: account.site, signIn, name: plainText(name), role })))
        throw badInput([{ path: '/signIn', reason: 'is taken', expected: 'another sign-in name' }])
      const invitation = await addInvitation(db, { id, site: account.site })
      addAudit(db, { site: account.site, account: account.id, action: 'person invited', about: `${id} ${role}` })
      return { id, ...invitation }
    }),
  )
  serve(app, contract.changePerson, async ({ account, params: { id }, body: { name, role, isDisabled } }) => {
    await asSite(pool, account.site, async (db) => {
      const before = (await peopleOf(db)).find((one) => one.id === id)
      if (!before) throw notFound('person')
      if (name !== undefined && !hasLetters(plainText(name))) throw badInput([{ path: '/name', reason: 'is no name', expected: 'a name with letters' }])
      const isNoAdmin = (role ?? before.role) !== 'admin' || (isDisabled ?? before.disabledAt !== null)
      if (before.role === 'admin' && isNoAdmin && !(await isOtherAdmin(db, id)))
        throw new HttpProblem(409, 'not-allowed', 'The last administrator stays one: make somebody else administrator first.')
      await db.query(
        `update account set name = coalesce($2, name), role = coalesce($3, role),
           disabled_at = case when $4::boolean is null then disabled_at when $4 then coalesce(disabled_at, now()) end where id = $1`,
        [id, name === undefined ? null : plainText(name), role ?? null, isDisabled ?? null],
      )
      if (isDisabled === true || (role !== undefined && role !== before.role)) await endSessions(db, id)
      const what = [
        name !== undefined && 'name',
        role !== undefined && `role ${before.role} to ${role}`,
        isDisabled !== undefined && (isDisabled ? 'disabled' : 'enabled'),
      ]
      addAudit(db, { site: account.site, account: account.id, action: 'person changed', about: [id, ...what.filter(Boolean)].join(' ') })
    })
    return null
  })
  serve(app, contract.resetPerson, ({ account, params: { id } }) =>
    asSite(pool, account.site, async (db) => {
      const person = (await peopleOf(db)).find((one) => one.id === id)
      if (!person) throw notFound('person')
      if (person.isDemo) throw new HttpProblem(409, 'not-allowed', 'An account of the demonstration keeps its password. Disable it instead.')
      await setPassword(db, id, NO_PASSWORD)
      await setSecondFactor(db, { id, site: account.site }, null, [])
      await endSessions(db, id)
      const invitation = await addInvitation(db, { id, site: account.site })
      addAudit(db, { site: account.site, account: account.id, action: 'person reset', about: id })
      return { id, ...invitation }
    }),
  )
  serve(app, contract.readAudit, ({ account, query }) =>
    asSite(pool, account.site, async (db) => {
      const read = await auditRows(db, query)
      addAudit(db, { site: account.site, account: account.id, action: 'audit read' })
      return { ...read, actions: await auditActions(db) }
    }),
  )
  serve(app, contract.exportAudit, async ({ account, query, reply }) => {
    const file = await asSite(pool, account.site, async (db) => {
      addAudit(db, { site: account.site, account: account.id, action: 'audit exported' })
      return auditFile(db, query)
    })
    reply.header('content-disposition', 'attachment; filename="audit.csv"').type('text/csv; charset=utf-8')
    return file
  })
}

async function isOtherAdmin(db: Db, id: string): Promise<boolean> {
  const { rowCount } = await db.query("select 1 from account where role = 'admin' and disabled_at is null and id <> $1", [id])
  return (rowCount ?? 0) > 0
}
