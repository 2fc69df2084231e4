#!/usr/bin/env node
// npm run pictures: takes the pictures of docs/screenshots/ from the running application with fresh demonstration data.
import { spawn } from 'node:child_process'
import { mkdirSync } from 'node:fs'
import { join } from 'node:path'
import { ROOT, freePort, say } from './lib/run.mjs'
import { installDebian, installNpm, launchOptions } from './lib/install.mjs'

installDebian({ browser: true })
installNpm()
const { chromium } = await import('playwright-core')
const OUT = join(ROOT, 'docs/screenshots')
mkdirSync(OUT, { recursive: true })
const port = await freePort()
const url = `http://127.0.0.1:${port}`
const app = spawn(process.execPath, [join(ROOT, 'scripts/start.mjs'), '--fresh', '--port', String(port)], {
  env: { ...process.env, AWL_DATA: join(ROOT, '.test/pictures') },
  stdio: ['ignore', 'pipe', 'inherit'],
})
await new Promise((resolve, reject) => {
  app.stdout.on('data', (chunk) => String(chunk).includes('Ctrl-C') && resolve())
  app.on('exit', () => reject(new Error('the application did not start')))
})
app.removeAllListeners('exit')
const browser = await chromium.launch(launchOptions())

const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 }, locale: 'en-GB', colorScheme: 'light' })).newPage()
const shoot = async (name) => {
  await page.waitForTimeout(700)
  await page.screenshot({ path: join(OUT, `${name}.png`) })
  say(`${name}.png`)
}
const stop = (title) =>
  page
    .getByRole('navigation', { name: 'Route' })
    .getByRole('button', { name: new RegExp(`^${title}`) })
    .click()
const desk = () => page.getByRole('link', { name: 'Kneecap Awl, to the desk' }).click()
const open = (name) => page.getByRole('link', { name }).first().click()

await page.goto(url)
await shoot('sign-in')
await page.getByLabel('Sign-in name').fill('brannock')
await page.getByLabel('Password').fill('harbour-light')
await page.getByRole('button', { name: 'Sign in' }).click()
await page.getByText(/^Drafts/).waitFor()
await shoot('desk')
await page.getByRole('button', { name: 'Start an examination' }).click()
await page.getByLabel('New patient, name').fill('Hesper Lindqvist')
await page.getByLabel('Birth date').fill('1988-04-02')
await page.getByRole('button', { name: 'right knee, front' }).click()
await page.getByRole('button', { name: 'Injury', exact: true }).click()
await shoot('start')
await desk()
await open('Odile Marsh')
await page.getByRole('heading', { name: 'Story' }).waitFor()
await shoot('story')
await desk()
await open('Rufus Hale')
await stop('Move')
await page.getByText('Bend', { exact: true }).click()
await shoot('move')
await page.getByRole('button', { name: 'Dark theme' }).click()
await stop('Stability and menisci')
await page.getByText('Lachman', { exact: true }).click()
await shoot('stability-dark')
await page.getByRole('button', { name: 'Light theme' }).click()
await desk()
await open('Anneke Pell')
await page.getByTestId('verdict-tier').waitFor()
await shoot('verdict')
await desk()
await open('Caspian Stroud')
await page.getByTestId('verdict-tier').waitFor()
await shoot('verdict-now')
await page.getByRole('button', { name: 'Back to the sheet' }).click()
await page.getByRole('heading', { name: 'Story' }).waitFor()
await stop('Pulse and nerve')
await shoot('now')
await page.getByRole('link', { name: 'Caspian Stroud' }).click()
await desk()
await open('Anneke Pell')
await page.getByRole('link', { name: 'Anneke Pell' }).click()
await page.getByText('Earlier examinations').waitFor()
await shoot('patient')
await browser.close()
app.kill('SIGINT')
