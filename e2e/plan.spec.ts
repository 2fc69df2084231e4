import { begin, expect, openFromDesk, sheet, signIn, stop, test } from './support/journey'

test.beforeEach(async ({ page }) => signIn(page))

test('the order of the examination is switched at any time: the row in hand stays in hand, and nothing is lost', async ({ page }) => {
  await begin(page, { name: 'Ordered Oystercatcher', joint: 'wrist', view: 'front' })
  await stop(page, 'Tests')
  const weak = page.getByRole('radio', { name: 'EPL retropulsion test, right: weak' })
  const route = page.getByRole('navigation', { name: 'Route' })
  await stop(page, 'Move and grip')
  await page.getByRole('radio', { name: 'By stage' }).click()
  await expect(page.getByRole('heading', { name: 'Move', exact: true })).toBeVisible()
  await expect(route.getByRole('button')).toHaveText([
    /^History/,
    /^Screen/,
    /^Look/,
    /^Feel/,
    /^Move/,
    /^Strength/,
    /^Nerve and vessel/,
    /^Special tests/,
    /^Results/,
  ])
  await stop(page, 'Special tests')
  await weak.click()
  await expect(weak).toBeChecked()
  await page.getByRole('radio', { name: 'By position' }).click()
  await expect(page.locator('[id^="row-"][data-current]')).toContainText('EPL retropulsion test')
  await expect(weak).toBeChecked()
  await page.reload()
  await expect(weak).toBeChecked()
})

test('a test that was not held for long enough does not count, and says so', async ({ page }) => {
  await begin(page, { name: 'Timed Turnstone', joint: 'wrist', view: 'front' })
  await page.getByPlaceholder('Find a test or item…').fill('Phalen test')
  await page
    .getByRole('option', { name: /^Phalen test, 60 s/ })
    .first()
    .click()
  await sheet(page).getByRole('button', { name: 'Phalen test, 60 s, right: negative' }).click()
  await page.getByRole('button', { name: 'Time 60 s' }).first().click()
  await page.getByRole('button', { name: /^Stop at [1-9] of 60 s/ }).click()
  await expect(sheet(page)).toContainText(/right held [1-9] of 60 s: a negative result does not count/)
  await expect(sheet(page)).toContainText(/it misses \d+ of 100 who have it/)
})

test('what guarding hid is examined again: the date is proposed, set, and stands in note, letter and desk', async ({ page }) => {
  await begin(page, { name: 'Reviewed Razorbill', birthDate: '1996-04-03' })
  await page.getByRole('radio', { name: 'Trauma in this episode: yes' }).click()
  await page.getByLabel('Onset, how long ago').fill('2')
  await page.getByLabel('Onset, how long ago').press('Enter')
  await stop(page, 'Stability and menisci')
  await page.getByRole('button', { name: 'McMurray test: could not be done, or not valid' }).click()
  await page.getByRole('dialog').getByRole('button', { name: 'guarding' }).click()
  await expect(page.getByRole('dialog')).toBeHidden()
  await page.getByRole('button', { name: 'Verdict sheet' }).click()
  await expect(page.getByTestId('review')).toContainText('Review proposed for')
  await page.getByRole('button', { name: 'Set the review date' }).click()
  await expect(page.getByTestId('review')).toContainText('Review on')
  await expect(page.getByText(/Examine again between .*McMurray test, right/).first()).toBeVisible()
  await page.getByRole('button', { name: 'Sign', exact: true }).click()
  const dialogue = page.getByRole('dialog')
  await dialogue.getByLabel('Why it stays unexamined').fill('guards too much today')
  await dialogue.getByLabel('Plan: who looks again, and when').fill('seen here on the day set')
  await dialogue.getByRole('button', { name: 'Leave it open and sign' }).click()
  await expect(page.getByText('Signed and sealed.')).toBeVisible()
  await openFromDesk(page, 'Reviews', 'Reviewed Razorbill')
  await expect(page.getByTestId('review')).toContainText('Review on')
})
