import { chromium } from '@playwright/test'
import { launchOptions } from './lib/install.mjs'
import { mkdirSync } from 'node:fs'
mkdirSync('.test/shots', { recursive: true })
const url = process.argv[2]; const which=(process.argv[3]??'knee').split(','); const dark=process.argv[4]==='dark'
const b = await chromium.launch(launchOptions())
const ctx=await b.newContext({ viewport: { width: Number(process.argv[5]??1280), height: 800 }, locale:'en-GB', colorScheme: dark?'dark':'light' }); const page = await ctx.newPage()
page.on('console',m=>m.type()==='error'&&console.log('ERR',m.text().slice(0,300))); page.on('pageerror',e=>console.log('PE',e.message.slice(0,300)))
await page.goto(url)
await page.getByLabel('Sign-in name').fill('brannock'); await page.getByLabel('Password').fill('harbour-light')
await page.getByRole('button', { name: 'Sign in' }).click(); await page.getByRole('heading',{name:'Desk'}).waitFor()
const word=()=>Array.from({length:9},()=>'abcdefghijklmnoprstuvw'[Math.floor(Math.random()*22)]).join('')
const begin=async(j,year)=>{ await page.goto(url); await page.getByRole('button', { name: 'Start an examination' }).click()
await page.getByLabel('New patient, name').fill(word()+' '+word())
const f = page.getByRole('group', { name: 'Birth date' })
for (const [p, d] of [['day','03'],['month','04'],['year',year??String(1950+Math.floor(Math.random()*40))]]) await f.getByRole('spinbutton', { name: new RegExp(`^${p}`) }).pressSequentially(d)
await page.getByRole('button', { name: j, exact: true }).click()
await page.getByRole('button', { name: 'Begin with the history' }).click()
await page.getByRole('heading', { name: 'History' }).waitFor() }
const shot=async(n)=>{await page.waitForTimeout(700); await page.screenshot({ path: `.test/shots/${n}.png` })}
for (const w of which) { const mid=['neck','jaw'].includes(w)?w+', front':w==='back'?'back, back':'right '+w+', front'
 await begin(mid).catch(async(e)=>{ console.log(w,e.message.slice(0,120)); await begin(mid.replace('front','back')) })
 if(process.argv[6]==='site'){ await page.getByRole('region',{name:'Site of pain'}).scrollIntoViewIfNeeded(); await page.getByRole('group',{name:/^Site of pain/}).first().getByRole('button').nth(1).click(); await shot('s-'+w); continue }
 await page.getByRole('navigation',{name:'Route'}).getByRole('button',{name:/^(Feel|Look and feel|Standing, from behind)/}).first().click(); await page.waitForTimeout(900)
 const spots=page.getByRole('group',{name:/^Right|^Both/}).getByRole('button'); const n=await spots.count(); console.log(w,n)
 for(const [i,k] of [[0,3],[2,1],[4,4],[5,2]]) for(let c=0;c<k&&i<n;c++) await spots.nth(i).click()
 await shot('p-'+w+(dark?'-d':'')) }
await b.close()
