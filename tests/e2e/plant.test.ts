import type { Browser, Page } from 'puppeteer-core'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import {
  allSent,
  fillId,
  openBrowser,
  openStep,
  pageOf,
  press,
  pressId,
  sees,
  tickAll,
  waitForVerdict,
} from '../support/browser'
import { demo } from '../support/server'

let browser: Browser
let page: Page & { complaints: string[] }
beforeAll(async () => {
  browser = await openBrowser()
  page = await pageOf(browser, 'tester', `/job#${demo.job.empty}/plant`)
})
afterAll(() => browser.close())

const slot = (text: string): Promise<void> => fillSlot('#slot-voltage', text)

const fillSlot = async (selector: string, text: string): Promise<void> => {
  await page.click(selector, { clickCount: 3 })
  await page.keyboard.press('Backspace')
  await page.type(selector, text)
}

/** From nothing to ready to test, with a data sheet in hand, and a first reading by hand. */
describe('a person with a data sheet', () => {
  it('gets from nothing to ready to test', async () => {
    await sees(page, 'No strings yet')
    await pressId(page, 'add-type')
    await fillId(page, 'plate-make', 'Brandlicht')
    await fillId(page, 'plate-name', 'BL 400')
    await pressId(page, 'keep-type')
    await sees(page, 'This is needed')
    const plate = {
      pmax_W: '400',
      voc_V: '37,1',
      isc_A: '13.7',
      vmp_V: '31.0',
      imp_A: '12.9',
      cellsInSeries: '54',
      alpha_pctPerK: '0.05',
      beta_pctPerK: '0.26',
      gamma_pctPerK: '-0.34',
    }
    for (const [key, text] of Object.entries(plate)) await fillId(page, `plate-${key}`, text)
    await sees(page, 'it is negative')
    await fillId(page, 'plate-beta_pctPerK', '-96 mV/K')
    await pressId(page, 'keep-type')
    await fillId(page, 'modules', '0')
    await pressId(page, 'make-strings')
    await sees(page, 'Type a whole number from 1 to 60')
    await fillId(page, 'modules', '10')
    await fillId(page, 'count', '2')
    await pressId(page, 'make-strings')
    await sees(page, '10 × Brandlicht BL 400')
    await pressId(page, 'ready')
    await sees(page, 'Inspect the site')
    await allSent(page)
  })

  it('cannot part a plug before the site is isolated', async () => {
    await openStep(page, 'Polarity', 'String 1')
    await waitForVerdict(page, 'held-back')
    await sees(page, 'Waits for safe isolation')
    await openStep(page, 'Isolation', 'The site')
    await tickAll(page)
    await page.keyboard.press('1')
    await page.keyboard.press('1')
    await page.keyboard.press('1')
    await page.keyboard.type('0.02')
    await pressId(page, 'keep')
    await waitForVerdict(page, 'within')
  })

  it('waits for the sensors in this plane, and sets them', async () => {
    await openStep(page, 'Sensors', 'Array Roof 1')
    await page.keyboard.press('1')
    await page.keyboard.type('48')
    await page.keyboard.press('Enter')
    await page.keyboard.press('1')
    await page.keyboard.press('1')
    await sees(page, 'The sensor is 13° off the 35° entered')
    await waitForVerdict(page, 'outside')
    await fillSlot('#slot-tilt', '36')
    await waitForVerdict(page, 'within')
    await pressId(page, 'keep')
    await sees(page, 'The sensor lies in the plane of array Roof 1')
  })

  it('answers the polarity, and voltage opens', async () => {
    await openStep(page, 'Polarity', 'String 1')
    await tickAll(page)
    await press(page, 'Right way')
    await pressId(page, 'keep')
    await waitForVerdict(page, 'within')
    await openStep(page, 'Voltage', 'String 1')
    await sees(page, 'Read voltage, string 1')
  })

  it('is told that light is needed, and types it', async () => {
    await sees(page, 'Light and cell temperature are not known yet')
    await page.click('[data-testid=conditions]')
    await page.waitForSelector('[role=dialog] input')
    const [light, back] = await page.$$('[role=dialog] .ant-input')
    await light!.type('5000')
    await back!.type('40,5')
    await page.keyboard.press('Enter')
    await sees(page, '1 to 1600 can')
    await light!.click({ clickCount: 3 })
    await light!.type('742')
    await page.keyboard.press('Enter')
    await sees(page, 'It should read')
  })

  it('refuses letters, asks about 1,234, and refuses the absurd', async () => {
    await tickAll(page)
    await slot('abc')
    await sees(page, 'is not a figure')
    await slot('1,234')
    await sees(page, 'Which one does the instrument show?')
    await slot('12 A')
    await sees(page, 'in a unit of something else')
    await slot('9000')
    await sees(page, 'cannot come from string 1')
    expect(await page.$('[data-testid=keep]')).toBeNull()
  })

  it('asks about ten times the expected, and keeps a decimal comma', async () => {
    await slot('3570')
    await pressId(page, 'keep')
    await page.waitForSelector('[data-testid=ask]')
    await press(page, 'Correct it')
    await slot('356,9')
    await waitForVerdict(page, 'within')
    await pressId(page, 'keep')
    await sees(page, '356.9 ÷')
    expect(await page.$eval('#slot-voltage', (input) => (input as HTMLInputElement).value)).toBe('356,9')
    await allSent(page)
  })

  it('sees "plant changed since" after a change, and settles it', async () => {
    await press(page, 'Plant')
    // The screen comes when it is opened first.
    await (await page.waitForSelector('[aria-label="Change string 1"]'))!.click()
    await fillId(page, 'part-tag', '2')
    await pressId(page, 'keep-part')
    await sees(page, 'There is string 2 already')
    await fillId(page, 'part-tag', '1')
    await fillId(page, 'part-modulesInSeries', '11')
    await pressId(page, 'keep-part')
    await sees(page, '11 × Brandlicht')
    await page.evaluate((id: string) => {
      window.location.hash = `#${id}/run`
    }, demo.job.empty)
    await sees(page, 'Run sheet')
    await openStep(page, 'Voltage', 'String 1')
    await sees(page, 'plant changed since')
    await press(page, 'The reading still belongs here')
    await page.waitForFunction(() => !document.body.innerText.includes('plant changed since'))
    expect(page.complaints).toEqual([])
  })

  it('undoes one change after the other, by key', async () => {
    await press(page, 'Plant')
    await pressId(page, 'add-row')
    await fillId(page, 'part-length_m', 'long')
    await pressId(page, 'keep-part')
    await sees(page, '“long” will not do')
    await fillId(page, 'part-length_m', '18')
    await fillId(page, 'part-area_mm2', '6')
    await fillId(page, 'part-joints', '4')
    await pressId(page, 'keep-part')
    await sees(page, 'Bonded by 18 m of 6 mm², 4 joints')
    await page.keyboard.press('u')
    await sees(page, 'Bonding conductor not entered')
    await page.keyboard.press('u')
    await page.waitForFunction(() => !document.body.innerText.includes('Bonding conductor not entered'))
    expect(await page.$('[data-testid=undo]')).toBeNull()
    await allSent(page)
    expect(page.complaints).toEqual([])
  })
})
