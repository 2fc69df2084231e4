import { useLocation, useParams } from 'react-router'
import { useQuery } from '@tanstack/react-query'
import { examination, packOf, session } from '../../api/queries'
import { Shell } from '../../parts/Shell'
import { Waiting } from '../../parts/Waiting'
import { Sheet } from './Sheet'

/** Loads the examination and its pack, then hands over to the sheet. */
export default function Workspace() {
  const { id = '' } = useParams()
  const { state } = useLocation() as { state: { complaints?: string[]; amends?: string } | null }
  const { data: account } = useQuery(session)
  const detail = useQuery(examination(id))
  const pack = useQuery(packOf(detail.data))
  if (detail.isError)
    return (
      <Shell heading="Examination">
        <p role="alert" style={{ padding: 20 }}>
          {detail.error.message}
        </p>
      </Shell>
    )
  if (!detail.data || !pack.data || !account || !detail.isFetchedAfterMount) return <Waiting heading="Examination" />
  return <Sheet key={id} detail={detail.data} pack={pack.data} by={account.name} complaints={state?.complaints ?? []} amends={state?.amends} />
}
