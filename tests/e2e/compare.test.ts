import type { Browser, Page } from 'puppeteer-core'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Facts } from '@/core/record/facts'
import { axeOn } from '../support/axe'
import { allSent, openBrowser, openStep, pageOf, sees } from '../support/browser'
import { base, demo, knock } from '../support/server'

let browser: Browser
let page: Page & { complaints: string[] }
beforeAll(async () => {
  browser = await openBrowser()
  page = await pageOf(browser, 'tester')
  await page.setViewport({ width: 1280, height: 800 })
  await page.goto(`${base}/job#${demo.job.glasshouse}/run`)
  await openStep(page, 'Voltage', 'String 2')
})
afterAll(() => browser.close())

const titleNow = (): Promise<string> => page.$eval('h1', (one) => one.textContent ?? '')
const here = (): Promise<string> =>
  page.evaluate(
    () => document.activeElement?.closest('[data-alike]')?.getAttribute('aria-label')?.replaceAll('\u00a0', ' ') ?? '',
  )

describe('eight strings side by side', () => {
  it('name the odd one and what it lacks, one key from the step', async () => {
    await page.keyboard.press('v')
    await page.waitForSelector('[data-testid=compare] [data-alike]')
    expect(await titleNow()).toBe('Voltage, string 7: 2 modules short')
    await sees(page, '% of the middle of 8')
    const rings = await page.$$eval('.strip-plot', (all) =>
      all.map((one) => one.querySelectorAll('[data-alike]').length),
    )
    expect(rings.slice(0, 3)).toEqual([8, 8, 8])
    const { violations } = await axeOn(page, {}, '[data-testid=compare]')
    expect(violations.map(({ id, nodes }) => [id, nodes[0]?.html])).toEqual([])
  })

  it('have a snag of the odd one written down by one key, where it was seen', async () => {
    await page.$eval('.strip-plot [data-alike][tabindex="0"]', (one) => (one as SVGGElement).focus())
    await page.keyboard.press('s')
    await page.waitForFunction(() => document.activeElement?.tagName === 'TEXTAREA')
    expect(await page.$eval('[role=dialog]', (one) => one.textContent)).toContain('string 7')
    await page.keyboard.type('two modules are not plugged in')
    await page.$eval('[role=dialog] button[type=submit]', (button) => (button as HTMLButtonElement).click())
    await page.waitForFunction(() => !document.querySelector('[role=dialog]')?.checkVisibility())
    await allSent(page)
    const { body } = await knock<{ facts: Facts }>('tester', `/api/jobs/${demo.job.glasshouse}/facts`)
    const snag = body.facts.entries.find(
      (entry) => entry.body.kind === 'snag' && entry.body.text.startsWith('two modules'),
    )
    expect(snag).toMatchObject({ step: 'pv-voc' })
    expect(await titleNow()).toBe('Voltage, string 7: 2 modules short')
  })

  it('are walked by the arrows, and opened by Enter', async () => {
    await page.$eval('.strip-plot [data-alike][tabindex="0"]', (one) => (one as SVGGElement).focus())
    expect(await here()).toMatch(/String 7: 8\d\.\d %, Outside/)
    await page.keyboard.press('ArrowRight')
    expect(await here()).toMatch(/String \d: 9\d\.\d %|String \d: 100\.\d %/)
    await page.keyboard.press('ArrowLeft')
    await page.keyboard.press('ArrowDown')
    expect(await here()).toMatch(/String 7: (99|100)\.\d %/)
    await page.keyboard.press('Enter')
    await page.waitForFunction(() => document.querySelector('h1')?.textContent === 'Read current, string 7')
  })

  it('stand in the record as a table', async () => {
    await page.keyboard.press('g')
    await sees(page, 'Strings side by side, Packing shed')
    await sees(page, 'Voltage, % of the middle')
    expect(page.complaints).toEqual([])
  })
})
