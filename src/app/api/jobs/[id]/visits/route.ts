import { z } from 'zod'
import { idSchema } from '@/core/plant/part'
import { database } from '@/server/db/client'
import { bodyOf, door, memberIn } from '@/server/door'
import { beginVisit } from '@/server/jobs/visits'

type Context = { params: Promise<{ id: string }> }
const schema = z.strictObject({ id: idSchema, title: z.string().trim().max(80) })

/** Begins a visit: what belongs to the last one, such as nulled leads, ends with it. */
export const POST = door<Context>(async (request, { params }) => {
  const { id } = await params
  await memberIn(request, id, 'tester')
  const wanted = await bodyOf(request, schema)
  return Response.json({ visit: await beginVisit(database(), id, wanted, new Date()) }, { status: 201 })
})
