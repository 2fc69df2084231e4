import { SEXES, type Sex } from '@kneecap-awl/contract'
import { Label } from 'react-aria-components'
import styled from 'styled-components'
import { Toggle, ToggleRow } from './controls'

/** Sex at birth, as it was told. Nothing chosen means that nobody asked, which is not the same as unknown. */
export function SexChoice({ value, onChange }: { readonly value: Sex | ''; readonly onChange: (value: Sex | '') => void }) {
  return (
    <div>
      <Label id="sex">Sex at birth</Label>
      <Row
        aria-labelledby="sex"
        selectionMode="single"
        selectedKeys={value ? [value] : []}
        onSelectionChange={(keys) => onChange(SEXES.find((one) => keys.has(one)) ?? '')}
      >
        {SEXES.map((one) => (
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
