import { database } from '@/server/db/client'
import { bodyOf, door, memberIn } from '@/server/door'
import { moveRegime, moveSchema } from '@/server/jobs/moveRegime'

type Context = { params: Promise<{ id: string }> }

/** A supervisor moves a job to a newer version of its regime, with a reason. */
export const POST = door<Context>(async (request, { params }) => {
  const { id } = await params
  const by = await memberIn(request, id, 'supervisor')
  await moveRegime(database(), by, id, await bodyOf(request, moveSchema), new Date())
  return Response.json({ done: true })
})
