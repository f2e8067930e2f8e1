// A periodic inspection: what was found is classed at its test, and the report says whether it may go on in use.
import type { Browser, Page } from 'puppeteer-core'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { allSent, openBrowser, openStep, pageOf, sees } from '../support/browser'
import { demo } from '../support/server'

let browser: Browser
beforeAll(async () => {
  browser = await openBrowser()
})
afterAll(() => browser.close())

const JOB = `/job#${demo.job.fennel}`
const classOf = (page: Page, found: string): Promise<string | undefined> =>
  page.$eval(`[data-found="${found}"]`, (one) => (one as HTMLElement).dataset.as)

describe('what a periodic inspection found', () => {
  it('is classed by a press at its test, and makes the result of the report', async () => {
    const page = await pageOf(browser, 'tester', `${JOB}/record`)
    await sees(page, 'Report of a periodic inspection')
    await sees(page, '1 × Could become dangerous (C2); 1 × Look further (FI); 2 × Improve (C3).')
    await sees(page, 'Danger now (C1); put right')
    await page.evaluate((at) => window.location.assign(at), `${JOB}/run`)
    await openStep(page, 'AC inspection', 'The site')
    await page.waitForSelector('[data-testid=found]')
    expect(await classOf(page, 'look-chart')).toBe('improve')
    await page.click('[data-found=look-chart] [data-class=danger]')
    await sees(page, 'Somebody could be hurt now')
    await allSent(page)
    await page.evaluate((at) => window.location.assign(at), `${JOB}/record`)
    await sees(page, '1 × Danger now (C1); 1 × Could become dangerous (C2)')
    // The office sees it without looking for it.
    const office = await pageOf(browser, 'supervisor')
    await office.waitForSelector('[data-testid=dangers]')
    expect(await office.$eval('[data-testid=dangers]', (one) => (one as HTMLElement).innerText)).toMatch(/0629/)
    expect(page.complaints).toEqual([])
  })

  it('is never only to be improved where the test protects people', async () => {
    const page = await pageOf(browser, 'tester', `${JOB}/run`)
    await openStep(page, 'RCD trips', 'Device RCD1')
    await page.waitForSelector('[data-testid=found]')
    // Whoever inspects mends nothing: what has its class is left, and the next test comes.
    expect(await page.$eval('.acts .ant-btn-primary', (one) => (one as HTMLElement).dataset.testid)).toBe('next')
    await page.click('[data-testid=found] [data-class=improve]')
    await sees(page, 'never only to be improved')
    await allSent(page)
    expect(await page.$eval('.matter', (one) => (one as HTMLElement).dataset.as)).toBe('look-further')
  })
})
