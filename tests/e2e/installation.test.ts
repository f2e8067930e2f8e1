import type { Browser, Page } from 'puppeteer-core'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Entry } from '@/core/record/entry'
import { allSent, chooseIn, openBrowser, pageOf, pressId, sees } from '../support/browser'
import { byKeyboard, commission, type Figures, signed } from '../support/commission'
import { cellText, openCell, pasteHere, readCell, setUp, standsAs, toSchedule } from '../support/schedule'
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
    await sees(page, 'Inspect the electrical installation')
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

const tags = ['2', '3', '4', '5']

describe('a workshop with three phases', () => {
  let page: Page & { complaints: string[] }
  beforeAll(async () => {
    page = await pageOf(browser, 'tester', `/job#${SHOP}/run`)
    await sees(page, 'Inspect the electrical installation')
  })

  const onBench = async (titles: readonly string[]): Promise<void> => {
    await page.evaluate((id: string) => {
      window.location.hash = `#${id}/run`
    }, SHOP)
    await sees(page, 'Run sheet')
    await commission(page, byKeyboard(page), noFigures, titles)
  }

  it('is filled from the grid before the supply comes on', async () => {
    await onBench([
      'Inspect the electrical installation',
      'Null the test leads',
      'Prove the installation dead',
      'Read earthing and bonding, Supply',
    ])
    await toSchedule(page, SHOP, 'DB1 Origin')
    // What the instrument is set to is never filled in: somebody says it, once for all rows.
    expect(await page.$eval('[data-testid=chip-ac-insulation]', (one) => (one as HTMLElement).innerText)).toContain(
      'say which',
    )
    await setUp(page, 'ac-insulation', 'set-voltage', '500 V')
    const fill = async (rows: readonly string[]): Promise<void> => {
      for (const tag of rows) {
        for (const column of ['r1r2', 'live', 'to-earth']) await readCell(page, `${tag}.${column}`)
        await openCell(page, `${tag}.ac-polarity`)
        await page.keyboard.type('1')
        await page.keyboard.press('Enter')
        for (const column of ['r1r2', 'live', 'to-earth', 'ac-polarity'])
          await standsAs(page, `${tag}.${column}`, 'within')
      }
    }
    await fill(['1'])
    await chooseIn(page, 'schedule-board', 'DB2 Hall')
    await fill(tags)
    await allSent(page)
    const kept = (await entriesOf(SHOP)).filter((entry) => entry.body.kind === 'reading').map((entry) => entry.step)
    for (const step of ['r1r2', 'ac-insulation', 'ac-polarity'])
      expect(kept.filter((one) => one === step)).toHaveLength(5)
  }, 200_000)

  it('keeps what is half-filled while somebody looks elsewhere', async () => {
    await openCell(page, '2.live')
    await page.keyboard.type('345')
    await page.waitForSelector('[data-cell="2.live"] .gcell.pen')
    await page.evaluate((id: string) => {
      window.location.hash = `#${id}/record`
    }, SHOP)
    await sees(page, 'Before you can seal')
    await toSchedule(page, SHOP, 'DB2 Hall')
    await page.waitForSelector('[data-cell="2.live"] .gcell.pen')
    expect(await cellText(page, '2.live')).toBe('345')
    await openCell(page, '2.live')
    await page.keyboard.press('Escape')
    await page.waitForFunction(() => !document.querySelector('.gcell.pen'))
  })

  it('takes the whole board at once for every circuit on it, and pair by pair again', async () => {
    await setUp(page, 'ac-insulation', 'pairing', 'Whole board')
    await readCell(page, '3.live')
    await readCell(page, '3.to-earth')
    // One circuit after the other gets its reading.
    await standsAs(page, '3.to-earth', 'within')
    const whole = await cellText(page, '3.to-earth')
    for (const tag of tags) {
      await standsAs(page, `${tag}.to-earth`, 'within')
      expect(await cellText(page, `${tag}.to-earth`)).toBe(whole)
    }
    await allSent(page)
    const read = (await entriesOf(SHOP)).filter((entry) => entry.step === 'ac-insulation')
    // Five pair by pair, and four together: circuit 1 hangs on the other board.
    expect(read).toHaveLength(9)
    await setUp(page, 'ac-insulation', 'pairing', 'Pair by pair')
    for (const tag of tags) {
      await readCell(page, `${tag}.live`)
      await readCell(page, `${tag}.to-earth`)
      await standsAs(page, `${tag}.to-earth`, 'within')
    }
    await allSent(page)
  }, 100_000)

  it('stands in the line as a tree of boards', async () => {
    await page.evaluate((id: string) => {
      window.location.hash = `#${id}/run`
    }, SHOP)
    await page.waitForSelector('[data-board]')
    expect(await page.$$eval('[data-board]', (all) => all.map((one) => one.getAttribute('data-board')))).toEqual([
      'DB1',
      'DB2',
    ])
    await page.click('[data-board="DB1"]')
    await sees(page, 'Insulation of board DB1, all connected')
    // The schedule opens at the board one came from.
    await pressId(page, 'to-schedule')
    await page.waitForSelector('[data-cell="1.zs"]')
  })

  it('holds a live cell back until the earthing conductor is back', async () => {
    await toSchedule(page, SHOP, 'DB2 Hall')
    await page.click('[data-cell="3.zs"] button')
    await page.waitForSelector('[data-cell="3.zs"] .gcell.on input')
    expect(await page.$eval('[data-cell="3.zs"] input', (one) => (one as HTMLInputElement).readOnly)).toBe(true)
    await sees(page, 'Waits until the earthing conductor is back')
    await page.keyboard.type('0.4')
    expect(await cellText(page, '3.zs')).toBe('')
  })

  it('takes loops and trips, finds the slow device, and the re-test', async () => {
    // What is read dead comes before anything is energised.
    await onBench(['Insulation of board DB1, all connected', 'Insulation of board DB2, all connected'])
    await onBench(['Read Ze at the origin', 'Put the earthing conductor back'])
    await toSchedule(page, SHOP, 'DB1 Origin')
    await readCell(page, '1.zs')
    await chooseIn(page, 'schedule-board', 'DB2 Hall')
    for (const tag of tags) await readCell(page, `${tag}.zs`)
    await readCell(page, 'RCD2.times-1')
    await standsAs(page, 'RCD2.times-1', 'within')
    // What is outside is not left by itself: it is looked at, and kept by going on.
    await readCell(page, 'RCD1.times-1')
    await sees(page, 'more than 300 ms')
    await page.keyboard.press('Enter')
    await standsAs(page, 'RCD1.times-1', 'outside')
    await allSent(page)
    await openCell(page, 'RCD1.times-1')
    await pressId(page, 'schedule-bench')
    await sees(page, 'Trip RCD1')
    await byKeyboard(page).mend('Replaced the device')
    await sees(page, 'To be done again')
    await toSchedule(page, SHOP, 'DB2 Hall')
    await readCell(page, 'RCD1.times-1')
    await standsAs(page, 'RCD1.times-1', 'within')
    await allSent(page)
  }, 200_000)

  it('refuses a block that does not fit, and takes one that does', async () => {
    await openCell(page, '3.zs')
    await pasteHere(page, '0,61\t0,6\t0,6\t0,6')
    await sees(page, 'and 3 are here. Nothing was taken')
    await pasteHere(page, '0,61\nopen')
    await sees(page, '“open” does not belong there')
    await pasteHere(page, '0,61\n0,72')
    await sees(page, '2 figures taken')
    await allSent(page)
    await page.keyboard.press('Escape')
    expect(await cellText(page, '3.zs')).toContain('0,61')
    expect(await cellText(page, '4.zs')).toContain('0,72')
    // Three lines are three figures.
    await openCell(page, '2.zs')
    await pasteHere(page, '0.4\n')
    await sees(page, '3 figures are wanted, with a stroke between them')
    await pasteHere(page, '0.41 / 0.43 / 0.42\n')
    await sees(page, '3 figures taken')
    await allSent(page)
    await page.keyboard.press('Escape')
    expect(await cellText(page, '2.zs')).toBe('0.43')
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
