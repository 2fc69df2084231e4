import { createHash } from 'node:crypto'
import { existsSync, readdirSync, readFileSync, statSync } from 'node:fs'
import { join, relative } from 'node:path'
import { fileURLToPath } from 'node:url'
import { Ajv } from 'ajv'
import type pg from 'pg'
import { compilePack, inTodaysKeys, upgradePack, type Pack, type SourceFile } from '@kneecap-awl/core'
import type { Db } from '../db/connect.js'
import { judgeHere, type Judge } from '../judging/judge.js'

const CONTENT = fileURLToPath(new URL('../../../../content/', import.meta.url))

/** Reads the YAML files of a content folder, in order of path; `cases/` holds tests of the pack, not content. */
export const readContent = (folder = CONTENT): SourceFile[] => yamlOf(folder).filter(({ path }) => !path.startsWith('cases'))

/** The hand-written cases. */
export const readCaseFiles = (): string[] => yamlOf(join(CONTENT, 'cases')).map(({ text }) => text)

function yamlOf(folder: string): SourceFile[] {
  const walk = (dir: string): string[] =>
    readdirSync(dir).flatMap((name) => (statSync(join(dir, name)).isDirectory() ? walk(join(dir, name)) : [join(dir, name)]))
  return walk(folder)
    .filter((path) => path.endsWith('.yaml'))
    .sort()
    .map((path) => ({ path: relative(folder, path), text: readFileSync(path, 'utf8') }))
}

/** Where the built pack lies, as `npm start`, the tests and the commands make it. */
export const BUILT_PACK = fileURLToPath(new URL('../../dist/pack.json', import.meta.url))

/** The pack compiled from the content now. @throws PackError when the content has a fault */
export function compiledPack(files = readContent()): Pack {
  return compilePack(files, contentHash(files))
}

/** As `fingerprint` of the core, by the machine's own SHA-256: the same digits in a tenth of the time. */
export function contentHash(files: readonly SourceFile[]): string {
  const hash = createHash('sha256')
  for (const { path, text } of files) hash.update(`${path}\n${text}\n`)
  return hash.digest('hex')
}

/**
 * The pack that ships with this version: loaded as it was built, or compiled where it was not built from this very content.
 * @throws PackError when the content has a fault
 */
export function shippedPack(): Pack {
  const files = readContent()
  const built = existsSync(BUILT_PACK) ? (JSON.parse(readFileSync(BUILT_PACK, 'utf8')) as unknown) : undefined
  return isStoredPack(built) && built.hash === contentHash(files) ? built : compiledPack(files)
}

/**
 * What a stored pack must have to be judged with, whichever version wrote it.
 * @throws Error when it is not one: the record that needs it must not be judged with something else
 */
function storedPack(compiled: unknown, hash: string): Pack {
  if (!isStoredPack(compiled) || compiled.hash !== hash) throw new Error(`the stored content pack ${hash} is damaged: ${ajv.errorsText(isStoredPack.errors)}`)
  return compiled
}
const ajv = new Ajv()
const things = { type: 'array', items: { type: 'object', required: ['id'] } }
const LISTS = ['tiers', 'destinations', 'actions', 'scales', 'regions', 'items', 'calcs', 'flags', 'prompts', 'holds', 'modifiers', 'conditions'] as const
const isStoredPack = ajv.compile<Pack>({
  type: 'object',
  required: ['id', 'version', 'hash', 'practiceVariants', 'sets', 'cautions', ...LISTS],
  properties: {
    id: { type: 'string' },
    version: { type: 'string' },
    hash: { type: 'string', pattern: '^([0-9a-f]{16}|[0-9a-f]{64})$' },
    practiceVariants: { type: 'array' },
    sets: { type: 'object' },
    cautions: { type: 'array', items: { type: 'string' } },
    ...Object.fromEntries(LISTS.map((list) => [list, things])),
  },
})

/** Keeps every pack ever used, so that a signed examination can be judged again with its own, and whoever judges with them. */
export class PackStore {
  private readonly loaded = new Map<string, Pack>()

  constructor(
    readonly current: Pack,
    readonly judge: Judge = judgeHere,
  ) {
    this.loaded.set(current.hash, current)
  }

  /** @param db as owner: the application reads packs and stores none */
  async store(db: Db | pg.Client): Promise<void> {
    await db.query('insert into pack (hash, id, version, compiled) values ($1, $2, $3, $4) on conflict do nothing', [
      this.current.hash,
      this.current.id,
      this.current.version,
      JSON.stringify(this.current),
    ])
  }

  async byHash(db: Db, hash: string): Promise<Pack | undefined> {
    const kept = this.loaded.get(hash)
    if (kept) return kept
    const { rows } = await db.query<{ compiled: unknown }>('select compiled from pack where hash = $1', [hash])
    const pack = rows[0] && upgradePack(storedPack(inTodaysKeys(rows[0].compiled), hash))
    if (pack) this.loaded.set(hash, pack)
    return pack
  }
}
