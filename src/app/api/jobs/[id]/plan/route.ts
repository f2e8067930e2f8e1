import { database } from '@/server/db/client'
import { bodyOf, door, memberIn } from '@/server/door'
import { planJob, planSchema } from '@/server/jobs/planJob'

type Context = { params: Promise<{ id: string }> }

/** A supervisor says when a job is wanted, or takes it out of the lists and back. */
export const POST = door<Context>(async (request, { params }) => {
  const { id } = await params
  const by = await memberIn(request, id, 'supervisor')
  await planJob(database(), by.name, id, await bodyOf(request, planSchema))
  return Response.json({ done: true })
})
