import { z } from 'zod'
import { database } from '@/server/db/client'
import { writeAudit } from '@/server/people/audit'
import { bodyOf, door, supervisor } from '@/server/door'
import { changeKey, tagOf } from '@/server/feed/tokens'

type Context = { params: Promise<{ id: string }> }

const schema = z.strictObject({ give: z.boolean() })

/** Gives an instrument a new key to the feed, shown once, or takes its key back. */
export const POST = door<Context>(async (request, { params }) => {
  const { id } = await params
  const by = await supervisor(request)
  const { give } = await bodyOf(request, schema)
  const key = await database().transaction(async (db) => {
    const made = await changeKey(db, id, give, new Date())
    await writeAudit(db, by.name, give ? 'feed-key-given' : 'feed-key-taken', { what: await tagOf(db, id) })
    return made
  })
  return Response.json({ key }, { status: give ? 201 : 200 })
})
