/** Facts as a device fetches them: what is new to it, written out page by page while it is read from the database. */
import { and, eq } from 'drizzle-orm'
import type { Entry } from '@/core/record/entry'
import type { Facts } from '@/core/record/facts'
import type { Queries } from '../db/client'
import { entry, type Role } from '../db/schema'
import { canonicalHash } from '../seal/canonical'
import { entriesAfter, type Frame, loadFrame } from './facts'

/**
 * What a device has already: entries up to a place, with the id of the one that stood there, and all that is no entry under
 * its hash.
 */
type Asked = { right: Role; after: number | null; last: string | null; frame: string | null }

export type FactsAnswer = {
  right: Role
  /** True where only entries after the place asked for are in it. */
  partial: boolean
  serverTime: string
  /** Hash of all that is no entry. */
  frame: string
  /** The frame is left away where the device has it. */
  facts: Facts | { entries: Entry[] }
  /** The place of the last entry there is, and its id: ask after it the next time. */
  seq: number
  last: string | null
}

/** A FactsAnswer as JSON, streamed. Null: no such job. */
export async function factsStream(
  db: Queries,
  jobId: string,
  asked: Asked,
): Promise<ReadableStream<Uint8Array> | null> {
  const frame = await loadFrame(db, jobId)
  if (!frame) return null
  const isSameHistory = await stands(db, jobId, asked)
  const chunks = written(db, jobId, frame, isSameHistory ? asked : { ...asked, after: null, frame: null })
  const encoder = new TextEncoder()
  return new ReadableStream({
    async pull(controller) {
      const { done, value } = await chunks.next()
      if (done) controller.close()
      else controller.enqueue(encoder.encode(value))
    },
    async cancel() {
      await chunks.return(undefined)
    },
  })
}

/** Whether the entry that the device read last stands where it stood: in a restored database others may stand there. */
async function stands(db: Queries, jobId: string, { after, last }: Asked): Promise<boolean> {
  if (after === null || after === 0) return true
  const [row] = await db
    .select({ id: entry.id })
    .from(entry)
    .where(and(eq(entry.jobId, jobId), eq(entry.seq, after)))
  return row !== undefined && row.id === last
}

async function* written(
  db: Queries,
  jobId: string,
  frame: Frame,
  { right, after, last: lastKnown, frame: known }: Asked,
): AsyncGenerator<string, undefined> {
  const hash = canonicalHash(frame)
  const head = { right, partial: after !== null, serverTime: new Date().toISOString(), frame: hash }
  const own = JSON.stringify(hash === known ? {} : frame).slice(1, -1)
  yield `${JSON.stringify(head).slice(0, -1)},"facts":{${own}${own ? ',' : ''}"entries":[`
  let seq = after ?? 0
  let last = after ? lastKnown : null
  let isFirst = true
  for await (const page of entriesAfter(db, jobId, seq)) {
    const texts = page.map(({ entry }) => JSON.stringify(entry)).join(',')
    yield isFirst ? texts : `,${texts}`
    isFirst = false
    seq = page.at(-1)!.seq
    last = page.at(-1)!.entry.id
  }
  yield `]},"seq":${seq},"last":${JSON.stringify(last)}}`
  return undefined
}
