import { comparisonMadeSchema } from '@/core/regime/comparison'
import { comparisons, compareSource } from '@/server/company/sourceChecks'
import { database } from '@/server/db/client'
import { bodyOf, door, signedIn, supervisor } from '@/server/door'

/** Which sources were held against their documents. */
export const GET = door(async (request) => {
  await signedIn(request)
  return Response.json({ compared: await comparisons(database()) })
})

/** Somebody holds the document: what it says of this. Earlier comparisons stay. */
export const POST = door(async (request) => {
  const { name } = await supervisor(request)
  const made = await bodyOf(request, comparisonMadeSchema)
  return Response.json(await compareSource(database(), made, name, new Date()), { status: 201 })
})
