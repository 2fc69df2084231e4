import { readFileSync } from 'node:fs'
import { begin, expect, signIn, test, typeBirthDate } from './support/journey'

test('two records of one patient are compared, merged, taken away as one file, and separated again', async ({ page }) => {
  await signIn(page, 'quill')
  await begin(page, { name: 'Merle Oystercatcher', birthDate: '1962-03-04' })
  await page.getByRole('link', { name: 'Kneecap Awl, to the desk' }).click()
  await page.getByRole('button', { name: 'Start an examination' }).click()
  await page.getByLabel('New patient, name').fill('M. Oystercatcher')
  await typeBirthDate(page, '1962-04-03')
  await page.getByRole('button', { name: 'right knee, front', exact: true }).click()
  await page.getByRole('button', { name: 'Begin with the history' }).click()
  await page.getByRole('heading', { name: 'History', exact: true }).waitFor()
  await page.getByRole('banner').getByRole('link', { name: 'M. Oystercatcher' }).click()

  await page.getByRole('button', { name: 'Merge another record' }).click()
  const dialogue = page.getByRole('dialog', { name: 'Merge another record of the same patient' })
  await dialogue.getByLabel('Find the other record').fill('Merle')
  await dialogue.getByRole('button', { name: /Merle Oystercatcher/ }).click()
  await expect(dialogue.getByRole('row', { name: /Birth date/ })).toContainText('1962')
  await expect(dialogue.getByRole('status')).toContainText('What is bold differs')
  await dialogue.getByLabel('How you know').fill('?!')
  await dialogue.getByRole('button', { name: 'Merge', exact: true }).click()
  await expect(dialogue.getByText('Say how you know')).toBeVisible()
  await dialogue.getByLabel('How you know').fill('she says that month and day were mixed up')
  await dialogue.getByRole('button', { name: 'Merge', exact: true }).click()
  await expect(page.getByText(/Merle Oystercatcher, born .*, merged, /)).toBeVisible()
  await expect(page.getByRole('link', { name: /knee/ })).toHaveCount(2)

  const [download] = await Promise.all([page.waitForEvent('download'), page.getByRole('link', { name: 'Everything of this patient as a file' }).click()])
  const file = JSON.parse(readFileSync(await download.path(), 'utf8')) as { format: string; examinations: object[]; merged: { name: string }[] }
  expect([file.format, file.examinations.length, file.merged[0]?.name]).toEqual(['kneecap-awl-patient', 2, 'Merle Oystercatcher'])

  await page.getByRole('button', { name: 'Separate…' }).click()
  await page.getByLabel('Why they are two patients').fill('two sisters after all')
  await page.getByRole('button', { name: 'Separate', exact: true }).click()
  await expect(page.getByText(/separated again/)).toBeVisible()
  await expect(page.getByRole('link', { name: /knee/ })).toHaveCount(1)
})
