/** Who, which, when and what: decided by the office and not by whoever sends. */
import { v7 as uuid } from 'uuid'
import sharp from 'sharp'
import { createHash } from 'node:crypto'
import { beforeAll, describe, expect, it } from 'vitest'
import type { Body, Entry } from '@/core/record/entry'
import { exampleString } from '@/core/steps/worked'
import { conditions } from '@/core/testing/factsBuilder'
import { base, cookieOf, demo, knock } from '../support/server'
import { inKit, TestJob } from '../support/testJob'

const job = new TestJob()
const other = new TestJob()
const LONE = '\ud83d'
const MINUTE_ms = 60_000

beforeAll(async () => {
  await job.open('T-E1')
  await other.open('T-E2', [])
})

describe('whose entry it is', () => {
  it('is never taken under another name: a batch of somebody else’s queue stays where it is', async () => {
    const one = job.remark('entered by the tester, sent while the supervisor is signed in')
    const batch = { personId: demo.person.tester, entries: [one] }
    const answer = await knock('supervisor', `/api/jobs/${job.id}/entries`, batch)
    expect(answer).toMatchObject({ status: 409, body: { type: 'about:blank#door.another-person' } })
    expect(answer.body.title).toContain('Isolde Marrow is signed in here now')
    expect((await job.entries()).some((entry) => entry.id === one.id)).toBe(false)
    expect(await job.fatesOf([one])).toEqual(['kept'])
  })

  it('is asked of every batch', async () => {
    const answer = await fetch(`${base}/api/jobs/${job.id}/entries`, {
      method: 'POST',
      headers: { cookie: await cookieOf('tester'), origin: base, 'content-type': 'application/json' },
      body: JSON.stringify({ entries: [job.remark('of nobody')] }),
    })
    expect(answer.status).toBe(422)
  })

  it('is asked of pages too: another person’s page learns nothing and changes nothing', async () => {
    const headers = { 'upstand-person': demo.person.tester }
    for (const path of [`/api/jobs/${job.id}/facts`, `/api/jobs/${job.id}/feed`])
      expect((await knock('supervisor', path, undefined, headers)).status).toBe(409)
    expect((await knock('tester', `/api/jobs/${job.id}/facts`, undefined, headers)).status).toBe(200)
  })
})

describe('a resend', () => {
  it('is already there, however many come at once', async () => {
    const entries = Array.from({ length: 12 }, (_, k) => job.remark(`at once ${k}`))
    const answers = await Promise.all(Array.from({ length: 15 }, () => job.send(entries)))
    const fates = answers.flatMap(({ status, body }) => (status === 200 ? body.fates : [{ fate: `${status}` }]))
    expect([...new Set(fates.map((one) => one.fate))].sort()).toEqual(['already', 'kept'])
    expect(fates.filter((one) => one.fate === 'kept').length).toBe(entries.length)
    const ids = (await job.entries()).map((one) => one.id)
    for (const { id } of entries) expect(ids.filter((one) => one === id).length).toBe(1)
  })

  it('is already there with another clock, and within one batch', async () => {
    const one = job.remark('twice in a batch')
    expect(await job.fatesOf([one, { ...one, clockOffset_ms: 9, clockMoved_ms: 4000 }])).toEqual(['kept', 'already'])
  })

  it('under the id of an entry of another job is a conflict', async () => {
    const one = job.remark('here')
    await job.send([one])
    const there = { ...other.remark('there'), id: one.id }
    expect(await other.fateOf(there, 'supervisor')).toMatchObject({ fate: 'conflict' })
  })
})

describe('one bad entry', () => {
  it('holds up no other, whatever is wrong with it', async () => {
    const bad = [
      job.remark(`cut in the middle ${LONE}`),
      { ...job.remark('key'), [LONE]: 1 },
      { ...job.remark('id'), id: LONE },
      null,
      'text',
      [],
      { ...job.remark('deep'), body: JSON.parse(`${'['.repeat(2000)}${']'.repeat(2000)}`) },
      { ...job.remark('clock'), clockOffset_ms: 1e300 },
      { ...job.remark('time'), deviceTime: '2026-02-31T00:00:00.000Z' },
    ]
    const good = Array.from({ length: bad.length + 1 }, (_, k) => job.remark(`beside a bad one ${k}`))
    const mixed = good.flatMap((one, k) => (k < bad.length ? [one, bad[k]] : [one]))
    const { status, body } = await job.send(mixed)
    expect(status).toBe(200)
    expect(body.fates.map((one) => one.fate)).toEqual(mixed.map((_, k) => (k % 2 === 0 ? 'kept' : 'refused')))
    for (const one of body.fates) if (one.fate === 'refused') expect(one.reason).toMatch(/^[A-Z“].{15,}[.?]$/)
  })

  it('of half a character is refused at every other door too', async () => {
    const wanted = { id: uuid(), visitId: uuid(), number: 'T-E9', name: `Half ${LONE}`, place: '', people: [] }
    expect(await knock('supervisor', '/api/jobs', wanted)).toMatchObject({ status: 422 })
  })
})

describe('when it was', () => {
  it('cannot lie ahead of the office’s clock: a time of 2126 is that of its arrival, and says so', async () => {
    const one = { ...job.volts(385), deviceTime: '2126-01-01T00:00:00.000Z' }
    const fate = await job.fateOf(one)
    expect(fate.fate).toBe('kept')
    const kept = (await job.entries()).find((entry) => entry.id === one.id)!
    expect(fate.entry).toEqual(kept)
    expect(Date.parse(kept.deviceTime) + kept.clockOffset_ms).toBe(Date.parse(kept.receivedAt!))
    expect(kept.clockMoved_ms).toBeGreaterThan(90 * 365 * 24 * 60 * MINUTE_ms)
  })

  it('before its visit began is kept as it was said, and called unsure', async () => {
    const one = { ...job.remark('long ago'), deviceTime: '1999-01-01T00:00:00.000Z' }
    expect(await job.fateOf(one)).toMatchObject({ fate: 'kept', entry: { deviceTime: one.deviceTime } })
    const kept = (await job.entries()).find((entry) => entry.id === one.id)!
    expect(kept.clockMoved_ms).toBeLessThan(0)
  })

  it('is what the device says where nothing speaks against it', async () => {
    const one = { ...job.remark('a minute ago'), deviceTime: new Date(Date.now() - MINUTE_ms).toISOString() }
    expect((await job.fateOf(one)).entry).toBeUndefined()
  })
})

describe('what is believed', () => {
  const kept = async (id: string): Promise<Entry> => (await job.entries()).find((entry) => entry.id === id)!

  it('takes the instrument from the kit, not from the sender', async () => {
    const lie = {
      id: demo.tester07,
      tag: '99',
      name: 'A better one',
      calibrationDue: '2099-01-01',
      standIn: false,
      accuracy: { ofReading_pct: 0, digits: 0 },
      most: 100_000,
    }
    const one = job.volts(385.4, { instrument: lie, how: 'feed' })
    const fate = await job.fateOf(one)
    const body = (await kept(one.id)).body as Body<'reading'>
    expect(fate.entry?.body).toEqual(body)
    expect(body.instrument).toMatchObject({ id: demo.tester07, tag: '07', standIn: true })
    expect(body.instrument!.calibrationDue).not.toBe('2099-01-01')
    expect(body.instrument!.accuracy!.ofReading_pct).toBeGreaterThan(0)
    expect(body.conditions!.irradiance.instrument).toMatchObject({ tag: '02', standIn: true })
    expect(await job.fateOf(one)).toMatchObject({ fate: 'already' })
  })

  it('prints that it was simulated, though the sender said otherwise', async () => {
    const text = await knock('tester', `/api/jobs/${job.id}/facts`)
    expect(text.text).toContain('"standIn":true')
    const { body } = await knock<{ facts: { entries: Entry[] } }>('tester', `/api/jobs/${job.id}/facts`)
    const readings = body.facts.entries.filter((entry) => entry.body.kind === 'reading') as Entry<'reading'>[]
    for (const { body: read } of readings) expect(read.instrument?.standIn ?? true).toBe(true)
  })

  it('refuses an instrument that is in no kit', async () => {
    const one = job.volts(385, { conditions: inKit(conditions(742, 43.6, new Date().toISOString()), uuid()) })
    expect(await job.fateOf(one)).toMatchObject({ fate: 'refused', code: 'no-instrument' })
  })

  it.each([
    ['another figure', { text: '<12.0', value: 400, bound: 'exact', unit: 'V' }, 'text-and-value'],
    ['a bound read as a figure', { text: '>999', value: 999, bound: 'exact', unit: 'V' }, 'text-and-value'],
    ['a figure called a bound', { text: '385', value: 385, bound: 'more-than', unit: 'V' }, 'text-and-value'],
    ['no figure', { text: 'fine', value: 385, bound: 'exact', unit: 'V' }, 'text-and-value'],
    ['another unit', { text: '385', value: 385, bound: 'exact', unit: 'A' }, 'unit-of-slot'],
  ])('refuses a value that is not its text: %s', async (_, voltage, code) => {
    expect(await job.fateOf(job.volts(385, { slots: { voltage } }))).toMatchObject({ fate: 'refused', code })
  })

  it('takes a text in another unit, with a comma, or with either meaning of one', async () => {
    for (const voltage of [
      { text: '0,3854 kV', value: 385.4, bound: 'exact', unit: 'V' },
      { text: '385,4', value: 385.4, bound: 'exact', unit: 'V' },
    ])
      expect(await job.fateOf(job.volts(385, { slots: { voltage } }))).toMatchObject({ fate: 'kept' })
  })

  it('refuses light in volts and warmth in amperes', async () => {
    const light = inKit(conditions(742, 43.6, new Date().toISOString()))
    const inVolts = { ...light, irradiance: { ...light.irradiance, read: { ...light.irradiance.read, unit: 'V' } } }
    const inAmps = { ...light, cell: { ...light.cell, read: { ...light.cell.read, unit: 'A' } } }
    for (const wrong of [inVolts, inAmps])
      expect(await job.fateOf(job.volts(385, { conditions: wrong }))).toMatchObject({ code: 'conditions-unit' })
    const unlike = { ...light, irradiance: { ...light.irradiance, read: { ...light.irradiance.read, text: '74' } } }
    expect(await job.fateOf(job.volts(385, { conditions: unlike }))).toMatchObject({ code: 'conditions-text' })
  })
})

describe('what an entry speaks of', () => {
  const aboutString = () => ({ partId: job.string.id, step: 'pv-voc' })
  const remedy = (snag: string) =>
    job.entry({ kind: 'remedy', v: 1, snag, text: 'plug remade', repeat: [] }, aboutString())

  it('a question is a supervisor’s, about one test, and an answer is about that one', async () => {
    const question = (about: Record<string, unknown>) =>
      job.entry({ kind: 'question', v: 1, text: 'Which lead?' }, about)
    expect(await job.fateOf(question(aboutString()))).toMatchObject({ fate: 'refused', code: 'ask-right' })
    const asked = question(aboutString())
    expect(await job.fateOf(question({}), 'supervisor')).toMatchObject({ fate: 'refused', code: 'ask-of-nothing' })
    expect(await job.fateOf(asked, 'supervisor')).toMatchObject({ fate: 'kept' })
    const answer = (to: string, about: Record<string, unknown>) =>
      job.entry({ kind: 'answer', v: 1, question: to, text: 'The reel.' }, about)
    expect(await job.fateOf(answer(uuid(), aboutString()))).toMatchObject({ code: 'answer-of-nothing' })
    expect(await job.fateOf(answer(asked.id, { ...aboutString(), step: 'pv-isc' }))).toMatchObject({
      code: 'answer-of-nothing',
    })
    expect(await job.fateOf(answer(asked.id, aboutString()))).toMatchObject({ fate: 'kept' })
  })

  it('a class is of what was found at the same test, and of a line only where that is not as it should be', async () => {
    const classed = (
      target: string | null,
      line: string | null = null,
      about: Record<string, unknown> = aboutString(),
    ) => job.entry({ kind: 'class', v: 1, target, line, as: 'improve' }, about)
    expect(await job.fateOf(classed(uuid()))).toMatchObject({ fate: 'refused', code: 'class-of-nothing' })
    const snag = job.entry({ kind: 'snag', v: 1, text: 'plug loose' }, aboutString())
    expect(await job.fatesOf([snag, classed(snag.id)])).toEqual(['kept', 'kept'])
    for (const bad of [
      classed(snag.id, null, { ...aboutString(), step: 'pv-isc' }),
      classed(snag.id, 'look-chart'),
      // Only what follows from the plant by itself has no entry of its own.
      classed(null),
      classed(null, null, {}),
    ])
      expect(await job.fateOf(bad)).toMatchObject({ fate: 'refused', code: 'class-of-nothing' })
  })

  it('a remedy names a snag of the same test', async () => {
    expect(await job.fateOf(remedy(uuid()))).toMatchObject({ fate: 'refused', code: 'remedy-of-nothing' })
    const elsewhere = job.entry({ kind: 'snag', v: 1, text: 'lid cracked' }, { ...aboutString(), step: 'pv-isc' })
    expect(await job.fatesOf([elsewhere, remedy(elsewhere.id)])).toEqual(['kept', 'refused'])
    const snag = job.entry({ kind: 'snag', v: 1, text: 'plug loose' }, aboutString())
    expect(await job.fatesOf([snag, remedy(snag.id)])).toEqual(['kept', 'kept'])
  })

  it('a choice names a reading of the same test, light belongs to a reading', async () => {
    const choice = (target: string) => job.entry({ kind: 'choice', v: 1, target, reason: null }, aboutString())
    expect(await job.fateOf(choice(uuid()))).toMatchObject({ code: 'no-target' })
    const light = { ...inKit(conditions()), how: 'file' }
    const joined = job.entry({ kind: 'conditions', v: 1, target: uuid(), conditions: light, file: 'roof.csv' })
    expect(await job.fateOf(joined)).toMatchObject({ code: 'no-target' })
    const one = job.volts(385.4)
    expect(await job.fatesOf([one, choice(one.id)])).toEqual(['kept', 'kept'])
  })

  it('a part of another job cannot be changed, nor spoken of', async () => {
    const change = job.entry(
      { kind: 'plant-change', v: 1, before: null, after: { ...exampleString(3), tag: 'stolen' }, base: null },
      { partId: other.string.id },
    )
    expect(await job.fateOf(change)).toMatchObject({ fate: 'refused', code: 'part-of-another-job' })
    const spoken = { ...job.remark('about a stranger'), partId: other.string.id }
    expect(await job.fateOf(spoken)).toMatchObject({ code: 'no-part' })
    const { body } = await knock('supervisor', `/api/jobs/${other.id}/standin`, {
      instrumentId: demo.tester07,
      partId: other.string.id,
      key: 'dc-voltage',
    })
    expect(JSON.stringify(body)).not.toContain('no such part')
  })

  it('a part that is not there cannot be taken out', async () => {
    const out = job.entry({ kind: 'plant-change', v: 1, before: null, after: null, base: null }, { partId: uuid() })
    expect(await job.fateOf(out)).toMatchObject({ fate: 'refused', code: 'no-part' })
  })

  it('a picture is the one that arrived', async () => {
    const bytes = await sharp({ create: { width: 40, height: 30, channels: 3, background: 'grey' } })
      .jpeg()
      .toBuffer()
    const id = uuid()
    const sha256 = createHash('sha256').update(bytes).digest('hex')
    const photo = (hash: string, attachment = id) =>
      job.entry({ kind: 'photo', v: 1, attachment, sha256: hash, takenAt: null, caption: '' })
    expect(await job.fateOf(photo(sha256))).toMatchObject({ code: 'photo-not-there' })
    const sent = await fetch(`${base}/api/jobs/${job.id}/attachments/${id}`, {
      method: 'POST',
      headers: { cookie: await cookieOf('tester'), origin: base, 'content-type': 'image/jpeg' },
      body: new Uint8Array(bytes),
    })
    expect(sent.ok).toBe(true)
    expect(await job.fateOf(photo('a'.repeat(64)))).toMatchObject({ code: 'photo-not-there' })
    expect(await job.fateOf(photo(sha256))).toMatchObject({ fate: 'kept' })
  })
})

describe('a void', () => {
  const voidOf = (target: string) => job.entry({ kind: 'void', v: 1, target, reason: 'a slip' })

  it('of what is not there yet is a supervisor’s only', async () => {
    const target = uuid()
    expect(await job.fateOf(voidOf(target))).toMatchObject({ code: 'void-of-nothing' })
    expect(await job.fateOf(voidOf(target), 'supervisor')).toMatchObject({ fate: 'kept' })
  })

  it('comes too late after a signature, however far ahead its target was dated', async () => {
    const signed = await new TestJob().open('T-E3')
    const ahead = { ...signed.remark('dated ahead'), deviceTime: new Date(Date.now() + 1000).toISOString() }
    const signature = signed.entry({
      kind: 'signature',
      v: 1,
      role: 'tested',
      printedName: 'Tam Brackley',
      statement: 'as it was',
      coversHash: '0'.repeat(64),
    })
    expect(await signed.fatesOf([ahead, signature])).toEqual(['kept', 'kept'])
    const late = signed.entry({ kind: 'void', v: 1, target: ahead.id, reason: 'changed my mind' })
    expect(await signed.fateOf(late)).toMatchObject({ fate: 'refused', code: 'void-own' })
    expect(await signed.fateOf(late, 'supervisor')).toMatchObject({ fate: 'kept' })
  })
})

describe('a signature', () => {
  const sign = (printedName: string) =>
    job.entry({
      kind: 'signature',
      v: 1,
      role: 'tested',
      printedName,
      statement: 'as it was',
      coversHash: '0'.repeat(64),
    })

  it('is in one’s own name', async () => {
    expect(await job.fateOf(sign('Isolde Marrow'))).toMatchObject({ fate: 'refused', code: 'sign-name' })
    const own = sign('  tam   brackley ')
    expect(await job.fateOf(own)).toMatchObject({ fate: 'kept', entry: { body: { printedName: 'Tam Brackley' } } })
  })
})

describe('what a device fetches', () => {
  type Answer = {
    partial: boolean
    frame: string
    seq: number
    last: string
    facts: { job?: object; entries: Entry[] }
  }
  const facts = async (asked = '') => (await knock<Answer>('tester', `/api/jobs/${job.id}/facts${asked}`)).body

  it('is what came after its place, and the rest only where it changed', async () => {
    const first = await facts()
    expect(first.partial).toBe(false)
    expect(first.seq).toBe(first.facts.entries.length)
    const one = job.remark('new to the device')
    await job.send([one])
    const next = await facts(`?after=${first.seq}&last=${first.last}&frame=${first.frame}`)
    expect(next).toMatchObject({ partial: true, seq: first.seq + 1, frame: first.frame })
    expect(next.facts).toEqual({ entries: [expect.objectContaining({ id: one.id })] })
    await knock('tester', `/api/jobs/${job.id}/visits`, { id: uuid(), title: 'again' })
    const changed = await facts(`?after=${next.seq}&last=${next.last}&frame=${next.frame}`)
    expect(changed.frame).not.toBe(next.frame)
    expect(changed.facts.job).toBeDefined()
  })

  it('is all of it where another entry stands at its place: the office put an older backup back', async () => {
    const { seq, last, frame } = await facts()
    expect(await facts(`?after=${seq}&last=${uuid()}&frame=${frame}`)).toMatchObject({ partial: false, seq, last })
    expect(await facts(`?after=${seq + 7}&last=${last}&frame=${frame}`)).toMatchObject({ partial: false, seq, last })
    expect((await facts(`?after=${seq + 7}&last=${last}&frame=${frame}`)).facts.job).toBeDefined()
  })

  it('is all of it where the place it asks for is none', async () => {
    for (const asked of ['?after=-1', '?after=1e9', '?after=x', '?after='])
      expect((await facts(asked)).partial).toBe(false)
  })
})

describe('an instrument', () => {
  it('that another job reads from right now stays there, but for whoever works in both', async () => {
    const mine = await new TestJob().open('T-E4')
    const hers = await new TestJob().open('T-E5', [])
    const tool = demo.tester07
    expect((await knock('supervisor', `/api/jobs/${hers.id}/pair`, { instrumentId: tool })).status).toBe(200)
    const pressed = await knock('supervisor', `/api/jobs/${hers.id}/standin`, {
      instrumentId: tool,
      partId: hers.string.id,
      key: 'dc-polarity',
    })
    expect(pressed.status).toBe(200)
    const taken = await knock('tester', `/api/jobs/${mine.id}/pair`, { instrumentId: tool })
    expect(taken).toMatchObject({ status: 409 })
    expect(taken.body.title).toContain('T-E5')
    expect((await knock('supervisor', `/api/jobs/${demo.job.open}/pair`, { instrumentId: tool })).status).toBe(200)
    expect((await knock('tester', `/api/jobs/${mine.id}/pair`, { instrumentId: tool })).status).toBe(200)
    expect((await knock('supervisor', `/api/jobs/${demo.job.open}/pair`, { instrumentId: tool })).status).toBe(200)
  })
})
