import { moduleTypeSchema } from '@/core/plant/part'
import { database } from '@/server/db/client'
import { bodyOf, door, Refused, signedIn } from '@/server/door'
import { addModuleType, moduleTypes } from '@/server/library/moduleTypes'

/** The company's module library. */
export const GET = door(async (request) => {
  await signedIn(request)
  return Response.json({ moduleTypes: await moduleTypes(database()) })
})

/** Adds a type to the library. */
export const POST = door(async (request) => {
  const member = await signedIn(request)
  if (member.role === 'viewer') throw new Refused(403, 'door.no-right')
  const type = await bodyOf(request, moduleTypeSchema)
  await addModuleType(database(), type)
  return Response.json({ id: type.id }, { status: 201 })
})
