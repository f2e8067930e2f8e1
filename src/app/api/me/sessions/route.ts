import { z } from 'zod'
import { database } from '@/server/db/client'
import { bodyOf, door, signedIn } from '@/server/door'
import { endSessions, sessionsOf } from '@/server/people/sessions'
import { sessionToken } from '@/server/people/whoAsks'

/** Where the signed-in person is signed in. */
export const GET = door(async (request) => {
  const { id } = await signedIn(request)
  return Response.json({ sessions: await sessionsOf(database(), id, sessionToken(request) ?? '') })
})

/** Ends one of their own sessions, or all others. */
export const POST = door(async (request) => {
  const { id } = await signedIn(request)
  const { end } = await bodyOf(request, z.strictObject({ end: z.union([z.literal('others'), z.string().max(36)]) }))
  const token = sessionToken(request) ?? ''
  await endSessions(database(), id, token, end)
  return Response.json({ sessions: await sessionsOf(database(), id, token) })
})
