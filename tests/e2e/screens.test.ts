import { AxePuppeteer } from '@axe-core/puppeteer'
import type { Browser, Page } from 'puppeteer-core'
import { v7 as uuid } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
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

describe.each(screens)('$name', ({ path, says }) => {
  it.each(themes)('has nothing serious for axe in the %s theme', async (theme) => {
    await page.setViewport({ width: 1280, height: 800 })
    await page.evaluate((name: string) => localStorage.setItem('upstand.theme', name), theme)
    await show(path, says)
    const { violations } = await new AxePuppeteer(page).analyze()
    const serious = violations.filter((one) => one.impact === 'serious' || one.impact === 'critical')
    expect(serious.map((one) => `${one.id}: ${one.nodes.map((node) => node.html.slice(0, 160)).join(' | ')}`)).toEqual(
      [],
    )
  })

  it.each([360, 820, 1280])('fits a screen %d px wide, with targets of 44 px', async (width) => {
    // A finger: what is close together for a mouse stands apart.
    await page.setViewport({ width, height: 800, hasTouch: true })
    await show(path, says)
    expect(await page.evaluate(() => matchMedia('(pointer: coarse)').matches)).toBe(true)
    await page
      .waitForFunction(() => document.documentElement.scrollWidth <= window.innerWidth, { timeout: 3000 })
      .catch(() => undefined)
    const found = await page.evaluate(() => {
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
            `${one.className} ${one.textContent?.slice(0, 30)} ${Math.round(one.getBoundingClientRect().width)}×${Math.round(one.getBoundingClientRect().height)}`,
        )
      const over = [...document.querySelectorAll('*')]
        .filter(() => document.documentElement.scrollWidth > window.innerWidth)
        .filter((one) => one.getBoundingClientRect().right > window.innerWidth)
        .map((one) => `${one.tagName}.${one.className} ${Math.round(one.getBoundingClientRect().right)}`)
      // A sentence that did not come with its screen shows as its key; what follows an @ is an address.
      const keys = document.body.innerText.match(/(?<!@)\b[a-z]+(-[a-z]+)*\.[a-z][a-z-]*[a-z](\.[a-z-]+)*\b/g) ?? []
      return { over, small, keys }
    })
    expect(found.over).toEqual([])
    expect(found.small).toEqual([])
    expect(found.keys).toEqual([])
  })
})

/** Dialogs, as they are opened from the bench and the record. */
const dialogs = [
  { name: 'light and temperature', path: `/job#${demo.job.mill}/run`, key: 'c' },
  { name: 'leave out', path: `/job#${demo.job.mill}/run`, key: 'l' },
  { name: 'all keys', path: `/job#${demo.job.mill}/run`, key: '?' },
] as const

describe.each(dialogs)('the dialog of $name', ({ path, key }) => {
  it.each(themes)('has nothing serious for axe in the %s theme', async (theme) => {
    await page.setViewport({ width: 1280, height: 800 })
    await page.evaluate((name: string) => localStorage.setItem('upstand.theme', name), theme)
    await show(path, 'Run sheet')
    await page.waitForSelector('.bench')
    await page.keyboard.press(key)
    await page.waitForSelector('[role=dialog]', { visible: true })
    const { violations } = await new AxePuppeteer(page).analyze()
    const serious = violations.filter((one) => one.impact === 'serious' || one.impact === 'critical')
    expect(serious.map((one) => `${one.id}: ${one.nodes.map((node) => node.html.slice(0, 160)).join(' | ')}`)).toEqual(
      [],
    )
  })
})

describe('all screens together', () => {
  it('complain of nothing', () => {
    expect(page.complaints).toEqual([])
  })
})
