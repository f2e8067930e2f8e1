import type { Browser, Page } from 'puppeteer-core'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { allSent, openBrowser, openStep, pageOf, press, pressId, tickAll, waitForVerdict } from '../support/browser'
import { base, demo, knock } from '../support/server'

let browser: Browser
let page: Page & { complaints: string[] }
beforeAll(async () => {
  browser = await openBrowser()
  page = await pageOf(browser, 'tester')
  await page.setViewport({ width: 1280, height: 800 })
  await page.goto(`${base}/job#${demo.job.mill}/run`)
  await openStep(page, 'Insulation', 'String 30')
})
afterAll(() => browser.close())

const figureIn = (slot: string): Promise<string> =>
  page.$eval(`#slot-${slot}`, (field) => (field as HTMLInputElement).value)
/** Answers what is asked; what another test of this job said before is known, and folded away. */
const choose = async (option: string): Promise<void> => {
  await page.waitForFunction(
    (wanted: string) => {
      const own = document.querySelector<HTMLElement>(`[data-option=${wanted}]`)
      if (!own) return document.querySelector('.setup-line') !== null
      if (own.getAttribute('aria-pressed') === 'true') return true
      own.click()
      return false
    },
    {},
    option,
  )
}
/** Presses the simulated tester, and waits until the last figure of the press stands in its slot. */
async function pressFor(slot: string): Promise<string> {
  await pressId(page, 'press')
  await page.waitForFunction(
    (id) => (document.querySelector(id) as HTMLInputElement)?.value !== '',
    {},
    `#slot-${slot}`,
  )
  // A figure comes every second while it is pressed: what stood still for three is the last.
  for (let before = ''; before !== (await figureIn(slot)); ) {
    before = await figureIn(slot)
    await new Promise((resolve) => setTimeout(resolve, 3000))
  }
  return figureIn(slot)
}

describe('insulation that is watched', () => {
  it('comes figure by figure into the slot that it was pressed for, and into no other', async () => {
    await press(page, 'Go on anyway')
    await page.waitForSelector('[role=dialog] textarea')
    await page.type('[role=dialog] textarea', 'voltage is read tomorrow')
    await page.$eval('[role=dialog] button[type=submit]', (button) => (button as HTMLButtonElement).click())
    await page.waitForFunction(() => !document.querySelector('[role=dialog]')?.checkVisibility())
    for (const option of ['each-to-earth', 'v1000', 'dry', 'none-there']) await choose(option)
    await tickAll(page)
    const first = await pressFor('negative-to-earth')
    expect(first).toMatch(/\d/)
    // The feed tells the same press again: nothing of it may fall into the slot that waits.
    await new Promise((resolve) => setTimeout(resolve, 4500))
    expect([await figureIn('negative-to-earth'), await figureIn('positive-to-earth')]).toEqual([first, ''])
    // The array was discharged in between.
    await new Promise((resolve) => setTimeout(resolve, 6000))
    await pressFor('positive-to-earth')
    expect(await figureIn('negative-to-earth')).toBe(first)
  })

  it('stands as a chart beside it, with its figures as a table, and answers nothing by itself', async () => {
    await page.waitForSelector('[data-picture=rise] svg')
    const told = await page.$eval('.margin', (one) => (one as HTMLElement).innerText)
    expect(told.replaceAll('\u00a0', ' ')).toMatch(/− to earth: rises, [\d.]+ MΩ to [\d.]+ MΩ, last [\d.]+ MΩ, 9 s/)
    expect(
      await page.$('[data-option=steady][aria-pressed=true], [data-option=risen-to-it][aria-pressed=true]'),
    ).toBeNull()
    expect(await page.$('[data-testid=keep]')).toBeNull()
  })

  it('is kept with its reading', async () => {
    await choose('risen-to-it')
    await pressId(page, 'keep')
    await waitForVerdict(page, 'within')
    await allSent(page)
    type Loose = {
      facts: { entries: { step: string | null; body: { slots?: Record<string, { watched?: unknown[] }> } }[] }
    }
    const { body } = await knock<Loose>('tester', `/api/jobs/${demo.job.mill}/facts`)
    const { slots } = body.facts.entries.filter((one) => one.step === 'pv-insulation' && one.body.slots).at(-1)!.body
    expect(slots!['negative-to-earth']!.watched!.length).toBe(10)
    expect(slots!['positive-to-earth']!.watched!.length).toBeGreaterThan(5)
    expect(page.complaints).toEqual([])
  })
})
