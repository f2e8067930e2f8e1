import { timingSafeEqual } from 'node:crypto'
import { count } from 'drizzle-orm'
import { z } from 'zod'
import { database } from '@/server/db/client'
import { company, person } from '@/server/db/schema'
import { bodyOf, door, Refused } from '@/server/door'
import { env } from '@/server/env'
import { auth } from '@/server/people/auth'
import { addPerson } from '@/server/people/people'

export const dynamic = 'force-dynamic'

const schema = z.strictObject({
  code: z.string().max(20),
  company: z.string().trim().min(2).max(120),
  name: z.string().trim().min(2).max(80),
  email: z.email().max(200),
  password: z.string().min(10).max(128),
})

const isEmpty = async (): Promise<boolean> => ((await database().select({ n: count() }).from(person))[0]?.n ?? 0) === 0

/** Whether the company still waits for its first person. */
export const GET = door(async () => Response.json({ waiting: await isEmpty() }))

/** Wrong codes since this process started: a code of eight figures must not be guessed. */
let wrongCodes = 0
const MOST_WRONG_CODES = 20

/** Lets the first person in, by the code which the terminal shows. */
export const POST = door(async (request) => {
  const { code, company: firm, ...who } = await bodyOf(request, schema)
  if (!(await isEmpty())) throw new Refused(409, 'door.first-done')
  const expected = Buffer.from(env().UPSTAND_FIRST_CODE ?? '')
  const given = Buffer.from(code)
  const right = expected.length > 0 && expected.length === given.length && timingSafeEqual(expected, given)
  if (!right || wrongCodes >= MOST_WRONG_CODES) {
    wrongCodes++
    throw new Refused(403, 'door.first-code')
  }
  await database().update(company).set({ name: firm })
  await addPerson(database(), { ...who, role: 'supervisor' })
  return auth().api.signInEmail({
    body: { email: who.email, password: who.password },
    headers: request.headers,
    asResponse: true,
  })
})
