import type { Browser, Page } from 'puppeteer-core'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { loggerFile } from '@/standin/logger'
import { PRACTICE_SKY } from '@/standin/sky'
import {
  allSent,
  fileShelf,
  openBrowser,
  openStep,
  pageOf,
  pressId,
  sees,
  tickAll,
  waitForVerdict,
} from '../support/browser'
import { demo, knock } from '../support/server'

let browser: Browser
let page: Page & { complaints: string[] }
let shelf: Awaited<ReturnType<typeof fileShelf>>
beforeAll(async () => {
  // This roof has no light of its own here: the meter is on another one.
  await knock('tester', `/api/jobs/${demo.job.open}/pair`, { instrumentId: demo.meter02 })
  browser = await openBrowser()
  page = await pageOf(browser, 'tester', `/job#${demo.job.mill}/run`)
  shelf = await fileShelf()
})
afterAll(async () => {
  await browser.close()
  await shelf.clear()
})

const choose = (name: string, text: string): Promise<void> => shelf.give(page, 'logger-file', name, text)

describe('a logger’s file', () => {
  it('whose clock is an hour ahead gives a reading its light, and the voltage is judged', async () => {
    await openStep(page, 'Voltage', 'String 38')
    await tickAll(page)
    await pressId(page, 'press')
    await page.waitForSelector('[data-testid=keep]')
    await pressId(page, 'keep')
    // Without light the plate alone says what it can: no more than where it lies in whatever light.
    await page.waitForFunction(() => /whatever light|decides nothing yet/.test(document.body.innerText))
    await allSent(page)

    await pressId(page, 'again')
    await pressId(page, 'conditions')
    await pressId(page, 'from-logger')
    await choose('nothing.csv', 'when,what\n1,2')
    await sees(page, 'A record needs a column of time')
    const now = Date.now()
    await choose('roof.csv', loggerFile(PRACTICE_SKY, 'roof', now - 900_000, now + 60_000, 3600))
    await sees(page, '60 min ahead')
    expect(await page.$eval('[data-testid=logger-ahead]', (input) => (input as HTMLInputElement).value)).toBe('60')
    await sees(page, 'readings without light get theirs')
    await page.click('[role=dialog] button[type=submit]')
    await allSent(page)
    await openStep(page, 'Voltage', 'String 39')
    await openStep(page, 'Voltage', 'String 38')
    await waitForVerdict(page, 'within')
    await sees(page, 'light and warmth joined from a logger’s file')
    expect(page.complaints).toEqual([])
  })
})
