import { z } from 'zod'
import { database } from '@/server/db/client'
import { bodyOf, door, memberIn } from '@/server/door'
import { pair } from '@/server/feed/pair'

type Context = { params: Promise<{ id: string }> }

/** Pairs an instrument with this job: it is in one place at a time. */
export const POST = door<Context>(async (request, { params }) => {
  const { id } = await params
  const member = await memberIn(request, id, 'tester')
  const { instrumentId } = await bodyOf(request, z.strictObject({ instrumentId: z.uuid() }))
  await pair(database(), member, id, instrumentId, new Date())
  return Response.json({ paired: instrumentId })
})
