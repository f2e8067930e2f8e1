import '@/words/regime'
import { changeRegime, regimeChangeSchema } from '@/core/regime/change'
import { database, DUPLICATE_KEY, errnoOf } from '@/server/db/client'
import { regime } from '@/server/db/schema'
import { writeAudit } from '@/server/people/audit'
import { bodyOf, door, Refused, signedIn, supervisor } from '@/server/door'
import { allRegimes } from '@/server/jobs/regimes'
import { sayCode, type WordKey } from '@/words/say'

/** Every version of every regime. */
export const GET = door(async (request) => {
  await signedIn(request)
  return Response.json({ regimes: await allRegimes(database()) })
})

/** A further version, or a copy under another name. What is there already never changes. */
export const POST = door(async (request) => {
  const member = await supervisor(request)
  const change = await bodyOf(request, regimeChangeSchema)
  const made = changeRegime(await allRegimes(database()), change, member.name)
  if (made.state === 'refused') {
    const { state: _, code, ...rest } = made
    const figures = 'limit' in rest ? { ...rest, what: sayCode('limit', rest.limit) } : rest
    throw new Refused(422, `door.${code}` as WordKey, figures)
  }
  const { id, version } = made.regime
  try {
    await database().insert(regime).values({ id, version, data: made.regime })
  } catch (error) {
    if (errnoOf(error) === DUPLICATE_KEY) throw new Refused(409, 'door.regime-meanwhile')
    throw error
  }
  await writeAudit(database(), member.name, 'regime-made', { what: `${made.regime.name}, ${version}` })
  return Response.json({ regime: made.regime }, { status: 201 })
})
