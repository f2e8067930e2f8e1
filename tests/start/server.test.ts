import { existsSync } from 'node:fs'
import { writeFile } from 'node:fs/promises'
import { join } from 'node:path'
import type { RowDataPacket } from 'mysql2'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { openDatabases } from '../../scripts/lib/instance'
import { type Mariadb, startMariadb } from '../../scripts/lib/mariadb'
import type { Places } from '../../scripts/lib/paths'
import { serversOn } from '../../scripts/lib/serverProcess'
import { ensureSecrets, readState } from '../../scripts/lib/state'
import { inside, ranOn, Shelf, upstand } from '../support/dataFolder'

let shelf: Shelf
let office: Places
beforeAll(async () => {
  shelf = await Shelf.make()
  office = await shelf.places()
  await ranOn(office, ['seal-key'])
})
afterAll(() => shelf.clear())

const serve = async (places: Places): Promise<Mariadb> => startMariadb(places, await ensureSecrets(places))
const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms))

describe('two servers on one machine', () => {
  it('keep their temporary tables apart: one that starts deletes those it finds in its folder', async () => {
    const places = await shelf.places(office)
    const first = await serve(places)
    const [rows] = await inside(places, (owner) => owner.query<RowDataPacket[]>('SELECT @@tmpdir AS folder'))
    const inUse = join(String(rows[0]!.folder), '#sql-temptable-inuse-1-1.MAI')
    await writeFile(inUse, '')
    const second = await serve(await shelf.places(office))
    try {
      expect(existsSync(inUse)).toBe(true)
    } finally {
      await second.stop()
      await first.stop()
    }
  })
})

describe('the server that a killed command left running', () => {
  it('is reached at its own port, whatever was written down, and not a copy of the folder that runs beside it', async () => {
    const beside = await shelf.places(office)
    const places = await shelf.places(office)
    const other = await serve(beside)
    await inside(beside, (owner) => owner.query("INSERT INTO regime VALUES ('beside', 1, '{}')"))
    const before = await readState(places)
    const left = await serve(places)
    expect(left.port).not.toBe(other.port)
    // Killed before its port was written down: what stands there is the port of the other one.
    await writeFile(places.state, JSON.stringify({ ...before, databasePort: other.port, databasePid: 1 }))
    try {
      const { own, adminUrl } = await openDatabases(places)
      expect(own).toMatchObject({ startedHere: false, port: left.port })
      expect(new URL(adminUrl).port).toBe(String(left.port))
      const regimes = await inside(places, async (owner) => {
        const [rows] = await owner.query<RowDataPacket[]>("SELECT COUNT(*) AS n FROM regime WHERE id = 'beside'")
        return Number(rows[0]!.n)
      })
      expect(regimes).toBe(0)
      await own!.stop()
      expect(await serversOn(places)).toEqual([])
    } finally {
      await left.stop()
      await other.stop()
    }
  })

  it('is waited for where it is only on its way: no second one is started on the same folder', async () => {
    const places = await shelf.places(office)
    const { child, ended } = upstand(places, ['seal-key'])
    while ((await serversOn(places)).length === 0) await pause(5)
    child.kill('SIGKILL')
    await ended
    const [first] = await serversOn(places)
    const { own } = await openDatabases(places)
    expect(await serversOn(places)).toEqual([first])
    await own!.stop()
    expect(await serversOn(places)).toEqual([])
  })
})
