/** `./upstand calc`: reads JSON from standard input, prints one JSON object. */
import { readFileSync } from 'node:fs'
import { z } from 'zod'
import { calculations } from './calculations'
import { CalcProblem, type Problem } from './problem'
import { sentenceOf } from './sentences'

const MAX_INPUT_BYTES = 64 * 1024 * 1024

function refuse(title: string, errors: Problem[]): never {
  process.stderr.write(`${JSON.stringify({ title, errors }, null, 2)}\n`)
  process.exit(2)
}

function readInput(): unknown {
  const text = readFileSync(0, 'utf8')
  if (text.length > MAX_INPUT_BYTES) refuse('input is larger than 64 MB', [{ path: [], message: 'send fewer cases' }])
  if (text.trim() === '')
    refuse('nothing on standard input', [{ path: [], message: 'expected one JSON object, or an array of them' }])
  try {
    return JSON.parse(text.replace(/^\uFEFF/, ''))
  } catch (error) {
    return refuse('input is not JSON', [{ path: [], message: (error as Error).message }])
  }
}

async function main(): Promise<void> {
  const [name, flag] = process.argv.slice(2)
  if (!name) {
    for (const [key, { about }] of Object.entries(calculations)) process.stdout.write(`${key.padEnd(20)}${about}\n`)
    return
  }
  const calculation = Object.hasOwn(calculations, name) ? calculations[name] : undefined
  if (!calculation) {
    refuse(`no calculation is called "${name}"`, [
      { path: [], message: `known: ${Object.keys(calculations).join(', ')}` },
    ])
  }
  if (flag === '--schema') {
    process.stdout.write(`${JSON.stringify(z.toJSONSchema(calculation.schema, { io: 'input' }), null, 2)}\n`)
    return
  }
  if (flag) refuse(`unknown flag "${flag}"`, [{ path: [], message: 'known: --schema' }])

  const input = readInput()
  const many = Array.isArray(input)
  const cases: unknown[] = many ? input : [input]
  const errors: Problem[] = []
  const results: object[] = []
  for (const [index, one] of cases.entries()) {
    const at = many ? [index] : []
    const parsed = calculation.schema.safeParse(one, { reportInput: true })
    if (!parsed.success) {
      for (const issue of parsed.error.issues) {
        errors.push({ path: [...at, ...(issue.path as (string | number)[])], message: sentenceOf(issue) })
      }
      continue
    }
    try {
      const result = await calculation.run(parsed.data as never)
      assertFinite(result)
      results.push(result)
    } catch (error) {
      if (!(error instanceof CalcProblem)) throw error
      for (const { path, message, issue } of error.errors)
        errors.push({ path: [...at, ...path], message: issue ? sentenceOf(issue) : message })
    }
  }
  if (errors.length > 0) refuse(`bad input for ${name}`, errors)
  process.stdout.write(`${JSON.stringify(many ? results : results[0])}\n`)
}

/** JSON writes NaN and infinity as null, which says that there is no answer: such a result is bad input. */
function assertFinite(result: object): void {
  const stack: unknown[] = [result]
  while (stack.length > 0) {
    const value = stack.pop()
    if (typeof value === 'number' && !Number.isFinite(value)) {
      throw new CalcProblem([{ path: [], message: 'the figures given lead out of the range of numbers' }])
    }
    if (value && typeof value === 'object') for (const inner of Object.values(value)) stack.push(inner)
  }
}

await main()
