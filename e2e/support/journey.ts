import { expect, test as base, type BrowserContext, type Locator, type Page } from '@playwright/test'

const PASSWORD = 'harbour-light'

/** Every journey fails on an error in the browser's console. */
export const test = base.extend<{ quiet: undefined }>({
  quiet: [
    async ({ page }, use) => {
      const errors: string[] = []
      page.on('console', (message) => message.type() === 'error' && !/net::ERR_|Failed to load resource/.test(message.text()) && errors.push(message.text()))
      page.on('pageerror', (error) => errors.push(error.message))
      await use(undefined)
      expect(errors, 'errors in the console').toEqual([])
    },
    { auto: true },
  ],
})
export { expect }

export const address = (path = '/'): string => `${process.env.AWL_URL ?? ''}${path}`

/** Sessions that this worker has signed in, by name: a journey that is not about signing in begins at the desk. */
const sessions = new Map<string, Awaited<ReturnType<BrowserContext['cookies']>>>()

export async function signIn(page: Page, name = 'brannock'): Promise<void> {
  const [desk, asked] = [page.getByRole('heading', { name: 'Desk' }), page.getByLabel('Sign-in name')]
  await page.context().addCookies(sessions.get(name) ?? [])
  await page.goto(address())
  await expect(desk.or(asked)).toBeVisible()
  if (await desk.isVisible()) return
  await asked.fill(name)
  await page.getByLabel('Password').fill(PASSWORD)
  await page.getByRole('button', { name: 'Sign in' }).click()
  await expect(desk).toBeVisible()
  sessions.set(name, await page.context().cookies())
}

export interface Start {
  readonly name: string
  readonly birthDate?: string
  readonly side?: 'right' | 'left'
  readonly urgent?: boolean
  /** As it is called on the figure. */
  readonly joint?: string
  /** A neck, a back or a jaw has no side. */
  readonly hasSide?: boolean
  readonly view?: 'front' | 'back'
}

/** A day of 1986 that goes with a name, so that no two patients of a run are taken for one. */
/** Types a birth date, YYYY-MM-DD, into its parts, whatever the order in which the browser's language shows them. */
export async function typeBirthDate(within: Page | Locator, date: string): Promise<void> {
  const [year = '', month = '', day = ''] = date.split('-')
  const field = within.getByRole('group', { name: 'Birth date' })
  for (const [part, digits] of [
    ['day', day],
    ['month', month],
    ['year', year],
  ] as const)
    await field.getByRole('spinbutton', { name: new RegExp(`^${part}`) }).pressSequentially(digits)
}

function birthDateOf(name: string): string {
  const day = Array.from(name).reduce((sum, letter) => (sum * 31 + letter.charCodeAt(0)) % 330, 7)
  return new Date(Date.UTC(1986, 0, 1 + day)).toISOString().slice(0, 10)
}

/** Begins an examination of a new patient's joint, from the desk to the story. */
export async function begin(
  page: Page,
  { name, birthDate = birthDateOf(name), side = 'right', urgent = false, joint = 'knee', hasSide = true, view = 'front' }: Start,
): Promise<void> {
  await page.getByRole('button', { name: 'Start an examination' }).click()
  await page.getByLabel('New patient, name').fill(name)
  await typeBirthDate(page, birthDate)
  if (view === 'back') await page.getByRole('radio', { name: 'From behind' }).click()
  await page.getByRole('button', { name: `${hasSide ? `${side} ` : ''}${joint}, ${view}`, exact: true }).click()
  if (urgent) await page.getByRole('radio', { name: 'Urgent care' }).click()
  await page.getByRole('button', { name: 'Begin with the history' }).click()
  // The first journey of a run waits while the pack is read for the first time.
  await expect(page.getByRole('heading', { name: 'History' })).toBeVisible({ timeout: 30_000 })
}

/** Opens the newest examination of a patient from one list of the desk: the desk is searched, as other journeys fill its first page. */
export async function openFromDesk(page: Page, list: 'Drafts' | 'Signed' | 'Reviews', patient: string): Promise<void> {
  await page.getByRole('link', { name: 'Kneecap Awl, to the desk' }).click()
  await page.getByLabel('Find an examination by patient').fill(patient)
  const region = page.getByRole('region', { name: list })
  // The list is read anew: it is there once it shows this patient and nobody else.
  await expect(region.getByRole('link', { name: patient }).first()).toBeVisible()
  await expect(region.getByRole('link').filter({ hasNotText: patient })).toHaveCount(0)
  await region.getByRole('link', { name: patient }).first().click()
}

/** Goes to a stop of the route. */
export async function stop(page: Page, title: string): Promise<void> {
  await page
    .getByRole('navigation', { name: 'Route' })
    .getByRole('button', { name: new RegExp(`^${title}`) })
    .click()
  await expect(page.getByRole('heading', { name: title, exact: true })).toBeVisible()
}

/** The middle of the workspace: the stop in hand. */
export const sheet = (page: Page): Locator => page.getByRole('region', { name: 'Sheet' })

/** Opens a picker by its label and takes one of its words. */
export async function choose(page: Page, label: string | RegExp, word: string): Promise<void> {
  await sheet(page).getByRole('button', { name: label }).last().click()
  await page.getByRole('option', { name: word, exact: true }).click()
}

/** Ticks words in a list of several. */
export async function tick(page: Page, label: string | RegExp, ...words: readonly string[]): Promise<void> {
  await sheet(page).getByRole('button', { name: label }).last().click()
  for (const word of words) await page.getByRole('menuitemcheckbox', { name: word, exact: true }).click()
  await page.keyboard.press('Escape')
}

/** Opens the rest of the patient card and says that all of it was asked; then that the rest of the story was. Each is read first, then confirmed. */
export async function noneOfTheRest(page: Page): Promise<void> {
  const confirm = async (): Promise<void> => {
    const dialogue = page.getByRole('dialog')
    await dialogue.getByRole('button', { name: /^All \d+ were asked/ }).click()
    await expect(dialogue).toBeHidden()
  }
  await page.getByRole('button', { name: 'Open the rest of the card' }).click()
  await page.getByRole('button', { name: 'All of these asked: none of the rest' }).click()
  await confirm()
  const rest = page.getByRole('button', { name: 'Asked, none of the rest' })
  if (!(await rest.isEnabled())) return
  await rest.click()
  await confirm()
}

/** Answers with "no" or "none", one by one, each fact that is asked by itself and has no answer yet. */
export async function askedAlone(page: Page): Promise<void> {
  await sheet(page).evaluate(async (region) => {
    const open = [...region.querySelectorAll('li')].filter((fact) => !fact.querySelector('[data-selected]'))
    for (const fact of open) {
      const no = [...fact.querySelectorAll<HTMLElement>('[role=radio], button')].find((one) => /: (no|none|never)$/.test(one.getAttribute('aria-label') ?? ''))
      no?.click()
      await new Promise(requestAnimationFrame)
    }
  })
}

/** The story of a calm knee: since three weeks, in front, and nothing else; the patient card asked. */
export async function calmStory(page: Page): Promise<void> {
  await page.getByLabel('Onset, how long ago').fill('3')
  await page.getByLabel('Onset, how long ago').press('Enter')
  await choose(page, /Onset, unit/, 'weeks')
  await choose(page, 'Speed of onset', 'weeks')
  await tick(page, /^Site of pain/, 'anterior')
  await noneOfTheRest(page)
  await askedAlone(page)
}

/** What a key never answers: the usual reading of each row that wants one, by its label. */
const READINGS: readonly (readonly [RegExp, string])[] = [
  [/^Temperature/, '36.8'],
  [/^Systolic|^Upper blood pressure/, '125'],
  [/refill/i, '2'],
  [/raises|Rises on/i, '25'],
  [/Grip.and.release|open and close|fist/i, '25'],
]

/** Marks every row of a stop examined and normal, one by one, with the key for it, and takes the readings that it leaves. */
export async function normalStop(page: Page, title: string): Promise<void> {
  await stop(page, title)
  const rows = await page.locator('[id^="row-"]').count()
  await page.getByRole('heading', { name: title, exact: true }).click()
  for (let i = 0; i < rows; i++) await page.keyboard.press('.')
  const open = await sheet(page).evaluate((region) =>
    [...region.querySelectorAll<HTMLInputElement>('input[inputmode=decimal]')]
      .filter((box) => box.value === '' && !box.closest('[id^="row-"]')?.querySelector('[data-selected]'))
      .map((box) => box.getAttribute('aria-label') ?? ''),
  )
  for (const label of open) {
    const reading = READINGS.find(([pattern]) => pattern.test(label))
    if (!reading) continue
    await sheet(page).getByLabel(label, { exact: true }).fill(reading[1])
    await sheet(page).getByLabel(label, { exact: true }).press('Enter')
  }
}

export const STOPS = [
  'Screen',
  'Gait and stance',
  'Patella and extension',
  'Pulses and nerves',
  'Look and effusion',
  'Feel',
  'Move',
  'Stability and menisci',
  'Hip and adjacent regions',
] as const

export async function normalStops(page: Page, ...but: readonly string[]): Promise<void> {
  for (const title of STOPS) if (!but.includes(title)) await normalStop(page, title)
}

/** Signs from the verdict sheet; what could still be more urgent is left open with a reason and a plan. */
export async function sign(page: Page, button: 'Sign' | 'Sign and refer' = 'Sign'): Promise<void> {
  await page.getByRole('button', { name: button, exact: true }).click()
  const dialogue = page.getByRole('dialog', { name: /^It could still be/ })
  await expect(dialogue.or(page.getByRole('status')).first()).toBeVisible()
  if (!(await dialogue.isVisible())) return
  await expect(dialogue.getByRole('button', { name: 'Leave it open and sign' })).toBeDisabled()
  await dialogue.getByLabel('Why it stays unexamined').fill('would not lie down')
  await dialogue.getByLabel('Plan: who looks again, and when').fill('the same hands, at noon')
  await dialogue.getByRole('button', { name: 'Leave it open and sign' }).click()
}

export const range = (page: Page): Locator => page.getByTestId('range')

/** Presses Tab until the element has the focus. */
export async function tabTo(page: Page, target: Locator, most = 120): Promise<void> {
  await target.waitFor()
  for (let i = 0; i < most; i++) {
    if (await target.evaluate((element) => element === document.activeElement)) return
    await page.keyboard.press('Tab')
  }
  throw new Error(`Tab never reaches ${String(target)}`)
}
