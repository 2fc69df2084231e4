import { examinations as contract } from '@kneecap-awl/contract'
import type { FastifyInstance } from 'fastify'
import { subjectOf } from '@kneecap-awl/core'
import { addAudit } from '../audit/queries.js'
import { asSite } from '../db/connect.js'
import { serve } from '../http/serve.js'
import { amendVerdict } from './amend.js'
import { storeEntries } from './entries.js'
import { fileOf } from './file.js'
import { lastVerdict } from './queries.js'
import { sealState } from './seals.js'
import { readBack, startExamination } from './start.js'
import { addJoint, otherJoints, shareEntries } from './visit.js'
import { correctSides, deskPage, discardDraft, loadExamination, loadHead, signExamination } from './service.js'

const EIGHT_MEGABYTES = 8 * 1024 * 1024

/** Examinations from the first finding to the signature, and as files. */
export async function examinations(app: FastifyInstance): Promise<void> {
  const { ranges } = app
  serve(app, contract.startExamination, async ({ account, body }) => {
    const id = await asSite(app.pool, account.site, async (db) => {
      const [id, ...others] = await startExamination(db, app.packStore, body, account)
      addAudit(db, { site: account.site, account: account.id, action: 'examination started', about: id })
      for (const other of others) addAudit(db, { site: account.site, account: account.id, action: 'joint added to a visit', about: `${id} ${other}` })
      return id
    })
    return { id }
  })
  serve(app, contract.addJoint, async ({ account, params, body }) => {
    const id = await asSite(app.pool, account.site, async (db) => {
      const id = await addJoint(db, app.packStore, params.id, body, account)
      addAudit(db, { site: account.site, account: account.id, action: 'joint added to a visit', about: `${params.id} ${id}` })
      return id
    })
    return { id }
  })
  serve(app, contract.readDesk, async ({ account, request, query: { limit, offset, ...about } }) => {
    const page = await asSite(app.pool, account.site, async (db) => {
      const page = await deskPage(db, { ...about, limit: Number(limit), offset: Number(offset) })
      app.shown.note(db, request, account, `desk read: ${about.state}`, page.examinations)
      return page
    })
    return { ...page, examinations: await ranges.ranged(account.site, page.examinations) }
  })
  serve(app, contract.readExamination, async ({ account, params: { id } }) => {
    const detail = await asSite(app.pool, account.site, async (db) => {
      const { row, examination } = await loadExamination(db, app.packStore, id)
      addAudit(db, { site: account.site, account: account.id, action: 'examination read', about: id })
      const verdict = await lastVerdict(db, id)
      return {
        ...row,
        entries: [...examination.entries],
        previous: [...(examination.previous ?? [])],
        ...(verdict ? { verdict: { ...verdict, ...(await sealState(db, id)) } } : {}),
        others: await otherJoints(db, row),
      }
    })
    const { others, ...rest } = detail
    return { ...rest, visitWith: await ranges.ranged(account.site, others) }
  })
  serve(app, contract.sendEntries, async ({ account, params: { id }, body }) => {
    const receivedAt = new Date()
    return asSite(app.pool, account.site, async (db) => {
      const { head, pack } = await loadHead(db, app.packStore, id)
      const { outcomes, stored } = await storeEntries(db, pack, head, body, account, receivedAt)
      if (!head.signedAt) await shareEntries(db, pack, head, stored, account)
      addAudit(db, {
        site: account.site,
        account: account.id,
        action: head.signedAt ? 'examination amended' : 'entries added',
        about: `${id} ${stored.length}`,
      })
      if (head.signedAt && stored.length > 0) await amendVerdict(db, app.packStore, id, stored, account)
      return { outcomes: [...outcomes] }
    })
  })
  serve(app, contract.signExamination, ({ account, params: { id }, body }) =>
    asSite(app.pool, account.site, async (db) => {
      await signExamination(db, app.packStore, id, body, account)
      addAudit(db, { site: account.site, account: account.id, action: 'examination signed', about: id })
      const verdict = await lastVerdict(db, id)
      return { signed: true as const, ...(verdict ? { verdict } : {}) }
    }),
  )
  serve(app, contract.discardDraft, async ({ account, params: { id }, body: { reason } }) => {
    await asSite(app.pool, account.site, async (db) => {
      await discardDraft(db, id, reason, account)
      addAudit(db, { site: account.site, account: account.id, action: 'draft discarded', about: id })
    })
    return { discarded: true as const }
  })
  serve(app, contract.correctSides, async ({ account, params: { id }, body }) => {
    await asSite(app.pool, account.site, async (db) => {
      await correctSides(db, app.packStore, id, body, account)
      addAudit(db, { site: account.site, account: account.id, action: 'side corrected', about: id })
    })
    return { corrected: true as const }
  })
  serve(app, contract.readFile, async ({ account, params: { id }, reply }) => {
    const file = await asSite(app.pool, account.site, async (db) => {
      addAudit(db, { site: account.site, account: account.id, action: 'examination downloaded', about: id })
      return fileOf(db, app.packStore, id)
    })
    reply.header('content-disposition', `attachment; filename="examination-${id}.json"`)
    return file
  })
  serve(
    app,
    contract.readBack,
    ({ account, body }) =>
      asSite(app.pool, account.site, async (db) => {
        const { id, notTaken } = await readBack(db, app.packStore.current, body, account)
        addAudit(db, { site: account.site, account: account.id, action: 'examination read back from a file', about: id })
        return {
          id,
          notTaken: notTaken.map((entry) => ({
            about: subjectOf(entry).about,
            state: entry.state,
            by: entry.by,
            reason: 'reason' in entry ? (entry.reason ?? '') : '',
          })),
        }
      }),
    { bodyLimit: EIGHT_MEGABYTES },
  )
}
