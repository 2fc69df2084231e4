import { Labelled } from './Labelled'

export interface ChosenPassword {
  readonly next: string
  readonly again: string
}
export const NO_PASSWORD: ChosenPassword = { next: '', again: '' }

/** Whether both fields say the same. */
export const isSameTwice = ({ next, again }: ChosenPassword): boolean => next === again

/** A new password, twice: what is typed without being seen is typed wrongly. */
export function NewPassword({ value, onChange }: { readonly value: ChosenPassword; readonly onChange: (value: ChosenPassword) => void }) {
  return (
    <>
      <Labelled
        label="New password"
        hint="12 characters or more, and none that many people have. A few words are easier to keep in mind than signs."
        type="password"
        value={value.next}
        onChange={(next) => onChange({ ...value, next })}
        autoComplete="new-password"
      />
      <Labelled label="The same again" type="password" value={value.again} onChange={(again) => onChange({ ...value, again })} autoComplete="new-password" />
    </>
  )
}
