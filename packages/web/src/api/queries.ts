import { keepPreviousData, queryOptions } from '@tanstack/react-query'
import type { LibraryEntry, Entry, Letter, Pack, RegionPack, Region, Side, Tier } from '@kneecap-awl/core'
import { outbox } from '../record/outbox'
import { sendWaiting } from '../record/sendWaiting'
import { api } from './http'

export interface Account {
  readonly id: string
  readonly name: string
  readonly role: string
  readonly signIn: string
  readonly site: string
  /** The time zone in which the site writes: an IANA name. */
  readonly zone: string
}

export interface PatientSummary {
  readonly id: string
  readonly localNumber: string
  readonly name: string
  readonly birthDate: string
  /** Null when nobody asked. */
  readonly sex: string | null
  readonly contact: string
}

export interface ExaminationSummary {
  readonly id: string
  readonly patientId: string
  readonly patientName: string
  readonly birthDate: string
  readonly region: string
  readonly sides: readonly Side[]
  readonly setting: 'primary-care' | 'emergency'
  readonly startedAt: string
  readonly startedBy: string
  readonly packHash: string
  readonly signedAt: string | null
  readonly signedBy: string | null
  readonly discardedAt: string | null
  readonly discardReason: string
  readonly floor: Tier | null
  readonly ceiling: Tier | null
  /** What counts: the floor, or what a clinician set in its place. */
  readonly priority: Tier | null
  readonly verdictKind: 'signed' | 'amended' | null
}

export interface ExaminationDetail extends ExaminationSummary {
  readonly entries: readonly Entry[]
  /** What was found of this joint at earlier examinations, as far as a rule compares with it. */
  readonly previous: readonly Entry[]
  readonly verdict?: { readonly recordHash: string; readonly kind: string }
  /** The other joints of the same visit. */
  readonly visitWith: readonly ExaminationSummary[]
}

export interface Referral {
  readonly id: string
  readonly examinationId: string
  readonly patientId: string
  readonly patientName: string
  readonly destination: string
  readonly tier: Tier
  readonly flaggedAt: string
  readonly dueAt: string | null
  readonly lastEvent: string
  readonly lastEventAt: string
  readonly lastNote: string
}

export const session = queryOptions({
  queryKey: ['session'],
  queryFn: async () => (await api<{ account: Account | null }>('GET', '/api/session')).account,
  retry: false,
  staleTime: 5 * 60_000,
})
export interface DeskList {
  readonly state: 'draft' | 'signed'
  readonly search: string
  readonly region: string
  readonly page: number
}
export interface DeskPage {
  readonly total: number
  readonly oldest: { readonly id: string; readonly patientName: string; readonly startedAt: string } | null
  readonly examinations: readonly ExaminationSummary[]
}
/** Rows on one page of the desk. */
export const PAGE = 12
export const desk = ({ state, search, region, page }: DeskList) =>
  queryOptions({
    queryKey: ['desk', state, search, region, page],
    queryFn: () =>
      api<DeskPage>('GET', `/api/desk?${new URLSearchParams({ state, search, region, limit: String(PAGE), offset: String(page * PAGE) }).toString()}`),
    refetchInterval: 60_000,
    placeholderData: keepPreviousData,
  })
export const openReferrals = queryOptions({
  queryKey: ['referrals'],
  queryFn: () => api<{ referrals: Referral[] }>('GET', '/api/referrals'),
  refetchInterval: 60_000,
})
/** The pack in use, without its items: what the desk and the start need. */
export type PackSummary = Pick<Pack, 'hash' | 'version' | 'destinations' | 'tiers' | 'cautions'> & {
  readonly regions: readonly Pick<Region, 'id' | 'name' | 'side' | 'figure' | 'ages' | 'complaint'>[]
}
export const currentPack = queryOptions({ queryKey: ['pack', 'current'], queryFn: () => api<PackSummary>('GET', '/api/packs/current'), staleTime: Infinity })
/** The pack that an examination is judged with, as its region sees it. */
export const packOf = (examination: Pick<ExaminationSummary, 'packHash' | 'region'> | undefined) =>
  queryOptions({
    queryKey: ['pack', examination?.packHash, examination?.region],
    queryFn: () => api<RegionPack>('GET', `/api/packs/${examination?.packHash ?? ''}/${examination?.region ?? ''}`),
    staleTime: Infinity,
    enabled: examination !== undefined,
  })
export const library = queryOptions({
  queryKey: ['library'],
  queryFn: () => api<{ hash: string; entries: LibraryEntry[] }>('GET', '/api/library'),
  staleTime: Infinity,
})
/** What waits on this device is sent first; what cannot be sent yet stands with what the server holds. */
export const examination = (id: string) =>
  queryOptions({
    queryKey: ['examination', id],
    queryFn: async () => {
      await sendWaiting(id).catch(() => undefined)
      const detail = await api<ExaminationDetail>('GET', `/api/examinations/${id}`)
      const known = new Set(detail.entries.map((entry) => entry.id))
      const waiting = (await outbox.waiting(id)).filter((entry) => !known.has(entry.id))
      return { ...detail, entries: [...detail.entries, ...waiting] }
    },
    staleTime: 0,
  })
export const referralsOf = (id: string) =>
  queryOptions({ queryKey: ['examination', id, 'referrals'], queryFn: () => api<{ referrals: Referral[] }>('GET', `/api/examinations/${id}/referrals`) })
export interface Corrected {
  readonly field: string
  readonly was: string
  readonly becomes: string
  readonly reason: string
  readonly by: string
  readonly at: string
}
export interface PatientDetail {
  readonly patient: PatientSummary
  readonly examinations: readonly ExaminationSummary[]
  /** What was corrected of the patient and of the examinations, the newest first. */
  readonly corrections: readonly Corrected[]
}
/** Those who may be the person that is about to be added. */
export const likePatients = (name: string, birthDate: string) =>
  queryOptions({
    queryKey: ['patients', 'like', name, birthDate],
    queryFn: () => api<{ patients: PatientSummary[] }>('GET', `/api/patients/like?${new URLSearchParams({ name, birthDate }).toString()}`),
  })
export const patientSearch = (search: string) =>
  queryOptions({
    queryKey: ['patients', search],
    queryFn: () => api<{ patients: PatientSummary[] }>('GET', `/api/patients?search=${encodeURIComponent(search)}`),
  })
export const patientById = (id: string) => queryOptions({ queryKey: ['patient', id], queryFn: () => api<PatientDetail>('GET', `/api/patients/${id}`) })

export type { Letter }
