#!/usr/bin/env node
// npm run bench: the engine's figures, then what a touch on a plate costs in the browser on a slow device.
import { spawnSync } from 'node:child_process'
import { join } from 'node:path'
import { startDemo } from './lib/demo.mjs'
import { ROOT, say } from './lib/run.mjs'

const engine = spawnSync(process.execPath, [join(ROOT, 'scripts/run-built.mjs'), 'packages/server/dist/commands/bench.js'], { stdio: 'inherit' })
if (engine.status !== 0) process.exit(engine.status ?? 1)

/** A tablet on a ward is about this much slower than the machine that measures. */
const SLOWER = 4
/** How much more than the browser alone a touch may take: one frame. */
const FRAME_MS = 1000 / 60
const TOUCHES = 20

const { browser, page, signIn, begin, stop } = await startDemo('bench')
await signIn()
await begin('Tabitha Slowly', { year: '1966', month: '06', day: '16' }, 'right knee, front')
await stop('Feel')
await page.getByRole('region', { name: 'Plates' }).getByRole('button').nth(5).waitFor()
const landmarks = await page.getByRole('group', { name: 'Right, anterior' }).getByRole('button').count()
const session = await page.context().newCDPSession(page)

say(`\na plate of ${landmarks} landmarks on each of two sides: from a touch to the frame that shows it, median and 95 of 100, of ${TOUCHES}`)
for (const rate of [1, SLOWER]) {
  let bare = 0
  await session.send('Emulation.setCPUThrottlingRate', { rate })
  for (const [work, how] of [
    ['the browser alone: one word of the page replaced', 'bare'],
    ['a landmark touched', 'touch'],
  ]) {
    const taken = await page.evaluate(touched, { times: TOUCHES, how })
    const of = (key, share) => taken.map((one) => one[key]).sort((a, b) => a - b)[Math.floor((TOUCHES - 1) * share)]
    const more = of('ms', 0.5) - bare
    if (how === 'bare') bare = of('ms', 0.5)
    say(
      `${`${work}, ${rate}-fold slow-down`.padEnd(70)} ${of('ms', 0.5).toFixed(1).padStart(6)} ms ${of('ms', 0.95).toFixed(1).padStart(6)} ms   frame ${of('frames', 0.5)}, ${of('frames', 0.95)}${
        how === 'touch' && rate === SLOWER ? `   target: at most ${FRAME_MS.toFixed(1)} ms more than that, ${more <= FRAME_MS ? 'kept' : 'MISSED'}` : ''
      }`,
    )
  }
}
await browser.close()
process.exit()

/** In the page: touches one landmark after the other, and waits for the frame in which it shows its new mark; or changes one word with no program at all. */
async function touched({ times, how }) {
  const frame = () => new Promise((resolve) => requestAnimationFrame(resolve))
  const taken = []
  for (let at = 0; at < times; at++) {
    const spots = document.querySelectorAll('[aria-label="Right, anterior"] button')
    const spot = spots[at % spots.length]
    const word = document.querySelector('[aria-label="Plates"] figcaption').firstChild
    const shows = () => (how === 'bare' ? word.data : spot.getAttribute('aria-label'))
    const before = shows()
    await frame()
    const begun = performance.now()
    if (how === 'bare') word.data = at % 2 ? 'right' : 'Right'
    else spot.click()
    let frames = 0
    do {
      await frame()
      frames++
    } while (shows() === before)
    // What this frame shows is styled and laid out once its callbacks have run: forced here, so that it counts.
    void spot.getBoundingClientRect()
    taken.push({ ms: performance.now() - begun, frames })
    await new Promise((resolve) => setTimeout(resolve, 600))
  }
  return taken
}
