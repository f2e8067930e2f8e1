import type { Browser } from 'puppeteer-core'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { openBrowser, openStep, pageOf, pressId, sees, waitForVerdict } from '../support/browser'
import { demo, knock } from '../support/server'

let browser: Browser
beforeAll(async () => {
  browser = await openBrowser()
})
afterAll(() => browser.close())

describe('another day at the site', () => {
  it('begins a visit, and leads that were nulled on the last one are not any more', async () => {
    const page = await pageOf(browser, 'tester', `/job#${demo.job.sealed}/run`)
    await sees(page, 'The last visit was')
    await openStep(page, 'Earth continuity', 'Row R1')
    await waitForVerdict(page, 'within')
    await pressId(page, 'begin-visit')
    await page.waitForFunction(() => !document.body.innerText.includes('The last visit was'))
    const { body } = await knock<{ facts: { visits: object[] } }>('tester', `/api/jobs/${demo.job.sealed}/facts`)
    expect(body.facts.visits.length).toBe(2)
    // What was read stays; only a new reading asks for the null of this visit.
    await waitForVerdict(page, 'within')
    await pressId(page, 'again')
    await sees(page, 'Waits for the leads to be nulled in this visit')
    expect(page.complaints).toEqual([])
  })
})
