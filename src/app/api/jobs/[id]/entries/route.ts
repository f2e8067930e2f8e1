import { z } from 'zod'
import { database } from '@/server/db/client'
import { idSchema } from '@/core/plant/part'
import { door, jsonOf, memberWithKit, Refused, shapeOf } from '@/server/door'
import {
  appendEntries,
  appendWhere,
  type Batch,
  type Fate,
  MOST_IN_A_BATCH,
  readBatch,
  toolsIn,
} from '@/server/jobs/appendEntries'
import { remember, standingBefore, stillStands } from '@/server/people/standing'
import { sessionToken } from '@/server/people/whoAsks'

type Context = { params: Promise<{ id: string }> }
const LIMIT_kB = 1024
const schema = z.strictObject({ personId: idSchema, entries: z.array(z.unknown()).min(1).max(MOST_IN_A_BATCH) })

/** Takes a batch from a device's queue, for the person who made it and nobody else; the answer names each entry's fate. */
export const POST = door<Context>(async (request, { params }) => {
  const { id } = await params
  // Read before the database is asked, so that it is asked once: who it is, and for the instruments that are named. What
  // is wrong with it is told to those only who may write here.
  const token = sessionToken(request)
  if (token === null) throw new Refused(401, 'door.sign-in-first')
  const sent = await sentIn(request)
  const tools = 'batch' in sent ? toolsIn(sent.batch) : []
  const fates = (await savedAsBefore(request, token, id, sent, tools)) ?? (await saved(request, token, id, sent, tools))
  return Response.json({ fates, serverTime: new Date().toISOString() })
})

async function saved(request: Request, token: string, id: string, sent: Sent, tools: string[]): Promise<Fate[]> {
  const { member, kit, renewedAt } = await memberWithKit(request, id, 'tester', tools)
  if ('wrong' in sent) throw sent.wrong
  if (sent.personId !== member.id) throw new Refused(409, 'door.another-person', { name: member.name })
  remember(id, { token, member, kit, renewedAt })
  return appendEntries(database(), id, member, sent.batch, kit)
}

/** In one statement, where the save before came from the same person and instruments; null where all has to be asked anew. */
async function savedAsBefore(
  request: Request,
  token: string,
  id: string,
  sent: Sent,
  tools: string[],
): Promise<Fate[] | null> {
  const before = standingBefore(request, token, id, tools)
  if (!before || 'wrong' in sent || sent.personId !== before.member.id) return null
  const stands = stillStands(before, id, tools)
  return appendWhere(database(), id, before.member, sent.batch, before.kit, stands)
}

type Sent = { personId: string; batch: Batch } | { wrong: unknown }

async function sentIn(request: Request): Promise<Sent> {
  try {
    const { personId, entries } = shapeOf(await jsonOf(request, LIMIT_kB), schema)
    return { personId, batch: readBatch(entries) }
  } catch (wrong) {
    return { wrong }
  }
}
