/** Facts as a device fetches them: what is new to it, written out page by page while it is read from the database. */
import type { Entry } from '@/core/record/entry'
import type { Facts } from '@/core/record/facts'
import type { Queries } from '../db/client'
import type { Role } from '../db/schema'
import { canonicalHash } from '../seal/canonical'
import { entriesAfter, type Frame, loadFrame } from './facts'

/** What a device has already: entries up to a place, and all that is no entry under its hash. */
type Asked = { right: Role; after: number | null; frame: string | null }

export type FactsAnswer = {
  right: Role
  /** True where only entries after the place asked for are in it. */
  partial: boolean
  serverTime: string
  /** Hash of all that is no entry. */
  frame: string
  /** The frame is left away where the device has it. */
  facts: Facts | { entries: Entry[] }
  /** The place of the last entry there is: ask after it the next time. */
  seq: number
}

/** A FactsAnswer as JSON, streamed. Null: no such job. */
export async function factsStream(
  db: Queries,
  jobId: string,
  asked: Asked,
): Promise<ReadableStream<Uint8Array> | null> {
  const frame = await loadFrame(db, jobId)
  if (!frame) return null
  const chunks = written(db, jobId, frame, asked)
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

async function* written(
  db: Queries,
  jobId: string,
  frame: Frame,
  { right, after, frame: known }: Asked,
): AsyncGenerator<string, undefined> {
  const hash = canonicalHash(frame)
  const head = { right, partial: after !== null, serverTime: new Date().toISOString(), frame: hash }
  const own = JSON.stringify(hash === known ? {} : frame).slice(1, -1)
  yield `${JSON.stringify(head).slice(0, -1)},"facts":{${own}${own ? ',' : ''}"entries":[`
  let seq = after ?? 0
  let isFirst = true
  for await (const page of entriesAfter(db, jobId, seq)) {
    const texts = page.map(({ entry }) => JSON.stringify(entry)).join(',')
    yield isFirst ? texts : `,${texts}`
    isFirst = false
    seq = page.at(-1)!.seq
  }
  yield `]},"seq":${seq}}`
  return undefined
}
