import { z } from 'zod'
import { database } from '@/server/db/client'
import { idSchema } from '@/core/plant/part'
import { door, jsonOf, memberIn, Refused, shapeOf } from '@/server/door'
import { appendEntries, MOST_IN_A_BATCH } from '@/server/jobs/appendEntries'

type Context = { params: Promise<{ id: string }> }
const LIMIT_kB = 1024
const schema = z.strictObject({ personId: idSchema, entries: z.array(z.unknown()).min(1).max(MOST_IN_A_BATCH) })

/** Takes a batch from a device's queue, for the person who made it and nobody else; the answer names each entry's fate. */
export const POST = door<Context>(async (request, { params }) => {
  const { id } = await params
  const member = await memberIn(request, id, 'tester')
  const { personId, entries } = shapeOf(await jsonOf(request, LIMIT_kB), schema)
  if (personId !== member.id) throw new Refused(409, 'door.another-person', { name: member.name })
  const fates = await appendEntries(database(), id, member, entries)
  return Response.json({ fates, serverTime: new Date().toISOString() })
})
