import { database } from '@/server/db/client'
import { door, memberIn } from '@/server/door'
import { feedOf } from '@/server/feed/ingest'

type Context = { params: Promise<{ id: string }> }

/** Live samples of the instruments paired with this job, after a cursor. */
export const GET = door<Context>(async (request, { params }) => {
  const { id } = await params
  await memberIn(request, id, 'viewer')
  const after = new URL(request.url).searchParams.get('after')
  const cursor = after !== null && /^\d{1,15}$/.test(after) ? Number(after) : null
  return Response.json(await feedOf(database(), id, cursor, new Date()))
})
