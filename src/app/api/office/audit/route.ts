import { database } from '@/server/db/client'
import { door, supervisor } from '@/server/door'
import { auditLines } from '@/server/people/audit'

/** What was done in the company, the latest first; with `before`, what was done before that line. */
export const GET = door(async (request) => {
  await supervisor(request)
  const before = new URL(request.url).searchParams.get('before') ?? ''
  return Response.json({ lines: await auditLines(database(), /^\d{1,15}$/.test(before) ? Number(before) : null) })
})
