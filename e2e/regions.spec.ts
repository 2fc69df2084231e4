import type { Page } from '@playwright/test'
import { askedAlone, begin, choose, expect, noneOfTheRest, range, sheet, signIn, stop, test, tick } from './support/journey'

test.beforeEach(async ({ page }) => signIn(page))

test('a fall at eighty that walks on, with a painful log roll, is Today: off the leg and no standing tests', async ({ page }) => {
  await begin(page, { name: 'Fallen Fulmar', birthDate: '1944-09-12', joint: 'hip', urgent: true })
  await page.getByRole('radio', { name: 'Trauma in this episode: yes' }).click()
  await tick(page, /^Site of pain/, 'groin')
  await stop(page, 'Fracture chain')
  await page.getByRole('radio', { name: 'Log roll test (passive supine rotation), right: present' }).click()
  await expect(range(page)).toContainText('Today')
  await expect(page.getByRole('complementary', { name: 'Verdict' })).toContainText('Occult hip or femoral fracture')
  await expect(page.getByRole('complementary', { name: 'Verdict' }).getByRole('img', { name: /^about \d+ % \(\d+ to \d+\)$/ })).not.toHaveCount(0)
  await stop(page, 'Gait and stance')
  await expect(page.locator('[id="row-hip.test.trendelenburg"]')).toContainText('On hold')
  await page.getByRole('button', { name: 'Verdict sheet' }).click()
  await expect(page.getByTestId('verdict-tier')).toContainText('Today')
  await expect(page.getByRole('main')).toContainText('Non-weight-bearing')
})

test('struck from behind and no answer to the calf squeeze is Days, splinted with the foot plantarflexed', async ({ page }) => {
  await begin(page, { name: 'Snapped Sanderling', birthDate: '1982-01-20', joint: 'ankle' })
  await page.getByRole('radio', { name: 'Sensation of being kicked in the heel: yes' }).click()
  await stop(page, 'Achilles and calf')
  await page.getByRole('radio', { name: 'Thompson (Simmonds) calf-squeeze test, right: absent' }).click()
  await expect(page.getByRole('complementary', { name: 'Verdict' })).toContainText('Achilles tendon rupture')
  await page.getByRole('button', { name: 'Verdict sheet' }).click()
  await expect(page.getByRole('main')).toContainText('Equinus splint')
})

test('a shoulder held in and internally rotated after a seizure asks for external rotation before it is called a bruise', async ({ page }) => {
  await begin(page, { name: 'Seized Shearwater', joint: 'shoulder', urgent: true })
  await page.getByRole('radio', { name: 'Trauma in this episode: yes' }).click()
  await tick(page, /^Mechanism of injury/, 'seizure or electric shock')
  await stop(page, 'Screen')
  await choose(page, 'Arm position (attitude), right', 'fixed, adducted and internally rotated')
  await expect(range(page)).toContainText('Now')
})

test('a biceps cord that cannot be hooked after a sudden load is Days, and the child pulse is never asked of an adult', async ({ page }) => {
  await begin(page, { name: 'Hooked Heron', birthDate: '1977-06-30', joint: 'elbow' })
  await page.getByLabel('Onset, how long ago').fill('4')
  await page.getByLabel('Onset, how long ago').press('Enter')
  await page.getByRole('radio', { name: 'Eccentric load on a flexed elbow: yes' }).click()
  await stop(page, 'Tendon and ligament')
  await choose(page, 'Hook test (distal biceps), right', 'no cord to hook')
  await expect(page.getByRole('complementary', { name: 'Verdict' })).toContainText('Distal biceps tendon rupture')
  await expect(page.getByRole('complementary', { name: 'Verdict' })).not.toContainText('Supracondylar fracture')
})

/** Types a number into a box of the sheet. */
const measure = async (page: Page, label: string | RegExp, value: string): Promise<void> => {
  const box = sheet(page).getByLabel(label).last()
  await box.fill(value)
  await box.press('Enter')
}

test('a leg raise worse on dorsiflexion, a slump that neck flexion changes and a numb saddle are recorded step by step, and are Now', async ({ page }) => {
  await begin(page, { name: 'Slumped Snipe', joint: 'back', hasSide: false, view: 'back' })
  await tick(page, /^Site of pain.*right/, 'below the knee')
  await stop(page, 'Straight leg raises')
  await measure(page, /^Passive straight leg raise.*right$/, '40')
  await choose(page, /Passive straight leg raise.*right, site/, 'below the knee')
  await choose(page, /Passive straight leg raise.*right, ankle dorsiflexion/, 'worse')
  await expect(page.getByRole('complementary', { name: 'Verdict' })).toContainText('Lumbar radiculopathy')
  await stop(page, 'History')
  await tick(page, /^Saddle \(perineal\) sensation/, 'altered sensation')
  await expect(range(page)).toContainText('Now')
  await stop(page, 'Straight leg raises')
  await expect(page.locator('[id="row-back.test.crossed-slr"]')).toContainText('On hold')
  await stop(page, 'Prone and saddle')
  await expect(page.locator('[id="row-back.neuro.perianal-pin"]')).toBeVisible()
  await page.getByRole('button', { name: 'Verdict sheet' }).click()
  await expect(page.getByRole('main')).toContainText('Suspected cauda equina syndrome')
})

test('an infant of seven weeks: a dislocatable hip on Barlow is Days, and a test that was cried through is not valid', async ({ page }) => {
  const birthDate = new Date(Date.now() - 50 * 86_400_000).toISOString().slice(0, 10)
  await begin(page, { name: 'Dunlin Infant', birthDate, joint: 'infant hip' })
  await noneOfTheRest(page)
  await askedAlone(page)
  await stop(page, 'Hips')
  await choose(page, /Barlow test, left$/, 'dislocatable')
  await page
    .locator('[id="row-infant-hip.test.ortolani"]')
    .getByRole('button', { name: /could not be done/ })
    .click()
  await page.getByRole('dialog').getByRole('radio', { name: 'right' }).click()
  await page.getByRole('dialog').getByRole('button', { name: 'not valid: crying or tense' }).click()
  await expect(page.locator('[id="row-infant-hip.test.ortolani"]')).toContainText('not valid')
})

test('a hip is recorded with both leg lengths', async ({ page }) => {
  await begin(page, { name: 'Short Shelduck', birthDate: '1950-02-03', joint: 'hip' })
  await page.getByLabel('Find a test, item, flag or condition').fill('True leg length')
  await page.getByRole('option').first().click()
  await measure(page, /^True leg length.*right$/, '850')
  await measure(page, /^True leg length.*left$/, '866')
  await page.getByRole('button', { name: 'Verdict sheet' }).click()
  await expect(page.getByRole('main')).toContainText('850')
})

test('a wrist with its hand nerves: numb and rising after a fall is Now', async ({ page }) => {
  await begin(page, { name: 'Numbed Knot', joint: 'wrist', urgent: true })
  await page.getByRole('radio', { name: 'Trauma in this episode: yes' }).click()
  await choose(page, /^other… Median paraesthesia, course/, 'new and progressing')
  await stop(page, 'Perfusion and nerves')
  await choose(page, /Index finger pulp .median., right$/, 'reduced')
  await expect(range(page)).toContainText('Now')
})

test('a knee whose hip is not calm: the hip is added in one step with the story, and the more urgent joint is said on both verdicts', async ({ page }) => {
  await begin(page, { name: 'Limping Lapwing', birthDate: '1952-02-02' })
  await page.getByRole('radio', { name: 'Trauma in this episode: yes' }).click()
  const visit = page.getByRole('region', { name: 'Same visit' })
  await page.getByLabel('Find a test, item, flag or condition').fill('Hip movement reproduces knee pain')
  await page
    .getByRole('option', { name: /Hip movement reproduces knee pain/ })
    .first()
    .click()
  await page.getByRole('radio', { name: 'Hip movement reproduces knee pain, right: present' }).click()
  await visit.getByRole('button', { name: 'Examine right hip too' }).click()
  await expect(page.getByRole('banner')).toContainText('right hip')
  await expect(page.getByRole('radio', { name: 'Trauma in this episode: yes' })).toBeChecked()
  await stop(page, 'Screen')
  await choose(page, 'Wound, deepest structure, right', 'bone or joint exposed')
  await expect(range(page)).toContainText('Now')
  await visit.getByRole('link', { name: /right knee/ }).click()
  await expect(page.getByRole('banner')).toContainText('right knee')
  await expect(visit.getByRole('link', { name: /right hip/ })).toContainText('Now')
  await page.getByRole('button', { name: 'Verdict sheet' }).click()
  await expect(page.getByRole('main')).toContainText('More urgent than this: right hip, Now')
})
