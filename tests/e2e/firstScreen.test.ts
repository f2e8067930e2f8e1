import type { Browser, Page } from 'puppeteer-core'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { evaluate } from '@/core/evaluate'
import type { Facts } from '@/core/record/facts'
import { openBrowser, pageOf, sees, tickAll } from '../support/browser'
import { base, demo } from '../support/server'

const SIZES = [
  { width: 1280, height: 800 },
  { width: 820, height: 1180 },
  { width: 360, height: 740 },
]
/** Between them every test of the trade that the demo has. */
const JOBS = [
  { name: 'a house', id: demo.job.house },
  { name: 'a glasshouse', id: demo.job.glasshouse },
  { name: 'charge points', id: demo.job.mews },
]

let browser: Browser
let page: Page & { complaints: string[] }
beforeAll(async () => {
  browser = await openBrowser()
  page = await pageOf(browser, 'supervisor')
})
afterAll(() => browser.close())

const factsOf = (jobId: string): Promise<Facts> =>
  page.evaluate(async (id: string) => {
    const answer = await fetch(`/api/jobs/${id}/facts`)
    return ((await answer.json()) as { facts: Facts }).facts
  }, jobId)

/** What of the open step is not on the first screen. */
const missing = (): Promise<string[]> =>
  page.evaluate(() => {
    window.scrollTo(0, 0)
    const wide = document.documentElement.scrollWidth > window.innerWidth ? ['wider than the screen'] : []
    const foot = document.querySelector('.bench .acts')!.getBoundingClientRect()
    const lost = ['.bench .verdict', '.bench .acts'].filter((selector) => {
      const box = document.querySelector(selector)!.getBoundingClientRect()
      const isUnderFoot = selector === '.bench .verdict' && box.bottom > foot.top + 1
      return box.top < 0 || box.bottom > window.innerHeight + 1 || box.width === 0 || isUnderFoot
    })
    return [...lost, ...wide]
  })

describe.each(JOBS)('every test of $name', ({ id }) => {
  it('has its verdict and its actions on the first screen: on a table, upright, on a phone', async () => {
    await page.goto('about:blank')
    await page.goto(`${base}/job#${id}/run`)
    await page.waitForSelector('.bench')
    const found: string[] = []
    const seen = new Set<string>()
    for (const { key, step, part } of evaluate(await factsOf(id), Date.now()).steps) {
      if (seen.has(step.id)) continue
      seen.add(step.id)
      await page.evaluate((hash: string) => window.location.assign(hash), `#${id}/run/${step.id}/${part.id}`)
      await page.waitForSelector(`.bench[data-step="${key}"]`)
      for (const size of SIZES) {
        await page.setViewport(size)
        // A curve takes a moment to find its new size.
        let lacks = await missing()
        for (let k = 0; k < 60 && lacks.length > 0; k++) {
          await new Promise((resolve) => setTimeout(resolve, 100))
          lacks = await missing()
        }
        for (const what of lacks) found.push(`${key} ${what} ${size.width}`)
      }
    }
    expect(found).toEqual([])
    expect(seen.size).toBeGreaterThan(10)
  })
})

describe('in the hand', () => {
  it('a figure, its verdict and the keys are seen together', async () => {
    await page.setViewport({ width: 360, height: 740 })
    await page.goto('about:blank')
    await page.goto(`${base}/job#${demo.job.open}/run`)
    await page.waitForSelector('.bench')
    const facts = await factsOf(demo.job.open)
    const next = evaluate(facts, Date.now()).steps.find((one) => one.step.id === 'pv-voc' && one.verdict === 'not-yet')!
    await page.evaluate((hash: string) => window.location.assign(hash), `#${demo.job.open}/run/pv-voc/${next.part.id}`)
    await sees(page, `Read voltage, string ${next.part.data.tag}`)
    await tickAll(page)
    await page.$eval('#slot-voltage', (one) => one.scrollIntoView({ block: 'center' }))
    await page.click('#slot-voltage')
    await page.waitForSelector('.keys')
    for (const key of ['3', '5', '0'])
      await page.evaluate(
        (wanted: string) =>
          [...document.querySelectorAll<HTMLElement>('.keys button')]
            .find((one) => one.textContent === wanted)!
            .click(),
        key,
      )
    await page.waitForFunction(() => document.querySelector<HTMLInputElement>('#slot-voltage')?.value === '350')
    const cut = await page.evaluate(() =>
      ['.slot:has(#slot-voltage)', '.bench .verdict', '.bench .keys', '.bench .acts'].filter((selector) => {
        const box = document.querySelector(selector)!.getBoundingClientRect()
        const top = document.elementFromPoint(box.left + box.width / 2, box.top + 6)
        return box.top < 0 || box.bottom > window.innerHeight + 1 || !top?.closest(selector)
      }),
    )
    expect(cut).toEqual([])
    expect(page.complaints).toEqual([])
  })
})
