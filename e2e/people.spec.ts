import { generate } from 'otplib'
import { address, begin, expect, signIn, stop, test } from './support/journey'
import type { Page } from '@playwright/test'

const PASSWORD = 'gannets over the pier'

/** Signs in on the page as it stands, whoever was signed in before. */
async function enter(page: Page, name: string, password: string): Promise<void> {
  await page.getByLabel('Sign-in name').fill(name)
  await page.getByLabel('Password').fill(password)
  await page.getByRole('button', { name: 'Sign in' }).click()
}

test('somebody is invited, sets a password and a second factor, and is locked and unlocked', async ({ page }) => {
  await page.goto(address())
  await enter(page, 'fenn', 'harbour-light')
  await page.getByRole('button', { name: 'Invite somebody' }).click()
  await page.getByLabel('Name', { exact: true }).fill('Enid Skua')
  await page.getByLabel('Sign-in name').fill('skua')
  await page.getByRole('radio', { name: 'administrator' }).click()
  await page.getByRole('button', { name: 'Invite', exact: true }).click()
  const code = await page.getByText(/^[a-z0-9]{4}(-[a-z0-9]{4}){3}$/).innerText()
  await page.getByRole('button', { name: 'Done' }).click()
  await expect(page.getByRole('row', { name: /Enid Skua/ })).toContainText('code open until')
  await page.getByRole('link', { name: 'Audit' }).click()
  await expect(page.getByRole('row', { name: /person invited/ }).first()).toContainText('Marit Fenn')
  await page.getByRole('button', { name: 'Sign out' }).click()

  await page.getByRole('link', { name: 'Set your password' }).click()
  await page.getByLabel('Code').fill(code)
  const set = async (password: string): Promise<void> => {
    await page.getByLabel('New password').fill(password)
    await page.getByLabel('The same again').fill(password)
    await page.getByRole('button', { name: 'Set password' }).click()
  }
  await set('password1234')
  await expect(page.getByRole('alert')).toContainText('many people have')
  await set(PASSWORD)
  await expect(page.getByLabel('Sign-in name')).toHaveValue('skua')
  await enter(page, 'skua', PASSWORD)

  // An administrator comes no further without a second factor.
  await expect(page.getByRole('alert')).toContainText('second factor')
  await page.getByLabel('Your password').fill(PASSWORD)
  await page.getByRole('button', { name: 'Set up' }).click()
  await expect(page.getByRole('img', { name: 'QR code of the secret' })).toBeVisible()
  const secret = (await page.getByText(/Or type the secret/).innerText()).split(':')[1]?.replaceAll(' ', '').trim() ?? ''
  await page.getByLabel('Six digits').fill(await generate({ secret }))
  await page.getByRole('button', { name: 'Confirm' }).click()
  const spare = await page
    .getByText(/^[a-z0-9]{4}(-[a-z0-9]{4}){2}$/)
    .first()
    .innerText()
  await page.getByRole('button', { name: 'I have kept them' }).click()
  await page.getByRole('link', { name: 'People' }).click()
  await expect(page.getByRole('row', { name: /Enid Skua/ })).toContainText('password and one-time code')

  await page.evaluate(() => fetch('/api/session/lock', { method: 'POST' }))
  await page.getByRole('link', { name: 'Audit' }).click()
  const locked = page.getByRole('dialog', { name: 'Locked: Enid Skua' })
  await locked.getByLabel('Password').fill(PASSWORD)
  await locked.getByRole('button', { name: 'Unlock' }).click()
  await expect(page.getByRole('row', { name: /unlocked/ }).first()).toContainText('Enid Skua')

  await page.getByRole('button', { name: 'Sign out' }).click()
  await enter(page, 'skua', PASSWORD)
  await page.getByLabel('One-time code').fill(spare)
  await page.getByRole('button', { name: 'Sign in' }).click()
  await expect(page.getByRole('heading', { name: 'People' })).toBeVisible()
})

test('what one clinician recorded without a connection is kept for them, unreadable, and never sent by another', async ({ page }) => {
  await signIn(page)
  await begin(page, { name: 'Borrowed Brambling' })
  await stop(page, 'Feel')
  await expect(page.getByText('Everything stored')).toBeVisible()
  const here = page.url()
  await page.route('**/api/**', (route) => route.abort())
  await page.getByRole('radio', { name: /^Calf tenderness, right: 2/ }).click()
  await expect(page.getByText(/1 kept on this device, no connection/)).toBeVisible()
  await page.getByRole('button', { name: 'Sign out' }).click()
  await expect(page.getByText(/The server could not be told/)).toBeVisible()
  const kept = await page.evaluate(
    () =>
      new Promise<string>((resolve) => {
        indexedDB.open('kneecap-awl').onsuccess = ({ target }) => {
          const rows = (target as IDBOpenDBRequest).result.transaction('outbox').objectStore('outbox').getAll()
          rows.onsuccess = () => resolve(JSON.stringify(rows.result))
        }
      }),
  )
  expect(kept).toContain('sealed')
  expect(kept).not.toContain('knee.feel')
  await page.unroute('**/api/**')

  await page.goto(address('/sign-in'))
  await enter(page, 'quill', 'harbour-light')
  await expect(page.getByRole('heading', { name: 'Desk' })).toBeVisible()
  await page.goto(here)
  await stop(page, 'Feel')
  await expect(page.getByText(/1 of somebody else wait on this device/)).toBeVisible()
  await expect(page.getByRole('radio', { name: /^Calf tenderness, right: 2/ })).not.toBeChecked()
  await page.getByRole('button', { name: 'Sign out' }).click()

  await enter(page, 'brannock', 'harbour-light')
  await expect(page.getByRole('heading', { name: 'Desk' })).toBeVisible()
  await page.goto(here)
  await stop(page, 'Feel')
  await expect(page.getByRole('radio', { name: /^Calf tenderness, right: 2/ })).toBeChecked()
  await expect(page.getByText('Everything stored')).toBeVisible()
})
