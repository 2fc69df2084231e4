import { Ajv, type ErrorObject, type ValidateFunction } from 'ajv'
import type { Problem } from './problem.js'
import { definitions } from './forms.js'
import { FILES, PARTS } from './schema.js'

/** The first says quickly whether a file is sound; only for one that is not, the second looks for all that is wrong. */
const validatorsOf = (allErrors: boolean): ReadonlyMap<string, ValidateFunction> => {
  const ajv = new Ajv({ allErrors, allowUnionTypes: true })
  return new Map(Object.entries({ ...FILES, ...PARTS }).map(([key, schema]) => [key, ajv.compile({ ...schema, definitions })]))
}

const quick = validatorsOf(false)

let thorough: ReturnType<typeof validatorsOf> | undefined

/**
 * Checks one file against the shape that its leading key calls for.
 * @param kinds the keys that it may begin with: those of files, when left out
 */
export function checkShape(path: string, document: unknown, kinds = Object.keys(FILES)): Problem[] {
  if (typeof document !== 'object' || document === null)
    return [{ file: path, id: '-', reason: 'the file is empty or not a mapping', cure: `start it with one of ${kinds.join(', ')}` }]
  const key = kinds.find((name) => name in document)
  const isSound = key === undefined ? undefined : quick.get(key)
  if (key === undefined || !isSound)
    return [{ file: path, id: '-', reason: 'the file has no key that the pack knows', cure: `start it with one of ${kinds.join(', ')}` }]
  if (isSound(document)) return []
  const examine = (thorough ??= validatorsOf(true)).get(key) ?? isSound
  examine(document)
  return mostUseful(examine.errors ?? []).map((error) => problemOf(path, document, error))
}

/** A rule that is wrong fails every form it might have had: the deepest complaint is the useful one. */
const mostUseful = (errors: readonly ErrorObject[]): ErrorObject[] => {
  const useful = errors.filter((error) => error.keyword !== 'anyOf')
  const deepest = Math.max(...useful.map((error) => error.instancePath.split('/').length))
  const kept = useful.filter((error) => error.instancePath.split('/').length === deepest)
  return kept.slice(0, 5)
}

function problemOf(path: string, document: object, error: ErrorObject): Problem {
  const steps = error.instancePath.split('/').slice(1)
  const detail =
    error.keyword === 'additionalProperties'
      ? `: "${String(error.params.additionalProperty)}"`
      : error.keyword === 'enum'
        ? `: ${(error.params.allowedValues as string[]).join(', ')}`
        : ''
  return {
    file: path,
    id: nearestId(document, steps),
    reason: `at ${error.instancePath || '/'}: ${error.message ?? 'wrong shape'}${detail}`,
    cure: 'see docs/content.md for the keys of each file',
  }
}

function nearestId(document: object, steps: readonly string[]): string {
  let at: unknown = document
  let nearest = '-'
  for (const step of steps) {
    at = (at as Record<string, unknown> | undefined)?.[step]
    const named = (at as { id?: unknown } | undefined)?.id
    if (typeof named === 'string') nearest = named
  }
  return nearest
}
