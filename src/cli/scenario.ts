/** A whole scenario on the command line: parts and entries in, the same evaluation out as the screens have. */
import { sha256 } from '@noble/hashes/sha2.js'
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js'
import { z } from 'zod'
import { evaluate, linesOf } from '../core/evaluate'
import { fitnessOf, foundIn } from '../core/evaluation/found'
import type { Evaluation, StepEvaluation } from '../core/evaluation/types'
import { partDataSchema } from '../core/plant/part'
import { type Entry, type EntryBody, entryBodySchema, READING_VERSION } from '../core/record/entry'
import type { Facts } from '../core/record/facts'
import { instrumentSchema } from '../core/record/instrument'
import { regimeSchema } from '../core/regime/regime'
import { shippedRegimes } from '../core/regime/shipped'
import { CalcProblem } from './problem'
import { refuseMisplaced } from './scenarioReadings'

/** Ids may be any text: here nobody makes UUIDs. */
const anyId = z.string().min(1).max(80)
const instant = z.union(
  [z.iso.datetime({ offset: true }), z.number().finite()],
  'a time like "2026-05-14T10:00:00Z", or milliseconds since 1970',
)
/** A reading may leave away what a scenario does not care for. */
const usualReading = {
  v: READING_VERSION,
  conditions: null,
  how: 'typed',
  instrument: null,
  place: null,
  plantRevision: '',
  confirmed: [],
  note: null,
}

const entrySchema = z.strictObject({
  id: anyId.optional(),
  jobId: anyId.optional(),
  visitId: anyId.default('visit'),
  partId: anyId.nullable().default(null),
  step: z.string().max(60).nullable().default(null),
  deviceTime: instant.optional(),
  clockOffset_ms: z.number().int().default(0),
  personId: anyId.default('tester'),
  receivedAt: instant.nullable().optional(),
  body: z.looseObject({ kind: z.string() }),
})

const REGIMES = `a shipped regime (${shippedRegimes.map((one) => one.id).join(', ')}), or a whole one`

export const scenarioSchema = z.strictObject({
  regime: z.union([z.string().refine((id) => shippedNamed(id) !== undefined, REGIMES), regimeSchema], REGIMES),
  /** Parts as they are entered before anything else. */
  parts: z.array(z.strictObject({ id: anyId, data: z.looseObject({ kind: z.string() }) })).max(50_000),
  entries: z.array(entrySchema).max(200_000),
  instruments: z.array(z.looseObject({})).max(200).optional(),
  scope: z.strictObject({ visitId: anyId }).optional(),
  now: instant,
})

const shippedNamed = (id: string) => shippedRegimes.find((one) => one.id === id)
type Scenario = z.infer<typeof scenarioSchema>

const UUID = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/i

/** Any text as an id of the record, and back. A text that is a UUID stays as it is. */
class Names {
  private readonly texts = new Map<string, string>()

  idOf(text: string): string {
    const hex = UUID.test(text) ? text.toLowerCase() : hashed(text)
    this.texts.set(hex, text)
    return hex
  }

  textOf = (id: string): string => this.texts.get(id) ?? id
}

function hashed(text: string): string {
  const hex = bytesToHex(sha256(utf8ToBytes(text))).slice(0, 32)
  const made = `${hex.slice(0, 12)}8${hex.slice(13, 16)}8${hex.slice(17)}`
  return made.replace(/^(.{8})(.{4})(.{4})(.{4})(.{12})$/, '$1-$2-$3-$4-$5')
}

/** Fields whose text is the id of something. */
const idFields = new Set(['id', 'target', 'snag', 'base', 'attachment', 'plantRevision'])
const isIdField = (name: string): boolean => idFields.has(name) || name.endsWith('Id')

/** Ids inside parts and bodies, made ids of the record. */
function withIds(value: unknown, names: Names): unknown {
  if (Array.isArray(value)) return value.map((one) => withIds(one, names))
  if (typeof value !== 'object' || value === null) return value
  return Object.fromEntries(
    Object.entries(value).map(([name, inner]) => [
      name,
      isIdField(name) && typeof inner === 'string' && inner !== '' ? names.idOf(inner) : withIds(inner, names),
    ]),
  )
}

function read<S extends z.ZodType>(schema: S, value: unknown, path: (string | number)[]): z.output<S> {
  const parsed = schema.safeParse(value, { reportInput: true })
  if (parsed.success) return parsed.data
  throw new CalcProblem(
    parsed.error.issues.map((issue) => ({
      path: [...path, ...(issue.path as (string | number)[])],
      issue,
      message: issue.message,
    })),
  )
}

const timeOf = (at: string | number): number => (typeof at === 'number' ? at : Date.parse(at))
const SECOND_ms = 1000

/** The facts of a scenario. Entries without a time come one second after another, in the order given. */
function factsOf(input: Scenario, names: Names): Facts {
  const jobId = names.idOf('job')
  const person = names.idOf('tester')
  const now = timeOf(input.now)
  const dated = input.entries.flatMap((one) => (one.deviceTime === undefined ? [] : [timeOf(one.deviceTime)]))
  const start = Math.min(
    now - SECOND_ms * (input.entries.length + input.parts.length + 1),
    ...dated.map((at) => at - 1),
  )
  const first = names.idOf(input.entries[0]?.visitId ?? 'visit')
  const parts = input.parts.map(({ id, data }, k): Entry => {
    const after = read(partDataSchema, withIds(data, names), ['parts', k, 'data'])
    const body: EntryBody = { kind: 'plant-change', v: 1, before: null, after, base: null }
    return entryOf(names.idOf(`plant ${id}`), body, start - SECOND_ms * (input.parts.length - k), names.idOf(id), null)
  })
  const revisions = new Map(parts.map((one) => [one.partId, one.id]))

  function entryOf(id: string, body: EntryBody, at: number, partId: string | null, step: string | null): Entry {
    const deviceTime = new Date(at).toISOString()
    return {
      id,
      jobId,
      visitId: first,
      partId,
      step,
      deviceTime,
      clockOffset_ms: 0,
      personId: person,
      receivedAt: deviceTime,
      body,
    }
  }

  let before = start
  const entries = input.entries.map((one, k): Entry => {
    const at = one.deviceTime === undefined ? before + SECOND_ms : timeOf(one.deviceTime)
    before = at
    const partId = one.partId && names.idOf(one.partId)
    const own =
      one.body.kind === 'reading'
        ? { ...usualReading, plantRevision: revisions.get(partId) ?? '', ...one.body }
        : { v: 1, ...one.body }
    const body = read(entryBodySchema, withIds(own, names), ['entries', k, 'body'])
    return {
      ...entryOf(names.idOf(one.id ?? `entry ${k}`), body, at, partId, one.step),
      visitId: names.idOf(one.visitId),
      personId: names.idOf(one.personId),
      clockOffset_ms: one.clockOffset_ms,
    }
  })
  const visitIds = [...new Set([first, ...entries.map((one) => one.visitId)])]
  return {
    job: { id: jobId, number: '1', name: 'Scenario', place: '', timeZone: 'UTC', company: '' },
    visits: visitIds.map((id) => ({ id, startsAt: new Date(start).toISOString(), title: '' })),
    entries: [...parts, ...entries],
    instruments: (input.instruments ?? []).map((one, k) =>
      read(instrumentSchema, withIds(one, names), ['instruments', k]),
    ),
    people: [{ id: person, name: 'Tester' }],
    regime: typeof input.regime === 'string' ? shippedNamed(input.regime)! : input.regime,
    seals: [],
  }
}

function stepLine(evaluation: Evaluation, one: StepEvaluation, names: Names) {
  return {
    step: one.step.id,
    part: names.textOf(one.part.id),
    tag: one.part.data.tag,
    verdict: one.verdict,
    finding: one.finding.code,
    figures: one.finding.figures,
    also: one.finding.also ?? [],
    limits: one.judgement?.limits ?? [],
    lines: linesOf(evaluation, one),
    gates: one.gates.map(({ id, hard, met, finding }) => ({ id, hard, met, why: met ? 'met' : finding.code })),
    flags: one.flags,
    done: one.done,
  }
}

export function scenario(input: Scenario): object {
  const names = new Names()
  const facts = factsOf(input, names)
  const scope = input.scope ? { visitId: names.idOf(input.scope.visitId) } : {}
  const evaluation = evaluate(facts, timeOf(input.now), scope)
  refuseMisplaced(evaluation, facts.entries.slice(input.parts.length), names.textOf)
  const visitId = scope.visitId ?? facts.visits.at(-1)!.id
  const key = (text: string): string => {
    const at = text.indexOf(':')
    return `${text.slice(0, at)}:${names.textOf(text.slice(at + 1))}`
  }
  return {
    steps: evaluation.steps.map((one) => stepLine(evaluation, one, names)),
    states: evaluation.states.places().map(({ state, placeId }) => {
      const standing = evaluation.states.of(state, placeId, visitId)
      const since = standing.stands ? standing.since : null
      return {
        place: names.textOf(placeId),
        state,
        stands: standing.stands,
        since: since === null ? null : new Date(since).toISOString(),
      }
    }),
    next: evaluation.next && key(evaluation.next),
    progress: evaluation.progress,
    snags: evaluation.snags.map(({ entryId, step, partId, text, finding, state }) => ({
      entry: names.textOf(entryId),
      step,
      part: partId && names.textOf(partId),
      text,
      finding: finding?.code ?? null,
      state,
    })),
    ...periodicOf(evaluation, names),
  }
}

/** What a periodic inspection found and comes to; nothing where the work is new. */
function periodicOf(evaluation: Evaluation, names: Names) {
  const fitness = fitnessOf(evaluation)
  if (!fitness) return {}
  const found = foundIn(evaluation).map(({ target, line, step, partId, as }) => ({
    entry: target && names.textOf(target),
    line,
    step,
    part: partId && names.textOf(partId),
    as,
  }))
  return { fitness, found }
}
