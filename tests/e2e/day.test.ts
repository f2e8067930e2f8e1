import type { Browser, Page } from 'puppeteer-core'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { axeOn } from '../support/axe'
import { openBrowser, pageOf, press, pressId, sees } from '../support/browser'
import { emptyJob } from '../support/jobs'
import { base, demo } from '../support/server'

let browser: Browser
let page: Page & { complaints: string[] }
beforeAll(async () => {
  browser = await openBrowser()
  page = await pageOf(browser, 'tester')
  await page.setViewport({ width: 1280, height: 800 })
})
afterAll(() => browser.close())

const textOf = (selector: string): Promise<string> =>
  page.$eval(selector, (one) => (one.textContent ?? '').replaceAll('\u00a0', ' '))
const rows = (): Promise<string[]> =>
  page.$$eval('[data-testid=day-table] tbody tr.ant-table-row', (all) => all.map((one) => one.textContent ?? ''))
const OPEN = '.ant-picker-dropdown:not(.ant-picker-dropdown-hidden)'
/** A field of the shift, typed into once it stands still and is open: what is typed beside it is keys. */
async function typeInto(place: number, typed: string): Promise<void> {
  await page.waitForFunction((k: number) => document.querySelectorAll('.dayfields input').length > k, {}, place)
  await page.$$eval('.dayfields input', (all, k) => all[k]!.setAttribute('data-typed', String(k)), place)
  await page.click(`[data-typed="${place}"]`)
  await page.waitForSelector(OPEN)
  await page.$eval(`[data-typed="${place}"]`, (one) => (one as HTMLInputElement).select())
  await page.keyboard.type(typed)
  await page.waitForFunction(
    (selector: string, wanted: string) => document.querySelector<HTMLInputElement>(selector)?.value === wanted,
    {},
    `[data-typed="${place}"]`,
    typed,
  )
  await page.keyboard.press('Enter')
  await page.waitForFunction((open: string) => !document.querySelector(open), {}, OPEN)
}

const choose = (words: string): Promise<void> =>
  page.$$eval(
    '.dayfields .ant-segmented-item',
    (all, wanted) => (all.find((one) => one.textContent === wanted) as HTMLElement).click(),
    words,
  )

describe('the plan of a day, on a barn that looks east and west', () => {
  it('is one press from the run sheet, and says when each plane has light', async () => {
    await page.goto(`${base}/job#${demo.job.barn}/run`)
    await sees(page, 'Run sheet')
    await press(page, 'Day')
    await sees(page, 'Plan of the day')
    await typeInto(0, '21 Jun 2027')
    await sees(page, '21 June 2027')
    const planes = await textOf('[data-testid=day-planes]')
    const [east, west] = [...planes.matchAll(/(\d\d):\d\d to (\d\d):\d\d under a clear sky/g)].map((one) =>
      one.slice(1).map(Number),
    )
    expect(east![0]).toBeLessThan(west![0]!)
    expect(east![1]).toBeLessThan(west![1]!)
    expect(await textOf('[data-testid=day-says]')).toContain('All that is left fits')
    const laid = (await rows()).map((row) => row.replaceAll('\u00a0', ' '))
    const at = (wanted: RegExp): number => laid.findIndex((row) => wanted.test(row))
    expect(at(/Voltage.*East/)).toBeGreaterThan(at(/Sensors.*East/))
    expect(at(/Sensors.*West/)).toBeGreaterThan(at(/Current.*East/))
    expect(at(/Close-out/)).toBe(laid.length - 1)
    const { violations } = await axeOn(page, {}, '[data-view=day]')
    expect(violations.map(({ id, nodes }) => [id, nodes[0]?.html])).toEqual([])
  })

  it('on a dull day keeps what wants no light and says what waits, and how it can be read all the same', async () => {
    const before = await rows()
    await choose('dull all day')
    await page.waitForSelector('[data-testid=day-left]')
    expect((await rows()).length).toBeLessThan(before.length)
    expect(await textOf('[data-testid=day-left]')).toContain('no light for it in this shift')
    await sees(page, 'strings against each other')
  })

  it('a shift that ends before it begins is refused in a sentence', async () => {
    await typeInto(1, '18:00')
    await sees(page, 'The shift ends before it begins')
  })

  it('where nobody said where the site is, it says so and leads there', async () => {
    const { jobId } = await emptyJob('0999', 'Nowhere yet')
    await page.goto(`${base}/job#${jobId}/day`)
    await sees(page, 'No plane of modules is entered')
    await page.goto(`${base}/job#${demo.job.mill}/day`)
    await sees(page, 'Nobody said where this site is')
    await pressId(page, 'to-site')
    await sees(page, 'Latitude, degrees, south below 0')
    expect(page.complaints).toEqual([])
  })
})
