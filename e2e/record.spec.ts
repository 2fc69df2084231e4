import type { Locator, Page } from '@playwright/test'
import { address, begin, choose, expect, openFromDesk, range, sheet, signIn, stop, test, typeBirthDate } from './support/journey'

const idOf = (page: Page): string => /examinations\/([0-9a-f-]+)/.exec(page.url())?.[1] ?? ''

/** Presses where the control is and lets go, as a finger does, waiting for nothing in between. @returns false for one that cannot be pressed now */
async function press(page: Page, control: Locator): Promise<boolean> {
  const at = await control.evaluate((element) => {
    element.scrollIntoView({ block: 'center' })
    const { x, y, width, height } = element.getBoundingClientRect()
    return (element as HTMLButtonElement).disabled ? undefined : { x: x + width / 2, y: y + height / 2 }
  })
  if (!at) return false
  await page.mouse.move(at.x, at.y)
  await page.mouse.down()
  await page.waitForTimeout(20)
  await page.mouse.up()
  return true
}

for (const half of [0, 1])
  test(`every control of every stop, pressed once, is recorded, ${half === 0 ? 'first' : 'second'} half of the route`, async ({ page }) => {
    test.setTimeout(240_000)
    await signIn(page)
    await begin(page, { name: half === 0 ? 'Tapped Turnstone' : 'Dabbed Dunlin' })
    const steps = page.getByRole('navigation', { name: 'Route' }).getByRole('button')
    const titles = (await steps.evaluateAll((all) => all.map((one) => one.children[1]?.textContent ?? ''))).filter((title) => title !== 'History')
    let pressed = 0
    for (const title of titles.filter((_, at) => Math.floor((2 * at) / titles.length) === half)) {
      await stop(page, title)
      // The rows as they stand when the stop is opened: what a finding asks for besides comes later and has its own press.
      const ids = await page.locator('[id^="row-"]').evaluateAll((rows) => rows.map((row) => row.id))
      for (const id of ids) {
        const controls = page.locator(`[id="${id}"]`).locator('[role=radio], button[aria-pressed]')
        const names = await controls.evaluateAll((all) => all.map((one) => one.getAttribute('aria-label') ?? ''))
        for (const name of names.filter((one) => one.includes(': ') && !one.includes('could not be done'))) {
          const control = page.locator(`[id="${id}"] [aria-label=${JSON.stringify(name)}]`)
          if (!(await press(page, control))) continue
          pressed++
          await expect(control, `${name} after one press`).toHaveAttribute('data-selected', 'true', { timeout: 2000 })
        }
      }
    }
    expect(pressed).toBeGreaterThan(100)
  })

test('one press of the key for normal marks one row, what needs a reading says so, and taking back names it', async ({ page }) => {
  await signIn(page)
  await begin(page, { name: 'Keyed Kestrel' })
  await stop(page, 'Move')
  const row = (id: string) => page.locator(`[id="row-knee.move.${id}"]`)
  await page.keyboard.press('.')
  await expect(
    row('extension')
      .getByRole('button', { name: /full, visual estimate$/ })
      .first(),
  ).toHaveAttribute('data-selected', 'true')
  await expect(row('hyperextension').locator('[data-selected]')).toHaveCount(0)
  await page.keyboard.press('u')
  await expect(page.getByRole('status', { name: 'What was done' })).toContainText('Taken back: Knee extension')
  await expect(row('extension').locator('[data-selected]')).toHaveCount(0)
  await stop(page, 'Pulses and nerves')
  await page.keyboard.press('>')
  await expect(page.getByRole('status', { name: 'What was done' })).toContainText(/Recorded as examined and normal, \d+:.*Left, could exclude a Now or Today/)
  await expect(page.getByText('Everything stored')).toBeVisible()
  await page.reload()
  await expect(page.getByRole('heading', { name: 'Pulses and nerves', exact: true })).toBeVisible()
  await page.keyboard.press('u')
  await expect(page.getByRole('status', { name: 'What was done' })).toContainText('Taken back:')
  await stop(page, 'Results')
  await page.keyboard.press('.')
  await expect(page.getByRole('status', { name: 'What was done' })).toContainText('needs a report')
})

test('reload, back and forward come to the same stop and row; the search is left by Escape', async ({ page }) => {
  await signIn(page)
  await begin(page, { name: 'Placed Pochard' })
  await stop(page, 'Feel')
  await page.getByRole('radio', { name: /^Calf tenderness, right: 0/ }).click()
  await expect(page.locator('[id^="row-"][data-current]')).toContainText('Calf')
  await expect(page).toHaveURL(/stop=feel.*row=knee\.feel\.calf/)
  await stop(page, 'Move')
  await page.goBack()
  await expect(page.getByRole('heading', { name: 'Feel', exact: true })).toBeVisible()
  await expect(page.locator('[id^="row-"][data-current]')).toContainText('Calf')
  await page.goForward()
  await expect(page.getByRole('heading', { name: 'Move', exact: true })).toBeVisible()
  await page.goBack()
  await page.reload()
  await expect(page.locator('[id^="row-"][data-current]')).toContainText('Calf')

  const search = page.getByLabel('Find a test, item, flag or condition')
  for (const [text, found] of [
    ['ACL', /ACL rupture/],
    ['PCL', /PCL rupture/],
    ['DVT', /DVT|thrombosis|calf|oedema/i],
    ['ABPI', /index/i],
    ['SLR', /SLR|leg raise/i],
  ] as const) {
    await page.keyboard.press('/')
    await expect(search).toBeFocused()
    await search.fill(text)
    await expect(page.getByRole('option').first()).toContainText(found)
    await page.keyboard.press('Escape')
    await expect(page.getByRole('option')).toHaveCount(0)
    await expect(search).not.toBeFocused()
  }
})

test('a session that has ended asks to sign in over the sheet, and nothing is lost', async ({ page }) => {
  await signIn(page)
  await begin(page, { name: 'Signed Siskin' })
  await stop(page, 'Feel')
  await expect(page.getByText('Everything stored')).toBeVisible()
  await page.context().clearCookies()
  await page.getByRole('radio', { name: /^Calf tenderness, right: 2/ }).click()
  const dialogue = page.getByRole('dialog', { name: 'Signed out' })
  await expect(dialogue).toContainText('kept on this device')
  await dialogue.getByLabel('Password').fill('harbour-light')
  await dialogue.getByRole('button', { name: 'Sign in' }).click()
  await expect(page.getByText('Everything stored')).toBeVisible()
  await page.reload()
  await expect(page.getByRole('radio', { name: /^Calf tenderness, right: 2/ })).toBeChecked()
})

test('a desk that cannot be read says so and offers to try again; it never says that it is empty', async ({ page }) => {
  await signIn(page)
  await page.route('**/api/desk*', (route) => route.abort())
  await page.reload()
  await expect(page.getByText('The drafts could not be read.')).toBeVisible({ timeout: 20_000 })
  await expect(page.getByText('No draft is open')).toHaveCount(0)
  await page.unroute('**/api/desk*')
  await page.getByRole('button', { name: 'Try again' }).first().click()
  await expect(page.getByText(/^Drafts, \d+$/)).toBeVisible()
  await page.getByLabel('Find an examination by patient').fill('nobody of that name')
  await expect(page.getByText('Nothing fits.').first()).toBeVisible()
})

test('what two devices found within minutes: the more urgent stands, and a clinician says which is right', async ({ page, browser }) => {
  await signIn(page)
  await begin(page, { name: 'Doubled Dotterel', urgent: true })
  await page.getByRole('radio', { name: 'Trauma in this episode: yes' }).click()
  await stop(page, 'Pulses and nerves')
  await choose(page, 'Dorsalis pedis pulse (DP), right', 'absent')
  await expect(page.getByText('Everything stored')).toBeVisible()
  const address2 = page.url()

  const other = await (await browser.newContext({ locale: 'en-GB', viewport: { width: 1280, height: 800 } })).newPage()
  await signIn(other, 'quill')
  await other.goto(address2)
  await other.getByRole('button', { name: 'Dorsalis pedis pulse (DP), right: normal' }).click()
  await expect(range(other)).toContainText('Now')
  await expect(other.getByText('Two devices do not agree')).toContainText('absent, Dr Isolde Brannock')
  await expect(other.getByText('Everything stored')).toBeVisible()

  await page.reload()
  const disagreement = page.getByText('Two devices do not agree')
  await expect(disagreement).toContainText('normal, Dr Tobias Quill')
  await page.getByRole('button', { name: /normal is right$/ }).click()
  await expect(disagreement).toHaveCount(0)
  await other.context().close()
})

test('a signature is refused when another device recorded something that was not shown', async ({ page }) => {
  await signIn(page)
  await begin(page, { name: 'Bound Bunting' })
  await expect(page.getByText('Everything stored')).toBeVisible()
  const id = idOf(page)
  await page.getByRole('button', { name: 'Verdict sheet' }).click()
  await expect(page.getByTestId('verdict-tier')).toBeVisible()
  const entry = {
    id: crypto.randomUUID(),
    item: 'knee.feel.calf',
    side: 'right',
    state: 'examined',
    value: '2',
    by: 'Dr Tobias Quill',
    at: new Date().toISOString(),
  }
  await page.request.post(address(`/api/examinations/${id}/entries`), { data: { entries: [entry] } })
  await page.getByRole('button', { name: 'Sign', exact: true }).click()
  const dialogue = page.getByRole('dialog', { name: /^It could still be/ })
  await dialogue.getByLabel('Why it stays unexamined').fill('would not lie down')
  await dialogue.getByLabel('Plan: who looks again, and when').fill('the same hands, at noon')
  await dialogue.getByRole('button', { name: 'Leave it open and sign' }).click()
  await expect(page.getByRole('status')).toContainText('The record is not the one that was shown')
  await expect(page.getByRole('main')).toContainText('Calf tenderness: right 2 (moderate)')
})

test('a draft has its side corrected and is discarded; a patient is corrected, and not made twice', async ({ page }) => {
  await signIn(page)
  await begin(page, { name: 'Righted Redwing' })
  await stop(page, 'Feel')
  await page.getByRole('radio', { name: /^Calf tenderness, left: 2/ }).click()
  await page.getByRole('button', { name: 'This draft' }).click()
  await page.getByRole('menuitem', { name: 'Correct the symptomatic side…' }).click()
  const side = page.getByRole('dialog', { name: 'Which side is symptomatic?' })
  await side.getByRole('radio', { name: 'left' }).click()
  await expect(side).toContainText(/Priority now .*; with left: /)
  await side.getByLabel('Why it is corrected').fill('the left one hurts')
  await side.getByRole('button', { name: 'Correct the side' }).click()
  await expect(page.getByRole('banner')).toContainText('left knee')
  await expect(page.getByRole('radio', { name: /^Calf tenderness, left: 2/ })).toBeChecked()

  await page.getByRole('button', { name: 'This draft' }).click()
  await page.getByRole('menuitem', { name: 'Discard this draft…' }).click()
  await expect(page.getByRole('button', { name: 'Discard it' })).toBeDisabled()
  await page.getByLabel('Why it is discarded').fill('opened for the wrong patient')
  await page.getByRole('button', { name: 'Discard it' }).click()
  await expect(page.getByRole('heading', { name: 'Desk' })).toBeVisible()
  await page.getByLabel('Find an examination by patient').fill('Righted Redwing')
  await expect(page.getByText('Nothing fits.').first()).toBeVisible()

  await page.getByRole('button', { name: 'Start an examination' }).click()
  await page.getByLabel('New patient, name').fill('righted  redwing')
  await typeBirthDate(page, '1990-02-03')
  await page.getByRole('button', { name: 'right knee, front', exact: true }).click()
  await expect(page.getByText('Here already, perhaps the same person:')).toBeVisible()
  await expect(page.getByRole('button', { name: 'Begin with the history' })).toBeDisabled()
  await page.getByRole('button', { name: /^Righted Redwing, born / }).click()
  await page.getByRole('button', { name: 'Begin with the history' }).click()
  await page.getByRole('link', { name: 'Righted Redwing' }).click()
  await expect(page.getByText(/discarded .*: opened for the wrong patient/)).toBeVisible()
  await page.getByRole('button', { name: 'Correct…' }).click()
  await typeBirthDate(page.getByRole('dialog'), '2012-02-03')
  await page.getByRole('dialog').getByLabel('Why it is corrected').fill('read from the passport')
  await page.getByRole('button', { name: 'Correct it' }).click()
  await expect(page.getByText(/^Birth date: .* became 2012-02-03.*Dr Isolde Brannock: read from the passport/)).toBeVisible()
})

test('a referral leaves the desk only with the name of whoever accepted it, and can be put back', async ({ page }) => {
  await signIn(page)
  const waiting = page.getByRole('listitem').filter({ hasText: 'Bartholomew Crake' }).filter({ hasText: 'due' })
  await waiting.getByRole('button', { name: 'Accepted…' }).click()
  await expect(page.getByRole('button', { name: 'They have accepted' })).toBeDisabled()
  await page.getByLabel('Who accepted, with role').fill('Dr Vane, registrar')
  await page.getByRole('button', { name: 'They have accepted' }).click()
  await expect(waiting).toHaveCount(0)
  await page.getByLabel('Find an examination by patient').fill('Crake')
  await page.getByRole('link', { name: 'Bartholomew Crake' }).first().click()
  await expect(page.getByRole('complementary', { name: 'Letter' })).toContainText('Accepted: Dr Vane, registrar')
  await page.getByRole('button', { name: 'Not accepted after all: back to the desk' }).click()
  await page.getByRole('link', { name: 'Kneecap Awl, to the desk' }).click()
  await expect(waiting).toHaveCount(1)
})

test('the note and the letter are printed each by itself, without a control, and on every page who and what state', async ({ page }) => {
  await page.addInitScript(() => (window.print = () => undefined))
  await signIn(page)
  await openFromDesk(page, 'Signed', 'Anneke Pell')
  await expect(page.getByTestId('verdict-tier')).toBeVisible()
  await page.emulateMedia({ media: 'print' })
  const [verdict, note, letter] = ['verdict', 'note', 'letter'].map((part) => page.locator(`[data-part="${part}"]`)) as [
    ReturnType<Page['locator']>,
    ReturnType<Page['locator']>,
    ReturnType<Page['locator']>,
  ]
  for (const part of [verdict, note, letter]) await expect(part).toBeVisible()
  expect(await page.locator('button:visible, input:visible, textarea:visible').count()).toBe(0)
  const rule = await page.evaluate(() => [...document.querySelectorAll('style')].map((one) => one.textContent).find((text) => text.includes('@page')) ?? '')
  expect(rule).toMatch(/Anneke Pell, born \d+ \w+ \d{4}, number H\d+/)
  expect(rule).toMatch(/Signed .*Dr Isolde Brannock/)
  await page.emulateMedia({ media: 'screen' })
  await page.getByRole('button', { name: 'Print the letter' }).click()
  await page.emulateMedia({ media: 'print' })
  await expect(letter).toBeVisible()
  for (const part of [verdict, note]) await expect(part).toBeHidden()
  expect((await page.pdf({ preferCSSPageSize: true })).byteLength).toBeGreaterThan(10_000)
})

for (const [width, height] of [
  [390, 844],
  [768, 1024],
] as const)
  test(`at ${width} by ${height} every row of every stop can be read and pressed`, async ({ page }) => {
    await page.setViewportSize({ width, height })
    await signIn(page)
    await begin(page, { name: width < 500 ? 'Narrow Nuthatch' : 'Tabled Tattler' })
    for (const title of ['Screen', 'Feel', 'Move', 'Stability and menisci']) {
      await stop(page, title)
      const outside = await sheet(page).evaluate((region) => {
        const edge = document.documentElement.clientWidth
        const found: string[] = []
        for (const row of region.querySelectorAll('[id^="row-"]')) {
          const boxes = [...row.querySelectorAll('button, input, strong')].map((one) => ({ one, box: one.getBoundingClientRect() }))
          for (const { one, box } of boxes) if (box.left < 0 || box.right > edge || box.width < 8) found.push(`${row.id}: ${one.textContent}`)
          for (const [at, a] of boxes.entries())
            for (const b of boxes.slice(at + 1))
              if (a.box.left < b.box.right - 1 && b.box.left < a.box.right - 1 && a.box.top < b.box.bottom - 1 && b.box.top < a.box.bottom - 1)
                found.push(`${row.id}: ${a.one.textContent} on ${b.one.textContent}`)
        }
        return found
      })
      expect(outside, title).toEqual([])
    }
    await page.getByRole('radio', { name: 'Lachman test, right, end point: soft' }).click()
    await expect(page.getByRole('radio', { name: 'Lachman test, right, end point: soft' })).toBeChecked()
    await expect(range(page)).toBeVisible()
    expect(await page.evaluate(() => document.documentElement.scrollWidth <= window.innerWidth)).toBe(true)
  })
