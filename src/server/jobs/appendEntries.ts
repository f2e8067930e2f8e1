/**
 * Takes a batch from a device's queue. Each entry has its own fate in the answer: a bad one is named and the others are
 * kept. Who, which, when and what are the office's word: the person is who is signed in, an instrument is as the kit has
 * it, a time cannot lie ahead of the office's clock.
 *
 * A save is one INSERT. Each entry takes the next place in its job, and a key makes sure that nobody takes it twice: who
 * comes second, in this process or in another one, reads what came before, judges again and takes the place after.
 */
import { and, eq, getTableColumns, inArray } from 'drizzle-orm'
import type { ResultSetHeader } from 'mysql2/promise'
import type { Lookup } from '@/core/evaluation/lookup'
import { type Entry, type SentEntry, sentEntrySchema } from '@/core/record/entry'
import { instrumentsNamed, withKitCopies } from '@/core/record/kitCopies'
import { correctedTime, inOrder } from '@/core/record/order'
import { plantFrom } from '@/core/plant/projection'
import { stepById } from '@/core/steps'
import type { Figures } from '@/core/verdict/verdict'
import '@/words/everyTest'
import { sayCode } from '@/words/say'
import { DUPLICATE_KEY, type Database, errnoOf, type Queries, retried } from '../db/client'
import { attachment, entry, part } from '../db/schema'
import { isWhole, whereAndWhy } from '../door'
import { canonicalHash } from '../seal/canonical'
import type { Condition } from '../people/standing'
import { type HeldJob, heldJob } from './heldJob'
import { type Author, type Beside, refusalOf } from './refusals'

export const MOST_IN_A_BATCH = 200

export type Fate =
  /** `entry` as the office has it, where that is not what was sent. */
  | { id: string; fate: 'kept'; receivedAt: string; entry?: Entry }
  | { id: string; fate: 'already' }
  | { id: string; fate: 'conflict'; reason: string }
  | { id: string; fate: 'refused'; code: string; reason: string }

const refused = (id: string, code: string, figures: Figures = {}, family = 'refused'): Fate => ({
  id,
  fate: 'refused',
  code,
  reason: sayCode(family, code, figures),
})
const conflict = (id: string): Fate => ({ id, fate: 'conflict', reason: sayCode('refused', 'conflict') })

/** A batch as it was read: each entry, or what becomes of it where it is none. */
export type Batch = readonly (Sent | Fate)[]
type Sent = { one: SentEntry; bodyHash: string }

export const readBatch = (batch: readonly unknown[]): Batch => batch.map(parsed)

const sentIn = (batch: Batch): SentEntry[] => batch.flatMap((each) => (isFate(each) ? [] : [each.one]))

/** Ids of the instruments that a batch names. */
export const toolsIn = (batch: Batch): string[] => [
  ...new Set(sentIn(batch).flatMap((one) => instrumentsNamed(one.body))),
]

/** @param kit the instruments that the batch names, those of them that there are. */
export async function appendEntries(
  db: Database,
  jobId: string,
  author: Author,
  batch: Batch,
  kit: Beside['kit'],
): Promise<Fate[]> {
  const held = await heldJob(db, jobId)
  if (!held) return batch.map((each) => (isFate(each) ? each : refused(each.one.id, 'wrong-job')))
  return held.turn(() => retried(() => append(db, held, author, batch, kit)))
}

const isFate = (one: Sent | Fate): one is Fate => 'fate' in one

/**
 * The same for one reading or remark, on what was true at the save before: the statement that writes asks whether it still
 * is. Null where it is not, or where more has to be asked: nothing was kept then.
 *
 * @param stands what is asked.
 */
export async function appendWhere(
  db: Database,
  jobId: string,
  author: Author,
  batch: Batch,
  kit: Beside['kit'],
  stands: Condition,
): Promise<Fate[] | null> {
  const [only] = sentIn(batch)
  if (batch.length !== 1 || !only || only.body.kind === 'photo' || only.body.kind === 'plant-change') return null
  const held = await heldJob(db, jobId)
  return (
    held &&
    held.turn(() =>
      retried(async () => {
        const beside: Beside = { kit, pictures: new Map(), foreignParts: new Set() }
        const plan = planOf(held, author, beside, batch, new Map())
        const [row] = plan.rows
        if (!row || plan.doubtful || !(await insertWhere(db, row, stands))) return null
        took(held, plan)
        return plan.fates
      }),
    )
  )
}

const took = (held: HeldJob, { view, rows }: Plan): void =>
  held.take(view, new Map(rows.map((row) => [row.id, row.bodyHash])))

/** Whether the row was written: not where what it rests on holds no longer, nor where another one took its place. */
async function insertWhere(db: Database, row: Row, stands: Condition): Promise<boolean> {
  const values = Object.entries(columns).map(([key, column]) => {
    const value = row[key as keyof Row] ?? null
    return value === null ? null : column.mapToDriverValue(value)
  })
  try {
    const [result] = await db.$client.query<ResultSetHeader>(`${INSERT_SELECT} ${stands.text}`, [
      ...values,
      ...stands.values,
    ])
    return result.affectedRows === 1
  } catch (error) {
    if (errnoOf(error) === DUPLICATE_KEY) return false
    throw error
  }
}

const columns = getTableColumns(entry)
const INSERT_SELECT = `INSERT INTO entry (${Object.values(columns).map(({ name }) => name)}) SELECT ${Object.keys(columns).map(() => '?')} FROM DUAL WHERE`

function idOf(sent: unknown): string {
  const id = (sent as { id?: unknown } | null)?.id
  return typeof id === 'string' ? id.slice(0, 64).toWellFormed() : ''
}

function parsed(sent: unknown): Sent | Fate {
  // Half a character, as a cut text can end in, is none: no database and no seal can hold it.
  if (!isWhole(sent)) return refused(idOf(sent), 'text-broken')
  const read = sentEntrySchema.safeParse(sent)
  if (!read.success) return refused(idOf(sent), 'shape', whereAndWhy(read.error))
  const { clockOffset_ms: _, clockMoved_ms: __, ...said } = read.data
  return { one: read.data, bodyHash: canonicalHash({ ...said, clockOffset_ms: 0 }) }
}

/** Somebody else writes to a job at the same moment: so often is it tried anew before the device is asked to wait. */
const MOST_TRIES = 25

async function append(db: Database, held: HeldJob, author: Author, sent: Batch, kit: Beside['kit']): Promise<Fate[]> {
  const beside = { kit, ...(await besideOf(db, held, sent)) }
  const known = new Map<string, Fate>()
  let isFresh = false
  for (let attempt = 0; attempt < MOST_TRIES; attempt++) {
    const plan = planOf(held, author, beside, sent, known)
    // What is refused may be so only because this process has not read what another one wrote.
    if (!isFresh && plan.doubtful) {
      await held.catchUp(db)
      isFresh = true
      continue
    }
    if (plan.rows.length === 0) return plan.fates
    try {
      await insert(db, plan)
      took(held, plan)
      return plan.fates
    } catch (error) {
      if (errnoOf(error) !== DUPLICATE_KEY) throw error
      await held.catchUp(db)
      isFresh = true
      for (const [id, fate] of await knownElsewhere(db, held, plan.rows)) known.set(id, fate)
    }
  }
  throw new Error(`appendEntries: no place was free in ${MOST_TRIES} tries`)
}

type Row = typeof entry.$inferInsert
type Plan = { fates: Fate[]; rows: Row[]; view: Lookup; changedParts: string[]; doubtful: boolean }

/** What becomes of each entry, as far as this process knows, and the rows that are to be written. */
function planOf(held: HeldJob, author: Author, beside: Beside, sent: Batch, known: ReadonlyMap<string, Fate>): Plan {
  const receivedAt = new Date()
  const plan: Plan = { fates: [], rows: [], view: held.view, changedParts: [], doubtful: false }
  const inBatch = new Map<string, string>()
  for (const each of sent) {
    if (isFate(each)) {
      plan.fates.push(each)
      continue
    }
    const { one, bodyHash } = each
    const before = inBatch.get(one.id) ?? held.hashOf(one.id)
    const fate = before === undefined ? known.get(one.id) : knownFate(one.id, before === bodyHash)
    if (fate) {
      plan.fates.push(fate)
      continue
    }
    const no = refusalOf({ held, view: plan.view, beside, author, one })
    if (no) {
      plan.doubtful = true
      plan.fates.push(refused(one.id, no.code, no.figures, no.family))
      continue
    }
    const kept = asKept(one, author, beside, plan.view, receivedAt)
    inBatch.set(one.id, bodyHash)
    plan.rows.push(rowOf(kept, held.seq + plan.rows.length + 1, receivedAt, bodyHash))
    plan.view = plan.view.with([kept])
    if (kept.body.kind === 'plant-change' && kept.partId) plan.changedParts.push(kept.partId)
    plan.fates.push({ id: one.id, fate: 'kept', receivedAt: receivedAt.toISOString(), ...changedIn(one, kept) })
  }
  return plan
}

/** Same id and body again: already; same id, other body: conflict. */
const knownFate = (id: string, isSame: boolean): Fate => (isSame ? { id, fate: 'already' } : conflict(id))

/** Corrected by its offset a time may lie ahead by what the offset is unsure of, and by no more, ms. */
const MOST_AHEAD_ms = 2000
/** A visit is known to a device before anything is entered in it: what is much earlier was dated by a wrong clock, ms. */
const MOST_BEFORE_VISIT_ms = 3_600_000

/** The entry as the office keeps it. */
function asKept(one: SentEntry, author: Author, { kit }: Beside, view: Lookup, receivedAt: Date): Entry {
  const step = one.step ? (stepById(one.step) ?? null) : null
  const body = withKitCopies(one.body, step, kit)
  const kept = { ...one, body, personId: author.id, receivedAt: receivedAt.toISOString() } as Entry
  if (kept.body.kind === 'signature') kept.body = { ...kept.body, printedName: author.name }
  const at = correctedTime(kept)
  const ahead_ms = at - receivedAt.getTime()
  if (ahead_ms > MOST_AHEAD_ms)
    return { ...kept, clockOffset_ms: kept.clockOffset_ms - ahead_ms, clockMoved_ms: kept.clockMoved_ms ?? ahead_ms }
  const visit = view.facts.visits.find(({ id }) => id === kept.visitId)
  const before_ms = visit ? Date.parse(visit.startsAt) - at : 0
  return before_ms > MOST_BEFORE_VISIT_ms ? { ...kept, clockMoved_ms: kept.clockMoved_ms ?? -before_ms } : kept
}

function changedIn(one: SentEntry, kept: Entry): { entry?: Entry } {
  const { personId: _, receivedAt: __, ...now } = kept
  return JSON.stringify(now) === JSON.stringify(one) ? {} : { entry: kept }
}

const rowOf = (kept: Entry, seq: number, receivedAt: Date, bodyHash: string): Row => ({
  id: kept.id,
  jobId: kept.jobId,
  visitId: kept.visitId,
  partId: kept.partId,
  step: kept.step,
  kind: kept.body.kind,
  personId: kept.personId,
  seq,
  deviceTime: new Date(kept.deviceTime),
  clockOffset_ms: kept.clockOffset_ms,
  clockMoved_ms: kept.clockMoved_ms ?? null,
  receivedAt,
  body: kept.body,
  bodyHash,
})

/** One statement; where the plant changes, its projection goes with it or neither. */
async function insert(db: Database, { rows, view, changedParts }: Plan): Promise<void> {
  if (changedParts.length === 0) {
    await db.insert(entry).values(rows)
    return
  }
  const plant = plantFrom(inOrder(view.facts.entries))
  await db.transaction(async (tx) => {
    await tx.insert(entry).values(rows)
    for (const id of new Set(changedParts)) {
      const { data, revision, retired } = plant.get(id)!
      await tx
        .insert(part)
        .values({ id, jobId: view.facts.job.id, data, revision, retired })
        .onDuplicateKeyUpdate({ set: { data, revision, retired } })
    }
  })
}

/** Fates of ids that the database knows already: of this job through what was read again, of others as a conflict. */
async function knownElsewhere(db: Queries, held: HeldJob, rows: readonly Row[]): Promise<Map<string, Fate>> {
  const ids = rows.map((row) => row.id).filter((id) => held.hashOf(id) === undefined)
  if (ids.length === 0) return new Map()
  const found = await db.select({ id: entry.id }).from(entry).where(inArray(entry.id, ids))
  return new Map(found.map(({ id }) => [id, conflict(id)]))
}

async function besideOf(db: Queries, held: HeldJob, sent: Batch): Promise<Omit<Beside, 'kit'>> {
  const entries = sentIn(sent)
  const jobId = held.view.facts.job.id
  const photos = entries.flatMap(({ body }) => (body.kind === 'photo' ? [body.attachment] : []))
  const changed = entries.flatMap(({ body, partId }) => (body.kind === 'plant-change' && partId ? [partId] : []))
  const pictures =
    photos.length === 0
      ? []
      : await db
          .select({ id: attachment.id, sha256: attachment.sha256 })
          .from(attachment)
          .where(and(eq(attachment.jobId, jobId), inArray(attachment.id, photos)))
  const parts =
    changed.length === 0
      ? []
      : await db.select({ id: part.id, jobId: part.jobId }).from(part).where(inArray(part.id, changed))
  return {
    pictures: new Map(pictures.map((one) => [one.id, one.sha256])),
    foreignParts: new Set(parts.flatMap((one) => (one.jobId === jobId ? [] : [one.id]))),
  }
}
