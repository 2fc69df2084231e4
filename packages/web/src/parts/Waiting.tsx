import { Shell } from './Shell'

/** While an examination and its content are read. */
export function Waiting({ heading }: { readonly heading: string }) {
  return (
    <Shell heading={heading}>
      <p role="status" style={{ padding: 20 }}>
        Reading the record and its content…
      </p>
    </Shell>
  )
}
