/** Database servers that run on a data folder: found among the processes of this machine, and asked who they are. */
import { readdir, readFile } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import mysql from 'mysql2/promise'
import type { Places } from './paths'
import type { Secrets } from './state'

const ANSWER_MS = 2000
const LONGEST_SOCKET_PATH = 100

export const socketOf = (places: Places): string =>
  places.socket.length < LONGEST_SOCKET_PATH
    ? places.socket
    : join(tmpdir(), `upstand-${Buffer.from(places.data).toString('hex').slice(-24)}.sock`)

/** The processes that serve this very folder, whether they answer already or not. */
export async function serversOn(places: Places): Promise<number[]> {
  const found: number[] = []
  for (const name of await readdir('/proc').catch(() => [])) {
    if (!/^\d+$/.test(name)) continue
    const command = (await readFile(`/proc/${name}/cmdline`, 'utf8').catch(() => '')).split('\0')
    if (command.includes(`--datadir=${places.mariadb}`) && command.includes(`--socket=${socketOf(places)}`))
      found.push(Number(name))
  }
  return found
}

/** What the server behind the folder's socket says: its port, which is nowhere else for sure; `refused` with other secrets. */
export async function asked(places: Places, secrets: Secrets): Promise<{ port: number } | 'refused' | 'silent'> {
  let connection: mysql.Connection | null = null
  try {
    connection = await mysql.createConnection({
      socketPath: socketOf(places),
      user: 'root',
      password: secrets.rootPassword,
      connectTimeout: ANSWER_MS,
    })
    // A server that is about to end may take the question and never answer it.
    const [rows] = await connection.query({ sql: 'SELECT @@datadir AS datadir, @@port AS port', timeout: ANSWER_MS })
    const [self] = rows as { datadir: string; port: number }[]
    return self && self.datadir.replace(/\/$/, '') === places.mariadb ? { port: self.port } : 'refused'
  } catch (error) {
    return (error as { code?: string }).code === 'ER_ACCESS_DENIED_ERROR' ? 'refused' : 'silent'
  } finally {
    connection?.destroy()
  }
}

/** Whether the folder's own server answers. */
export const isAnswering = async (places: Places, secrets: Secrets): Promise<boolean> =>
  typeof (await asked(places, secrets)) !== 'string'
