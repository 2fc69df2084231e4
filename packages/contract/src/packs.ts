import { Type } from 'typebox'
import { route } from './route.js'
import { Form, Whole } from './shapes.js'

/** 16 digits of packs of before, 64 since. */
const Hash = Type.String({ pattern: '^([0-9a-f]{16}|[0-9a-f]{64})$' })

export const currentPack = route({
  method: 'GET',
  url: '/api/packs/current',
  summary: 'The content pack in use, without its items',
  may: 'signed-in',
  answer: Whole<object>('hash, version, destinations, tiers, cautions and regions'),
})
export const regionPack = route({
  method: 'GET',
  url: '/api/packs/:hash/:region',
  summary: 'The pack as one region sees it',
  may: 'signed-in',
  params: Form({ hash: Hash, region: Type.String({ pattern: '^[a-z-]{2,40}$' }) }),
  answer: Whole<object>('a compiled pack of one region'),
})
export const readLibrary = route({
  method: 'GET',
  url: '/api/library',
  summary: 'What can be looked up in the pack in use: one line each',
  may: 'signed-in',
  answer: Form({
    hash: Hash,
    entries: Type.Array(Whole<object>('one line of the library')),
    formerly: Whole<Readonly<Record<string, string>>>('earlier ids, each with the id of today'),
  }),
})
export const judge = route({
  method: 'POST',
  url: '/api/judge',
  summary: 'The verdict on an examination file; nothing is stored',
  may: 'judge',
  body: Whole<object>('an examination file: docs/formats/examination.schema.json'),
  answer: Whole<object>('a verdict: docs/formats/README.md'),
})
export const health = route({
  method: 'GET',
  url: '/api/health',
  summary: 'Whether server and database answer',
  may: 'anyone',
  answer: Form({ ok: Type.Boolean(), pack: Hash }),
})
export const openApi = route({
  method: 'GET',
  url: '/api/openapi.json',
  summary: 'This description',
  may: 'signed-in',
  answer: Whole<object>('OpenAPI 3'),
})
