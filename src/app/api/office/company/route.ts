import { companySchema } from '@/core/record/company'
import { changeCompany, companyOf } from '@/server/company/company'
import { database } from '@/server/db/client'
import { bodyOf, door, signedIn, supervisor } from '@/server/door'

/** The company's particulars. */
export const GET = door(async (request) => {
  await signedIn(request)
  return Response.json(await companyOf(database()))
})

/** Writes them anew. */
export const POST = door(async (request) => {
  const by = await supervisor(request)
  const next = await bodyOf(request, companySchema)
  await changeCompany(database(), next, by.name)
  return Response.json(next)
})
