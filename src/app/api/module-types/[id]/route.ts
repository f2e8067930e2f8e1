import { moduleTypeSchema } from '@/core/plant/part'
import { database } from '@/server/db/client'
import { bodyOf, door, supervisor } from '@/server/door'
import { correctModuleType } from '@/server/library/moduleTypes'

type Context = { params: Promise<{ id: string }> }

/** Corrects a type of the library. */
export const POST = door<Context>(async (request, { params }) => {
  const { id } = await params
  const by = await supervisor(request)
  await correctModuleType(database(), id, await bodyOf(request, moduleTypeSchema), by.name)
  return Response.json({ id })
})
