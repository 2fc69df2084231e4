import type { ReferenceRange } from '@kneecap-awl/core'
import styled from 'styled-components'
import { Soft } from '../../parts/controls'
import { Picker } from '../../parts/Picker'
import { useKept } from '../../parts/useKept'

const KEY = 'awl-norms'
const ALL = 'all'

interface Choice {
  /** Id of the reference; undefined for the range that covers them all. */
  readonly chosen: string | undefined
  readonly choose: (id: string | undefined) => void
}

/** Whose usual ranges the rows show; what was chosen last on this device stays. */
export function useReferenceRange(): Choice {
  const [chosen, choose] = useKept(KEY)
  return { chosen, choose }
}

/** Those of children need no choice: they are shown for a child. */
export function NormsPicker({ references, chosen, choose }: Choice & { readonly references: readonly ReferenceRange[] }) {
  const adult = references.filter((reference) => reference.under === undefined)
  const name = (id: string): string => adult.find((reference) => reference.id === id)?.name ?? 'All together'
  return (
    <Line>
      <Soft>Norms by</Soft>
      <Picker
        label="Norms by"
        options={[ALL, ...adult.map(({ id }) => id)]}
        words={name}
        value={adult.some(({ id }) => id === chosen) ? chosen : ALL}
        onPick={(id) => choose(id === ALL ? undefined : id)}
        isPlain
      />
    </Line>
  )
}

const Line = styled.div`
  display: flex;
  align-items: center;
  gap: 8px;
`
