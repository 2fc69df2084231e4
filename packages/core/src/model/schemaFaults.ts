import type { Fault } from './fault.js'

/** An error as Ajv tells it, as far as it is put into words here. */
export interface SchemaError {
  readonly keyword: string
  readonly instancePath: string
  readonly message?: string
  readonly params: Readonly<Record<string, unknown>>
}

/**
 * What is wrong with data that does not suit its form: the field, the reason, what is expected.
 * @example schemaFaults([{ keyword: 'required', instancePath: '/entries/0', params: { missingProperty: 'reason' } }]) // [{ path: '/entries/0/reason', reason: 'is missing', … }]
 */
export function schemaFaults(errors: readonly SchemaError[]): Fault[] {
  return errors.filter(({ keyword }) => keyword !== 'anyOf' && keyword !== 'oneOf').map(faultOf)
}

function faultOf({ keyword, instancePath, message, params }: SchemaError): Fault {
  const path = instancePath === '' ? '/' : instancePath
  const under = (name: unknown): string => `${instancePath}/${String(name)}`
  switch (keyword) {
    case 'required':
      return { path: under(params.missingProperty), reason: 'is missing', expected: 'a value' }
    case 'additionalProperties':
      return { path: under(params.additionalProperty), reason: 'is not known here', expected: 'to be left out' }
    case 'enum':
      return { path, reason: 'is none of the words that it may be', expected: `one of: ${(params.allowedValues as unknown[]).join(', ')}` }
    case 'const':
      return { path, reason: 'is not what it has to be', expected: JSON.stringify(params.allowedValue) }
    case 'discriminator':
      return { path: under(params.tag), reason: `"${String(params.tagValue)}" is none that there is`, expected: 'a state of an entry' }
    case 'format':
      return { path, reason: `is no ${String(params.format)}`, expected: EXPECTED[String(params.format)] ?? `a ${String(params.format)}` }
    default:
      return { path, reason: message ?? 'has the wrong shape', expected: message ?? 'another shape' }
  }
}

const EXPECTED: Readonly<Record<string, string>> = {
  'date-time': 'ISO 8601 with zone, as 2026-11-24T10:00:00Z',
  date: 'a day, as 2026-11-24',
  uuid: 'a UUID, as 01920000-0000-7000-8000-000000000001',
}
