import { feedPostSchema } from '@/core/record/feed'
import { database } from '@/server/db/client'
import { bodyOf, door, Refused } from '@/server/door'
import { forgetOldSamples, ingest, refuseUnpaired } from '@/server/feed/ingest'
import { instrumentByToken } from '@/server/feed/tokens'

/** One post in about this many also forgets samples older than a day. */
const FORGET_ONE_IN = 500

/** Readings and conditions from an instrument, under its own token. */
export const POST = door(async (request) => {
  const token = /^Bearer (\S{10,100})$/.exec(request.headers.get('authorization') ?? '')?.[1]
  if (!token) throw new Refused(401, 'door.feed-token')
  const instrument = await instrumentByToken(database(), token)
  const post = await bodyOf(request, feedPostSchema, 32)
  if (post.instrument && post.instrument !== instrument.id) throw new Refused(403, 'door.feed-instrument')
  await refuseUnpaired(database(), instrument.id)
  const now = new Date()
  const taken = await ingest(database(), instrument, post.samples, now)
  if (Math.random() * FORGET_ONE_IN < 1) await forgetOldSamples(database(), now)
  return Response.json({ taken }, { status: 202 })
})
