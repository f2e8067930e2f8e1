import { z } from 'zod'
import { database } from '@/server/db/client'
import { bodyOf, door } from '@/server/door'
import { auth } from '@/server/people/auth'
import { isEmpty, letFirstIn } from '@/server/people/first'

export const dynamic = 'force-dynamic'

const schema = z.strictObject({
  code: z.string().max(20),
  company: z.string().trim().min(2).max(120),
  name: z.string().trim().min(2).max(80),
  email: z.email().max(200),
  password: z.string().min(10).max(128),
})

/** Whether the company still waits for its first person. */
export const GET = door(async () => Response.json({ waiting: await isEmpty(database()) }))

/** Lets the first person in, by the code which the terminal shows. */
export const POST = door(async (request) => {
  const wanted = await bodyOf(request, schema)
  await letFirstIn(database(), wanted)
  const { email, password } = wanted
  return auth().api.signInEmail({ body: { email, password }, headers: request.headers, asResponse: true })
})
