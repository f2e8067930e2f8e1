import { database } from '@/server/db/client'
import { writeAudit } from '@/server/people/audit'
import { door, supervisor } from '@/server/door'
import { retire, tagOf } from '@/server/feed/tokens'

type Context = { params: Promise<{ id: string }> }

/** Takes an instrument out of the kit for good: lost, sold, broken. What was read with it stays as it is. */
export const POST = door<Context>(async (request, { params }) => {
  const { id } = await params
  const by = await supervisor(request)
  await database().transaction(async (db) => {
    await retire(db, id, new Date())
    await writeAudit(db, by.name, 'instrument-retired', { what: await tagOf(db, id) })
  })
  return Response.json({ retired: id })
})
