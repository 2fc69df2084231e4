import { AxeBuilder } from '@axe-core/playwright'
import type { Page } from '@playwright/test'
import { address, begin, calmStory, expect, openFromDesk, signIn, stop, test } from './support/journey'

/** All that axe knows in the light theme; in the dark one what a theme can change: the colours. */
async function expectAccessible(page: Page, screen: string): Promise<void> {
  const isDark = await page.evaluate(() => window.matchMedia('(prefers-color-scheme: dark)').matches)
  const axe = new AxeBuilder({ page })
  const { violations } = await (
    isDark ? axe.withRules(['color-contrast', 'link-in-text-block']) : axe.withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'])
  ).analyze()
  expect(violations.map((one) => `${screen}: ${one.id}: ${one.nodes.map((node) => node.target.join(' ')).join(', ')}`)).toEqual([])
  const tooWide = await page.evaluate(() => document.documentElement.scrollWidth > window.innerWidth)
  expect(tooWide, `${screen} scrolls sideways`).toBe(false)
}

for (const colorScheme of ['light', 'dark'] as const) {
  test.describe(`in the ${colorScheme} theme`, () => {
    test.use({ colorScheme })
    test.setTimeout(150_000)

    test('no stop of the sheet has a violation that axe knows', async ({ page }) => {
      await signIn(page)
      await begin(page, { name: `Axed Auk ${colorScheme}` })
      await expectAccessible(page, 'story')
      await calmStory(page)
      for (const title of ['Screen', 'Look and effusion', 'Feel', 'Move', 'Stability and menisci', 'Results']) {
        await stop(page, title)
        await page
          .locator('[id^="row-"]')
          .first()
          .click({ position: { x: 4, y: 4 } })
        await expectAccessible(page, title)
      }
      await page.keyboard.press('?')
      await expectAccessible(page, 'keys')
    })

    test('no other screen has a violation that axe knows', async ({ page }) => {
      await page.goto(address())
      await expectAccessible(page, 'sign in')
      await signIn(page)
      await expect(page.getByText(/^Drafts/)).toBeVisible()
      await expectAccessible(page, 'desk')
      await page.getByRole('button', { name: 'Start an examination' }).click()
      await expect(page.getByRole('button', { name: 'right knee, front' })).toBeVisible()
      await expectAccessible(page, 'start')
      await openFromDesk(page, 'Signed', 'Caspian Stroud')
      await expect(page.getByTestId('verdict-tier')).toHaveText('Now')
      await expectAccessible(page, 'verdict')
      await page.getByRole('button', { name: 'the whole proof' }).first().click()
      await expectAccessible(page, 'proof')
      await page.keyboard.press('Escape')
      await page.getByRole('button', { name: 'Set the priority…' }).click()
      await page.getByRole('radio', { name: 'Weeks' }).click()
      await expect(page.getByLabel('Senior who has just agreed, with role')).toBeVisible()
      await expectAccessible(page, 'set the priority')
      await page.keyboard.press('Escape')
      await openFromDesk(page, 'Drafts', 'Odile Marsh')
      await page.getByRole('button', { name: 'Verdict sheet' }).click()
      await page.getByRole('button', { name: 'Sign', exact: true }).click()
      await expect(page.getByLabel('Why it stays unexamined')).toBeVisible()
      await expectAccessible(page, 'leave the range open')
      await page.keyboard.press('Escape')
      await openFromDesk(page, 'Signed', 'Caspian Stroud')
      await page.getByRole('link', { name: 'Caspian Stroud' }).click()
      await expect(page.getByText('Earlier examinations')).toBeVisible()
      await expectAccessible(page, 'patient')
    })
  })
}

test('what is touched is at least 44 pixels high on a touch screen', async ({ browser }) => {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, hasTouch: true, isMobile: true })
  const page = await context.newPage()
  await signIn(page)
  await begin(page, { name: 'Touched Tern' })
  await stop(page, 'Feel')
  const heights = await page
    .getByRole('region', { name: 'Sheet' })
    .getByRole('radio')
    .evaluateAll((all) => all.map((one) => one.getBoundingClientRect().height))
  expect(Math.min(...heights)).toBeGreaterThanOrEqual(44)
  await context.close()
})
