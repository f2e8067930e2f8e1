// Every screen in the language that nobody speaks: what stays readable was in no table, what is cut off has no room.
import type { Browser, Page } from 'puppeteer-core'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { clickOn, openBrowser, pageOf } from '../support/browser'
import { base, demo } from '../support/server'
import { ownWords, strangers } from '../support/spoken'

const OTHER = 'en-XA'
let browser: Browser
let page: Page & { complaints: string[] }
let own: string[] = []
const jobs = ['open', 'house', 'glasshouse', 'joinery', 'mews'] as const

beforeAll(async () => {
  browser = await openBrowser()
  page = await pageOf(browser, 'supervisor')
  await page.setViewport({ width: 1280, height: 800 })
  await page.evaluate((tag: string) => localStorage.setItem('upstand.language', tag), OTHER)
  own = await ownWords(
    page,
    jobs.map((job) => demo.job[job]),
  )
})
afterAll(() => browser.close())

async function show(path: string, ready: string): Promise<void> {
  await page.goto('about:blank')
  await page.goto(base + path)
  await page.waitForFunction((tag: string) => document.documentElement.lang === tag, {}, OTHER)
  await page.waitForSelector(ready)
  await page.waitForNetworkIdle({ idleTime: 300, concurrency: 2 })
}

const screens = [
  ['Today', '/', 'main .ant-btn'],
  ['Office, regimes', '/office#regimes', '.ant-tabs-content .ant-table, .ant-tabs-content .ant-btn'],
  ['Office, instruments', '/office#kit', '.ant-tabs-content .ant-btn'],
  ['Office, modules', '/office#modules', '.ant-table-row'],
  ['Office, charge points', '/office#charge-points', '.ant-table-row'],
  ['Office, company', '/office#company', '[data-testid=letterhead]'],
  ['Office, people', '/office#people', '.ant-table-row'],
  ['Office, log', '/office#log', '.ant-tabs-content'],
  ['Plant', `/job#${demo.job.open}/plant`, '.plant-drawing'],
  ['Plant, boards', `/job#${demo.job.joinery}/plant`, '.plant-drawing'],
  ['Schedule', `/job#${demo.job.joinery}/schedule`, '[data-cell]'],
  ['Record', `/job#${demo.job.open}/record`, '.cert'],
  ['Record, charge points', `/job#${demo.job.mews}/record`, '.cert'],
] as const

describe('in another language', () => {
  it.each(screens)('%s says everything in it, and has room', async (_, path, ready) => {
    await show(path, ready)
    expect(await strangers(page, own)).toEqual({ readable: [], cut: [] })
  })

  it.each(['open', 'house', 'glasshouse', 'mews'] as const)('every test of %s does', async (job) => {
    await show(`/job#${demo.job[job]}/run`, '.bench')
    const groups = await page.$$('.rail .sheet-groups > .ant-collapse-item')
    expect(groups.length).toBeGreaterThan(8)
    const found: Record<string, unknown> = {}
    for (const group of groups) {
      const head = (await group.$('.ant-collapse-header'))!
      if ((await head.evaluate((one) => one.getAttribute('aria-expanded'))) !== 'true') await head.click()
      const row = (await group.waitForSelector('.stp'))!
      await clickOn(row)
      await page.waitForFunction((one: Element) => one.getAttribute('aria-current') === 'step', {}, row)
      await page.waitForNetworkIdle({ idleTime: 120, concurrency: 3 })
      const here = await strangers(page, own)
      const name = (await group.$eval('.grp b', (one) => one.textContent)) ?? ''
      if (here.readable.length + here.cut.length > 0) found[name] = here
    }
    expect(found).toEqual({})
  })

  it('refuses in it as well', async () => {
    const said = await page.evaluate(async (tag: string) => {
      const answer = await fetch('/api/jobs/none/facts', { headers: { 'accept-language': tag } })
      return ((await answer.json()) as { title: string }).title
    }, OTHER)
    expect(said).not.toMatch(/[A-Za-z]{3}/)
    expect(page.complaints).toEqual([])
  })
})
