import type { Pack } from '@kneecap-awl/core'

/** An action by its name, then what is done in full. A pack of an earlier version has no name of its own for it. */
export const ActionLine = ({ name, text }: Pick<Pack['actions'][number], 'name' | 'text'>) => (
  <>
    {text.startsWith(name) ? null : <strong>{name}. </strong>}
    {text}
  </>
)
