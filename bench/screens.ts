/**
 * Screens of a 400-string job against those of a small one, in one run, on an instance that runs already
 * (`./upstand start`). It adds a job of its own to that instance. Run: npm run bench:screens
 */
import { gzipSync } from 'node:zlib'
import type { Page } from 'puppeteer-core'
import { v7 as uuid } from 'uuid'
import { axeOn } from '../tests/support/axe'
import { openBrowser, pageOf } from '../tests/support/browser'
import { emptyJob } from '../tests/support/jobs'
import { EMPTY, screens, showScreen, themes } from '../tests/support/screens'
import { base, demo } from '../tests/support/server'
import { CIRCUITS, FEW_CIRCUITS, manyCircuits, manyStrings, STRINGS } from './jobs'

/** A figure typed into a cell of the schedule, and the key that keeps it and goes down: to the next painted frame, ms. */
async function gridActs(page: Page, jobId: string): Promise<{ shown: number; typed: number; kept: number }> {
  const [, shown] = await opened(page, jobId, 'schedule')
  await new Promise((resolve) => setTimeout(resolve, 1500))
  await page.click('[data-cell$=".r1r2"] button')
  await page.waitForSelector('.gcell.on input')
  for (const tick of await page.$$('[data-testid=schedule-gate] input:not(:checked)')) await tick.click()
  await page.waitForSelector('.gcell.on input:focus')
  const isReadOnly = await page.$eval('.gcell.on input', (input) => (input as HTMLInputElement).readOnly)
  if (isReadOnly) throw new Error('the cell takes nothing: what is measured is not what a tester does')
  const typed = await acted(page, (one) => one.keyboard.press('5'))
  const kept = await acted(page, (one) => one.keyboard.press('Enter'))
  return { shown, typed, kept }
}

const shows: Record<string, string> = {
  run: '#bench-title',
  plant: '.drawn',
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

/** Along the drawing by an arrow, a figure typed, and the key that keeps it: to the next painted frame, ms. */
async function plantActs(page: Page): Promise<{ chosen: number; typed: number; kept: number }> {
  await new Promise((resolve) => setTimeout(resolve, 1500))
  await page.$eval('.drawn[data-part=string], .drawn[data-part=circuit]', (one) => (one as SVGElement).focus())
  const chosen = await acted(page, (one) => one.keyboard.press('Space'))
  await page.$eval('.drawn.now', (one) => (one as SVGElement).focus())
  await page.keyboard.press('Enter')
  const wanted = '[data-testid=part-modulesInSeries], [data-testid=part-length_m]'
  await page.waitForSelector(wanted)
  await page.click(wanted)
  const typed = await acted(page, (one) => one.keyboard.press('1'))
  // One figure that may be, kept again and again with another.
  let n = 10
  const kept = await acted(page, async (one) => {
    await page.$eval(wanted, (field) => (field as HTMLInputElement).select())
    await one.keyboard.type(String(n++))
    await one.keyboard.press('Tab')
    await page.click(wanted)
  })
  return { chosen, typed, kept }
}

const weighed = new Map<string, Promise<number>>()
/** Bytes of a script as it comes over the line to whoever has it not yet: the page itself may have it from its worker. */
function compressedSize(address: string): Promise<number> {
  const found = weighed.get(address) ?? fetch(address).then(async (answer) => gzipSync(await answer.text()).length)
  weighed.set(address, found)
  return found
}

/** First paint of a screen, ms, kB of scripts as they came over the line, and what axe finds grave in each theme. */
async function screenFigures(page: Page, path: string, says: string): Promise<string> {
  await showScreen(page, path, says)
  const { paint, scripts } = await page.evaluate(() => ({
    paint: performance.getEntriesByName('first-contentful-paint')[0]?.startTime ?? 0,
    scripts: performance.getEntriesByType('resource').flatMap((one) => (one.name.endsWith('.js') ? one.name : [])),
  }))
  const sizes = await Promise.all([...new Set(scripts)].map(compressedSize))
  const script_kB = sizes.reduce((sum, one) => sum + one, 0) / 1024
  const graves: string[] = []
  for (const theme of themes) {
    await page.evaluate((name: string) => localStorage.setItem('upstand.theme', name), theme)
    await showScreen(page, path, says)
    const { violations, passes } = await axeOn(page)
    const grave = violations.filter((one) => one.impact === 'serious' || one.impact === 'critical')
    graves.push(`${theme} ${grave.length} of ${violations.length + passes.length}`)
  }
  return `first paint ${Math.round(paint)} ms, scripts ${Math.round(script_kB)} kB, axe grave: ${graves.join(', ')}`
}

const browser = await openBrowser()
const page = await pageOf(browser, 'tester')
await page.setViewport({ width: 1280, height: 800 })
const { jobId: emptyId } = await emptyJob(`B${uuid().slice(-9)}`, 'Empty House')
for (const { name, path, says } of screens)
  console.log(`${name.padEnd(22)} ${await screenFigures(page, path.replace(EMPTY, emptyId), says)}`)
const big = await manyStrings()
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
const boards = { name: `${CIRCUITS} circuits`, id: await manyCircuits(CIRCUITS) }
for (const { name, id } of [...jobs, boards]) {
  const [paint, shown] = await opened(page, id, 'plant')
  const { chosen, typed, kept } = await plantActs(page)
  console.log(
    `drawing ${name.padEnd(12)} first paint ${paint} ms, shown ${shown} ms, a part chosen ${chosen} ms, a figure typed ${typed} ms, kept ${kept} ms`,
  )
}
for (const { name, id } of jobs) {
  await opened(page, id, 'run')
  await new Promise((resolve) => setTimeout(resolve, 1500))
  console.log(`next step    ${name.padEnd(12)} ${await acted(page, (one) => one.keyboard.press('n'))} ms`)
  console.log(`order of day ${name.padEnd(12)} ${await acted(page, (one) => one.keyboard.press('w'))} ms`)
}
for (const count of [CIRCUITS, FEW_CIRCUITS]) {
  const { shown, typed, kept } = await gridActs(page, await manyCircuits(count, 1))
  const name = `${count} circuits`.padEnd(12)
  console.log(`schedule     ${name} shown ${shown} ms, a figure ${typed} ms, kept and down ${kept} ms`)
}
await browser.close()
