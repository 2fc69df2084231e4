import { readFileSync } from 'node:fs'
import { createInterface } from 'node:readline'
import { parseArgs } from 'node:util'
import { judgement, publicVerdict, readExamination, type Fault } from '@kneecap-awl/core'
import { shippedPack } from '../packs/service.js'
import { isArgumentFault } from './isArgumentFault.js'

/**
 * `npm run judge -- FILE...` prints a JSON array of verdicts, one for each examination file.
 * `npm run judge -- --ndjson` reads one examination a line and prints one verdict a line.
 * Bad input: exit code 2 and one line for each fault on standard error.
 */
const { ndjson, files } = wanted()
const pack = shippedPack()

const complain = (file: string, faults: readonly Fault[]): void => {
  process.exitCode = 2
  for (const fault of faults) process.stderr.write(`${file}: ${fault.path}: ${fault.reason} (expected ${fault.expected})\n`)
}

function judgeText(name: string, text: string): object | undefined {
  let document: unknown
  try {
    document = JSON.parse(text)
  } catch (error) {
    complain(name, [{ path: '/', reason: `is not JSON: ${(error as Error).message}`, expected: 'an examination file' }])
    return undefined
  }
  const read = readExamination(document, pack)
  if ('faults' in read) {
    complain(name, read.faults)
    return undefined
  }
  return { ...(read.examination.id ? { id: read.examination.id } : {}), ...publicVerdict(judgement(pack, read.examination)) }
}

function readText(file: string): string | undefined {
  try {
    return readFileSync(file, 'utf8')
  } catch (error) {
    complain(file, [{ path: '/', reason: `cannot be read: ${(error as Error).message}`, expected: 'a readable file' }])
    return undefined
  }
}

if (ndjson) {
  let line = 0
  for await (const text of createInterface({ input: process.stdin, crlfDelay: Infinity })) {
    line++
    if (text.trim() === '') continue
    const verdict = judgeText(`line ${line}`, text)
    if (verdict) process.stdout.write(`${JSON.stringify(verdict)}\n`)
  }
} else if (files.length === 0) {
  complain('judge', [{ path: '/', reason: 'no file was named', expected: 'npm run judge -- FILE..., or --ndjson with examinations on standard input' }])
} else {
  const verdicts = files.flatMap((file) => {
    const text = readText(file)
    const verdict = text === undefined ? undefined : judgeText(file, text)
    return verdict ? [{ file, ...verdict }] : []
  })
  if (verdicts.length > 0) process.stdout.write(`${JSON.stringify(verdicts, null, 2)}\n`)
}

function wanted(): { readonly ndjson: boolean; readonly files: readonly string[] } {
  try {
    const { values, positionals } = parseArgs({ options: { ndjson: { type: 'boolean' } }, allowPositionals: true })
    return { ndjson: values.ndjson ?? false, files: positionals }
  } catch (error) {
    if (!isArgumentFault(error)) throw error
    process.stderr.write(`${error.message}\nnpm run judge -- FILE..., or --ndjson with examinations on standard input\n`)
    process.exit(2)
  }
}
