import { z } from 'zod'
import { database } from '@/server/db/client'
import { idSchema } from '@/core/plant/part'
import { door, jsonOf, memberWithKit, Refused, shapeOf } from '@/server/door'
import { appendEntries, type Batch, MOST_IN_A_BATCH, readBatch, toolsIn } from '@/server/jobs/appendEntries'
import { sessionToken } from '@/server/people/whoAsks'

type Context = { params: Promise<{ id: string }> }
const LIMIT_kB = 1024
const schema = z.strictObject({ personId: idSchema, entries: z.array(z.unknown()).min(1).max(MOST_IN_A_BATCH) })

/** Takes a batch from a device's queue, for the person who made it and nobody else; the answer names each entry's fate. */
export const POST = door<Context>(async (request, { params }) => {
  const { id } = await params
  // Read before the database is asked, so that it is asked once: who it is, and for the instruments that are named. What
  // is wrong with it is told to those only who may write here.
  const sent = sessionToken(request) === null ? null : await sentIn(request)
  const tools = sent && 'batch' in sent ? toolsIn(sent.batch) : []
  const { member, kit } = await memberWithKit(request, id, 'tester', tools)
  if (!sent || 'wrong' in sent) throw sent?.wrong ?? new Refused(401, 'door.sign-in-first')
  if (sent.personId !== member.id) throw new Refused(409, 'door.another-person', { name: member.name })
  const fates = await appendEntries(database(), id, member, sent.batch, kit)
  return Response.json({ fates, serverTime: new Date().toISOString() })
})

type Sent = { personId: string; batch: Batch } | { wrong: unknown }

async function sentIn(request: Request): Promise<Sent> {
  try {
    const { personId, entries } = shapeOf(await jsonOf(request, LIMIT_kB), schema)
    return { personId, batch: readBatch(entries) }
  } catch (wrong) {
    return { wrong }
  }
}
