import type { Browser } from 'puppeteer-core'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Entry } from '@/core/record/entry'
import { allSent, openBrowser, pageOf, sees } from '../support/browser'
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
