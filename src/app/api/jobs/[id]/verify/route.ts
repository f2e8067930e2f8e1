import { database } from '@/server/db/client'
import { door, memberIn } from '@/server/door'
import { verifyJob } from '@/server/seal/verifyJob'

type Context = { params: Promise<{ id: string }> }

/** Whether every seal of the job is whole, and the database still holds what was sealed. */
export const GET = door<Context>(async (request, { params }) => {
  const { id } = await params
  await memberIn(request, id, 'viewer')
  return Response.json(await verifyJob(database(), id))
})
