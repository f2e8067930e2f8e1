import type { Browser, Page } from 'puppeteer-core'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { evaluate } from '@/core/evaluate'
import type { Facts } from '@/core/record/facts'
import { allSent, openBrowser, pageOf, sees } from '../support/browser'
import { byKeyboard, commission, type Figures, signed, walkTo } from '../support/commission'
import { base, demo, knock } from '../support/server'

const { boathouse } = demo.job
let browser: Browser
let page: Page & { complaints: string[] }
beforeAll(async () => {
  browser = await openBrowser()
  page = await pageOf(browser, 'tester')
  await page.setViewport({ width: 1280, height: 800 })
  await page.goto(`${base}/job#${boathouse}/run`)
  await page.waitForSelector('.bench')
})
afterAll(() => browser.close())

const evaluated = async () => {
  const { body } = await knock<{ facts: Facts }>('tester', `/api/jobs/${boathouse}/facts`)
  return evaluate(body.facts, Date.now())
}
const figures: Figures = (title, slot) => {
  throw new Error(`no figure for ${slot} on "${title}"`)
}
const benchText = (): Promise<string> =>
  page.$eval('.bench', (one) => (one as HTMLElement).innerText.replaceAll('\u00a0', ' '))

describe('four strings on a day of drizzle, nobody brought a light meter', () => {
  it('goes on without it: one press says why the sensors are left out', async () => {
    await walkTo(page, byKeyboard(page), 'Set the sensors')
    await page.keyboard.press('l')
    await page.waitForSelector('[data-testid=ready-reason]')
    await page.click('[data-testid=ready-reason]')
    await page.waitForSelector('[data-testid=verdict][data-verdict=left-out]')
    await walkTo(page, byKeyboard(page), 'Read voltage, string 1')
    expect(await benchText()).toMatch(/No light meter[\s\S]*strings against each other/)
    expect(await benchText()).toMatch(/alike strings that are read within 10 minutes are held against each other/)
    expect(await page.$('[data-testid=verdict][data-verdict=held-back]')).toBeNull()
  })

  it('takes the air as somebody guesses it, and says what such a day cannot see', async () => {
    await page.keyboard.press('c')
    await page.waitForSelector('[role=dialog]')
    await page.waitForSelector('[data-testid=no-meter]')
    await page.click('[data-testid=no-meter]')
    await page.waitForSelector('[data-testid=without-meter]')
    const said = await page.$eval('[data-testid=without-meter]', (one) => one.textContent)
    expect(said).toMatch(/A fault that all of them share is seen only in the voltages/)
    const field = await page.waitForSelector('[role=dialog] .two input')
    await field!.type('95')
    await page.keyboard.press('Enter')
    await field!.evaluate((one) => (one as HTMLInputElement).select())
    await field!.type('9')
    await page.keyboard.press('Enter')
    await page.waitForFunction(() => !document.querySelector('[role=dialog]')?.checkVisibility())
    expect(await benchText()).toMatch(/air 9 °C/)
  })

  it('is commissioned from the run sheet alone: the string that lacks a module is found, mended, tested again', async () => {
    const mended = await commission(page, byKeyboard(page), figures)
    expect(mended).toEqual(['Read voltage, string 3'])
    await allSent(page)
    const { steps, progress } = await evaluated()
    expect(progress.done).toBe(progress.total)
    const of = (id: string) => steps.filter(({ step }) => step.id === id)
    for (const one of of('pv-voc')) {
      expect(one.verdict).toMatch(/within|close/)
      expect(one.flags).toContain('light-worked-back')
      expect(one.counting!.entry.body).toMatchObject({ conditions: null, air: { read: { value: 9 } } })
    }
    for (const one of [...of('pv-isc'), ...of('operating')]) expect(one.flags).toContain('sisters-only')
    expect(of('pv-insulation').every((one) => one.gates.every((gate) => gate.overridden === null))).toBe(true)
    const light = of('pv-voc')[0]!.counting!.judgement.lines.find(({ code }) => code === 'light.worked-back')
    expect(light!.result!.value).toBeGreaterThan(150)
    expect(light!.result!.value).toBeLessThan(180)
  }, 400_000)

  it('prints what it was held against, and what that cannot see', async () => {
    await page.keyboard.press('g')
    await sees(page, 'Before you can seal')
    await sees(page, 'a fault that all of them share is not seen')
    await sees(page, 'light worked back from the strings’ own currents')
    await signed(page)
    expect(page.complaints).toEqual([])
  })
})
