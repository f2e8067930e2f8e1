import { z } from 'zod'
import { demoPeople } from '@/server/demo/people'
import { bodyOf, door, Refused } from '@/server/door'
import { auth } from '@/server/people/auth'
import { refuseUnlessDemo } from '@/server/people/demoDoor'
import { demoPassword } from '@/server/people/people'

export const POST = door(async (request) => {
  await refuseUnlessDemo(request)
  const { id } = await bodyOf(request, z.strictObject({ id: z.uuid() }))
  const who = demoPeople.find((one) => one.id === id)
  if (!who) throw new Refused(404, 'door.not-found')
  return auth().api.signInEmail({
    body: { email: who.email, password: demoPassword(who.email) },
    headers: request.headers,
    asResponse: true,
  })
})
