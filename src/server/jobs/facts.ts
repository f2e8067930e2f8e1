import { regimeFrom } from '@/core/regime/shipped'
import { and, asc, eq, gte } from 'drizzle-orm'
import type { Entry } from '@/core/record/entry'
import type { Facts, SealSummary } from '@/core/record/facts'
import { upcast } from '@/core/record/upcast'
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
    personId: row.personId,
    receivedAt: row.receivedAt.toISOString(),
    body: upcast(row.body),
  }
}

export async function entriesOf(db: Queries, jobId: string, since?: Date): Promise<Entry[]> {
  const here = since ? and(eq(entry.jobId, jobId), gte(entry.receivedAt, since)) : eq(entry.jobId, jobId)
  const rows = await db.select().from(entry).where(here).orderBy(asc(entry.receivedAt), asc(entry.id))
  return rows.map(entryOf)
}

/** Everything known of a job, but for entries received before `since` where that is given. Null: no such job. */
export async function loadFacts(db: Queries, jobId: string, since?: Date): Promise<Facts | null> {
  const [found] = await db.select().from(job).where(eq(job.id, jobId))
  if (!found) return null
  const [firm] = await db.select().from(company)
  const visits = await db.select().from(visit).where(eq(visit.jobId, jobId)).orderBy(asc(visit.startsAt))
  const [pinned] = await db
    .select()
    .from(regime)
    .where(and(eq(regime.id, found.regimeId), eq(regime.version, found.regimeVersion)))
  if (!firm || !pinned) throw new Error(`loadFacts: expected a company and regime ${found.regimeId}`)
  const instruments = await db.select().from(instrument).where(eq(instrument.retired, false))
  const people = await db.select({ id: person.id, name: person.name }).from(person)
  return {
    job: {
      id: found.id,
      number: found.number,
      name: found.name,
      place: found.place,
      timeZone: found.timeZone,
      company: firm.name,
    },
    visits: visits.map((one) => ({ id: one.id, startsAt: one.startsAt.toISOString(), title: one.title })),
    entries: await entriesOf(db, jobId, since),
    instruments: instruments.map((one) => one.data),
    people,
    regime: regimeFrom(pinned.data),
    seals: await sealSummaries(db, jobId),
  }
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
    .orderBy(asc(seal.sealedAt))
  const summaries: SealSummary[] = []
  for (const row of rows) {
    const entryIds = await entriesCovered(db, row.id)
    summaries.push({ issue: row.issue, at: row.sealedAt.toISOString(), hash: row.hash, entryIds })
  }
  return summaries
}
