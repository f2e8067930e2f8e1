import { join, resolve } from 'node:path'

export const root = resolve(import.meta.dirname, '../..')
export const migrations = join(root, 'src/server/db/migrations')

/** Where one instance keeps what is its own: database, secrets, seal key, backups. */
export function placesIn(data: string) {
  return {
    data,
    mariadb: join(data, 'mariadb'),
    // A socket's path must be short; beside the data it can be too long.
    socket: join(data, 'db.sock'),
    log: join(data, 'mariadb.log'),
    // Never the machine's: a server that starts deletes the temporary tables it finds there, whoever uses them.
    temporary: join(data, 'temporary'),
    state: join(data, 'state.json'),
    secrets: join(data, 'secrets.json'),
    sealKey: join(data, 'seal-key.pem'),
    backups: join(data, 'backups'),
  }
}
export type Places = ReturnType<typeof placesIn>
export const ownPlaces = placesIn(process.env.UPSTAND_DATA ?? join(root, '.data'))
