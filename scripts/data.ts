import { existsSync } from 'node:fs'
import { readFile } from 'node:fs/promises'
import { createInterface } from 'node:readline'
import { DUPLICATE_KEY, errnoOf, openDatabase } from '@/server/db/client'
import { roles } from '@/server/db/schema'
import { addPerson } from '@/server/people/people'
import { openDatabases } from './lib/instance'
import { backUp, DATABASE } from './lib/mariadb'
import { ownPlaces } from './lib/paths'
import { run } from './lib/run'
import { Stop, say, step } from './lib/say'

export async function withDatabases<T>(
  work: (databases: Awaited<ReturnType<typeof openDatabases>>) => Promise<T>,
): Promise<T> {
  const databases = await openDatabases(ownPlaces)
  try {
    return await work(databases)
  } finally {
    // Who did not start it does not stop it: somebody works on it.
    if (databases.own?.startedHere) await databases.own.stop()
  }
}

const NOT_PRIVATE = 'This works on the private database only. DATABASE_URL names another server: use its own tools.'

export async function backup(): Promise<number> {
  return withDatabases(async ({ own, secrets }) => {
    if (!own) throw new Stop(NOT_PRIVATE)
    say(`Backup written: ${await backUp(ownPlaces, own, secrets)}`)
    return 0
  })
}

export async function restore(file: string | undefined): Promise<number> {
  if (!file || !existsSync(file)) throw new Stop(`Name the backup to put back; they stand in ${ownPlaces.backups}.`)
  return withDatabases(async ({ own, secrets }) => {
    if (!own) throw new Stop(NOT_PRIVATE)
    say(`What is there now is kept in ${await backUp(ownPlaces, own, secrets)}`)
    const dump = await readFile(file, 'utf8')
    const client = (input: string) =>
      run('mariadb', ['--no-defaults', `--socket=${own.socket}`, '--user=root', DATABASE], {
        input,
        env: { ...process.env, MYSQL_PWD: secrets.rootPassword },
      })
    await step('Putting the backup back', async () => {
      const restored = await client(dump)
      if (restored.code !== 0)
        throw new Stop(`The backup was not put back whole: ${restored.output.trim().split('\n').at(-1)}`)
    })
    return 0
  })
}

/** Asks one thing after another, in a terminal or of a pipe; a pipe that ends too early says what was missing. */
async function asked(questions: readonly string[]): Promise<string[]> {
  const lines = createInterface({ input: process.stdin, output: process.stdin.isTTY ? process.stdout : undefined })
  const answers: string[] = []
  lines.setPrompt(questions[0]!)
  lines.prompt()
  for await (const line of lines) {
    answers.push(line)
    const next = questions[answers.length]
    if (next === undefined) break
    lines.setPrompt(next)
    lines.prompt()
  }
  lines.close()
  const missing = questions[answers.length]
  if (missing !== undefined) throw new Stop(`Nothing was added: no answer came to “${missing.trim()}”`)
  return answers
}

export async function addUser(): Promise<number> {
  const answers = await asked([
    'Name: ',
    'E-mail: ',
    `Role (${roles.join(', ')}): `,
    'Password (10 characters or more; it is shown while you type): ',
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
