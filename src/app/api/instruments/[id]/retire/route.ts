import { database } from '@/server/db/client'
import { door, supervisor } from '@/server/door'
import { retire } from '@/server/feed/tokens'

type Context = { params: Promise<{ id: string }> }

/** Takes an instrument out of the kit for good: lost, sold, broken. What was read with it stays as it is. */
export const POST = door<Context>(async (request, { params }) => {
  const { id } = await params
  await supervisor(request)
  await database().transaction((db) => retire(db, id, new Date()))
  return Response.json({ retired: id })
})
