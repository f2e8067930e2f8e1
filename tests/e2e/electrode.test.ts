import type { Browser, Page } from 'puppeteer-core'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Entry } from '@/core/record/entry'
import { allSent, openBrowser, pageOf, pressId, sees } from '../support/browser'
import { byKeyboard, look } from '../support/commission'
import { demo, knock } from '../support/server'

let browser: Browser
let page: Page & { complaints: string[] }
const { cottage } = demo.job

beforeAll(async () => {
  browser = await openBrowser()
  page = await pageOf(browser, 'tester', `/job#${cottage}/run/electrode/${demo.part.cottageElectrode}`)
  await sees(page, 'Read electrode E1')
})
afterAll(() => browser.close())

const pictures = (): Promise<string[]> =>
  page.$$eval('[data-picture]', (all) => all.map((one) => one.getAttribute('data-picture') ?? ''))
const figureOf = (slot: string): Promise<string> =>
  page.$eval(`#slot-${slot}`, (input) => (input as HTMLInputElement).value)

async function figure(slot: string, text: string): Promise<void> {
  // By focus and not by place: what is answered above it may move it while the page is drawn.
  await page.$eval(`#slot-${slot}`, (input) => {
    ;(input as HTMLInputElement).focus()
    ;(input as HTMLInputElement).select()
  })
  await page.keyboard.type(text)
  await page.waitForFunction(
    (id: string, wanted: string) => document.querySelector<HTMLInputElement>(id)?.value === wanted,
    {},
    `#slot-${slot}`,
    text,
  )
  await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur())
}

describe('an electrode over months', () => {
  it('shows its way, the ground around it, and what it read before', async () => {
    await page.waitForSelector('[data-picture=trend]')
    expect(await pictures()).toEqual(['spikes', 'garden', 'trend'])
    await sees(page, '52.6 Ω')
    await sees(page, 'W1 water')
    // Columns scroll by themselves, however long one is: the page does not.
    expect(await page.evaluate(() => document.documentElement.scrollHeight - window.innerHeight)).toBe(0)
  })

  it('is taken again with the spikes where they stood', async () => {
    await pressId(page, 'again')
    await page.waitForFunction(() => document.querySelector<HTMLInputElement>('#slot-re-1')?.value === '')
    expect([await figureOf('spike-distance'), await figureOf('spike-bearing')]).toEqual(['40', '120'])
    expect(await figureOf('re-1')).toBe('')
  })

  it('is stopped before a spike is driven into a gas pipe', async () => {
    // The conductor is off, and the ground was searched: each is ticked by itself.
    for (let left = (await look(page)).ticks; left > 0; left--) await byKeyboard(page).tick()
    // The gas pipe passes 6 m off at 210 degrees: 62 % of 10 m is 6.2 m.
    await figure('spike-distance', '10')
    await figure('spike-bearing', '210')
    await sees(page, 'would stand 0.2 m from G1')
    expect((await look(page)).can).not.toContain('keep')
    expect((await look(page)).can).not.toContain('press')
  })

  it('says that metal runs beside the spikes, and which way is clear', async () => {
    await figure('spike-distance', '40')
    await figure('spike-bearing', '170')
    for (const [slot, read] of [
      ['re-1', '24.0'],
      ['re-2', '24.2'],
      ['re-3', '23.9'],
    ])
      await figure(slot!, read!)
    await sees(page, 'W1 runs beside the spikes')
    await sees(page, 'Take the way at')
    expect((await look(page)).verdict).toBe('close')
  })

  it('is kept with the way across, and joins the trend', async () => {
    await figure('spike-bearing', '80')
    await page.waitForFunction(
      () => document.querySelector<HTMLElement>('[data-testid=verdict]')?.dataset.verdict === 'within',
    )
    await byKeyboard(page).main('keep')
    await allSent(page)
    // No metal lies along that way: it is no other set-up, and says what changed.
    await sees(page, '% since')
    const { body } = await knock<{ facts: { entries: Entry[] } }>('tester', `/api/jobs/${cottage}/facts`)
    const last = body.facts.entries.findLast((entry) => entry.step === 'electrode')!
    expect(last.body.kind === 'reading' && last.body.slots['spike-bearing']).toMatchObject({ value: 80, unit: 'deg' })
  })
})

describe('the simulated tester at an electrode', () => {
  it('is pressed once a place: the potential spike is moved between', async () => {
    await pressId(page, 'again')
    for (let left = (await look(page)).ticks; left > 0; left--) await byKeyboard(page).tick()
    await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur())
    for (const slot of ['re-1', 're-2', 're-3']) {
      await page.keyboard.press('p')
      await page.waitForFunction(
        (id: string) => document.querySelector<HTMLInputElement>(id)?.value,
        {},
        `#slot-${slot}`,
      )
    }
    const all = await Promise.all(['re-1', 're-2', 're-3'].map(figureOf))
    expect(new Set(all).size).toBeGreaterThan(1)
    await page.waitForFunction(
      () => document.querySelector<HTMLElement>('[data-testid=verdict]')?.dataset.verdict === 'within',
    )
  })
})

describe('planning rods', () => {
  it('begins with this soil and says how many reach the target', async () => {
    await pressId(page, 'open-planner')
    await page.waitForSelector('[data-testid=plan-target]')
    await sees(page, 'This electrode’s reading makes it')
    await page.click('[data-testid=plan-target]', { count: 3 })
    await page.keyboard.type('20')
    await sees(page, 'Enough for 20.0 Ω')
  })

  it('refuses what is no figure, and goes on', async () => {
    await page.click('[data-testid=plan-resistivity]', { count: 3 })
    await page.keyboard.type('clay')
    await sees(page, '“clay” is not a figure from 1 to 100000')
    await page.click('[data-testid=plan-resistivity]', { count: 3 })
    await page.keyboard.type('60')
    await sees(page, 'Soil 60 Ωm')
    await page.keyboard.press('Escape')
    await page.waitForFunction(() => !document.querySelector('[data-testid=rod-planner]'))
    expect(page.complaints).toEqual([])
  })
})
