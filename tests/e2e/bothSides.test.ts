// A house with an array and an electrical side: one record or two, converters on its modules, leads nulled when they must be.
import type { Browser } from 'puppeteer-core'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { chooseIn, openBrowser, openStep, pageOf, press, pressId, sees, tickAll } from '../support/browser'
import { demo } from '../support/server'

let browser: Browser
beforeAll(async () => {
  browser = await openBrowser()
})
afterAll(() => browser.close())

const job = `/job#${demo.job.hazelbank}`

describe('a house with both sides', () => {
  it('is shown as one record, or as the sheet of either side', async () => {
    const page = await pageOf(browser, 'tester', `${job}/record`)
    await sees(page, 'PV and electrical test record')
    const tables = () => page.$$eval('.rail .grp b', (all) => all.map((one) => one.textContent))
    expect(await tables()).toEqual(expect.arrayContaining(['Strings, a row each', 'Circuits, a row each']))
    await pressId(page, 'sheet-electrical')
    await page.waitForFunction(() => !document.body.innerText.includes('PV and electrical test record'))
    expect(await tables()).toContain('Circuits, a row each')
    expect(await tables()).not.toContain('Strings, a row each')
    await pressId(page, 'sheet-pv')
    await sees(page, 'PV test record')
    expect(await tables()).not.toContain('Circuits, a row each')
    await page.close()
  })

  it('asks of a string with converters what then says something', async () => {
    const page = await pageOf(browser, 'tester', `${job}/run`)
    await openStep(page, 'Voltage', 'String 1')
    await sees(page, 'It counts them and says nothing of their cells.')
    const asked = () => page.$$eval('.ant-collapse-header', (all) => all.map((one) => one.textContent ?? '').join('|'))
    expect(await asked()).toContain('Voltage')
    expect(await asked()).not.toContain('Current rating|')
    expect(await asked()).not.toMatch(/B7/)
    await page.goto(page.url().replace(/\/run.*/, '/plant'))
    await page.waitForSelector('.twig')
    await page.evaluate(() =>
      [...document.querySelectorAll<HTMLElement>('.twig')].find((one) => one.innerText.includes('CV-330'))!.click(),
    )
    await page.waitForSelector('[data-testid=part-held_V]')
    await chooseIn(page, 'part-acts', 'shuts its module off')
    await page.waitForFunction(() => !document.querySelector('[data-testid=part-most_V]'))
    expect(await page.$('[data-testid=part-insulation_V]')).not.toBeNull()
    await page.close()
  })

  it('offers to null leads that were nulled on another day', async () => {
    const page = await pageOf(browser, 'tester', `${job}/run`)
    await press(page, 'Begin today')
    await openStep(page, 'R1+R2', 'Circuit 2')
    await pressId(page, 'again')
    await tickAll(page)
    // Nobody proved it dead today: the simulated tester is not pressed, and what was read all the same is typed.
    await page.keyboard.press('p')
    await sees(page, 'Held back')
    await page.type('#slot-r1r2', '0.35')
    await page.waitForSelector('[data-testid=null-leads]')
    await pressId(page, 'null-leads')
    await page.waitForFunction(() => document.querySelector('h1')?.textContent?.includes('Null'))
    await page.close()
  })
})
