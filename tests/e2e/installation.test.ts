import type { Browser, Page } from 'puppeteer-core'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Entry } from '@/core/record/entry'
import { allSent, openBrowser, pageOf, pressId, sees, chooseIn } from '../support/browser'
import { byKeyboard, commission, type Figures, signed } from '../support/commission'
import { demo, knock } from '../support/server'

let browser: Browser
beforeAll(async () => {
  browser = await openBrowser()
})
afterAll(() => browser.close())

const HOUSE = demo.job.house
const entriesOf = async (jobId: string): Promise<Entry[]> =>
  (await knock<{ facts: { entries: Entry[] } }>('tester', `/api/jobs/${jobId}/facts`)).body.facts.entries

const noFigures: Figures = (title, slot) => {
  throw new Error(`no figure for ${slot} on "${title}"`)
}

describe('a house on its own electrode', () => {
  it('is tested from the run sheet alone, one fault found, mended and tested again', async () => {
    const page = await pageOf(browser, 'tester', `/job#${HOUSE}/run`)
    await sees(page, 'Null the test leads')
    const mended = await commission(page, byKeyboard(page), noFigures)
    expect(mended).toEqual(['Insulation, circuit 2'])
    await allSent(page)
    await page.keyboard.press('g')
    await sees(page, 'Before you can seal')
    await signed(page)
    const entries = await entriesOf(HOUSE)
    expect(entries.at(-1)!.body.kind).toBe('signature')
    const order = (step: string): number => entries.findIndex((entry) => entry.step === step)
    // The electrode before anything is energised, its conductor back before the first loop is read.
    for (const before of ['prove-dead', 'electrode', 'electrode-back']) expect(order(before)).toBeLessThan(order('ze'))
    expect(order('earth-back')).toBeLessThan(order('zs'))
    expect(page.complaints).toEqual([])
  }, 400_000)
})

const SHOP = demo.job.workshop

/** Opens a cell of the grid by click, wherever it is. */
async function openCell(page: Page, cell: string): Promise<void> {
  await page.evaluate(
    (name: string) =>
      document.querySelector(`[data-cell="${name}"]`)?.scrollIntoView({ block: 'center', inline: 'center' }),
    cell,
  )
  // Enter may have led here already.
  if (!(await page.$(`[data-cell="${cell}"].on input:focus`))) await page.click(`[data-cell="${cell}"]`)
  await page.waitForSelector(`[data-cell="${cell}"].on input:focus`)
}

/** Reads a row's cells of one grid by the simulated instrument, from a cell on to the end of the row. */
async function readRow(page: Page, first: string, cells: readonly string[]): Promise<void> {
  for (const cell of cells) {
    await openCell(page, `${first}.${cell}`)
    if (cell === 'polarity') await page.keyboard.type('1')
    else {
      const before = await cellText(page, `${first}.${cell}`)
      await page.keyboard.down('Alt')
      await page.keyboard.press('p')
      await page.keyboard.up('Alt')
      await page
        .waitForFunction(
          (name: string, was: string) => {
            const input = document.querySelector<HTMLInputElement>(`[data-cell="${name}"] input`)
            return input && input.value !== '' && (input.value !== was || input.closest('.pen'))
          },
          {},
          `${first}.${cell}`,
          before,
        )
        .catch(async () => {
          const seen = await page.evaluate(() => ({
            active: document.activeElement?.outerHTML.slice(0, 200),
            open: document.querySelector('td.on')?.outerHTML.slice(0, 300),
            foot: [...document.querySelectorAll('[data-testid=schedule-foot]')].map((one) => one.textContent),
          }))
          throw new Error(`${first}.${cell} was not read: ${JSON.stringify(seen)}`)
        })
    }
  }
  await page.keyboard.press('Enter')
}

const cellText = (page: Page, name: string): Promise<string> =>
  page.$eval(`[data-cell="${name}"]`, (cell) => cell.querySelector('input')?.value ?? cell.textContent ?? '')
const cellVerdict = (page: Page, name: string): Promise<string> =>
  page.$eval(`[data-cell="${name}"]`, (cell) => (cell as HTMLElement).dataset.verdict ?? '')

const single = ['l-n', 'l-pe', 'n-pe']
const three = ['n-pe', 'l1-l2', 'l1-l3', 'l2-l3', 'l1-n', 'l2-n', 'l3-n', 'l1-pe', 'l2-pe', 'l3-pe']
const phases: Record<string, readonly string[]> = { 1: three, 2: three, 3: single, 4: single, 5: single }
/** One cell where there is one phase, one a line where there are three. */
const perLine = (tag: string, cell: string): string[] =>
  phases[tag] === three ? ['l1', 'l2', 'l3'].map((line) => `${cell}-${line}`) : [cell]

describe('a workshop with three phases', () => {
  let page: Page & { complaints: string[] }
  beforeAll(async () => {
    page = await pageOf(browser, 'tester', `/job#${SHOP}/run`)
    await sees(page, 'Null the test leads')
  })

  const toGrid = async (): Promise<void> => {
    await pressId(page, 'to-schedule')
    await sees(page, 'Schedule of test results')
    await page.waitForSelector('.chk input')
    for (const tick of await page.$$('.chk input:not(:checked)')) await tick.click()
  }
  const onBench = async (titles: readonly string[]): Promise<void> => {
    await page.evaluate((id: string) => {
      window.location.hash = `#${id}/run`
    }, SHOP)
    await sees(page, 'Run sheet')
    await commission(page, byKeyboard(page), noFigures, titles)
  }

  it('is filled from the grid before the supply comes on', async () => {
    await onBench(['Null the test leads', 'Prove the installation dead'])
    await toGrid()
    // What the instrument is set to is never filled in: somebody says it, once for all rows.
    const voltage = 'setup-ac-insulation-set-voltage'
    expect(await page.$eval(`[data-testid="${voltage}"]`, (one) => (one as HTMLElement).innerText)).toBe('say which')
    await chooseIn(page, voltage, '500 V')
    for (const [tag, pairs] of Object.entries(phases))
      await readRow(page, tag, [...perLine(tag, 'r1r2'), ...pairs, 'polarity'])
    await allSent(page)
    for (const [tag, pairs] of Object.entries(phases))
      for (const cell of [...perLine(tag, 'r1r2'), ...pairs, 'polarity'])
        expect(await cellVerdict(page, `${tag}.${cell}`)).toBe('within')
    // Cells were left by click: each test was kept as the next one was opened.
    const kept = (await entriesOf(SHOP)).filter((entry) => entry.body.kind === 'reading').map((entry) => entry.step)
    for (const step of ['r1r2', 'ac-insulation', 'ac-polarity'])
      expect(kept.filter((one) => one === step)).toHaveLength(5)
  }, 200_000)

  it('keeps what is half-filled while somebody looks elsewhere', async () => {
    await openCell(page, '2.l1-l2')
    await page.keyboard.down('Control')
    await page.keyboard.press('a')
    await page.keyboard.up('Control')
    await page.keyboard.type('345')
    await page.evaluate((id: string) => {
      window.location.hash = `#${id}/record`
    }, SHOP)
    await sees(page, 'Before you can seal')
    await toGrid()
    expect(await page.$eval('td.pen', (cell) => cell.querySelector('input')?.value ?? cell.textContent)).toContain(
      '345',
    )
    await openCell(page, '2.l1-l2')
    await page.keyboard.press('Escape')
    await page.waitForFunction(() => !document.querySelector('td.pen'))
  })

  it('takes the whole board at once for every circuit on it, and pair by pair again', async () => {
    const pairing = 'setup-ac-insulation-pairing'
    await chooseIn(page, pairing, 'Whole board')
    await page.waitForSelector('[data-cell="3.board-to-pe"]')
    await readRow(page, '3', ['board-to-pe', 'live-to-live'])
    // One circuit after the other gets its reading.
    for (const tag of ['2', '3', '4', '5'])
      await page.waitForSelector(`[data-cell="${tag}.board-to-pe"][data-verdict="within"]`)
    await allSent(page)
    expect(await cellText(page, '5.board-to-pe')).toBe(await cellText(page, '3.board-to-pe'))
    // Circuit 1 hangs on the other board.
    expect(await cellText(page, '1.board-to-pe')).toBe('')
    await chooseIn(page, pairing, 'Pair by pair')
    for (const tag of ['2', '3', '4', '5']) await readRow(page, tag, phases[tag]!)
    await allSent(page)
  }, 100_000)

  it('stands in the line as a tree of boards', async () => {
    expect(await page.$$eval('[data-board]', (all) => all.map((one) => one.getAttribute('data-board')))).toEqual([
      'DB1',
      'DB2',
    ])
    await page.click('[data-board="DB1"]')
    await sees(page, 'Read fault currents, board DB1')
    await toGrid()
  })

  it('holds a live cell back until the earthing conductor is back', async () => {
    await page.click('[data-cell="3.zs"]')
    await page.waitForSelector('[data-cell="3.zs"].on input')
    expect(await page.$eval('[data-cell="3.zs"] input', (one) => (one as HTMLInputElement).readOnly)).toBe(true)
    await sees(page, 'Waits until the earthing conductor is back')
  })

  it('takes loops and trips, finds the slow device, and the re-test', async () => {
    await onBench(['Read Ze at the origin', 'Put the earthing conductor back'])
    await toGrid()
    for (const tag of Object.keys(phases)) await readRow(page, tag, perLine(tag, 'zs'))
    await readRow(page, 'RCD1', ['once-0'])
    await readRow(page, 'RCD2', ['once-0'])
    await allSent(page)
    expect(await cellVerdict(page, 'RCD1.once-0')).toBe('outside')
    expect(await cellVerdict(page, 'RCD2.once-0')).toBe('within')
    await sees(page, 'more than 300 ms')
    await page.click('[data-cell="RCD1.once-0"]')
    const benches = await page.$$('[data-testid=schedule-bench]')
    await benches.at(-1)!.click()
    await sees(page, 'Trip RCD1')
    await byKeyboard(page).mend('Replaced the device')
    await sees(page, 'To be done again')
    await toGrid()
    await readRow(page, 'RCD1', ['once-0'])
    await allSent(page)
    expect(await cellVerdict(page, 'RCD1.once-0')).toBe('within')
  }, 200_000)

  it('refuses a block that does not fit, and takes one that does', async () => {
    const paste = async (cell: string, text: string): Promise<void> => {
      await page.click(`[data-cell="${cell}"]`)
      await page.waitForSelector(`[data-cell="${cell}"].on input`)
      await page.$eval(
        `[data-cell="${cell}"] input`,
        (input, block) => {
          const data = new DataTransfer()
          data.setData('text/plain', block)
          input.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }))
        },
        text,
      )
    }
    await paste('3.zs', '0,61\t0,6\t0,6\t0,6\t0,6')
    await sees(page, 'and 4 are here. Nothing was taken')
    await paste('3.zs', '0,61\nopen')
    await sees(page, '“open” does not belong there')
    await paste('3.zs', '0,61\n0,72')
    await sees(page, '2 cells taken')
    await allSent(page)
    expect(await cellText(page, '3.zs')).toContain('0,61')
    expect(await cellText(page, '4.zs')).toContain('0,72')
  })

  it('is finished on the bench and signed', async () => {
    await page.evaluate((id: string) => {
      window.location.hash = `#${id}/run`
    }, SHOP)
    await sees(page, 'Run sheet')
    expect(await commission(page, byKeyboard(page), noFigures)).toEqual([])
    await allSent(page)
    await page.keyboard.press('g')
    await sees(page, 'Before you can seal')
    await sees(page, 'Replaced the device')
    await signed(page)
    expect((await entriesOf(SHOP)).at(-1)!.body.kind).toBe('signature')
    expect(page.complaints).toEqual([])
  }, 200_000)
})
