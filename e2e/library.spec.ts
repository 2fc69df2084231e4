import { address, expect, signIn, test } from './support/journey'

test.beforeEach(async ({ page }) => signIn(page))

test('a test is found by a misspelt name, with how it is done, its trap, its odds and what reads it', async ({ page }) => {
  await page.getByRole('link', { name: 'Library' }).click()
  await page.getByLabel('Search the library').fill('lackmann')
  await expect(page.getByRole('heading', { name: 'Lachman test', exact: true })).toBeVisible()
  const main = page.getByRole('main')
  await expect(main).toContainText('Stabilise the thigh.')
  await expect(main).toContainText('A posteriorly sagged tibia')
  await expect(main).toContainText(/A sensitivity of \d+ % is not a chance of \d+ % that the patient has it/)
  await expect(main.getByRole('img', { name: /20 % before, 7\d % if positive/ })).toBeVisible()
  await expect(main.getByRole('heading', { name: 'Flags that read it' })).toBeVisible()
})

test('a flag shows its rule as an outline, joint by joint, and what it stands on opens', async ({ page }) => {
  await page.goto('/library?kind=flag&region=back&tier=now'.replace(/^/, process.env.AWL_URL ?? ''))
  await page.getByRole('list', { name: 'Found' }).getByText('Cauda equina syndrome').first().click()
  const main = page.getByRole('main')
  await expect(main.getByRole('heading', { name: 'Now when' }).first()).toBeVisible()
  await main.getByRole('button', { name: 'what is that?' }).first().click()
  await expect(main.getByRole('button', { name: 'close' }).first()).toBeVisible()
  await expect(main).toContainText('It supports your judgement and never replaces it.')
})

test('filters that leave nothing say so, and the address of what is open can be sent on', async ({ page }) => {
  await page.getByRole('link', { name: 'Library' }).click()
  await page.getByLabel('Search the library').fill('qqzzxx')
  await expect(page.getByRole('status').filter({ hasText: 'Nothing fits' })).toBeVisible()
  await page.getByLabel('Search the library').fill('slump')
  await page
    .getByRole('list', { name: 'Found' })
    .getByRole('link', { name: /^Slump test/ })
    .first()
    .click()
  await expect(page).toHaveURL(/open=test/)
  await page.reload()
  await expect(page.getByRole('heading', { name: /^Slump test/ })).toBeVisible()
  // Sent when the thing was called otherwise.
  await page.goto(address('/library?open=item:foot.feel.navicular-inner&in=foot'))
  await expect(page.getByRole('heading', { name: 'Navicular tuberosity tenderness' })).toBeVisible()
})
