import { begin, expect, signIn, stop, test } from './support/journey'

test('what a colleague records is there without a reload: on the open sheet, named, and on the desk', async ({ page, browser }) => {
  const colleague = await (await browser.newContext()).newPage()
  await signIn(colleague, 'quill')
  await signIn(page)
  await begin(page, { name: 'Sorrel Kittiwake' })
  await expect(colleague.getByRole('link', { name: 'Sorrel Kittiwake' })).toBeVisible({ timeout: 15_000 })
  await colleague.goto(page.url())
  await stop(colleague, 'Move')
  await stop(page, 'Move')
  await colleague.keyboard.press('.')
  await expect(page.getByRole('status', { name: 'What was done' })).toContainText(/Recorded meanwhile by .*Quill: Knee extension/, { timeout: 10_000 })
  // Nothing that this device records is told to it as news.
  await page.getByRole('button', { name: 'Close what was done' }).click()
  await stop(page, 'Feel')
  await page.keyboard.press('.')
  await expect(colleague.getByRole('status', { name: 'What was done' })).toContainText(/Recorded meanwhile by .*Brannock/, { timeout: 10_000 })
  await page.waitForTimeout(1500)
  await expect(page.getByRole('status', { name: 'What was done' })).not.toContainText('meanwhile')
  await colleague.context().close()
})
