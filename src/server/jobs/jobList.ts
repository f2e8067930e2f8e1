import { and, count, desc, eq, inArray, max } from 'drizzle-orm'
import { lacksOf } from '@/core/evaluation/kitGate'
import { type JobLine, type JobSummary, jobSummarySchema, summarise } from '@/core/record/jobSummary'
import type { Database } from '../db/client'
import { entry, instrument, job, jobPerson, person, regime, seal, visit } from '../db/schema'
import type { Member } from '../people/people'
import { loadFacts } from './facts'

/** The jobs that a person may see, newest visit first. */
export async function jobsFor(db: Database, member: Member, now: number): Promise<JobLine[]> {
  const rows =
    member.role === 'supervisor'
      ? await db.select().from(job)
      : (
          await db
            .select({ job })
            .from(job)
            .innerJoin(jobPerson, eq(jobPerson.jobId, job.id))
            .where(eq(jobPerson.personId, member.id))
        ).map((row) => row.job)
  if (rows.length === 0) return []
  const ids = rows.map((row) => row.id)
  const seen = await seenCounts(db, ids)
  const visits = await db.select().from(visit).where(inArray(visit.jobId, ids)).orderBy(desc(visit.startsAt))
  const kit = await db.select().from(instrument).where(eq(instrument.retired, false))
  const tools = kit.map((one) => one.data)
  const people = await workersOf(db, ids)
  const newest = await newestVersions(db)
  const lines: JobLine[] = []
  for (const row of rows) {
    const visitAt = visits.find((one) => one.jobId === row.id)?.startsAt.toISOString() ?? null
    const summary = await summaryOf(db, row, seen.get(row.id) ?? 0, now)
    const kitLacks = lacksOf(summary.kitNeeds, tools)
    lines.push({
      id: row.id,
      number: row.number,
      name: row.name,
      place: row.place,
      people: people.get(row.id) ?? [],
      visitAt,
      dueOn: row.dueOn,
      putAwayAt: row.putAwayAt?.toISOString() ?? null,
      regime: {
        id: row.regimeId,
        version: row.regimeVersion,
        newest: newest.get(row.regimeId) ?? row.regimeVersion,
      },
      summary,
      kitLacks,
    })
  }
  return lines.sort((a, b) => (b.visitAt ?? '').localeCompare(a.visitAt ?? ''))
}

/** The newest version of each regime. */
async function newestVersions(db: Database): Promise<Map<string, number>> {
  const rows = await db
    .select({ id: regime.id, version: max(regime.version) })
    .from(regime)
    .groupBy(regime.id)
  return new Map(rows.map(({ id, version }) => [id, version ?? 0]))
}

/** The names of who works on each job. */
async function workersOf(db: Database, ids: string[]): Promise<Map<string, string[]>> {
  const rows = await db
    .select({ id: jobPerson.jobId, name: person.name })
    .from(jobPerson)
    .innerJoin(person, eq(person.id, jobPerson.personId))
    .where(and(inArray(jobPerson.jobId, ids), eq(person.active, true)))
    .orderBy(person.name)
  const names = new Map<string, string[]>()
  for (const { id, name } of rows) names.set(id, [...(names.get(id) ?? []), name])
  return names
}

/** Entries and seals are append-only, so their number says whether a summary is behind. */
async function seenCounts(db: Database, ids: string[]): Promise<Map<string, number>> {
  const entries = await db
    .select({ id: entry.jobId, n: count() })
    .from(entry)
    .where(inArray(entry.jobId, ids))
    .groupBy(entry.jobId)
  const seals = await db
    .select({ id: seal.jobId, n: count() })
    .from(seal)
    .where(inArray(seal.jobId, ids))
    .groupBy(seal.jobId)
  const sealCounts = new Map(seals.map((row) => [row.id, row.n]))
  return new Map(entries.map((row) => [row.id, row.n + (sealCounts.get(row.id) ?? 0)]))
}

async function summaryOf(db: Database, row: typeof job.$inferSelect, seen: number, now: number): Promise<JobSummary> {
  if (row.summarySeen === seen) {
    const cached = jobSummarySchema.safeParse(row.summary)
    if (cached.success) return cached.data
  }
  const facts = await loadFacts(db, row.id)
  if (!facts) throw new Error(`summaryOf: expected job ${row.id}`)
  const summary = summarise(facts, now)
  await db.update(job).set({ summary, summarySeen: seen }).where(eq(job.id, row.id))
  return summary
}
