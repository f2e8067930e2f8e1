/** Backups of versions before the one checked file were SQL: such a file is loaded where it can reach nothing. */
import { readFile } from 'node:fs/promises'
import mysql from 'mysql2/promise'
import { countsOf } from '@/server/backup/rows'
import { writeBackup } from './backups'
import { Databases } from './databases'
import type { Mariadb } from './mariadb'
import type { Places } from './paths'
import { run } from './run'
import { Stop } from './say'
import type { Secrets } from './state'

export const isDump = (file: string): boolean => file.endsWith('.sql')

/**
 * Makes a backup of this version's form from a dump. The dump runs in a database of its own, as a user who may nothing
 * elsewhere, in a client that runs no command of the shell; only rows of known tables are taken from there.
 * @returns the new backup's path
 */
export async function fromDump(places: Places, server: Mariadb, secrets: Secrets, file: string): Promise<string> {
  const dump = await readFile(file, 'utf8')
  if (!/^-- Dump completed/m.test(dump.slice(-200)))
    throw new Stop('This dump is cut off: its last line is missing. Nothing was touched.')
  const own = dump.replace(/\/\*!\d+ DEFINER=`[^`]*`@`[^`]*`\s*\*\//g, '')
  return Databases.use(places, server, secrets, async (databases) => {
    const { made } = await databases.inFresh(async ({ name, adminUrl }) => {
      await databases.guest(name, 'ALL PRIVILEGES', async (as) => {
        const args = ['--no-defaults', '--sandbox', '--host=127.0.0.1', `--port=${as.port}`, `--user=${as.user}`, name]
        const loaded = await run('mariadb', args, { input: own, env: { ...process.env, MYSQL_PWD: as.password } })
        if (loaded.code !== 0) throw new Stop(`The dump cannot be read: ${loaded.output.trim().split('\n').at(-1)}`)
      })
      await refuseEmpty(adminUrl)
      return (await writeBackup(places, adminUrl, secrets, 'asked', null)).file
    }, false)
    return made
  })
}

async function refuseEmpty(adminUrl: string): Promise<void> {
  const connection = await mysql.createConnection(adminUrl)
  try {
    const { company = 0 } = await countsOf(connection)
    if (company === 0) throw new Stop('This dump holds no company of Upstand. Nothing was touched.')
  } finally {
    await connection.end()
  }
}
