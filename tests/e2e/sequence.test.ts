import type { Browser, Page } from 'puppeteer-core'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Entry } from '@/core/record/entry'
import {
  allSent,
  clickOn,
  openBrowser,
  openStep,
  pageOf,
  press,
  pressId,
  sees,
  waitForVerdict,
} from '../support/browser'
import { demo, knock } from '../support/server'
import { CLOUD_LIMIT_ms, clearSky } from '../support/sky'

const JOB = demo.job.mill
let browser: Browser
let page: Page & { complaints: string[] }
beforeAll(async () => {
  browser = await openBrowser()
  page = await pageOf(browser, 'tester', `/job#${JOB}/run`)
  await sees(page, 'Run sheet')
  await page.waitForSelector('[data-testid=live-light], [data-testid=pair]')
  if (await page.$('[data-testid=pair]')) await pressId(page, 'pair')
  await page.waitForSelector('[data-testid=live-light]')
  // What a current reads under the edge of a cloud is to be read again, and "Next" leads there.
  await clearSky(60_000)
}, CLOUD_LIMIT_ms)
afterAll(() => browser.close())

const readingsOf = async (partId: string): Promise<Entry[]> => {
  const { body } = await knock<{ facts: { entries: Entry[] } }>('tester', `/api/jobs/${JOB}/facts`)
  return body.facts.entries.filter((entry) => entry.body.kind === 'reading' && entry.partId === partId)
}
const partId = (): Promise<string> => page.evaluate(() => window.location.hash.split('/').at(-1)!)

describe('the tester’s automatic sequence', () => {
  it('reads what is open on a string, and keeps each reading on its own step', async () => {
    await openStep(page, 'Voltage', 'String 36')
    const id = await partId()
    const before = (await readingsOf(id)).length
    await pressId(page, 'sequence-open')
    await page.waitForSelector('[role=dialog] [data-testid=sequence]')
    expect(await page.$eval('[data-testid=sequence-start]', (one) => (one as HTMLButtonElement).disabled)).toBe(true)
    for (const tick of await page.$$('[role=dialog] .chk input:not(:checked)')) await clickOn(tick)
    await pressId(page, 'sequence-start')
    await pressId(page, 'sequence-keep')
    // Each is in the queue once the dialog is gone.
    await page.waitForFunction(() => !document.querySelector('[data-testid=sequence]'))
    await allSent(page)
    const kept = (await readingsOf(id)).slice(before)
    expect(kept.map((entry) => entry.step)).toEqual(['pv-voc', 'pv-isc'])
    for (const entry of kept) expect(entry.body).toMatchObject({ how: 'stand-in', conditions: { how: 'stand-in' } })
  })

  it('leaves nothing behind on the bench to be kept twice', async () => {
    // The feed brings what was pressed within two seconds: the bench knows it already.
    await new Promise((resolve) => setTimeout(resolve, 3000))
    await waitForVerdict(page, 'within')
    expect(await page.$('[data-testid=keep]')).toBeNull()
    expect(page.complaints).toEqual([])
  })
})

describe('the order for the day', () => {
  it('by place goes from test to test of one string', async () => {
    await pressId(page, 'way-by-place')
    await page.waitForFunction(() =>
      [...document.querySelectorAll('.rail .grp b')].some((one) => one.textContent === 'String 36'),
    )
    await page.evaluate(() => {
      const groups = [...document.querySelectorAll<HTMLElement>('.rail .grp')]
      const group = groups.find((one) => one.querySelector('b')?.textContent === 'String 36')!
      if (group.closest('.ant-collapse-header')?.getAttribute('aria-expanded') !== 'true') group.click()
    })
    await page.waitForFunction(() => document.querySelectorAll('.rail .stp').length === 5)
    const rows = await page.$$eval('.rail .stp span', (all) => all.map((one) => one.firstChild?.textContent))
    expect(rows).toEqual(['Polarity', 'Voltage', 'Current', 'Insulation', 'Plugs locked'])
    await press(page, 'Next')
    await sees(page, 'Insulation to earth, string 36')
    await pressId(page, 'way-by-test')
  })
})
