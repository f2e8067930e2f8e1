import { z } from 'zod'
import { database } from '@/server/db/client'
import { bodyOf, door, supervisor } from '@/server/door'
import { changeKey } from '@/server/feed/tokens'

type Context = { params: Promise<{ id: string }> }

const schema = z.strictObject({ give: z.boolean() })

/** Gives an instrument a new key to the feed, shown once, or takes its key back. */
export const POST = door<Context>(async (request, { params }) => {
  const { id } = await params
  await supervisor(request)
  const { give } = await bodyOf(request, schema)
  const key = await database().transaction((db) => changeKey(db, id, give, new Date()))
  return Response.json({ key }, { status: give ? 201 : 200 })
})
