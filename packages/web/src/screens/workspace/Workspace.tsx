import { useLocation, useParams } from 'react-router'
import { useQuery } from '@tanstack/react-query'
import { examination, packOf, session } from '../../api/queries'
import { Loaded } from '../../parts/Loaded'
import { Shell } from '../../parts/Shell'
import { Sheet } from './Sheet'

/** Loads the examination and its pack, then hands over to the sheet. */
export default function Workspace() {
  const { id = '' } = useParams()
  const { state } = useLocation() as { state: { complaints?: string[]; amends?: string } | null }
  const { data: account } = useQuery(session)
  const detail = useQuery(examination(id))
  const pack = useQuery(packOf(detail.data))
  // What was kept from an earlier look is not the record: the sheet begins with what the server holds now.
  if (detail.data && pack.data && account && detail.isFetchedAfterMount)
    return <Sheet key={id} detail={detail.data} pack={pack.data} by={account.name} complaints={state?.complaints ?? []} amends={state?.amends} />
  return (
    <Shell heading={<h1 style={{ fontSize: 18 }}>Examination</h1>}>
      <Loaded
        query={detail.data === undefined || !detail.isFetchedAfterMount ? { ...detail, data: undefined } : { ...pack, data: undefined }}
        what="the examination"
      >
        {() => null}
      </Loaded>
    </Shell>
  )
}
