import type { Page } from '@playwright/test'
import { askedAlone, begin, choose, expect, noneOfTheRest, normalStop, range, sheet, signIn, stop, test, tick, type Start } from './support/journey'

const FIND = 'Find a test, item, flag or condition'

test.beforeEach(async ({ page }) => signIn(page))

/** The titles of the route after the story, as the sheet shows them. */
async function stopsOf(page: Page): Promise<string[]> {
  const steps = page.getByRole('navigation', { name: 'Route' }).getByRole('button')
  const titles = await steps.evaluateAll((buttons) => buttons.map((button) => button.children[1]?.textContent ?? ''))
  return titles.filter((title) => title !== 'History')
}

/** Five weeks of something that came on over weeks; nothing else, asked one by one. */
async function quietStory(page: Page): Promise<void> {
  const since = page.getByLabel('Onset, how long ago')
  // A jaw is not asked since when.
  if ((await since.count()) > 0) {
    await since.fill('5')
    await since.press('Enter')
    await choose(page, /Onset, unit/, 'weeks')
  }
  const speed = sheet(page).getByRole('button', { name: 'Speed of onset' })
  if ((await speed.count()) > 0) await choose(page, 'Speed of onset', 'weeks')
  await noneOfTheRest(page)
  await askedAlone(page)
}

/** A joint, and what only its patient can tell: no key answers that. */
const WHOLE: readonly (readonly [Start, ((page: Page) => Promise<void>)?])[] = [
  [{ name: 'Whole Wigeon', joint: 'shoulder' }],
  [{ name: 'Whole Whimbrel', joint: 'wrist' }],
  [{ name: 'Whole Wagtail', joint: 'ankle' }],
  [{ name: 'Whole Warbler', joint: 'elbow' }],
  [{ name: 'Whole Waxwing', joint: 'hand' }],
  [{ name: 'Whole Weaver', joint: 'foot' }],
  [{ name: 'Whole Whinchat', joint: 'neck', hasSide: false, view: 'back' }],
  [{ name: 'Whole Wryneck', joint: 'jaw', hasSide: false }],
  [
    { name: 'Whole Woodcock', joint: 'hip' },
    async (page) => {
      await tick(page, /^Site of pain/, 'lateral')
      await tick(page, /^Pain pattern/, 'stairs')
    },
  ],
  [
    { name: 'Whole Wheatear', joint: 'back', hasSide: false, view: 'back' },
    async (page) => {
      await choose(page, 'Onset', 'gradual')
      await tick(page, /^Relieving factors/, 'lying down')
      for (const side of ['right', 'left']) await tick(page, new RegExp(`^Site of pain.*${side}`), 'paraspinal')
    },
  ],
]
for (const [start, tell] of WHOLE)
  test(`a whole calm ${start.joint ?? ''}, stop by stop, is Here and settled`, async ({ page }) => {
    await begin(page, start)
    await tell?.(page)
    await quietStory(page)
    for (const title of await stopsOf(page)) await normalStop(page, title)
    await expect(range(page)).toHaveText(/Here\s*settled/)
    await page.getByRole('button', { name: 'Verdict sheet' }).click()
    await expect(page.getByTestId('verdict-tier')).toHaveText('Here')
  })

test('a test is found on the sheet by a misspelt name of a person, is recorded, and stands in the note', async ({ page }) => {
  await begin(page, { name: 'Found Fulmar', joint: 'neck', hasSide: false, view: 'back' })
  await page.getByLabel(FIND).fill('spurlings')
  await page.keyboard.press('Enter')
  await choose(page, /^other… Spurling test.*right$/, 'arm pain')
  await page.getByRole('button', { name: 'Verdict sheet' }).click()
  await expect(page.getByRole('main')).toContainText(/arm pain/)
})

test('what nobody asked for still counts: an unprompted calf squeeze moves the priority', async ({ page }) => {
  await begin(page, { name: 'Unasked Umbrette', joint: 'foot' })
  await page.getByLabel(FIND).fill('calf squeeze')
  await page.keyboard.press('Enter')
  await page.getByRole('radio', { name: 'Thompson (Simmonds) calf-squeeze test, right: absent' }).click()
  await expect(page.getByRole('complementary', { name: 'Verdict' })).toContainText('Achilles tendon rupture')
  await expect(range(page)).toContainText('Days')
})

test('a red great toe is told with its score as a range, the picture to take and the limit of time', async ({ page }) => {
  await begin(page, { name: 'Throbbing Tern', birthDate: '1961-03-09', joint: 'foot' })
  await stop(page, 'Look')
  await tick(page, /Erythema \(site\), right/, 'first MTP joint')
  await page.getByRole('button', { name: 'Verdict sheet' }).click()
  const main = page.getByRole('main')
  await expect(main.getByRole('heading', { name: 'Scores and counts' })).toBeVisible()
  await expect(main).toContainText(/Imaging and review/)
  await expect(main).toContainText(/Synovial fluid within 4 h: until/)
})

test('the usual range of a movement is that of the reference chosen, and stays chosen', async ({ page }) => {
  await begin(page, { name: 'Ranged Redshank', joint: 'elbow' })
  await stop(page, 'Move and power')
  const bent = page.locator('[id="row-elbow.move.flexion"]')
  await expect(bent).toContainText('norm 140 to 150°')
  await choose(page, 'Norms by', 'Impairment guides')
  await expect(bent).toContainText('norm 140°')
  await page.reload()
  await stop(page, 'Move and power')
  await expect(bent).toContainText('norm 140°')
})
