import { database } from '@/server/db/client'
import { demoPeople } from '@/server/demo/people'
import { door, signedIn } from '@/server/door'
import { isDemo } from '@/server/people/people'

/** Who is signed in. */
export const GET = door(async (request) => {
  const { id, name, role } = await signedIn(request)
  const demo = await isDemo(database())
  const oneTap = demo && demoPeople.some((one) => one.id === id)
  return Response.json({ id, name, role, demo, oneTap, serverTime: new Date().toISOString() })
})
