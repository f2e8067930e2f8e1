/** The first person of a company, who comes in by the code that the terminal shows. */
import { timingSafeEqual } from 'node:crypto'
import { count } from 'drizzle-orm'
import type { Database, Queries } from '../db/client'
import { company, person } from '../db/schema'
import { Refused } from '../door'
import { env } from '../env'
import { writeAudit } from './audit'
import { addPersonIn, credentialsOf } from './people'

export async function isEmpty(db: Queries): Promise<boolean> {
  return ((await db.select({ n: count() }).from(person))[0]?.n ?? 0) === 0
}

/** Wrong codes since this process started: a code of eight figures must not be guessed. */
let wrongCodes = 0
const MOST_WRONG_CODES = 20

type First = { code: string; company: string; name: string; email: string; password: string }

/** @throws Refused where somebody is in already, or the code is wrong or was guessed at too often. */
export async function letFirstIn(db: Database, { code, company: firm, ...who }: First): Promise<void> {
  if (!(await isEmpty(db))) throw new Refused(409, 'door.first-done')
  if (wrongCodes >= MOST_WRONG_CODES) throw new Refused(429, 'door.first-locked')
  const expected = Buffer.from(env().UPSTAND_FIRST_CODE ?? '')
  const given = Buffer.from(code)
  if (expected.length === 0 || expected.length !== given.length || !timingSafeEqual(expected, given)) {
    wrongCodes++
    throw new Refused(403, 'door.first-code')
  }
  const credentials = await credentialsOf(who.password)
  await db.transaction(async (tx) => {
    // Of several at one moment the first holds the company's row; the others find somebody in.
    await tx.select({ id: company.id }).from(company).for('update')
    if (!(await isEmpty(tx))) throw new Refused(409, 'door.first-done')
    await tx.update(company).set({ name: firm })
    await addPersonIn(tx, { ...who, role: 'supervisor' }, credentials)
    await writeAudit(tx, who.name, 'first-person')
  })
}
