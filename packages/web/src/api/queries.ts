import { keepPreviousData, queryOptions } from '@tanstack/react-query'
import { accounts, examinations, packs, patients, people, referrals, type ExaminationSummary } from '@kneecap-awl/contract'
import type { LibraryEntry, Pack, Region, RegionPack } from '@kneecap-awl/core'
import { outbox } from '../record/outbox'
import { sendWaiting } from '../record/sendWaiting'
import { vault } from '../record/vault'
import { call } from './http'
import { tellLeft } from './leaving'
import { unlessHeard } from './live'

export const session = queryOptions({
  queryKey: ['session'],
  queryFn: async () => {
    await tellLeft()
    const { account, deviceKey } = await call(accounts.readSession)
    if (account) await vault.hold(account, deviceKey)
    return account
  },
  retry: false,
  staleTime: 5 * 60_000,
})
export interface DeskList {
  readonly state: 'draft' | 'signed' | 'review'
  readonly search: string
  readonly region: string
  readonly page: number
}
/** Rows on one page of the desk. */
export const PAGE = 12
export const desk = ({ state, search, region, page }: DeskList) =>
  queryOptions({
    queryKey: ['desk', state, search, region, page],
    queryFn: () => call(examinations.readDesk, { query: { state, search, region, limit: String(PAGE), offset: String(page * PAGE) } }),
    refetchInterval: unlessHeard,
    placeholderData: keepPreviousData,
  })
export const openReferrals = queryOptions({
  queryKey: ['referrals'],
  queryFn: () => call(referrals.openReferrals),
  refetchInterval: unlessHeard,
})
/** The pack in use, without its items: what the desk and the start need. */
export type PackSummary = Pick<Pack, 'hash' | 'version' | 'destinations' | 'tiers' | 'cautions'> & {
  readonly regions: readonly Pick<Region, 'id' | 'name' | 'side' | 'figure' | 'ages' | 'complaint'>[]
}
export const currentPack = queryOptions({
  queryKey: ['pack', 'current'],
  queryFn: async () => (await call(packs.currentPack)) as PackSummary,
  staleTime: Infinity,
})
/** The pack that an examination is judged with, as its region sees it. */
export const packOf = (examination: Pick<ExaminationSummary, 'packHash' | 'region'> | undefined) =>
  queryOptions({
    queryKey: ['pack', examination?.packHash, examination?.region],
    queryFn: async () => (await call(packs.regionPack, { params: { hash: examination?.packHash ?? '', region: examination?.region ?? '' } })) as RegionPack,
    staleTime: Infinity,
    enabled: examination !== undefined,
  })
interface Library {
  readonly hash: string
  readonly entries: readonly LibraryEntry[]
  /** Earlier ids, each with the id of today. */
  readonly formerly: Readonly<Record<string, string>>
}

export const library = queryOptions({
  queryKey: ['library'],
  queryFn: async () => (await call(packs.readLibrary)) as Library,
  staleTime: Infinity,
})
/** What waits on this device is sent first; what cannot be sent yet stands with what the server holds. */
export const examination = (id: string) =>
  queryOptions({
    queryKey: ['examination', id],
    queryFn: async () => {
      await sendWaiting(id).catch(() => undefined)
      const detail = await call(examinations.readExamination, { params: { id } })
      const known = new Set(detail.entries.map((entry) => entry.id))
      const waiting = (await outbox.waiting(id)).filter((entry) => !known.has(entry.id))
      return { ...detail, entries: [...detail.entries, ...waiting] }
    },
    staleTime: 0,
  })
export const referralsOf = (id: string) =>
  queryOptions({ queryKey: ['examination', id, 'referrals'], queryFn: () => call(referrals.referralsOf, { params: { id } }) })
/** Those who may be the person that is about to be added. */
export const likePatients = (name: string, birthDate: string) =>
  queryOptions({
    queryKey: ['patients', 'like', name, birthDate],
    queryFn: () => call(patients.likePatients, { query: { name, birthDate } }),
  })
export const patientSearch = (search: string) =>
  queryOptions({
    queryKey: ['patients', search],
    queryFn: () => call(patients.findPatients, { query: { search } }),
  })
export const patientById = (id: string) => queryOptions({ queryKey: ['patient', id], queryFn: () => call(patients.readPatient, { params: { id } }) })

export const ownSessions = queryOptions({ queryKey: ['sessions'], queryFn: async () => (await call(accounts.readSessions)).sessions })
export const allPeople = queryOptions({ queryKey: ['people'], queryFn: async () => (await call(people.readPeople)).people })
export interface AuditQuery {
  readonly account?: string
  readonly action?: string
  readonly about?: string
  readonly from?: string
  readonly until?: string
}
export const auditRows = (query: AuditQuery, before: string | undefined) =>
  queryOptions({
    queryKey: ['audit', query, before],
    queryFn: () => call(people.readAudit, { query: { ...query, ...(before ? { before } : {}) } }),
    placeholderData: keepPreviousData,
  })

export type { Account, Corrected, DeskPage, ExaminationDetail, ExaminationSummary, PatientSummary, Referral } from '@kneecap-awl/contract'
