import { z } from 'zod'
import { database } from '@/server/db/client'
import { bodyOf, door, memberIn } from '@/server/door'
import { appendEntries, MOST_IN_A_BATCH } from '@/server/jobs/appendEntries'

type Context = { params: Promise<{ id: string }> }
const LIMIT_kB = 1024

/** Takes a batch from a device's queue; the answer names each entry's fate. */
export const POST = door<Context>(async (request, { params }) => {
  const { id } = await params
  const member = await memberIn(request, id, 'tester')
  const { entries } = await bodyOf(
    request,
    z.strictObject({ entries: z.array(z.unknown()).min(1).max(MOST_IN_A_BATCH) }),
    LIMIT_kB,
  )
  const fates = await appendEntries(database(), id, member, entries)
  return Response.json({ fates, serverTime: new Date().toISOString() })
})
