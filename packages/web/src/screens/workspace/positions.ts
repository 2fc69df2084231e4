import type { Position } from '@kneecap-awl/core'

/** Where the patient is, as the route says it. */
export const POSITION_WORDS: Readonly<Record<Position, string>> = {
  asking: 'Interview',
  'as-found': 'As found',
  held: 'Held, undressed, calm',
  walking: 'Walking',
  standing: 'Standing',
  sitting: 'Sitting',
  supine: 'Supine',
  'side-lying': 'Side-lying',
  prone: 'Prone',
}
