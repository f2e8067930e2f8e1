import { z } from 'zod'
import { database } from '@/server/db/client'
import { bodyOf, door } from '@/server/door'
import { auth } from '@/server/people/auth'
import { lookAt, useCode } from '@/server/people/invitations'
import { refuseGuesses } from '@/server/people/signInDoor'

export const dynamic = 'force-dynamic'

const schema = z.strictObject({ code: z.string().min(1).max(40), password: z.string().min(10).max(128).optional() })

/** A one-time code: without a password it is only looked at, with one it is used, and its person is signed in. */
export const POST = door(async (request) => {
  const { code, password } = await bodyOf(request, schema)
  const now = new Date()
  if (password === undefined) return Response.json(await refuseGuesses(request, () => lookAt(database(), code, now)))
  const email = await refuseGuesses(request, () => useCode(database(), code, password, now))
  return auth().api.signInEmail({ body: { email, password }, headers: request.headers, asResponse: true })
})
