import { useQuery } from '@tanstack/react-query'
import type { RegionPack } from '@kneecap-awl/core'
import { examination, packOf, type ExaminationDetail } from '../api/queries'
import { Loaded } from './Loaded'
import { Shell } from './Shell'

export interface Opened {
  readonly detail: ExaminationDetail
  readonly pack: RegionPack
}

/**
 * The examination with the rules it is judged by, as the server holds them now: what was kept from an earlier look is not the record.
 * @returns both, or the page that says why they are not there yet
 */
export function useExamination(id: string, heading: string): { readonly opened: Opened } | { readonly waiting: React.JSX.Element } {
  const detail = useQuery(examination(id))
  const pack = useQuery(packOf(detail.data))
  if (detail.data && pack.data && detail.isFetchedAfterMount) return { opened: { detail: detail.data, pack: pack.data } }
  const awaited = detail.data && detail.isFetchedAfterMount ? pack : detail
  return {
    waiting: (
      <Shell heading={<h1 style={{ fontSize: 18 }}>{heading}</h1>}>
        <Loaded query={{ ...awaited, data: undefined }} what="the examination">
          {() => null}
        </Loaded>
      </Shell>
    ),
  }
}
