import type { Browser, Page } from 'puppeteer-core'
import { v7 as uuid } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { axeOn } from '../support/axe'
import { openBrowser, pageOf } from '../support/browser'
import { emptyJob } from '../support/jobs'
import { EMPTY, screens, showScreen, themes } from '../support/screens'
import { demo } from '../support/server'

let browser: Browser
let emptyId = ''
let page: Page & { complaints: string[] }
beforeAll(async () => {
  browser = await openBrowser()
  page = await pageOf(browser, 'supervisor')
  emptyId = (await emptyJob(`S${uuid().slice(-9)}`, 'Empty House')).jobId
})
afterAll(() => browser.close())

const show = (path: string, says: string): Promise<void> => showScreen(page, path.replace(EMPTY, emptyId), says)
const inTheme = (theme: string): Promise<void> =>
  page.evaluate((name: string) => localStorage.setItem('upstand.theme', name), theme)
/** By the switch that each screen has; nothing moves from one colour to the next, so two frames later all is there. */
async function switchTo(theme: (typeof themes)[number]): Promise<void> {
  await page.click(`.themes button:nth-child(${themes.indexOf(theme) + 1})`)
  await page.waitForFunction((name: string) => document.documentElement.dataset.theme === name, {}, theme)
  await page.evaluate(() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done))))
}

/** What axe finds of rules that a theme can break; the others see the same page in each. */
const OF_COLOURS = ['color-contrast', 'link-in-text-block']
async function serious(rules?: string[]): Promise<string[]> {
  const { violations } = await axeOn(page, { resultTypes: ['violations'], ...(rules && { runOnly: rules }) })
  return violations
    .filter((one) => one.impact === 'serious' || one.impact === 'critical')
    .map((one) => `${one.id}: ${one.nodes.map((node) => node.html.slice(0, 160)).join(' | ')}`)
}

/** What does not fit the screen as it is, what is too small for a finger, and what shows as a key. */
const misfits = (): Promise<string[]> =>
  page.evaluate(() => {
    const small = [
      ...document.querySelectorAll<HTMLElement>(
        'button, select, input:not([type=checkbox], label > .hidden), label:has(input[type=checkbox], input.hidden)',
      ),
    ]
      .filter((one) => one.checkVisibility() && one.getBoundingClientRect().width > 0)
      // The field inside a select, or beside an eye, is no target of its own: the whole of it is.
      .map((one) => one.closest<HTMLElement>('.ant-select, .ant-input-affix-wrapper') ?? one)
      .filter((one) => one.getBoundingClientRect().height < 43.5 || one.getBoundingClientRect().width < 43.5)
      .map(
        (one) =>
          `small: ${one.className} ${one.textContent?.slice(0, 30)} ${Math.round(one.getBoundingClientRect().width)}×${Math.round(one.getBoundingClientRect().height)}`,
      )
    const over = [...document.querySelectorAll('*')]
      .filter(() => document.documentElement.scrollWidth > window.innerWidth)
      .filter((one) => one.getBoundingClientRect().right > window.innerWidth)
      .map((one) => `over: ${one.tagName}.${one.className} ${Math.round(one.getBoundingClientRect().right)}`)
    // A sentence that did not come with its screen shows as its key; what follows an @ is an address.
    const keys = document.body.innerText.match(/(?<!@)\b[a-z]+(-[a-z]+)*\.[a-z][a-z-]*[a-z](\.[a-z-]+)*\b/g) ?? []
    return [...over, ...small, ...keys.map((one) => `key: ${one}`)]
  })
/** So long a screen may take to find its new size. */
const SETTLES_ms = 4000

describe.each(screens)('$name', ({ path, says }) => {
  it('has nothing serious for axe, in any theme', async () => {
    await page.setViewport({ width: 1280, height: 800 })
    const found: Record<string, string[]> = {}
    await show(path, says)
    for (const [k, theme] of themes.entries()) {
      await switchTo(theme)
      found[theme] = await serious(k === 0 ? undefined : OF_COLOURS)
    }
    expect(found).toEqual(Object.fromEntries(themes.map((theme) => [theme, []])))
  })

  it('fits screens 360, 820 and 1280 px wide, with targets of 44 px', async () => {
    for (const width of [360, 820, 1280]) {
      // A finger: what is close together for a mouse stands apart.
      await page.setViewport({ width, height: 800, hasTouch: true })
      if (width === 360) await show(path, says)
      expect(await page.evaluate(() => [window.innerWidth, matchMedia('(pointer: coarse)').matches])).toEqual([
        width,
        true,
      ])
      await expect.poll(misfits, { timeout: SETTLES_ms, message: `${width} px wide` }).toEqual([])
    }
  })
})

/** Dialogs, as they are opened from the bench and the record. */
const dialogs = [
  { name: 'light and temperature', path: `/job#${demo.job.mill}/run`, key: 'c' },
  { name: 'leave out', path: `/job#${demo.job.mill}/run`, key: 'l' },
  { name: 'all keys', path: `/job#${demo.job.mill}/run`, key: '?' },
] as const

describe.each(dialogs)('the dialog of $name', ({ path, key }) => {
  it('has nothing serious for axe, in any theme', async () => {
    await page.setViewport({ width: 1280, height: 800 })
    const found: Record<string, string[]> = {}
    for (const [k, theme] of themes.entries()) {
      await inTheme(theme)
      await show(path, 'Run sheet')
      await page.waitForSelector('.bench')
      await page.keyboard.press(key)
      await page.waitForSelector('[role=dialog]', { visible: true })
      found[theme] = await serious(k === 0 ? undefined : OF_COLOURS)
    }
    expect(found).toEqual(Object.fromEntries(themes.map((theme) => [theme, []])))
  })
})

describe('all screens together', () => {
  it('complain of nothing', () => {
    expect(page.complaints).toEqual([])
  })
})
