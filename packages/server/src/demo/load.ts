import { hash } from '@node-rs/argon2'
import pg from 'pg'
import { examinedNormal, itemsById, judgement, rangeToAccept, sidesOf, viewOf, type Entry, type Item, type Pack } from '@kneecap-awl/core'
import { v7 as uuid7 } from 'uuid'
import { addAccount } from '../accounts/queries.js'
import { sealWith } from '../audit/queries.js'
import type { Sealer } from '../audit/seal.js'
import { addExamination } from '../examinations/queries.js'
import { keepRange } from '../examinations/ranges.js'
import { loadExamination, storeVerdict } from '../examinations/service.js'
import { keepEntries } from '../examinations/entries.js'
import { judgeHere } from '../judging/judge.js'
import { PackStore } from '../packs/service.js'
import { addPatient, nextLocalNumber } from '../patients/queries.js'
import { makeReferral } from '../referrals/service.js'
import { CASES } from './cases.js'
import type { DemoCase } from './demoCase.js'
import { PEOPLE, SITE, STAFF } from './people.js'

/** The password of every demonstration account. Never loaded where --no-demo was asked for. */
export const DEMO_PASSWORD = 'harbour-light'
const DAY = 86_400_000

/** Loads the demonstration once, dated back from the day of loading. @returns what was done, in words */
export async function loadDemo(ownerUrl: string, pack: Pack, sealer: Sealer): Promise<string> {
  const db = new pg.Client({ connectionString: ownerUrl })
  sealWith(db, sealer)
  await db.connect()
  try {
    const { rowCount } = await db.query('select 1 from account limit 1')
    if (rowCount !== 0) return 'already there'
    await db.query('begin')
    const site = uuid7()
    await db.query('insert into site (id, name, zone) values ($1, $2, $3)', [site, SITE.name, SITE.zone])
    await db.query("select set_config('awl.site', $1, true)", [site])
    const staff = await addStaff(db, site)
    const people = await addPeople(db, site)
    for (const one of [...CASES].sort((a, b) => b.hoursAgo - a.hoursAgo)) await addCase(db, pack, one, { site, staff, patient: people.get(one.who) ?? '' })
    await db.query('commit')
    return `${people.size} patients, ${CASES.length} examinations`
  } catch (error) {
    await db.query('rollback').catch(() => undefined)
    throw error
  } finally {
    await db.end()
  }
}

async function addStaff(db: pg.Client, site: string): Promise<{ clinician: string; name: string }> {
  const passwordHash = await hash(DEMO_PASSWORD)
  let clinician = ''
  for (const { signIn, name, role } of STAFF) {
    const id = uuid7()
    if (clinician === '') clinician = id
    await addAccount(db as never, { id, site, signIn, name, role, passwordHash })
  }
  await db.query('update account set is_demo = true where site_id = $1', [site])
  return { clinician, name: STAFF[0].name }
}

async function addPeople(db: pg.Client, site: string): Promise<Map<string, string>> {
  const ids = new Map<string, string>()
  for (const [key, person] of Object.entries(PEOPLE)) {
    const id = uuid7()
    const birthDate = new Date(Date.now() - (person.age * 365.25 + (person.age < 1 ? 0 : 120)) * DAY).toISOString().slice(0, 10)
    await addPatient(db as never, site, {
      id,
      localNumber: await nextLocalNumber(db as never, site),
      name: person.name,
      birthDate,
      sex: person.sex,
      contact: '',
    })
    ids.set(key, id)
  }
  return ids
}

async function addCase(
  db: pg.Client,
  pack: Pack,
  one: DemoCase,
  at: { readonly site: string; readonly staff: { clinician: string; name: string }; readonly patient: string },
): Promise<void> {
  const startedAt = new Date(Date.now() - one.hoursAgo * 3_600_000)
  const id = uuid7({ msecs: startedAt.getTime() })
  const client = db as never
  await addExamination(client, {
    id,
    site: at.site,
    patient: at.patient,
    region: one.region,
    sides: [one.side],
    setting: one.setting,
    startedAt: startedAt.toISOString(),
    by: at.staff.clinician,
    packHash: pack.hash,
  })
  const entries = caseEntries(pack, one, startedAt, at.staff.name)
  const accepted = one.state === 'draft' ? [] : acceptanceOf(pack, one, entries, startedAt, at.staff.name)
  await keepEntries(client, pack, id, [...entries, ...accepted], { id: at.staff.clinician, site: at.site })
  if (one.state === 'draft') {
    const { row, examination } = await loadExamination(client, new PackStore(pack), id)
    await keepRange(client, { id, site: at.site, entries: examination.entries.length, sides: row.sides, ...(await judgeHere.standing(pack, examination)) })
    await db.query('delete from range_job where examination_id = $1', [id])
    return
  }
  const packStore = new PackStore(pack)
  const signer = { id: at.staff.clinician, site: at.site }
  const loaded = await loadExamination(client, packStore, id)
  const judged = await judgeHere.verdict(loaded.pack, loaded.examination)
  const signedAt = new Date(startedAt.getTime() + 14 * 60_000)
  await db.query('update examination set signed_at = $2, signed_by = $3 where id = $1', [id, signedAt, at.staff.clinician])
  await storeVerdict(client, loaded, judged, 'signed', '', signer)
  if (one.state === 'amended') await amend(db, pack, id, signer, at.staff.name, startedAt)
  if (one.state !== 'referred') return
  await makeReferral(client, judgeHere, await loadExamination(client, packStore, id), { ...signer, siteName: SITE.name, name: at.staff.name, zone: SITE.zone })
}

/** Whoever signed an examination that could still be more urgent said why, and what is planned. */
function acceptanceOf(pack: Pack, one: DemoCase, entries: readonly Entry[], startedAt: Date, by: string): Entry[] {
  const examination = { complaint: { region: one.region, sides: [one.side] }, asOf: startedAt.toISOString(), setting: one.setting, entries }
  const ceiling = rangeToAccept(judgement(pack, examination))
  if (!ceiling) return []
  return [
    {
      id: uuid7(),
      state: 'accepted',
      ceiling,
      reason: 'Too sore for more today.',
      plan: 'Examined again tomorrow at ten, sooner if worse.',
      by,
      at: new Date(startedAt.getTime() + 13 * 60_000).toISOString(),
    },
  ]
}

async function amend(db: pg.Client, pack: Pack, id: string, signer: { id: string; site: string }, name: string, startedAt: Date): Promise<void> {
  const reason = 'The film came back after signing: normal, no fragment seen.'
  const client = db as never
  await keepEntries(
    client,
    pack,
    id,
    [
      {
        id: uuid7(),
        item: 'knee.imaging.film',
        side: 'left',
        state: 'examined',
        value: ['normal'],
        by: name,
        at: new Date(startedAt.getTime() + 3_600_000).toISOString(),
        amends: reason,
      },
    ],
    signer,
  )
  const loaded = await loadExamination(client, new PackStore(pack), id)
  await storeVerdict(client, loaded, await judgeHere.verdict(pack, loaded.examination), 'amended', reason, signer)
}

/** Nobody runs a tracing, bloods or a pressure index on every knee: what needs more than hands and a clock is in a case only where it says so. */
const isReadAtTheCouch = (item: Item): boolean => item.needs === undefined || item.depth === 'core'

/** The entries of a demonstration case: normal ones from the pack, then what was found, one second apart. */
export function caseEntries(pack: Pack, one: DemoCase, startedAt: Date, by: string): Entry[] {
  let tick = 0
  const at = (minutesLater = 0): string => new Date(startedAt.getTime() + minutesLater * 60_000 + 1000 * tick++).toISOString()
  const items = itemsById(pack)
  const base =
    one.base === 'nothing'
      ? []
      : examinedNormal(
          viewOf(pack, one.region),
          one.base === 'normal' ? ['card', 'core', 'prompted'] : ['card', 'core'],
          {
            by,
            at: startedAt.toISOString(),
            newId: () => uuid7({ msecs: startedAt.getTime() }),
          },
          isReadAtTheCouch,
        ).filter((entry) => one.base === 'normal' || ['patient', 'story', 'screen'].includes(items.get(entry.item)?.stage ?? ''))
  const person = PEOPLE[one.who]
  const told: DemoCase['findings'] = [
    { item: 'patient.age-years', value: person.age },
    ...(person.age < 2 ? [{ item: 'patient.age-days', value: Math.floor(person.age * 365.25) }] : []),
    { item: 'patient.sex', value: person.sex },
    { item: 'patient.bmi', value: 26 },
    { item: 'story.onset-at', value: new Date(startedAt.getTime() - one.onsetDaysAgo * DAY).toISOString(), qualifiers: { precision: 'exact' } },
    ...one.findings,
  ]
  const found = told.flatMap((finding) => {
    const item = items.get(finding.item) ?? items.get(`${one.region}.${finding.item}`)
    if (!item) throw new Error(`the demonstration names "${finding.item}", which the pack does not have`)
    const side = item.sided ? (finding.side ?? one.side) : 'none'
    return sidesOf(item).includes(side)
      ? [
          {
            id: uuid7({ msecs: startedAt.getTime() }),
            item: item.id,
            side,
            state: 'examined' as const,
            ...(finding.value === undefined ? {} : { value: finding.value }),
            ...(finding.qualifiers ? { qualifiers: finding.qualifiers } : {}),
            by,
            at: at(finding.minutesLater),
          },
        ]
      : []
  })
  return [...base.filter((entry) => entry.item !== 'story.onset-at'), ...found]
}
