import type { Browser, Page } from 'puppeteer-core'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { allSent, openBrowser, pageOf, pressId, sees, waitForVerdict } from '../support/browser'
import { reviewedByKeys } from '../support/commission'
import { hiddenByTab } from '../support/focus'
import { demo } from '../support/server'

let browser: Browser
beforeAll(async () => {
  browser = await openBrowser()
})
afterAll(() => browser.close())

/** Tabs on until what has focus meets a condition. */
async function tabTo(page: Page, what: string, condition: (element: Element) => boolean): Promise<void> {
  for (let n = 0; n < 120; n++) {
    await page.keyboard.press('Tab')
    if (await page.evaluate(`(${condition.toString()})(document.activeElement)`)) return
  }
  throw new Error(`the keyboard does not reach ${what}`)
}

/** A dialog puts the focus into its first field by itself. */
async function focusOn(page: Page, tag: string): Promise<void> {
  await page.waitForFunction(
    (wanted: string) =>
      document.activeElement?.tagName === wanted && document.activeElement.closest('[role=dialog]') !== null,
    {},
    tag,
  )
}

describe('the story by keyboard alone', () => {
  it('opens a job, takes a reading with a note, and moves on', async () => {
    const page = await pageOf(browser, 'tester')
    await sees(page, 'Tolling Mill')
    await tabTo(page, 'the job', (element) => element.textContent?.includes('Tolling Mill') ?? false)
    await page.keyboard.press('Enter')
    await sees(page, 'Run sheet')
    await tabTo(
      page,
      'the voltage of string 35',
      (element) =>
        element.classList.contains('ant-collapse-header') && (element.textContent?.includes('Voltage') ?? false),
    )
    if ((await page.evaluate(() => document.activeElement?.getAttribute('aria-expanded'))) !== 'true')
      await page.keyboard.press('Enter')
    await tabTo(
      page,
      'string 35',
      (element) => element.classList.contains('stp') && (element.textContent?.startsWith('String 35') ?? false),
    )
    await page.keyboard.press('Enter')
    await sees(page, 'Read voltage, string 35')

    // Light and temperature by hand: C opens, Tab moves, Enter uses them.
    await page.keyboard.press('c')
    await page.waitForSelector('[role=dialog]')
    await focusOn(page, 'INPUT')
    await page.keyboard.type('742')
    await tabTo(page, 'the temperature', (element) => element.classList.contains('ant-input'))
    await page.keyboard.type('40.6')
    await page.keyboard.press('Enter')
    await sees(page, 'It should read')

    await tabTo(page, 'the first caution', (element) => element.matches('.chk input'))
    await page.keyboard.press('Space')
    await tabTo(page, 'the second caution', (element) => element.matches('.chk input'))
    await page.keyboard.press('Space')
    await page.keyboard.type('700')
    await waitForVerdict(page, 'within')
    // Single letters are off in a slot: with Alt they act.
    await page.keyboard.down('Alt')
    await page.keyboard.press('k')
    await page.keyboard.up('Alt')
    await page.waitForSelector('[role=dialog] textarea')
    await focusOn(page, 'TEXTAREA')
    await page.keyboard.type('taken by keyboard')
    await tabTo(page, 'Keep', (element) => element.tagName === 'BUTTON' && element.textContent?.trim() === 'Keep')
    await page.keyboard.press('Enter')
    await sees(page, '“taken by keyboard”')
    await allSent(page)

    await page.keyboard.press('n')
    await page.waitForFunction(() => !document.querySelector('h1')?.textContent?.includes('string 35'))
    await page.keyboard.press('?')
    await page.waitForSelector('[role=dialog]')
    await sees(page, 'Switch single-letter keys off')
    await tabTo(page, 'the switch', (element) => element.matches('[role=dialog] .ant-checkbox-input'))
    await page.keyboard.press('Space')
    await page.keyboard.press('Escape')
    await page.waitForFunction(() => !document.querySelector('[role=dialog]'))
    const title = await page.$eval('h1', (h1) => h1.textContent)
    await page.keyboard.press('n')
    await new Promise((resolve) => setTimeout(resolve, 300))
    expect(await page.$eval('h1', (h1) => h1.textContent)).toBe(title)
    expect(page.complaints).toEqual([])
  })

  it('signs and reaches the certificate', async () => {
    const page = await pageOf(browser, 'tester', `/job#${demo.job.mill}/run`)
    await sees(page, 'Run sheet')
    await allSent(page)
    await page.keyboard.press('g')
    await sees(page, 'Before you can seal')
    await tabTo(page, 'Sign', (element) => element.getAttribute('data-testid') === 'sign-tested')
    await page.keyboard.press('Enter')
    await page.waitForSelector('[data-testid=sign-name]')
    await reviewedByKeys(page)
    await page.keyboard.type('Tam Brackley')
    await page.keyboard.press('Enter')
    await sees(page, 'Signed as tested')
    await tabTo(page, 'the print', (element) => element.getAttribute('data-testid') === 'pdf')
    expect(await page.evaluate(() => (document.activeElement as HTMLAnchorElement).href)).toContain('/certificate')
    expect(page.complaints).toEqual([])
  })

  it('walks along the line with arrows', async () => {
    const page = await pageOf(browser, 'tester', `/job#${demo.job.mill}/run`)
    await sees(page, 'Run sheet')
    await tabTo(page, 'the line', (element) => element.classList.contains('station'))
    await page.keyboard.press('ArrowRight')
    expect(await page.evaluate(() => document.activeElement?.textContent)).toContain('40 strings')
  })
})

describe.each([1280, 390])('by Tab on a screen %i px wide', (width) => {
  const TABS = 60
  it('nothing of a list of checks lies under the foot of the bench', async () => {
    const page = await pageOf(browser, 'tester', `/job#${demo.job.house}/run`)
    await page.setViewport({ width, height: 800 })
    await page.waitForSelector('.bench .opt')
    await page.focus('.bench .opt')
    expect(await hiddenByTab(page, TABS)).toEqual([])
  })

  it('nothing that is looked at before signing lies under the buttons', async () => {
    const page = await pageOf(browser, 'tester', `/job#${demo.job.barn}/record`)
    await page.setViewport({ width, height: 800 })
    await pressId(page, 'sign-tested')
    const inputs = (
      await page.waitForSelector('[data-testid=review]').then(() => page.$$('[data-testid=review] input'))
    ).length
    await page.focus('[data-testid=review] a, [data-testid=review] input')
    // As many as there are fields to come to, or somewhat more.
    expect(inputs).toBeGreaterThan(5)
    expect(await hiddenByTab(page, inputs)).toEqual([])
  })
})
