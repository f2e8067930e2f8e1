import { demoPeople } from '@/server/demo/people'
import { door } from '@/server/door'
import { refuseUnlessDemo } from '@/server/people/demoDoor'

export const dynamic = 'force-dynamic'

/** The demo people who can sign in by one tap. */
export const GET = door(async (request) => {
  await refuseUnlessDemo(request)
  return Response.json(demoPeople.map(({ id, name, role }) => ({ id, name, role })))
})
