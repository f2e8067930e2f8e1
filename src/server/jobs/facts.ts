import { regimeFrom } from '@/core/regime/shipped'
import { and, asc, eq, gt } from 'drizzle-orm'
import type { Entry } from '@/core/record/entry'
import type { Facts, SealSummary } from '@/core/record/facts'
import { upcast } from '@/core/record/upcast'
import { comparisons } from '../company/sourceChecks'
import type { Queries } from '../db/client'
import { company, entry, instrument, job, person, regime, seal, visit } from '../db/schema'

type EntryRow = typeof entry.$inferSelect

export function entryOf(row: EntryRow): Entry {
  return {
    id: row.id,
    jobId: row.jobId,
    visitId: row.visitId,
    partId: row.partId,
    step: row.step,
    deviceTime: row.deviceTime.toISOString(),
    clockOffset_ms: row.clockOffset_ms,
    ...(row.clockMoved_ms === null ? {} : { clockMoved_ms: row.clockMoved_ms }),
    personId: row.personId,
    receivedAt: row.receivedAt.toISOString(),
    body: upcast(row.body),
  }
}

export type PlacedEntry = { entry: Entry; seq: number; bodyHash: string }

/** How many entries are read from the database at once: a page is all that a long job takes, and all that others wait for. */
const PAGE = 250

/** The entries of a job after a place, page by page, in the order in which they were kept. */
export async function* entriesAfter(db: Queries, jobId: string, after: number): AsyncGenerator<PlacedEntry[]> {
  for (let from = after; ; ) {
    const rows = await db
      .select()
      .from(entry)
      .where(and(eq(entry.jobId, jobId), gt(entry.seq, from)))
      .orderBy(asc(entry.seq))
      .limit(PAGE)
    if (rows.length > 0) yield rows.map((row) => ({ entry: entryOf(row), seq: row.seq, bodyHash: row.bodyHash }))
    if (rows.length < PAGE) return
    from = rows.at(-1)!.seq
  }
}

export async function entriesOf(db: Queries, jobId: string): Promise<Entry[]> {
  const entries: Entry[] = []
  for await (const page of entriesAfter(db, jobId, 0)) for (const { entry } of page) entries.push(entry)
  return entries
}

/** What is known of a job besides its entries. */
export type Frame = Omit<Facts, 'entries'>

/** Null: no such job. */
export async function loadFrame(db: Queries, jobId: string): Promise<Frame | null> {
  const [found] = await db.select().from(job).where(eq(job.id, jobId))
  if (!found) return null
  const [firm] = await db.select().from(company)
  const visits = await db.select().from(visit).where(eq(visit.jobId, jobId)).orderBy(asc(visit.startsAt))
  const [pinned] = await db
    .select()
    .from(regime)
    .where(and(eq(regime.id, found.regimeId), eq(regime.version, found.regimeVersion)))
  if (!firm || !pinned) throw new Error(`loadFrame: expected a company and regime ${found.regimeId}`)
  const instruments = await db.select().from(instrument).where(eq(instrument.retired, false))
  const compared = await comparisons(db)
  const people = await db.select({ id: person.id, name: person.name }).from(person)
  return {
    job: {
      id: found.id,
      number: found.number,
      name: found.name,
      place: found.place,
      timeZone: found.timeZone,
      company: firm.name,
      ...(firm.letterhead ? { letterhead: firm.letterhead } : {}),
    },
    visits: visits.map((one) => ({ id: one.id, startsAt: one.startsAt.toISOString(), title: one.title })),
    instruments: instruments.map((one) => one.data),
    people,
    regime: regimeFrom(pinned.data),
    seals: await sealSummaries(db, jobId),
    ...(compared.length > 0 ? { compared } : {}),
  }
}

/** Everything known of a job. Null: no such job. */
export async function loadFacts(db: Queries, jobId: string): Promise<Facts | null> {
  const frame = await loadFrame(db, jobId)
  return frame && { ...frame, entries: await entriesOf(db, jobId) }
}

/** Which entries a seal covers; a seal never changes, and its record is large, so it is read once a process. */
const covered = new Map<string, string[]>()
const MOST_REMEMBERED = 500

async function entriesCovered(db: Queries, sealId: string): Promise<string[]> {
  const known = covered.get(sealId)
  if (known) return known
  const [row] = await db.select({ record: seal.record }).from(seal).where(eq(seal.id, sealId))
  const { record } = JSON.parse(row?.record ?? '{}') as { record: { facts: { entries: { id: string }[] } } }
  const ids = record.facts.entries.map((one) => one.id)
  if (covered.size >= MOST_REMEMBERED) covered.clear()
  covered.set(sealId, ids)
  return ids
}

async function sealSummaries(db: Queries, jobId: string): Promise<SealSummary[]> {
  const rows = await db
    .select({ id: seal.id, issue: seal.issue, sealedAt: seal.sealedAt, hash: seal.hash })
    .from(seal)
    .where(eq(seal.jobId, jobId))
    .orderBy(asc(seal.number))
  const summaries: SealSummary[] = []
  for (const row of rows) {
    const entryIds = await entriesCovered(db, row.id)
    summaries.push({ issue: row.issue, at: row.sealedAt.toISOString(), hash: row.hash, entryIds })
  }
  return summaries
}
