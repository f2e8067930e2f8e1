/** How a demo job is signed by whoever tested and whoever checked, and sealed. */
import { evaluate } from '@/core/evaluate'
import { type ReviewItem, reviewOf } from '@/core/evaluation/review'
import { coverHash } from '@/core/record/signature'
import type { Database } from '../db/client'
import { entriesOf, loadFacts } from '../jobs/facts'
import type { Author } from '../jobs/refusals'
import { sealJob } from '../seal/sealJob'
import type { DemoJob } from './demoJob'

export type Firm = { tester: Author; checker: Author }

const MINUTE_ms = 60_000

/** @param words what is said of a matter that wants words before it is signed */
export async function signAndSeal(
  db: Database,
  job: DemoJob,
  jobId: string,
  { tester, checker }: Firm,
  sealedAt: Date,
  words: (item: ReviewItem) => string,
): Promise<void> {
  for (const [author, role, statement] of [
    [tester, 'tested', 'I took these readings and they are as they were shown.'],
    [checker, 'checked', 'I checked this record.'],
  ] as const) {
    const coversHash = coverHash(await entriesOf(db, jobId))
    const facts = await loadFacts(db, jobId)
    const items = reviewOf(evaluate(facts!, sealedAt.getTime()), (at) => new Date(at).toISOString().slice(0, 10))
    const review = items.map((item) => ({ of: item.id, text: item.wantsWords ? words(item) : '' }))
    job.wait(5 * MINUTE_ms)
    job.add({ kind: 'signature', v: 1, role, printedName: author.name, statement, coversHash, review })
    await job.save(author)
  }
  await sealJob(db, jobId, checker, sealedAt)
}
