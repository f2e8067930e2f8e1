import { moduleTypeSchema } from '@/core/plant/part'
import { database, DUPLICATE_KEY, errnoOf } from '@/server/db/client'
import { moduleType } from '@/server/db/schema'
import { bodyOf, door, Refused, signedIn } from '@/server/door'

/** The company's module library. */
export const GET = door(async (request) => {
  await signedIn(request)
  const rows = await database().select().from(moduleType)
  return Response.json({ moduleTypes: rows.map((row) => row.data) })
})

/** Adds a type to the library. Parts carry a copy, so the library changes no verdict. */
export const POST = door(async (request) => {
  const member = await signedIn(request)
  if (member.role === 'viewer') throw new Refused(403, 'door.no-right')
  const type = await bodyOf(request, moduleTypeSchema)
  try {
    await database().insert(moduleType).values({ id: type.id, data: type })
  } catch (error) {
    if (errnoOf(error) !== DUPLICATE_KEY) throw error
  }
  return Response.json({ id: type.id }, { status: 201 })
})
