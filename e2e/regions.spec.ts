import { begin, choose, expect, range, signIn, stop, test, tick } from './support/journey'

test.beforeEach(async ({ page }) => signIn(page))

test('a fall at eighty that walks on, with a painful log roll, is Today: off the leg and no standing tests', async ({ page }) => {
  await begin(page, { name: 'Fallen Fulmar', birthDate: '1944-09-12', joint: 'hip', urgent: true })
  await page.getByRole('radio', { name: 'Injury in this episode: yes' }).click()
  await tick(page, /^Where it hurts/, 'groin')
  await stop(page, 'Fracture chain')
  await page.getByRole('radio', { name: 'Log roll of the straight leg, right: present' }).click()
  await expect(range(page)).toContainText('Today')
  await expect(page.getByRole('complementary', { name: 'Verdict' })).toContainText('Broken hip or pelvis not excluded')
  await stop(page, 'Stand and walk')
  await expect(page.locator('[id="row-hip.test.trendelenburg"]')).toContainText('On hold')
  await page.getByRole('button', { name: 'Verdict sheet' }).click()
  await expect(page.getByTestId('verdict-tier')).toHaveText('Today')
  await expect(page.getByRole('main')).toContainText('Off the leg')
})

test('struck from behind and no answer to the calf squeeze is Days, splinted with the foot down', async ({ page }) => {
  await begin(page, { name: 'Snapped Sanderling', birthDate: '1982-01-20', joint: 'ankle' })
  await page.getByRole('radio', { name: 'Felt struck from behind: yes' }).click()
  await stop(page, 'Achilles and calf')
  await page.getByRole('radio', { name: 'Calf squeeze, right: absent' }).click()
  await expect(page.getByRole('complementary', { name: 'Verdict' })).toContainText('Achilles tendon rupture')
  await page.getByRole('button', { name: 'Verdict sheet' }).click()
  await expect(page.getByRole('main')).toContainText('foot pointed down')
})

test('a shoulder held in and turned in after a fit asks for turning out before it is called a bruise', async ({ page }) => {
  await begin(page, { name: 'Seized Shearwater', joint: 'shoulder', urgent: true })
  await page.getByRole('radio', { name: 'Injury in this episode: yes' }).click()
  await tick(page, /^How it happened/, 'fit or shock')
  await stop(page, 'Screen')
  await choose(page, 'How the arm is held, right', 'fixed in and turned in')
  await expect(range(page)).toContainText('Now')
})

test('a biceps cord that cannot be hooked after a sudden load is Days, and the child pulse is never asked of an adult', async ({ page }) => {
  await begin(page, { name: 'Hooked Heron', birthDate: '1977-06-30', joint: 'elbow' })
  await page.getByLabel('When it began, how long ago').fill('4')
  await page.getByLabel('When it began, how long ago').press('Enter')
  await page.getByRole('radio', { name: 'Sudden load, elbow bent: yes' }).click()
  await stop(page, 'Tendon and ligament')
  await choose(page, 'Hook, right', 'no cord')
  await expect(page.getByRole('complementary', { name: 'Verdict' })).toContainText('Biceps torn at the elbow')
  await expect(page.getByRole('complementary', { name: 'Verdict' })).not.toContainText('Child broken above the elbow')
})
