/**
 * What a verdict rests on: parts and their fields, lists of parts, readings of other steps, figures of the regime. Nobody
 * lists them: they are recorded while the step is judged, and only when somebody asks.
 */
import type { Part } from '../plant/part'
import type { PlantIndex } from '../plant/plantIndex'
import type { Entry } from '../record/entry'
import { correctedTime } from '../record/order'
import { type AnyStep, isRead, NOTHING_READ, type Reading } from '../steps/step'
import { type Counted, contextOf, judgeStep, readingOf } from './judge'
import { listeningTo, lookAt } from './listening'
import type { PlantHistory } from './plantHistory'
import type { Run } from './runOf'
import type { ReadingEvaluation } from './types'

export type Input =
  | { what: 'field'; partId: string; field: string; value: string }
  | { what: 'parts'; query: string; args: readonly string[]; ids: string }
  | { what: 'limit'; id: string }
  | { what: 'school'; id: string }
  | { what: 'reading'; step: string; partId: string; found: boolean }

/** Names and marks are for people: a verdict does not rest on them. */
const namesOnly = new Set(['tag', 'feeds', 'name', 'kind'])

const textOf = (value: unknown): string => JSON.stringify(value ?? null)
const isPlain = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value)

/** Hands out the same objects and writes down what is taken from them. */
class Recorder {
  readonly inputs = new Map<string, Input>()
  private readonly parts = new Map<string, Part>()

  note(key: string, input: Input): void {
    if (!this.inputs.has(key)) this.inputs.set(key, input)
  }

  part<P extends Part | null>(part: P): P {
    if (!part) return part
    const known = this.parts.get(part.id)
    if (known) return known as P
    const recorded = { ...part, data: this.data(part.id, part.data, '') }
    this.parts.set(part.id, recorded)
    return recorded as P
  }

  private data<T extends object>(partId: string, data: T, path: string): T {
    return new Proxy(data, {
      get: (target, name) => {
        const value = Reflect.get(target, name) as unknown
        if (typeof name !== 'string' || (path === '' && namesOnly.has(name))) return value
        // One level down, each field for itself: a module's name is no figure of its plate.
        if (path === '' && isPlain(value)) return this.data(partId, value, `${name}.`)
        const field = `${path}${name}`
        this.note(`field ${partId} ${field}`, { what: 'field', partId, field, value: textOf(value) })
        return value
      },
    })
  }

  plant(plant: PlantIndex): PlantIndex {
    const idsOf = (result: unknown): string =>
      Array.isArray(result)
        ? result.map((one: Part) => one.id).join()
        : isPlain(result)
          ? String(result.id)
          : textOf(result)
    const handed = (result: unknown): unknown =>
      Array.isArray(result)
        ? result.map((one: Part) => this.part(one))
        : isPlain(result) && 'data' in result
          ? this.part(result as Part)
          : result
    return new Proxy(plant, {
      get: (target, name) => {
        const value = Reflect.get(target, name, target) as unknown
        if (typeof name !== 'string' || name === 'parts') return value
        const note = (args: readonly unknown[], result: unknown): unknown => {
          const ids = args.map((one) => (isPlain(one) ? String(one.id) : String(one)))
          this.note(`parts ${name} ${ids.join()}`, { what: 'parts', query: name, args: ids, ids: idsOf(result) })
          return handed(result)
        }
        if (typeof value !== 'function') return note([], value)
        return (...args: unknown[]) => {
          // What was handed out comes back as an argument: the plant itself works with its own.
          const own = args.map((one) => (isPlain(one) ? (target.parts.get(String(one.id)) ?? one) : one))
          return note(own, (value as (...args: unknown[]) => unknown).apply(target, own))
        }
      },
    })
  }
}

/** A reading with what stands beside it. */
function besideIn(together: Run['together'], step: AnyStep, part: Part, entry: Entry<'reading'>): Reading {
  const beside = together && isRead(step) ? together.beside(step, part, entry.body, correctedTime(entry)) : null
  return readingOf(entry.body, beside)
}

/** Names of the questions about the plant that a judgement asks: cheaper by far than all that it took in. */
function queriesOf(
  { plant, given, together }: Pick<Run, 'plant' | 'given' | 'together'>,
  step: AnyStep,
  part: Part,
  reading: Entry<'reading'>,
  counted: Counted,
): readonly string[] {
  const { plant: listens, asked } = listeningTo(plant)
  asked.clear()
  lookAt(judgeStep(step, contextOf(step, part, listens, given, counted, besideIn(together, step, part, reading))))
  return [...asked]
}

/** What the judgement of a reading took in, of the plant as it stands. */
export function inputsOf(
  { plant, given, together }: Pick<Run, 'plant' | 'given' | 'together'>,
  step: AnyStep,
  part: Part,
  reading: Entry<'reading'> | null,
  counted: Counted,
): Input[] {
  const recorder = new Recorder()
  const handOut = <T extends object>(kind: 'limit' | 'school', from: T): T =>
    new Proxy(from, {
      get: (target, name) => {
        if (typeof name === 'string') recorder.note(`${kind} ${name}`, { what: kind, id: name })
        return Reflect.get(target, name) as unknown
      },
    })
  const regime = {
    ...given.regime,
    limits: handOut('limit', given.regime.limits),
    schools: handOut('school', given.regime.schools),
  }
  const context = contextOf(
    step,
    recorder.part(part),
    recorder.plant(plant),
    { instruments: given.instruments, regime },
    (of, partId) => {
      const found = counted(of, partId)
      recorder.note(`reading ${of} ${partId}`, { what: 'reading', step: of, partId, found: found !== null })
      return found
    },
    reading ? besideIn(together, step, part, reading) : NOTHING_READ,
  )
  lookAt(judgeStep(step, context))
  return [...recorder.inputs.values()]
}

/**
 * What of a reading's inputs is another now than when it was read, as a field or a list of parts; null where nothing is,
 * or where somebody confirmed the reading since.
 */
export function changedSince(
  run: Run,
  step: AnyStep,
  part: Part,
  reading: ReadingEvaluation,
  counted: Counted,
): string | null {
  const { history } = run
  const seenThen = history.seenBy(reading, part, run.index.plantChanges)
  if (seenThen === null) return null
  const confirmed = run.index.confirmations.get(`${step.id}:${part.id}:plant-changed`)
  if (confirmed && correctedTime(confirmed) >= history.lastAt) return null
  // Whoever confirmed it saw the plant of that moment.
  const seen = confirmed ? Math.max(seenThen, history.firstAfter(correctedTime(confirmed))) : seenThen
  // Where parts only came, a verdict is another only by the lists that it looked through.
  if (!history.isAnyChanged(seen)) {
    const asked = reading.asked ?? queriesOf(run, step, part, reading.entry, counted)
    if (!asked.some((query) => history.mayTouch(query, seen))) return null
  }
  for (const input of inputsOf(run, step, part, reading.entry, counted)) {
    const changed = otherThen(input, history, seen)
    if (changed) return changed
  }
  return null
}

/** The name of an input that was another in an earlier plant; null where it was the same. */
function otherThen(input: Input, history: PlantHistory, seen: number): string | null {
  if (input.what === 'field') {
    if (!history.isChanged(input.partId, seen)) return null
    const before = history.dataBefore(input.partId, seen)
    // A part that came later is told by the list it came into.
    if (!before) return null
    const value = input.field
      .split('.')
      .reduce<unknown>((data, name) => (isPlain(data) ? data[name] : undefined), before)
    return textOf(value) === input.value ? null : input.field
  }
  if (input.what !== 'parts' || !history.mayTouch(input.query, seen)) return null
  const then = history.plantBefore(seen)
  const args = input.args.map((id) => then.parts.get(id) ?? id)
  // A question about a part that was not there yet had no answer then.
  if (input.args.some((id) => /^[0-9a-f-]{36}$/.test(id) && !then.parts.has(id))) return null
  const asked = (then as unknown as Record<string, unknown>)[input.query]
  const result = typeof asked === 'function' ? (asked as (...of: unknown[]) => unknown).apply(then, args) : asked
  const ids = Array.isArray(result)
    ? result.map((one: Part) => one.id).join()
    : isPlain(result)
      ? String(result.id)
      : textOf(result)
  return ids === input.ids ? null : input.query
}
