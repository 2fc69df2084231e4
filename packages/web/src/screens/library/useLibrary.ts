import { useMemo } from 'react'
import { useQuery } from '@tanstack/react-query'
import { library } from '../../api/queries'
import { findEntries, searchIndex, type LibraryFilter } from '../../parts/librarySearch'

export function useLibrary(filter: LibraryFilter) {
  const { data, error } = useQuery(library)
  const index = useMemo(() => (data ? searchIndex(data.entries) : undefined), [data])
  const found = useMemo(() => (data && index ? findEntries(data.entries, index, filter) : []), [data, index, filter])
  return { hash: data?.hash, found, formerly: data?.formerly ?? {}, error }
}
