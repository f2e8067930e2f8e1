/** Lets a person in from the terminal: the way in when nobody can sign in. */
import { DUPLICATE_KEY, errnoOf, openDatabase } from '@/server/db/client'
import { roles } from '@/server/db/schema'
import { writeAudit } from '@/server/people/audit'
import { addPerson } from '@/server/people/people'
import { withDatabases } from './data'
import { asked } from './lib/ask'
import { Stop, say } from './lib/say'

export async function addUser(): Promise<number> {
  const answers = await asked([
    { text: 'Name: ' },
    { text: 'E-mail: ' },
    { text: `Role (${roles.join(', ')}): ` },
    { text: 'Password (10 characters or more): ', hidden: true },
  ])
  const [name = '', email = '', role = ''] = answers.map((one) => one.trim())
  const password = answers[3] ?? ''
  if (name.length < 2 || !/^\S+@\S+\.\S+$/.test(email)) throw new Stop('A name and an e-mail address are needed.')
  if (!(roles as readonly string[]).includes(role)) throw new Stop(`The role is one of ${roles.join(', ')}.`)
  if (password.length < 10) throw new Stop('The password needs 10 characters or more.')
  return withDatabases(async ({ appUrl }) => {
    const db = openDatabase(appUrl, 2)
    try {
      await addPerson(db, { name, email, role: role as (typeof roles)[number], password })
      await writeAudit(db, null, 'added-in-terminal', { person: name, role })
    } catch (error) {
      if (errnoOf(error) === DUPLICATE_KEY)
        throw new Stop(`Somebody signs in as ${email} already. Nothing was changed.`)
      throw error
    } finally {
      await db.close()
    }
    say(`${name} can sign in as ${email}.`)
    return 0
  })
}
