import { database } from '@/server/db/client'
import { door, signedIn } from '@/server/door'
import { isDemo } from '@/server/people/people'

/** Who is signed in. */
export const GET = door(async (request) => {
  const { id, name, role } = await signedIn(request)
  return Response.json({ id, name, role, demo: await isDemo(database()), serverTime: new Date().toISOString() })
})
