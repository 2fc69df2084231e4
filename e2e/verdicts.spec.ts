import { randomUUID } from 'node:crypto'
import {
  address,
  askedAlone,
  begin,
  calmStory,
  choose,
  expect,
  normalStop,
  normalStops,
  noneOfTheRest,
  range,
  signIn,
  stop,
  test,
  tick,
} from './support/journey'

test.beforeEach(async ({ page }) => signIn(page))

test('a calm, fully normal core knee is Here, with a ceiling of Here', async ({ page }) => {
  await begin(page, { name: 'Calm Kittiwake' })
  await expect(range(page)).toHaveText('Not settled: Here to Now')
  await calmStory(page)
  await normalStops(page)
  await expect(range(page)).toHaveText(/Here\s*settled/)
})

test('an absent pulse after a dislocation that was put back is Now, with what to do and whom to call', async ({ page }) => {
  await begin(page, { name: 'Pulseless Plover', urgent: true })
  await page.getByRole('radio', { name: 'Trauma in this episode: yes' }).click()
  await choose(page, 'Dislocation or subluxation reported', 'reduced by others')
  await choose(page, /Dislocation or subluxation reported, right, what/, 'tibiofemoral')
  await stop(page, 'Pulses and nerves')
  await choose(page, 'Dorsalis pedis pulse (DP), right', 'absent')
  await expect(range(page)).toHaveText(/Now\s*settled/)
  const alert = page.getByRole('alert')
  await expect(alert).toContainText('Act now')
  await expect(alert).toContainText('Vascular surgery on call')
})

test('the same with nothing recorded about pulses keeps its ceiling at Now and asks for the pulses first', async ({ page }) => {
  await begin(page, { name: 'Unfelt Umber', urgent: true })
  await page.getByRole('radio', { name: 'Trauma in this episode: yes' }).click()
  await choose(page, 'Dislocation or subluxation reported', 'reduced by others')
  await choose(page, /Dislocation or subluxation reported, right, what/, 'tibiofemoral')
  await calmStoryAfterInjury(page)
  await normalStops(page, 'Pulses and nerves')
  await stop(page, 'Pulses and nerves')
  await expect(range(page)).toContainText('Now')
  const missing = page.getByRole('list', { name: 'Missing findings' }).getByRole('button')
  await expect(missing.nth(0)).toContainText(/pulse/i)
  await expect(missing.nth(1)).toContainText(/pulse/i)
})

test('a soft Lachman of 8 mm more than the other side with a normal screen is Weeks', async ({ page }) => {
  await begin(page, { name: 'Loose Lapwing' })
  await calmStory(page)
  await normalStops(page, 'Stability and menisci')
  await stop(page, 'Stability and menisci')
  await page.getByLabel('Lachman test, right', { exact: true }).fill('10')
  await page.getByLabel('Lachman test, right', { exact: true }).press('Enter')
  await page.getByRole('radio', { name: 'Lachman test, right, end point: soft' }).click()
  await page.getByLabel('Lachman test, left', { exact: true }).fill('2')
  await page.getByLabel('Lachman test, left', { exact: true }).press('Enter')
  await page.getByRole('radio', { name: 'Lachman test, left, end point: firm' }).click()
  await expect(range(page)).toContainText('Weeks')
  await expect(page.getByRole('complementary', { name: 'Verdict' })).toContainText('ACL rupture')
})

test('no straight-leg raise with a gap above the patella is Days, with a splint and a call', async ({ page }) => {
  await begin(page, { name: 'Gapped Gannet', birthDate: '1969-02-11' })
  await calmStory(page)
  await normalStops(page, 'Screen', 'Feel')
  await normalStop(page, 'Screen')
  await choose(page, 'Straight leg raise (screen), right', 'cannot')
  await normalStop(page, 'Feel')
  await page.getByRole('radio', { name: /^Quadriceps tendon \(tenderness, gap\), right: 2/ }).click()
  await choose(page, /Quadriceps tendon \(tenderness, gap\), right, gap$/, 'complete')
  await expect(range(page)).toContainText('Days')
  await page.getByRole('button', { name: 'Verdict sheet' }).click()
  await expect(page.getByTestId('verdict-tier')).toContainText('Days')
  const sheet = page.getByRole('main')
  await expect(sheet).toContainText('Extension splint, crutches')
  await expect(sheet).toContainText('Phone')
})

async function calmStoryAfterInjury(page: Parameters<typeof calmStory>[0]): Promise<void> {
  await page.getByLabel('Onset, how long ago').fill('3')
  await page.getByLabel('Onset, how long ago').press('Enter')
  await choose(page, 'Speed of onset', 'instant')
  await tick(page, /^Site of pain/, 'diffuse')
  await noneOfTheRest(page)
  await askedAlone(page)
}

test('a pulse that is less at a check done anew calls the vascular team, and says what it was before', async ({ page }) => {
  await begin(page, { name: 'Checked Curlew' })
  await stop(page, 'Pulses and nerves')
  await expect(page.getByText('Everything stored')).toBeVisible()
  const earlier = { id: randomUUID(), item: 'vascular.pulse-dorsalis-pedis', side: 'right', state: 'examined', value: 'normal', by: 'Dr Isolde Brannock' }
  const entries = [{ ...earlier, at: new Date(Date.now() - 20 * 60_000).toISOString() }]
  const [, id = ''] = /examinations\/([0-9a-f-]+)/.exec(page.url()) ?? []
  expect((await page.request.post(address(`/api/examinations/${id}/entries`), { data: { entries } })).ok()).toBe(true)
  await page.reload()
  await choose(page, /^(other… )?Dorsalis pedis pulse \(DP\), right$/, 'reduced')
  await expect(page.getByRole('complementary', { name: 'Verdict' })).toContainText('Deteriorating neurovascular status')
  await page.getByRole('button', { name: 'Verdict sheet' }).click()
  await expect(page.getByTestId('verdict-tier')).toHaveText('Now')
  await expect(page.getByRole('main')).toContainText('Dorsalis pedis pulse (DP): reduced on the right (normal 20 min before)')
})
