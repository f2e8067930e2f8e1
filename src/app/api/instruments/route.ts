import { eq } from 'drizzle-orm'
import { database } from '@/server/db/client'
import { instrument } from '@/server/db/schema'
import { writeAudit } from '@/server/people/audit'
import { bodyOf, door, Refused, signedIn, supervisor } from '@/server/door'
import { instrumentSchema } from '@/core/record/instrument'

/** The company's kit. */
export const GET = door(async (request) => {
  await signedIn(request)
  const rows = await database().select({ data: instrument.data }).from(instrument).where(eq(instrument.retired, false))
  return Response.json({ instruments: rows.map((row) => row.data) })
})

/** Adds an instrument to the kit, or changes its line. Readings carry a copy of their own, so no verdict changes. */
export const POST = door(async (request) => {
  const by = await supervisor(request)
  const wanted = await bodyOf(request, instrumentSchema)
  const all = await database().select().from(instrument)
  const known = all.find((one) => one.id === wanted.id)
  if (known?.retired) throw new Refused(409, 'door.instrument-retired')
  const kit = all.filter((one) => !one.retired)
  if (kit.some((one) => one.id !== wanted.id && one.data.tag === wanted.tag))
    throw new Refused(409, 'door.instrument-tag', { tag: wanted.tag })
  // Whether it is simulated is no matter of what somebody types.
  const data = { ...wanted, standIn: known?.standIn ?? false }
  if (known) await database().update(instrument).set({ data }).where(eq(instrument.id, wanted.id))
  else await database().insert(instrument).values({ id: wanted.id, data, standIn: false })
  await writeAudit(database(), by.name, 'instrument-kept', { what: wanted.tag })
  return Response.json({ id: wanted.id }, { status: known ? 200 : 201 })
})
