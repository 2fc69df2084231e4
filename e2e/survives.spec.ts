import { begin, expect, sheet, signIn, stop, test } from './support/journey'
import { start } from './support/startCommand'

test('a dropped connection keeps what was recorded on this device and sends it afterwards', async ({ page, context }) => {
  await signIn(page)
  await begin(page, { name: 'Dropped Dunlin' })
  await stop(page, 'Feel')
  await expect(page.getByText('Everything stored')).toBeVisible()
  await context.setOffline(true)
  await page.getByRole('radio', { name: /^Medial joint-line tenderness, right: 2/ }).click()
  await expect(page.getByText('kept on this device, no connection')).toBeVisible()
  await context.setOffline(false)
  await expect(page.getByText('Everything stored')).toBeVisible()
  await page.reload()
  await stop(page, 'Feel')
  await expect(page.getByRole('radio', { name: /^Medial joint-line tenderness, right: 2/ })).toBeChecked()
})

test('undo takes the last entry back, and what stood before stands again', async ({ page }) => {
  await signIn(page)
  await begin(page, { name: 'Undone Ouzel' })
  await stop(page, 'Feel')
  const grade = (n: number) => page.getByRole('radio', { name: new RegExp(`^Medial joint-line tenderness, right: ${n}`) })
  await grade(1).click()
  await grade(3).click()
  await sheet(page).getByRole('heading', { level: 1 }).click()
  await page.keyboard.press('u')
  await expect(grade(1)).toBeChecked()
  await page.keyboard.press('u')
  await expect(grade(1)).not.toBeChecked()
})

test('a number out of range says what is wanted and stores nothing', async ({ page }) => {
  await signIn(page)
  await begin(page, { name: 'Ranged Ruff' })
  await stop(page, 'Move')
  await page.getByLabel('Knee flexion, right, active').fill('400')
  await page.getByLabel('Knee flexion, right, active').press('Enter')
  await expect(page.getByRole('alert')).toContainText('wanted: 0 to 170°')
  await page.reload()
  await stop(page, 'Move')
  await expect(page.getByLabel('Knee flexion, right, active')).toHaveValue('')
})

test('the start command: a second start is quick, keeps everything, says so when a port is taken, and stops cleanly', async ({ page }) => {
  test.setTimeout(120_000)
  const first = await start('twice', ['--fresh'])
  expect(first.said()).toMatch(/27 patients, 34 examinations/)
  process.env.AWL_URL_TWICE = first.url
  await page.goto(first.url)
  await page.getByLabel('Sign-in name').fill('brannock')
  await page.getByLabel('Password').fill('harbour-light')
  await page.getByRole('button', { name: 'Sign in' }).click()
  await begin(page, { name: 'Restarted Rail' })
  await stop(page, 'Feel')
  await page.getByRole('radio', { name: /^Calf tenderness, right: 1/ }).click()
  await expect(page.getByText('Everything stored')).toBeVisible()
  const port = new URL(first.url).port
  await expect(start('taken', ['--port', port])).rejects.toThrow(/is taken by another program/)
  expect(await first.stop()).toBe(0)
  expect(first.said()).toContain('Everything recorded is kept')

  const second = await start('twice', ['--port', port])
  // Nothing is built or installed a second time.
  for (const step of ['npm packages … there', 'server … up to date', 'content pack … up to date', 'web application … up to date'])
    expect(second.said()).toContain(step)
  expect(second.said()).toContain('already there')
  await page.reload()
  await stop(page, 'Feel')
  await expect(page.getByRole('radio', { name: /^Calf tenderness, right: 1/ })).toBeChecked()
  expect(await second.stop()).toBe(0)
})
