import { database } from '@/server/db/client'
import { door, supervisor } from '@/server/door'
import { retireModuleType } from '@/server/library/moduleTypes'

type Context = { params: Promise<{ id: string }> }

/** Takes a type out of the library. */
export const POST = door<Context>(async (request, { params }) => {
  const { id } = await params
  const by = await supervisor(request)
  await retireModuleType(database(), id, by.name)
  return Response.json({ retired: id })
})
