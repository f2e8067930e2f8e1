/**
 * Screens of a 400-string job against those of a small one, in one run, on an instance that runs already
 * (`./upstand start`). It adds a job of its own to that instance. Run: npm run bench:screens
 */
import type { Page } from 'puppeteer-core'
import { v7 as uuid } from 'uuid'
import type { Entry } from '@/core/record/entry'
import { openBrowser, pageOf } from '../tests/support/browser'
import { base, demo, knock } from '../tests/support/server'

const STRINGS = 400
const READ = 300
const IN_A_BATCH = 150

/** A job of many strings, polarity of all and voltage of most read. */
async function bigJob(): Promise<string> {
  const [jobId, visitId] = [uuid(), uuid()]
  const number = `B${Date.now() % 1e8}`
  await knock('supervisor', '/api/jobs', {
    id: jobId,
    visitId,
    number,
    name: 'Bench field',
    place: '',
    people: [demo.person.tester],
  })
  const { body } = await knock<{ facts: { entries: Entry[] } }>('tester', `/api/jobs/${demo.job.mill}/facts`)
  const { entries } = body.facts
  const after = (entry: Entry) => (entry.body.kind === 'plant-change' ? entry.body.after : null)
  const string = entries.map(after).find((part) => part?.kind === 'string')
  const voltage = entries.find((entry) => entry.step === 'pv-voc')!.body
  const polarity = entries.find((entry) => entry.step === 'pv-polarity')!.body
  const sent: object[] = []
  let at = Date.now() - 3_600_000
  const add = (content: object, partId: string, step: string | null): string => {
    const id = uuid()
    at += 1000
    const deviceTime = new Date(at).toISOString()
    sent.push({ id, jobId, visitId, partId, step, deviceTime, clockOffset_ms: 0, body: content })
    return id
  }
  const change = (part: object): object => ({ kind: 'plant-change', v: 1, before: null, after: part, base: null })
  const arrayId = uuid()
  add(change({ kind: 'array', tag: 'Field', tilt_deg: 25, azimuth_deg: 180, mounting: 'open-rack' }), arrayId, null)
  for (let k = 1; k <= STRINGS; k++) {
    const partId = uuid()
    const plantRevision = add(change({ ...string, tag: String(k), arrayId }), partId, null)
    add({ ...polarity, plantRevision }, partId, 'pv-polarity')
    if (k <= READ) add({ ...voltage, plantRevision }, partId, 'pv-voc')
  }
  for (let from = 0; from < sent.length; from += IN_A_BATCH)
    await knock('tester', `/api/jobs/${jobId}/entries`, { entries: sent.slice(from, from + IN_A_BATCH) })
  return jobId
}

const CIRCUITS = 200
const TESTED = 150

/** A job of many circuits on four boards, dead tests of most of them read. */
async function manyCircuits(): Promise<string> {
  const [jobId, visitId] = [uuid(), uuid()]
  const people = [demo.person.tester]
  const number = `C${Date.now() % 1e8}`
  await knock('supervisor', '/api/jobs', { id: jobId, visitId, number, name: 'Bench works', place: '', people })
  const { body } = await knock<{ facts: { entries: Entry[] } }>('tester', `/api/jobs/${demo.job.workshop}/facts`)
  const parts = body.facts.entries.flatMap(({ body: one }) =>
    one.kind === 'plant-change' && one.after ? [one.after] : [],
  )
  const first = (kind: string) => parts.find((part) => part.kind === kind)!
  const sent: object[] = []
  let at = Date.now() - 3_600_000
  const add = (content: object, partId: string, step: string | null): string => {
    const id = uuid()
    at += 1000
    const deviceTime = new Date(at).toISOString()
    sent.push({ id, jobId, visitId, partId, step, deviceTime, clockOffset_ms: 0, body: content })
    return id
  }
  const change = (part: object): object => ({ kind: 'plant-change', v: 1, before: null, after: part, base: null })
  const reading = (slots: object, plantRevision: string): object => ({
    kind: 'reading',
    v: 1,
    slots,
    conditions: null,
    how: 'typed',
    instrument: null,
    place: null,
    plantRevision,
    confirmed: [],
    note: null,
  })
  const ohm = (value: number): object => ({ text: value.toFixed(2), value, bound: 'exact', unit: 'ohm' })
  const over = { text: '>999', value: 999, bound: 'more-than', unit: 'Mohm' }
  add(change(first('supply')), uuid(), null)
  const boards = Array.from({ length: 4 }, () => uuid())
  for (const [k, id] of boards.entries())
    add(change({ ...first('board'), tag: `DB${k + 1}`, boardId: k === 0 ? null : boards[0]! }), id, null)
  for (let k = 0; k < CIRCUITS; k++) {
    const partId = uuid()
    const own = { ...first('circuit'), tag: String(k + 1), boardId: boards[k % boards.length]!, rcdId: null, phases: 1 }
    const revision = add(change(own), partId, null)
    if (k >= TESTED) continue
    add(reading({ r1r2: ohm(0.3 + k / 1000) }, revision), partId, 'r1r2')
    const pairs = { 'l-n': over, 'l-pe': over, 'n-pe': over }
    const setUp = {
      pairing: { choice: 'pair-by-pair' },
      devices: { choice: 'all-on' },
      surge: { choice: 'none-there' },
    }
    add(reading({ ...setUp, ...pairs }, revision), partId, 'ac-insulation')
    add(reading({ 'loop-method': { choice: 'non-trip' }, zs: ohm(0.5 + k / 1000) }, revision), partId, 'zs')
  }
  for (let from = 0; from < sent.length; from += IN_A_BATCH)
    await knock('tester', `/api/jobs/${jobId}/entries`, { entries: sent.slice(from, from + IN_A_BATCH) })
  return jobId
}

/** A figure typed into a cell of the schedule, and the key that keeps it and goes down: to the next painted frame, ms. */
async function gridActs(page: Page, jobId: string): Promise<{ shown: number; typed: number; kept: number }> {
  const [, shown] = await opened(page, jobId, 'schedule')
  await new Promise((resolve) => setTimeout(resolve, 1500))
  for (const tick of await page.$$('.chk .tick:not(:checked)')) await tick.click()
  await page.click('[data-cell$=".r1r2"]')
  await page.waitForSelector('td.on input')
  const typed = await acted(page, (one) => one.keyboard.press('5'))
  const kept = await acted(page, (one) => one.keyboard.press('Enter'))
  return { shown, typed, kept }
}

const shows: Record<string, string> = {
  run: '#bench-title',
  plant: '.plantrow',
  record: '.cert table',
  schedule: '[data-cell]',
}

/** First paint, and when the screen shows what it is for, ms; kB of JavaScript as it came over the line. */
async function opened(page: Page, jobId: string, view: string): Promise<[number, number]> {
  await page.goto('about:blank')
  const start = Date.now()
  await page.goto(`${base}/job#${jobId}/${view}`, { waitUntil: 'domcontentloaded' })
  await page.waitForSelector(shows[view]!)
  const shown = Date.now() - start
  const paint = await page.evaluate(() => performance.getEntriesByName('first-contentful-paint')[0]?.startTime ?? 0)
  return [Math.round(paint), shown]
}

/** As text: the runner that strips types would name its inner functions in a way the page does not know. */
const WAIT_FOR_PAINT = `void (window.painted = new Promise((resolve) => window.addEventListener('keydown', () => {
  const start = performance.now()
  requestAnimationFrame(() => setTimeout(() => resolve(performance.now() - start), 0))
}, { once: true, capture: true })))`

/** From a key to the next painted frame, ms: the median of five. */
async function acted(page: Page, act: (page: Page) => Promise<unknown>): Promise<number> {
  const list: number[] = []
  for (let k = 0; k < 5; k++) {
    await page.evaluate(WAIT_FOR_PAINT)
    await act(page)
    list.push(await page.evaluate(() => (window as unknown as { painted: Promise<number> }).painted))
    await new Promise((resolve) => setTimeout(resolve, 300))
  }
  return Math.round(list.sort((a, b) => a - b)[2]!)
}

const browser = await openBrowser()
const page = await pageOf(browser, 'tester')
const big = await bigJob()
const jobs = [
  { name: `${STRINGS} strings`, id: big },
  { name: '3 strings', id: demo.job.open },
]
for (const view of ['run', 'plant', 'record']) {
  for (const { name, id } of jobs) {
    await opened(page, id, view)
    const [paint, shown] = await opened(page, id, view)
    console.log(`${view.padEnd(7)} ${name.padEnd(12)} first paint ${paint} ms, shown ${shown} ms`)
  }
}
for (const { name, id } of jobs) {
  await opened(page, id, 'run')
  await new Promise((resolve) => setTimeout(resolve, 1500))
  console.log(`next step    ${name.padEnd(12)} ${await acted(page, (one) => one.keyboard.press('n'))} ms`)
  console.log(`order of day ${name.padEnd(12)} ${await acted(page, (one) => one.keyboard.press('w'))} ms`)
}
const works = await manyCircuits()
for (const { name, id } of [
  { name: `${CIRCUITS} circuits`, id: works },
  { name: '5 circuits', id: demo.job.workshop },
]) {
  const { shown, typed, kept } = await gridActs(page, id)
  console.log(`schedule     ${name.padEnd(12)} shown ${shown} ms, a figure ${typed} ms, kept and down ${kept} ms`)
}
await browser.close()
