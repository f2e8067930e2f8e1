import { readFile } from 'node:fs/promises'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Places } from '../../scripts/lib/paths'
import { readState } from '../../scripts/lib/state'
import { asVersionBefore } from '../support/versionBefore'
import { type Command, factsIn, inside, ranOn, Shelf, upstand } from '../support/dataFolder'
import { findingsOf } from '../../scripts/lib/findings'

/**
 * Commands that are killed at moments nobody chose, with what they started or without. Afterwards the folder opens, and
 * what it held it holds. `UPSTAND_TEST_KILLS` plays more moments than the few that every run plays.
 */
const KILLS = Number(process.env.UPSTAND_TEST_KILLS ?? 4)

let shelf: Shelf
let office: Places
let older: Places
let backup: string
const facts = { office: {}, older: {} } as Record<'office' | 'older', Record<string, number>>

beforeAll(async () => {
  shelf = await Shelf.make()
  office = await shelf.places()
  await ranOn(office, ['seal-key'])
  await inside(office, async (owner) => {
    await owner.query(
      "INSERT INTO company (id, name, address, time_zone, language, demo) VALUES (1, 'Fern Electrical', '', 'UTC', 'en', 0)",
    )
    await owner.query(
      "INSERT INTO user (id, name, email, created_at, updated_at) VALUES ('u', 'Una', 'u@x', NOW(), NOW())",
    )
    await owner.query("INSERT INTO person VALUES ('p', 'u', 'Una Fern', 'supervisor', 1)")
    await owner.query("INSERT INTO regime VALUES ('r', 1, '{}')")
  })
  older = await shelf.places(office)
  facts.office = withoutKey(await factsIn(office))
  const { output } = await ranOn(office, ['backup'])
  expect(output).toMatch(/Backup written: (\S+)/)
  backup = /Backup written: (\S+)/.exec(output)![1]!
  await inside(older, asVersionBefore)
  facts.older = { ...facts.office, job: 1, visit: 1, entry: 3, seal: 2 }
  await inside(office, async (owner) => {
    await owner.query(
      "INSERT INTO user (id, name, email, created_at, updated_at) VALUES ('v', 'Vic', 'v@x', NOW(), NOW())",
    )
    await owner.query("INSERT INTO person VALUES ('q', 'v', 'Vic Moss', 'tester', 1)")
  })
  facts.office = withoutKey(await factsIn(office))
})
afterAll(() => shelf.clear())

/** Random, and the same in every run: a failure is found again by its number. */
const share = (seed: number): number => ((Math.imul(seed + 1, 2_654_435_761) >>> 0) % 1000) / 1000

async function killAfter(places: Places, { child, ended }: Command, wait_ms: number, seed: number): Promise<void> {
  await Promise.race([ended, new Promise((resolve) => setTimeout(resolve, wait_ms))])
  const databasePid = Number(await readFile(join(places.data, 'mariadb.pid'), 'utf8').catch(() => 0))
  const { appPid } = await readState(places)
  const isBoth = seed % 3 !== 0
  if (seed % 3 !== 1) child.kill('SIGKILL')
  if (isBoth && databasePid > 0) endNow(databasePid)
  if (appPid) endNow(appPid)
  // A command whose database died ends by itself, in words or not; it is given no longer than a person would wait.
  await Promise.race([ended, new Promise((resolve) => setTimeout(resolve, 5000))])
  child.kill('SIGKILL')
  await ended
}

function endNow(pid: number): void {
  try {
    process.kill(pid, 'SIGKILL')
  } catch {
    // It was gone already.
  }
}

/** Tables that a command itself may add to. */
const withoutKey = ({ seal_key: _, ...counts }: Record<string, number>) => counts

type Play = {
  name: string
  from: () => Places | undefined
  args: () => string[]
  longest_ms: number
  whole: () => object[]
}
const plays: Play[] = [
  {
    name: 'a first start',
    from: () => undefined,
    args: () => ['seal-key'],
    longest_ms: 4000,
    whole: () => [expect.objectContaining({ company: 0, entry: 0 })],
  },
  {
    name: 'bringing an older version up to date',
    from: () => older,
    args: () => ['seal-key'],
    longest_ms: 3000,
    whole: () => [facts.older],
  },
  {
    name: 'a backup',
    from: () => office,
    args: () => ['backup'],
    longest_ms: 2500,
    whole: () => [facts.office],
  },
  {
    name: 'a restore',
    from: () => office,
    args: () => ['restore', backup],
    longest_ms: 3500,
    // Either all of what was there or all of the backup, which knows one person less.
    whole: () => [facts.office, { ...facts.office, user: 1, person: 1 }],
  },
]

describe.each(plays)('$name', ({ from, args, longest_ms, whole }) => {
  it.each(Array.from({ length: Math.ceil(KILLS / plays.length) }, (_, n) => n))(
    'that is killed finds a way on, with nothing lost (%i)',
    async (n) => {
      const seed = n + longest_ms
      const places = await shelf.places(from())
      const wait_ms = 600 + share(seed) * (longest_ms - 600)
      await killAfter(places, upstand(places, args()), wait_ms, seed)
      const after = withoutKey(await factsIn(places))
      expect(whole(), `killed after ${wait_ms} ms`).toContainEqual(after)
      expect((await findingsOf(places)).filter((one) => one.is === 'wrong')).toEqual([])
      await shelf.remove(places)
    },
  )
})
