import { database } from '@/server/db/client'
import { door, memberIn, Refused } from '@/server/door'
import { factsStream } from '@/server/jobs/factsStream'

type Context = { params: Promise<{ id: string }> }

/**
 * The facts bundle of a job, as it is read from the database. With `after` and the
 * id of the entry there as `last`, only the entries kept after that place; with `frame`, what is known besides entries only where it is another than the device has.
 */
export const GET = door<Context>(async (request, { params }) => {
  const { id } = await params
  const { right } = await memberIn(request, id, 'viewer')
  const asked = new URL(request.url).searchParams
  const after = /^\d{1,9}$/.test(asked.get('after') ?? '') ? Number(asked.get('after')) : null
  const body = await factsStream(database(), id, { right, after, last: asked.get('last'), frame: asked.get('frame') })
  if (!body) throw new Refused(404, 'door.not-found')
  return new Response(body, { headers: { 'content-type': 'application/json' } })
})
