// @vitest-environment jsdom
import { cleanup, fireEvent, screen } from '@testing-library/react'
import { useCallback, useState } from 'react'
import { afterEach, describe, expect, it } from 'vitest'
import type { FindingEntry, Item, RegionPack, Side } from '@kneecap-awl/core'
import { AS_OF } from '../../core/test/support.js'
import { StoryCard } from '../src/screens/workspace/StoryCard'
import type { Answer } from '../src/screens/workspace/ValueControl'
import { show, view } from './show.js'

afterEach(cleanup)

const none = (): undefined => undefined
const NOTHING: ReadonlyMap<string, string> = new Map()
const SIDES: readonly Side[] = ['right']

/** A card that keeps what it is told, as the sheet does. */
function Telling({ pack, items }: { readonly pack: RegionPack; readonly items: readonly Item[] }) {
  const [told, setTold] = useState<ReadonlyMap<string, FindingEntry>>(new Map())
  const onAnswer = useCallback((item: Item, side: Side, answer: Answer) => {
    setTold((now) => new Map([...now, [item.id, { id: item.id, item: item.id, side, state: 'examined', by: 'Dr Isolde Brannock', at: AS_OF, ...answer }]]))
  }, [])
  return (
    <StoryCard
      pack={pack}
      items={items}
      because={NOTHING}
      sides={SIDES}
      startedAt={AS_OF}
      isReadOnly={false}
      entryOf={(item) => told.get(item)}
      isAnswered={(item) => told.has(item.id)}
      onAnswer={onAnswer}
      onRecord={none}
    />
  )
}

describe('a press', () => {
  it('paints the fact that was answered and not the other facts of the card', () => {
    const painted = new Set<string>()
    const watched = view('knee').items.map((item) => ({
      ...item,
      // Read by whatever paints the fact, and by nothing else.
      get hint() {
        painted.add(item.id)
        return item.hint
      },
    }))
    show(<Telling pack={{ ...view('knee'), items: watched }} items={watched.filter((item) => item.stage === 'story' && item.depth === 'core')} />)
    expect(painted.size).toBeGreaterThan(20)
    painted.clear()
    fireEvent.click(screen.getByRole('radio', { name: 'Fever, rigors or night sweats: no' }))
    expect([...painted]).toEqual(['story.fever'])
  })
})
