import type { Browser, Page } from 'puppeteer-core'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { clickOn, openBrowser, openStep, pageOf, pressId, sees } from '../support/browser'
import { base, demo } from '../support/server'

let browser: Browser
let page: Page & { complaints: string[] }
beforeAll(async () => {
  browser = await openBrowser()
  page = await pageOf(browser, 'tester')
  await page.setViewport({ width: 1280, height: 800 })
})
afterAll(() => browser.close())

async function openJob(): Promise<void> {
  await page.goto('about:blank')
  await page.goto(`${base}/job#${demo.job.mill}/run`)
  await page.waitForSelector('.bench')
}

describe('the first time in a job', () => {
  it('somebody is shown around in five sentences at most, and never again', async () => {
    await page.evaluate(() => localStorage.removeItem('upstand.shown-around'))
    await openJob()
    let sentences = 0
    for (; sentences < 9; sentences++) {
      const next = await page.waitForSelector('.ant-tour-next-btn')
      expect(await page.$eval('.ant-tour-title', (one) => one.textContent!.length)).toBeLessThan(130)
      const isLast = (await next!.evaluate((one) => one.textContent)) === 'To work'
      await clickOn(next)
      if (isLast) break
    }
    expect(sentences + 1).toBe(5)
    await page.waitForFunction(() => !document.querySelector('.ant-tour-section')?.checkVisibility())
    await openJob()
    await new Promise((resolve) => setTimeout(resolve, 500))
    expect(await page.$('.ant-tour-section')).toBeNull()
  })

  it('may be left at once, and asked for again', async () => {
    await page.click('.who-cell')
    const again = await page.waitForSelector('::-p-text(Show me around)')
    await clickOn(again)
    await page.click('.ant-tour [aria-label="Leave it"]')
    await page.waitForFunction(() => !document.querySelector('.ant-tour-section')?.checkVisibility())
    // The keys are the bench's again.
    await openStep(page, 'Voltage', 'String 1')
    expect(page.complaints).toEqual([])
  })
})

describe('what somebody may ask', () => {
  it('is why a limit is what it is, by one key', async () => {
    await page.keyboard.press('i')
    const why = await page.waitForSelector('[data-testid=why-limits]')
    const text = await why!.evaluate((one) => (one as HTMLElement).innerText)
    expect(text).toContain('Each module adds its part')
    expect(text).toMatch(/String against expectation.*: 5\s%/)
    // A string against its model is a rule of our own: the standard compares strings with each other.
    expect(text).toMatch(/house rule 24\. A rule of this tool: a model of the plate/)
    expect(text).toMatch(/De Soto.*Written down from memory/s)
    await page.keyboard.press('i')
    await page.waitForFunction(() => !document.querySelector('[data-testid=why-limits]'))
  })

  it('is a word where it stands, and every word in one place', async () => {
    await pressId(page, 'words-here')
    await sees(page, 'Modules in series: one current, voltages added.')
    await pressId(page, 'all-words')
    await page.waitForSelector('[data-testid=find-word]')
    await page.focus('[data-testid=find-word] input')
    await page.keyboard.type('smooth direct')
    await page.waitForFunction(() => document.querySelectorAll('.glossary b').length === 2)
    const found = await page.$$eval('.glossary b', (all) => all.map((one) => one.textContent.replaceAll('\u00a0', ' ')))
    expect(found).toEqual(['6 mA detector, RDC-DD', 'RCD type AC, A, F, B'])
    await page.$$eval('.ant-drawer [role=tab]', (all) => (all[1] as HTMLElement).click())
    await sees(page, 'Bar with a foot: the limit')
    expect(page.complaints).toEqual([])
  })
})
