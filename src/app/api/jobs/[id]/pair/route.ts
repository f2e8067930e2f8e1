import { eq } from 'drizzle-orm'
import { z } from 'zod'
import { database } from '@/server/db/client'
import { instrument } from '@/server/db/schema'
import { bodyOf, door, memberIn, Refused } from '@/server/door'

type Context = { params: Promise<{ id: string }> }

/** Pairs an instrument with this job: it is in one place at a time. */
export const POST = door<Context>(async (request, { params }) => {
  const { id } = await params
  await memberIn(request, id, 'tester')
  const { instrumentId } = await bodyOf(request, z.strictObject({ instrumentId: z.uuid() }))
  const [found] = await database().select({ id: instrument.id }).from(instrument).where(eq(instrument.id, instrumentId))
  if (!found) throw new Refused(404, 'door.not-found')
  await database().update(instrument).set({ pairedJobId: id }).where(eq(instrument.id, instrumentId))
  return Response.json({ paired: instrumentId })
})
