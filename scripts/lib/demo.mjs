// The running application with fresh demonstration data and a browser signed in: for the pictures and for the bench.
import { spawn } from 'node:child_process'
import { join } from 'node:path'
import { ROOT, freePort } from './run.mjs'
import { installDebian, installNpm, launchOptions } from './install.mjs'

/**
 * Starts the application with fresh demonstration data; it ends with this process.
 * @param name of its folder under .test, so that two uses never share data
 * @param env what the start command is told besides
 * @returns its address, and the folder of its data
 */
export async function startApplication(name, env = {}) {
  const port = await freePort()
  const data = join(ROOT, '.test', name)
  const app = spawn(process.execPath, [join(ROOT, 'scripts/start.mjs'), '--fresh', '--port', String(port)], {
    env: { ...process.env, ...env, AWL_DATA: data },
    stdio: ['ignore', 'pipe', 'inherit'],
  })
  // Whatever goes wrong on the way, the application does not stay behind.
  process.on('exit', () => app.kill('SIGINT'))
  await new Promise((resolve, reject) => {
    app.stdout.on('data', (chunk) => String(chunk).includes('Ctrl-C') && resolve())
    app.on('exit', () => reject(new Error('the application did not start')))
  })
  app.removeAllListeners('exit')
  return { base: `http://127.0.0.1:${port}`, data }
}

/**
 * Starts the application and a browser; both end with this process.
 * @param name of its folder under .test, so that two uses never share data
 * @returns the page before signing in, and what the examiner does on it
 */
export async function startDemo(name) {
  installDebian({ browser: true })
  installNpm()
  const { chromium } = await import('playwright-core')
  const { base } = await startApplication(name)
  const browser = await chromium.launch(launchOptions())
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, locale: 'en-GB', colorScheme: 'light' })
  const page = await context.newPage()
  await page.goto(base)
  return { browser, page, ...hands(page) }
}

/** What the examiner does, by the names on the screen. */
const hands = (page) => {
  const signIn = async () => {
    await page.getByLabel('Sign-in name').fill('brannock')
    await page.getByLabel('Password').fill('harbour-light')
    await page.getByRole('button', { name: 'Sign in' }).click()
    await page
      .getByText(/^Drafts/)
      .first()
      .waitFor()
  }
  const desk = () => page.getByRole('link', { name: 'Kneecap Awl, to the desk' }).click()
  const open = (name) => page.getByRole('link', { name }).first().click()
  /** Who it is, on the screen where an examination is started. */
  const newPatient = async (name, { year, month, day }) => {
    await page.getByRole('button', { name: 'Start an examination' }).click()
    await page.getByLabel('New patient, name').fill(name)
    const field = page.getByRole('group', { name: 'Birth date' })
    for (const [part, digits] of Object.entries({ day, month, year }))
      await field.getByRole('spinbutton', { name: new RegExp(`^${part}`) }).pressSequentially(digits)
  }
  const history = () => page.getByRole('heading', { name: 'History' }).waitFor()
  const begin = async (name, born, joint) => {
    await newPatient(name, born)
    await page.getByRole('button', { name: joint }).click()
    await page.getByRole('button', { name: 'Begin with the history' }).click()
    await history()
  }
  const stop = (title) =>
    page
      .getByRole('navigation', { name: 'Route' })
      .getByRole('button', { name: new RegExp(`^${title}`) })
      .click()
  /** Touches a landmark of the plate in view so many times. */
  const touch = async (name, times) => {
    for (let at = 0; at < times; at++) await page.getByRole('region', { name: 'Plates' }).getByRole('button', { name }).click()
  }
  return { signIn, desk, open, newPatient, begin, history, stop, touch }
}
