import { eq } from 'drizzle-orm'
import { database } from '@/server/db/client'
import { person } from '@/server/db/schema'
import { door, signedIn } from '@/server/door'

/** The company's people, for assigning them to a job. */
export const GET = door(async (request) => {
  await signedIn(request)
  const people = await database()
    .select({ id: person.id, name: person.name, role: person.role })
    .from(person)
    .where(eq(person.active, true))
  return Response.json({ people })
})
