/** The hands of a tester in the schedule: cells opened, figures read or typed, blocks pasted, set-up said. */
import type { Page } from 'puppeteer-core'
import { chooseIn, clickOn } from './browser'

/** Goes to the schedule of a job, at a board. */
export async function toSchedule(page: Page, jobId: string, board?: string): Promise<void> {
  await page.evaluate((id: string) => {
    window.location.hash = `#${id}/schedule`
  }, jobId)
  await page.waitForSelector('.sched [data-cell]')
  if (board) await chooseIn(page, 'schedule-board', board)
}

const ticks = '[data-testid=schedule-gate] input:not(:checked)'

/** Opens a cell by click, and ticks what is to be minded before its test is read. */
export async function openCell(page: Page, cell: string): Promise<void> {
  await page.waitForSelector(`[data-cell="${cell}"] .gcell`)
  await page.$eval(`[data-cell="${cell}"]`, (one) => one.scrollIntoView({ block: 'center', inline: 'center' }))
  if (!(await page.$(`[data-cell="${cell}"] .gcell.on`))) await page.click(`[data-cell="${cell}"] button`)
  await page.waitForSelector(`[data-cell="${cell}"] .gcell.on`)
  for (const tick of await page.$$(ticks)) await clickOn(tick)
  await page.waitForSelector('.sg input:focus')
}

/** The figures that the open cell asks, by their names. */
export const pensOf = (page: Page, cell: string): Promise<string[]> =>
  page.$eval(`[data-cell="${cell}"]`, (one) => {
    const own = one.querySelector<HTMLElement>('[data-slot]')
    const all = own ? [own] : [...document.querySelectorAll<HTMLElement>('.opened [data-slot]')]
    return all.map((pen) => pen.dataset.slot ?? '')
  })

export async function altP(page: Page): Promise<void> {
  await page.keyboard.down('Alt')
  await page.keyboard.press('p')
  await page.keyboard.up('Alt')
}

/** Reads every figure of a cell by the simulated tester; each press leads on to the next. */
export async function readCell(page: Page, cell: string): Promise<void> {
  await openCell(page, cell)
  const pens = await pensOf(page, cell)
  for (const [k, pen] of pens.entries()) {
    const before = await whereNow(page)
    await altP(page)
    await page
      .waitForFunction(
        (was: string, name: string, isLast: boolean) => {
          const now = document.querySelector('.sg input:focus')?.getAttribute('aria-label') ?? ''
          const own = document.querySelector<HTMLElement>(`[data-slot="${name}"]`)
          const isOutside = own?.dataset.verdict === 'outside'
          return (now !== was && now !== '') || isOutside || (isLast && own !== null && own.dataset.verdict !== '')
        },
        {},
        before,
        pen,
        k === pens.length - 1,
      )
      .catch(async () => {
        const foot = await page.evaluate(() => document.querySelector('.sfoot')?.textContent)
        throw new Error(`${pen} was not read: ${foot}`)
      })
  }
}

const whereNow = (page: Page): Promise<string> =>
  page.evaluate(() => document.querySelector('.sg input:focus')?.getAttribute('aria-label') ?? '')

/** Waits until a cell stands so; then its test was kept. */
export const standsAs = (page: Page, cell: string, verdict: string) =>
  page.waitForSelector(`[data-cell="${cell}"] .gcell[data-verdict="${verdict}"]:not(.pen)`).catch(async () => {
    const seen = await page.evaluate(
      (name: string) => [
        document.querySelector(`[data-cell="${name}"]`)?.innerHTML,
        document.querySelector('.sfoot')?.textContent,
      ],
      cell,
    )
    throw new Error(`${cell} is not ${verdict}: ${JSON.stringify(seen)}`)
  })

export const cellText = (page: Page, cell: string): Promise<string> =>
  page.$eval(
    `[data-cell="${cell}"]`,
    (one) => one.querySelector('input')?.value ?? (one as HTMLElement).innerText.trim(),
  )

/** Says once, for all rows, how a test is made. */
export async function setUp(page: Page, chip: string, question: string, answer: string): Promise<void> {
  await page.click(`[data-testid="chip-${chip}"]`)
  const list = await page.waitForSelector(`[data-testid="setup-${chip}-${question}"]`)
  const found = await list!.evaluateHandle(
    (all, words: string) =>
      [...all.querySelectorAll('label')].find((one) => one.innerText.replaceAll('\u00a0', ' ').startsWith(words)),
    answer,
  )
  await clickOn(found)
  await page.click(`[data-testid="chip-${chip}"]`)
  await page.waitForFunction(
    (id: string) => !document.querySelector(`[data-testid="${id}"]`)?.checkVisibility(),
    {},
    `setup-${chip}-${question}`,
  )
}

/** Pastes a block as a spreadsheet gives it, into the cell that is open. */
export const pasteHere = (page: Page, text: string): Promise<void> =>
  page.$eval(
    '.sg input:focus',
    (input, block) => {
      const data = new DataTransfer()
      data.setData('text/plain', block)
      input.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }))
    },
    text,
  )
