import { z } from 'zod'
import { idSchema } from '@/core/plant/part'
import { database } from '@/server/db/client'
import { roles } from '@/server/db/schema'
import { bodyOf, door, supervisor } from '@/server/door'
import { giveReset, invite, pending, withdraw } from '@/server/people/invitations'
import { peopleOf, setActive, setRole } from '@/server/people/office'

const schema = z.discriminatedUnion('do', [
  z.strictObject({
    do: z.literal('invite'),
    name: z.string().trim().min(2).max(80),
    email: z.email().max(200),
    role: z.enum(roles),
  }),
  z.strictObject({ do: z.literal('withdraw'), invitation: idSchema }),
  z.strictObject({ do: z.literal('role'), person: idSchema, role: z.enum(roles) }),
  z.strictObject({ do: z.literal('active'), person: idSchema, active: z.boolean() }),
  z.strictObject({ do: z.literal('reset'), person: idSchema }),
])

const everybody = async () => ({
  people: await peopleOf(database()),
  pending: await pending(database(), new Date()),
})

/** Everybody of the company, and codes that wait for their people. */
export const GET = door(async (request) => {
  await supervisor(request)
  return Response.json(await everybody())
})

/** What a supervisor does about people. A code that is given is in the answer, and nowhere else ever again. */
export const POST = door(async (request) => {
  const by = await supervisor(request)
  const wanted = await bodyOf(request, schema)
  const [db, now] = [database(), new Date()]
  switch (wanted.do) {
    case 'invite': {
      const { name, email, role } = wanted
      const given = await invite(db, by, { name, email, role }, now)
      return Response.json({ ...(await everybody()), given })
    }
    case 'reset': {
      const given = await giveReset(db, by, wanted.person, now)
      return Response.json({ ...(await everybody()), given })
    }
    case 'withdraw':
      await withdraw(db, by, wanted.invitation, now)
      break
    case 'role':
      await setRole(db, by, wanted.person, wanted.role)
      break
    case 'active':
      await setActive(db, by, wanted.person, wanted.active)
      break
  }
  return Response.json(await everybody())
})
