import type { Pack } from '@kneecap-awl/core'

/** An action by its name, then what is done in full, unless that begins with the name. */
export const ActionLine = ({ name, text }: Pick<Pack['actions'][number], 'name' | 'text'>) => (
  <>
    {text.startsWith(name.replace(/ \(.*\)$/, '')) ? null : <strong>{name}. </strong>}
    {text}
  </>
)
