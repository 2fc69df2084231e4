import { useLocation, useParams } from 'react-router'
import { useQuery } from '@tanstack/react-query'
import { session } from '../../api/queries'
import { useExamination } from '../../parts/useExamination'
import { Sheet } from './Sheet'

/** Loads the examination and its pack, then hands over to the sheet. */
export default function Workspace() {
  const { id = '' } = useParams()
  const { state } = useLocation() as { state: { amends?: string } | null }
  const { data: account } = useQuery(session)
  const found = useExamination(id, 'Examination')
  if ('waiting' in found) return found.waiting
  return account && <Sheet key={`${id} ${found.opened.detail.sides.join(' ')}`} {...found.opened} by={account.name} amends={state?.amends} />
}
