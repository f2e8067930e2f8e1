import { chargePointModelSchema } from '@/core/plant/part'
import { database, DUPLICATE_KEY, errnoOf } from '@/server/db/client'
import { chargePointModel } from '@/server/db/schema'
import { bodyOf, door, Refused, signedIn } from '@/server/door'

/** The company's models of charge point. */
export const GET = door(async (request) => {
  await signedIn(request)
  const rows = await database().select().from(chargePointModel)
  return Response.json({ chargePointModels: rows.map((row) => row.data) })
})

/** Adds a model to the library. Parts carry a copy, so the library changes no verdict. */
export const POST = door(async (request) => {
  const member = await signedIn(request)
  if (member.role === 'viewer') throw new Refused(403, 'door.no-right')
  const model = await bodyOf(request, chargePointModelSchema)
  try {
    await database().insert(chargePointModel).values({ id: model.id, data: model })
  } catch (error) {
    if (errnoOf(error) !== DUPLICATE_KEY) throw error
  }
  return Response.json({ id: model.id }, { status: 201 })
})
