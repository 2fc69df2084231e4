import { chromium } from '@playwright/test'
import { launchOptions } from './lib/install.mjs'
const url = process.argv[2]; const b = await chromium.launch(launchOptions())
for (const [w,scheme] of [[1280,'light'],[390,'dark']]) {
const ctx=await b.newContext({ viewport: { width: w, height: 800 }, locale:'en-GB', colorScheme: scheme }); const page = await ctx.newPage()
page.on('pageerror',e=>console.log('PE',e.message.slice(0,300)))
await page.goto(url); await page.getByLabel('Sign-in name').fill('brannock'); await page.getByLabel('Password').fill('harbour-light')
await page.getByRole('button', { name: 'Sign in' }).click(); await page.getByRole('heading',{name:'Desk'}).waitFor()
await page.goto(url+'/start'); await page.waitForTimeout(900); await page.getByRole('button',{name:'right knee, front'}).click()
if(w<500) await page.getByRole('button',{name:'right knee, front'}).scrollIntoViewIfNeeded()
await page.waitForTimeout(300); await page.screenshot({path:`.test/shots/start-${w}.png`}) }
await b.close()
