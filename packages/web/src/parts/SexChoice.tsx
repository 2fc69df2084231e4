import { Label } from 'react-aria-components'
import styled from 'styled-components'
import { Toggle, ToggleRow } from './controls'

const CHOICES = ['female', 'male', 'other or unknown'] as const

/** Sex at birth, as it was told. Nothing chosen means that nobody asked, which is not the same as unknown. */
export function SexChoice({ value, onChange }: { readonly value: string; readonly onChange: (value: string) => void }) {
  return (
    <div>
      <Label id="sex">Sex at birth</Label>
      <Row
        aria-labelledby="sex"
        selectionMode="single"
        selectedKeys={value ? [value] : []}
        onSelectionChange={(keys) => onChange([...keys].map(String)[0] ?? '')}
      >
        {CHOICES.map((one) => (
          <Toggle key={one} id={one}>
            {one}
          </Toggle>
        ))}
      </Row>
    </div>
  )
}

const Row = styled(ToggleRow)`
  flex-wrap: wrap;
  margin-top: 8px;
`
