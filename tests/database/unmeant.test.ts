import { v7 as uuid } from 'uuid'
import { beforeAll, describe, expect, it } from 'vitest'
import { chargePointModelSchema, moduleTypeSchema } from '@/core/plant/part'
import { sentEntrySchema } from '@/core/record/entry'
import { feedPostSchema } from '@/core/record/feed'
import { instrumentSchema } from '@/core/record/instrument'
import { regimeChangeSchema } from '@/core/regime/change'
import { newJobSchema } from '@/server/jobs/createJob'
import { Dice, mutated, mutatedText, sampleOf, shapeOf } from '../support/fuzz'
import { base, cookieOf, demo, knock } from '../support/server'
import { TestJob } from '../support/testJob'

/** Bodies and addresses that nobody meant. `UPSTAND_TEST_RUNS` sends more than the few hundred of every run. */
const RUNS = Number(process.env.UPSTAND_TEST_RUNS ?? 300)

const job = new TestJob()
let entries: { body: object; partId: string | null; step: string | null }[]
beforeAll(async () => {
  await job.open(`T-FUZZ-${Date.now() % 1e6}`)
  const ids = [demo.job.mill, demo.job.workshop, demo.job.mews, demo.job.house]
  for (const id of ids) {
    const { body } = await knock<{ facts: { entries: typeof entries } }>('supervisor', `/api/jobs/${id}/facts`)
    entries = [...(entries ?? []), ...body.facts.entries]
  }
})

type Door = { path: string; body(dice: Dice): unknown }
const ofSchema = (path: string, schema: Parameters<typeof shapeOf>[0]): Door => {
  const shape = shapeOf(schema)
  return { path, body: (dice) => sampleOf(shape, dice) }
}
const fixed = (path: string, ...bodies: object[]): Door => ({ path, body: (dice) => dice.one(bodies) })
const ofJob = (what: string): string => `/api/jobs/${job.id}/${what}`

/** Entries as they really are, moved into the test's job, each with an id of its own. */
const kept: Door = {
  path: ofJob('entries'),
  body: (dice) => ({
    personId: demo.person.supervisor,
    entries: Array.from({ length: 1 + dice.below(3) }, () => {
      const { body, partId, step } = dice.one(entries)
      return job.entry(body, { partId: dice.chance(0.5) ? job.string.id : partId, step })
    }),
  }),
}
const entryShape = shapeOf(sentEntrySchema)
const invented: Door = {
  path: ofJob('entries'),
  body: (dice) => ({
    personId: demo.person.supervisor,
    entries: [{ ...(sampleOf(entryShape, dice) as object), jobId: job.id, visitId: job.visitId, id: uuid() }],
  }),
}
const DOORS: readonly Door[] = [
  kept,
  kept,
  kept,
  invented,
  invented,
  ofSchema('/api/jobs', newJobSchema),
  ofSchema('/api/instruments', instrumentSchema),
  ofSchema('/api/regimes', regimeChangeSchema),
  ofSchema('/api/module-types', moduleTypeSchema),
  ofSchema('/api/charge-point-models', chargePointModelSchema),
  ofSchema('/api/feed', feedPostSchema),
  fixed(ofJob('visits'), { id: uuid(), title: 'fuzz' }),
  fixed(ofJob('pair'), { instrumentId: uuid() }),
  fixed(ofJob('people'), { person: uuid(), works: true }),
  fixed(ofJob('plan'), { dueOn: '2026-03-07', putAway: false }),
  fixed(ofJob('certificate'), { issue: 'Z' }),
  fixed(ofJob('standin'), { instrumentId: demo.tester07, partId: job.string.id, key: 'dc-voltage' }),
  fixed('/api/code', { code: 'ABCD-EFGH-JKMN', password: 'ten letters' }),
  fixed('/api/me/sessions', { end: uuid() }),
  fixed('/api/demo/sign-in', { id: uuid() }),
  fixed('/api/first', {
    code: '00000000',
    company: 'Fuzz',
    name: 'Fuzz',
    email: 'f@test.invalid',
    password: 'ten letters',
  }),
  fixed(
    '/api/office/people',
    { do: 'invite', name: 'Fuzz', email: 'fuzz@test.invalid', role: 'tester' },
    { do: 'role', person: uuid(), role: 'tester' },
    { do: 'active', person: uuid(), active: false },
    { do: 'reset', person: uuid() },
    { do: 'withdraw', invitation: uuid() },
  ),
]

/** A wrong answer is a door's own fault, or one that says nothing. */
async function refuseFault(answer: Response, sent: string): Promise<void> {
  const text = await answer.text()
  expect(answer.status, `${sent}\n${text.slice(0, 300)}`).toBeLessThan(500)
  if (answer.status < 400 || !answer.headers.get('content-type')?.includes('json')) return
  const { title, message } = JSON.parse(text) as { title?: string; message?: string }
  expect(title ?? message, sent).toMatch(/\S.*\S/)
}

describe('a body that nobody meant', () => {
  it(`is taken or refused in a sentence, ${RUNS} times`, async () => {
    const headers = { cookie: await cookieOf('supervisor'), origin: base, 'content-type': 'application/json' }
    for (let seed = 0; seed < RUNS; seed++) {
      const dice = new Dice(seed)
      const door = dice.one(DOORS)
      let body = door.body(dice)
      for (let n = dice.below(3); n > 0; n--) body = mutated(body, dice)
      let text = JSON.stringify(body) ?? ''
      if (dice.chance(0.05)) text = mutatedText(text, dice)
      const answer = await fetch(base + door.path, { method: 'POST', headers, body: text })
      await refuseFault(answer, `seed ${seed}: POST ${door.path} ${text.slice(0, 1500)}`)
    }
  }, 3_600_000)

  it('leaves the job that it was sent to readable, printable and verifiable', async () => {
    for (const what of ['facts', 'verify', 'feed', 'people', 'certificate'])
      expect((await knock('supervisor', ofJob(what))).status, what).toBe(200)
    expect((await knock('supervisor', '/api/jobs')).status).toBe(200)
  }, 120_000)
})

describe('an address that nobody meant', () => {
  const paths = [
    ofJob('facts?after=3&last=x&frame=y'),
    ofJob('certificate?issue=A'),
    ofJob('record?issue=A'),
    ofJob('feed?after=7'),
    ofJob('attachments/00000000-0000-7000-8000-00000000ffff'),
    '/api/office/audit?before=10',
    '/sign-in?then=/office',
  ]
  it(`is answered or refused, ${Math.ceil(RUNS / 3)} times`, async () => {
    const headers = { cookie: await cookieOf('supervisor') }
    for (let seed = 0; seed < RUNS / 3; seed++) {
      const dice = new Dice(1e6 + seed)
      const path = dice.one(paths)
      const cut = path.indexOf('/', 5)
      const changed = path.slice(0, cut) + encodeOdd(mutatedText(path.slice(cut), dice))
      const answer = await fetch(base + changed, { headers, redirect: 'manual' })
      await refuseFault(answer, `seed ${seed}: GET ${changed}`)
    }
  }, 3_600_000)
})

/** Only what a browser would send: whole characters, and no second line. */
const encodeOdd = (path: string): string =>
  path.replace(/[^\x21-\x7e]/g, (odd) => (odd.isWellFormed() ? encodeURIComponent(odd) : '%FF'))
