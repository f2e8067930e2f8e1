/**
 * Jobs as this process holds them while people save: what was read from the rows once, and what came since. Nothing
 * depends on it: it is made anew from the rows, and every save checks against them that nothing else was kept meanwhile.
 */
import { Lookup } from '@/core/evaluation/lookup'
import type { Entry } from '@/core/record/entry'
import type { Facts } from '@/core/record/facts'
import type { Queries } from '../db/client'
import { entriesAfter, loadFrame, type PlacedEntry } from './facts'

/** Entries of all jobs together that a process keeps in mind; the jobs that were not asked for longest go first. */
const MOST_ENTRIES = 120_000

export class HeldJob {
  private queue: Promise<unknown> = Promise.resolve()
  private readonly hashes = new Map<string, string>()
  private readonly placeOf = new Map<string, number>()

  /** The last place among the job's entries that this process knows: the next entry takes the one after. */
  seq = 0

  private constructor(public view: Lookup) {}

  static async load(db: Queries, jobId: string): Promise<HeldJob | null> {
    const frame = await loadFrame(db, jobId)
    if (!frame) return null
    const held = new HeldJob(Lookup.of({ ...frame, entries: [] }))
    await held.read(db)
    return held
  }

  hashOf = (id: string): string | undefined => this.hashes.get(id)
  entryOf = (id: string): Entry | undefined => {
    const place = this.placeOf.get(id)
    return place === undefined ? undefined : this.view.facts.entries[place]
  }

  /** One save of a job at a time in this process, so that two of them do not take one place. */
  turn<T>(work: () => Promise<T>): Promise<T> {
    const next = this.queue.then(work, work)
    this.queue = next.catch(() => undefined)
    return next
  }

  /** What was kept by this process: `view` holds it already. */
  take(view: Lookup, hashes: ReadonlyMap<string, string>): void {
    const from = this.view.facts.entries.length
    this.view = view
    for (let k = from; k < view.facts.entries.length; k++) this.placeOf.set(view.facts.entries[k]!.id, k)
    for (const [id, hash] of hashes) this.hashes.set(id, hash)
    this.seq += view.facts.entries.length - from
  }

  /** Takes in what others wrote since: entries, visits, the kit. */
  async catchUp(db: Queries): Promise<void> {
    const frame = await loadFrame(db, this.view.facts.job.id)
    if (!frame) return
    const { entries, instruments, regime } = this.view.facts
    const isSameRegime = frame.regime.id === regime.id && frame.regime.version === regime.version
    const isSameKit = JSON.stringify(frame.instruments) === JSON.stringify(instruments)
    const facts: Facts = {
      ...frame,
      entries,
      regime: isSameRegime ? regime : frame.regime,
      instruments: isSameKit ? instruments : frame.instruments,
    }
    // Under other rules everything is asked anew.
    this.view = isSameRegime ? this.view.facing(facts) : Lookup.of(facts)
    await this.read(db)
  }

  private async read(db: Queries): Promise<void> {
    const placed: PlacedEntry[] = []
    for await (const page of entriesAfter(db, this.view.facts.job.id, this.seq)) placed.push(...page)
    const last = placed.at(-1)
    if (!last) return
    const hashes = new Map(placed.map((one) => [one.entry.id, one.bodyHash]))
    this.take(this.view.with(placed.map((one) => one.entry)), hashes)
    this.seq = last.seq
  }
}

const holder = globalThis as { upstandJobs?: Map<string, Promise<HeldJob | null>> }

/** A job as this process holds it; null where there is none. */
export async function heldJob(db: Queries, jobId: string): Promise<HeldJob | null> {
  holder.upstandJobs ??= new Map()
  const jobs = holder.upstandJobs
  const held = jobs.get(jobId) ?? HeldJob.load(db, jobId)
  // The job asked for last stands last.
  jobs.delete(jobId)
  jobs.set(jobId, held)
  const job = await held.catch(() => null)
  if (!job) {
    jobs.delete(jobId)
    return held
  }
  await forgetOldest(jobs)
  return job
}

async function forgetOldest(jobs: Map<string, Promise<HeldJob | null>>): Promise<void> {
  let entries = 0
  const newestFirst = [...jobs].reverse()
  for (const [k, [jobId, held]] of newestFirst.entries()) {
    entries += (await held.catch(() => null))?.seq ?? 0
    if (k > 0 && entries > MOST_ENTRIES) jobs.delete(jobId)
  }
}
