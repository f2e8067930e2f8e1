import { z } from 'zod'
import { idSchema } from '@/core/plant/part'
import { database } from '@/server/db/client'
import { bodyOf, door, memberIn } from '@/server/door'
import { setWorksOn, worksOn } from '@/server/people/office'

type Context = { params: Promise<{ id: string }> }

/** Who works on a job, and since when. */
export const GET = door<Context>(async (request, { params }) => {
  const { id } = await params
  await memberIn(request, id, 'viewer')
  return Response.json({ people: await worksOn(database(), id) })
})

/** A supervisor lets somebody work on it, or no longer. */
export const POST = door<Context>(async (request, { params }) => {
  const { id } = await params
  const by = await memberIn(request, id, 'supervisor')
  const { person, works } = await bodyOf(request, z.strictObject({ person: idSchema, works: z.boolean() }))
  await setWorksOn(database(), by, id, person, works)
  return Response.json({ people: await worksOn(database(), id) })
})
