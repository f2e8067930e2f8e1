import { existsSync } from 'node:fs'
import { readFile } from 'node:fs/promises'
import { createInterface } from 'node:readline/promises'
import { openDatabase } from '@/server/db/client'
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

export async function addUser(): Promise<number> {
  const ask = createInterface({ input: process.stdin, output: process.stdout })
  const name = (await ask.question('Name: ')).trim()
  const email = (await ask.question('E-mail: ')).trim()
  const role = (await ask.question(`Role (${roles.join(', ')}): `)).trim() as (typeof roles)[number]
  const password = await ask.question('Password (10 characters or more): ')
  ask.close()
  if (name.length < 2 || !/^\S+@\S+\.\S+$/.test(email)) throw new Stop('A name and an e-mail address are needed.')
  if (!roles.includes(role)) throw new Stop(`The role is one of ${roles.join(', ')}.`)
  if (password.length < 10) throw new Stop('The password needs 10 characters or more.')
  return withDatabases(async ({ appUrl }) => {
    const db = openDatabase(appUrl, 2)
    await addPerson(db, { name, email, role, password })
    await db.close()
    say(`${name} can sign in as ${email}.`)
    return 0
  })
}
