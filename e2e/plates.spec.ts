import type { Page } from '@playwright/test'
import { address, begin, expect, sheet, signIn, stop, test, typeBirthDate } from './support/journey'

test.beforeEach(async ({ page }) => signIn(page))

/** What the server has of palpation, as item, side and value. */
async function stored(page: Page): Promise<string[]> {
  await expect(page.getByText('Everything stored')).toBeVisible()
  const id = /examinations\/([0-9a-f-]+)/.exec(page.url())?.[1] ?? ''
  const answer = await page.request.get(address(`/api/examinations/${id}`))
  const { entries } = (await answer.json()) as { entries: { item: string; side: string; value: string; at: string }[] }
  const last = new Map(entries.map((one) => [`${one.item} ${one.side}`, `${one.item} ${one.side} ${one.value}`]))
  return [...last.values()].filter((one) => one.includes('.feel.')).sort()
}

const spot = (page: Page, name: RegExp) => page.getByRole('group', { name: /, anterior$/ }).getByRole('button', { name })

test('a palpation station is recorded by touch on the plate, by keys, and by rows: the same entries', async ({ page }) => {
  await begin(page, { name: 'Fingertip Fieldfare' })
  await stop(page, 'Feel')
  for (let touches = 0; touches < 3; touches++) await spot(page, /^Medial joint-line tenderness, right/).click()
  await spot(page, /^Fibular head tenderness, left/).click()
  await expect(sheet(page)).toContainText(/Right: medial joint-line 2; 1 of \d+ examined\. Left: 1 of \d+ examined, none abnormal/)
  await expect.poll(() => stored(page)).toHaveLength(2)
  const byTouch = await stored(page)

  await page.getByRole('link', { name: 'Kneecap Awl, to the desk' }).click()
  await begin(page, { name: 'Arrowed Avocet' })
  await stop(page, 'Feel')
  await spot(page, /^Lateral joint-line tenderness.*right/).focus()
  await page.keyboard.press('ArrowRight')
  await expect(page.locator('button:focus')).not.toHaveAttribute('aria-label', /^Lateral joint-line/)
  await spot(page, /^Medial joint-line tenderness, right/).focus()
  await page.keyboard.press('2')
  await spot(page, /^Fibular head tenderness, left/).focus()
  await page.keyboard.press('0')
  await expect.poll(() => stored(page)).toEqual(byTouch)

  await page.getByRole('link', { name: 'Kneecap Awl, to the desk' }).click()
  await begin(page, { name: 'Buttoned Bunting' })
  await stop(page, 'Feel')
  await page.getByRole('button', { name: 'Hide the plates' }).click()
  await page.getByRole('radio', { name: /^Medial joint-line tenderness, right: 2/ }).click()
  await page.getByRole('radio', { name: /^Fibular head tenderness, left: 0/ }).click()
  await expect.poll(() => stored(page)).toEqual(byTouch)
})

test('where it hurts is touched on the drawing, and decides what is asked', async ({ page }) => {
  await begin(page, { name: 'Pinpointed Pipit', joint: 'shoulder' })
  await page
    .getByRole('group', { name: /^Site of pain, right, anterior/ })
    .getByRole('button', { name: 'top (AC joint): not told' })
    .click()
  await expect(page.getByRole('group', { name: /^Site of pain, right, anterior/ }).getByRole('button', { name: 'top (AC joint): painful' })).toBeVisible()
  await stop(page, 'Strength and cuff')
  await expect(sheet(page)).toContainText('Cross-body')
})

test('several joints of one event begin together, the small ones shown large', async ({ page }) => {
  await page.getByRole('button', { name: 'Start an examination' }).click()
  await page.getByLabel('New patient, name').fill('Twofold Turnstone')
  await typeBirthDate(page, '1963-09-21')
  await page.getByRole('button', { name: 'right hand, front' }).click()
  await page.getByRole('button', { name: 'left knee, front' }).click()
  await expect(page.getByText('right hand and left knee')).toBeVisible()
  await page.getByRole('button', { name: 'Injury', exact: true }).click()
  const large = page.getByRole('region', { name: 'Where in the right hand' })
  await large
    .getByRole('button', { name: /^thumb base: not told/ })
    .first()
    .click()
  await expect(page.getByRole('button', { name: 'Begin with the history' })).toBeDisabled()
  await page.getByRole('radio', { name: 'One event' }).click()
  await page.getByRole('button', { name: 'Begin with the history' }).click()
  await expect(page.getByRole('heading', { name: 'History' })).toBeVisible()
  await expect(sheet(page).getByRole('button', { name: 'thumb base: painful' }).first()).toBeVisible()
  await page.getByRole('link', { name: /^Also: left knee/ }).click()
  await expect(sheet(page).getByRole('radio', { name: /^Trauma in this episode: yes/ })).toBeChecked()
})
