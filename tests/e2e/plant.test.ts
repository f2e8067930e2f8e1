import type { Browser, KeyInput, Page } from 'puppeteer-core'
import { v7 as uuid } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import {
  allSent,
  chooseIn,
  clickOn,
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
import { emptyJob, entriesOfJob } from '../support/jobs'
import { base, demo } from '../support/server'
import { TestJob } from '../support/testJob'

let browser: Browser
let page: Page & { complaints: string[] }
beforeAll(async () => {
  browser = await openBrowser()
  page = await pageOf(browser, 'tester', `/job#${demo.job.empty}/plant`)
})
afterAll(() => browser.close())

const slot = (text: string): Promise<void> => fillSlot('#slot-voltage', text)

/** A job with nothing in it. */
const madeJob = async (name: string): Promise<string> => (await emptyJob(`P${uuid().slice(-9)}`, name)).jobId

const fillSlot = async (selector: string, text: string): Promise<void> => {
  await page.click(selector, { clickCount: 3 })
  await page.keyboard.press('Backspace')
  await page.type(selector, text)
}

/** Keys that somebody presses, beyond the figures and names that stand on the plate and on the list. */
class Keys {
  pressed = 0
  constructor(private readonly page: Page) {}
  async press(...keys: KeyInput[]): Promise<void> {
    for (const key of keys) {
      this.pressed++
      await this.page.keyboard.press(key)
    }
  }
  /** A figure or a name that has to be written whatever the screen is. */
  async figure(text: string): Promise<void> {
    await this.page.keyboard.type(text)
  }
  /** Goes on by Tab until a field has the focus. */
  async on(testId: string): Promise<void> {
    for (let n = 0; n < 12; n++) {
      const here = await this.page.evaluate(() =>
        document.activeElement?.closest('[data-testid]')?.getAttribute('data-testid'),
      )
      if (here === testId) return
      await this.press('Tab')
    }
    throw new Error(`no Tab leads to ${testId}`)
  }
}

const isFocused = (id: string): Promise<unknown> =>
  page.waitForFunction(
    (wanted: string) => document.activeElement?.closest(`[data-testid="${wanted}"]`) !== null,
    {},
    id,
  )

const plate = {
  make: 'Brandlicht',
  name: 'BL 400',
  pmax_W: '400',
  voc_V: '37,1',
  isc_A: '13.7',
  vmp_V: '31.0',
  imp_A: '12.9',
  cellsInSeries: '54',
  alpha_pctPerK: '0.05',
  beta_pctPerK: '-96 mV/K',
  gamma_pctPerK: '-0.34',
}

/** From nothing to ready to test, with a data sheet in hand, and a first reading by hand. */
describe('a person with a data sheet', () => {
  it('gets from nothing to six strings, ready to test, by forty keys at most beyond the figures', async () => {
    const keys = new Keys(page)
    await sees(page, 'Begin with')
    await keys.press('1')
    await isFocused('part-moduleType')
    await keys.figure('New from')
    await keys.press('Enter')
    await isFocused('plate-make')
    for (const [key, text] of Object.entries(plate)) {
      await keys.on(`plate-${key}`)
      await keys.figure(text)
    }
    await keys.press('Enter')
    await isFocused('modules')
    await keys.figure('10')
    await keys.on('count')
    await keys.figure('6')
    await keys.on('part-tilt_deg')
    await keys.figure('35')
    await keys.on('part-azimuth_deg')
    await keys.figure('180')
    await keys.press('Enter')
    await sees(page, '6 strings, 60 modules')
    await page.waitForFunction(() => document.activeElement === document.body)
    await keys.press('Enter')
    await sees(page, 'Inspect the site')
    expect(keys.pressed).toBeLessThanOrEqual(40)
    await allSent(page)
  })

  it('is told what a plate lacks, what a list cannot be, and that tilt and azimuth are not guessed', async () => {
    await press(page, 'Plant')
    await page.waitForSelector('.plant-drawing')
    await page.click('[data-add=array]')
    await fillId(page, 'part-tag', 'Shed')
    await page.keyboard.press('Tab')
    await page.waitForFunction(() => document.querySelector('.plant-drawing')?.textContent?.includes('Shed'))
    const places = await page.$$('[data-key^="string of"]')
    await clickOn(places.at(-1))
    await sees(page, 'The first strings')
    await pressId(page, 'make-strings')
    await sees(page, 'Enter a module type first')
    await chooseIn(page, 'part-moduleType', 'New from a data plate')
    await pressId(page, 'keep-type')
    await sees(page, 'This is needed')
    for (const key of [
      'pmax_W',
      'voc_V',
      'isc_A',
      'vmp_V',
      'imp_A',
      'cellsInSeries',
      'alpha_pctPerK',
      'gamma_pctPerK',
    ] as const)
      await fillId(page, `plate-${key}`, plate[key])
    await fillId(page, 'plate-beta_pctPerK', '0.26')
    await sees(page, 'it is negative')
    await press(page, 'Close')
    await chooseIn(page, 'part-moduleType', 'Brandlicht BL 400, 37.1 V, 13.70 A')
    await fillId(page, 'modules', '0')
    await pressId(page, 'make-strings')
    await sees(page, 'Type a whole number from 1 to 60')
    await page.keyboard.press('Escape')
    await pressId(page, 'undo')
    await pressId(page, 'undo')
    await sees(page, '6 strings, 60 modules')
    await page.waitForFunction(() => document.querySelectorAll('.drawn[data-part=array]').length === 1)
    await press(page, 'Run sheet')
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
    // A figure key begins the figure that is next.
    await page.keyboard.type('0.02')
    await pressId(page, 'keep')
    await waitForVerdict(page, 'within')
  })

  it('waits for the sensors in this plane, and sets them', async () => {
    await openStep(page, 'Sensors', 'Array Roof 1')
    await page.keyboard.type('48')
    // From figure to figure, then to the questions.
    await page.keyboard.press('Enter')
    await page.keyboard.type('178')
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
    await page.click('.drawn[data-part=string]')
    await fillId(page, 'part-tag', '2')
    await page.keyboard.press('Tab')
    await sees(page, 'There is string 2 already')
    // What is wrong with one field holds no other back, and stays said.
    await fillId(page, 'part-modulesInSeries', '11')
    await page.keyboard.press('Tab')
    await sees(page, '6 strings, 61 modules')
    await sees(page, 'There is string 2 already')
    await fillId(page, 'part-tag', '1')
    await page.keyboard.press('Tab')
    await page.waitForFunction(() => !document.body.innerText.includes('There is string 2 already'))
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

  it('undoes one change after the other by key, and does them again', async () => {
    await press(page, 'Plant')
    await page.click('.drawn[data-part=array]')
    await pressId(page, 'add-row')
    await fillId(page, 'part-length_m', 'long')
    await page.keyboard.press('Tab')
    await sees(page, '“long” will not do')
    await fillId(page, 'part-length_m', '18')
    await fillId(page, 'part-area_mm2', '6')
    await fillId(page, 'part-joints', '4')
    await page.keyboard.press('Escape')
    await page.waitForSelector('.drawn[data-part=row]')
    await page.keyboard.down('Control')
    // The row, and its figures: what was done before this screen was opened stays.
    await page.keyboard.press('z')
    await page.keyboard.press('z')
    await page.keyboard.up('Control')
    await page.waitForFunction(() => !document.querySelector('.drawn[data-part=row]'))
    await pressId(page, 'redo')
    await page.waitForSelector('.drawn[data-part=row]')
    await page.keyboard.press('Escape')
    await page.keyboard.press('u')
    await page.waitForFunction(() => !document.querySelector('.drawn[data-part=row]'))
    await allSent(page)
    expect(page.complaints).toEqual([])
  })
})

/** The drawing itself: what is chosen, what follows, what is taken out. */
describe('a plant that is drawn', () => {
  it('is gone through by arrows; Enter leads to the fields, Escape back', async () => {
    await page.$eval('.drawn[data-part=string]', (one) => (one as SVGElement).focus())
    await page.keyboard.press('ArrowDown')
    await page.keyboard.press('Enter')
    await isFocused('part-modulesInSeries')
    await sees(page, 'String 2')
    await page.keyboard.press('Escape')
    await page.waitForFunction(() => document.activeElement?.getAttribute('data-part') === 'string')
  })

  it('says what follows while a figure is typed, and where it does not fit', async () => {
    await page.keyboard.press('Enter')
    await isFocused('part-modulesInSeries')
    await page.keyboard.type('30')
    await page.waitForSelector(
      '[data-testid=follows] [data-verdict=outside], [data-testid=follows] [data-verdict=not-yet]',
    )
    await sees(page, '30 ×')
    await page.keyboard.press('Escape')
    await page.waitForFunction(() => !document.querySelector('[data-testid=follows]')?.textContent?.includes('30 ×'))
    await sees(page, '6 strings, 61 modules')
  })

  it('makes several alike with tags counted on, and one more by key', async () => {
    await fillId(page, 'copies', '2')
    await pressId(page, 'make-copies')
    await sees(page, '8 strings')
    await page.keyboard.press('Escape')
    await page.keyboard.down('Control')
    await page.keyboard.press('d')
    await page.keyboard.up('Control')
    await sees(page, '9 strings')
    await page.keyboard.press('Escape')
    await page.keyboard.press('+')
    await page.keyboard.press('1')
    await sees(page, '10 strings')
    await page.keyboard.press('Escape')
    for (const count of ['9', '8', '6']) {
      await pressId(page, 'undo')
      await sees(page, `${count} strings`)
    }
  })

  it('opens what is folded in place, and goes on from there by arrows', async () => {
    const office = await pageOf(browser, 'supervisor', `/job#${demo.job.mill}/plant`)
    await office.waitForSelector('.drawn[data-part=string]')
    await office.$eval('.drawn[data-part=string]', (one) => (one as SVGElement).focus())
    await office.keyboard.press('Space')
    await office.waitForFunction(() => document.querySelectorAll('.drawn[data-part=string]').length === 40)
    await office.waitForFunction(() => document.activeElement?.getAttribute('data-part') === 'string')
    await office.keyboard.press('ArrowDown')
    await office.keyboard.press('Space')
    await sees(office, 'String 2')
    expect(office.complaints).toEqual([])
  })

  it('is looked at and not changed by whoever may only look', async () => {
    const reader = await pageOf(browser, 'viewer', `/job#${demo.job.open}/plant`)
    await reader.click('.drawn[data-part=string]')
    await sees(reader, 'String 1')
    const tools = '[data-add], [data-testid=undo], [data-testid=copies], [data-testid=paste-table], .add-here'
    expect(await reader.$$eval(tools, (list) => list.length)).toBe(0)
    expect(await reader.$eval('[data-testid=part-tag]', (one) => (one as HTMLInputElement).disabled)).toBe(true)
    await reader.keyboard.press('Delete')
    await sees(reader, 'String 1')
    expect(reader.complaints).toEqual([])
  })

  it('finds a part by typing, and takes one with readings out only when asked again', async () => {
    await page.keyboard.press('Escape')
    await page.keyboard.press('f')
    await page.keyboard.type('11 ×')
    await page.keyboard.press('Enter')
    await sees(page, 'String 1')
    await pressId(page, 'part-more')
    await clickOn(await page.waitForSelector('.ant-dropdown-menu-item', { visible: true }))
    await sees(page, 'tests of it were read')
    await page.keyboard.press('Escape')
    await sees(page, '6 strings, 61 modules')
    await fillId(page, 'find-part', '')
    await allSent(page)
    expect(page.complaints).toEqual([])
  })
})

const circuits = [
  'Way\tFeeds\tDevice\tmm²\tm',
  ...Array.from(
    { length: 12 },
    (_, k) => `${k + 1}\tRoom ${k + 1}\tB${k % 2 ? 6 : 32}\t2.5/1.5\t${k === 3 ? '3,800' : 12 + k}`,
  ),
].join('\n')

describe('a list of twelve circuits', () => {
  it('is pasted, drawn in pencil, asked about once, and kept when it is taken', async () => {
    const office = await pageOf(browser, 'supervisor')
    const id = await madeJob('Pasted House')
    await office.goto(`${base}/job#${id}/plant`)
    await sees(office, 'Begin with')
    await office.evaluate((text: string) => {
      const clipboardData = new DataTransfer()
      clipboardData.setData('text/plain', text)
      window.dispatchEvent(new ClipboardEvent('paste', { clipboardData }))
    }, circuits)
    await sees(office, 'In pencil: 13 parts')
    await sees(office, '4, Length, m: “3,800”')
    expect(await office.$$eval('.drawn.draft[data-part=circuit]', (list) => list.length)).toBe(12)
    expect(await office.$eval('[data-testid=table-take]', (one) => (one as HTMLButtonElement).disabled)).toBe(true)
    await press(office, '3.8')
    await pressId(office, 'table-take')
    await office.waitForFunction(() => document.querySelectorAll('.drawn[data-part=circuit]:not(.draft)').length === 12)
    await sees(office, '12 circuits')
    await allSent(office)
    await pressId(office, 'undo')
    await sees(office, 'Begin with')
    await allSent(office)
    expect(office.complaints).toEqual([])
  })

  it('leaves nothing behind where it is left', async () => {
    const office = await pageOf(browser, 'supervisor')
    const id = await madeJob('Left House')
    await office.goto(`${base}/job#${id}/plant`)
    await sees(office, 'Begin with')
    await office.keyboard.press('4')
    await sees(office, 'Paste here')
    await office.type('textarea', 'one')
    await sees(office, 'one column only')
    await pressId(office, 'table-leave')
    await sees(office, 'Begin with')
    await office.keyboard.press('2')
    await sees(office, '8 circuits')
    await sees(office, '9 parts lack figures')
    await pressId(office, 'undo')
    await sees(office, 'No plant yet')
    expect(office.complaints).toEqual([])
  })

  it('or the plant of another job comes without its readings', async () => {
    const office = await pageOf(browser, 'supervisor')
    const id = await madeJob('Alike House')
    await office.goto(`${base}/job#${id}/plant`)
    await sees(office, 'Begin with')
    await office.keyboard.press('5')
    await press(office, '0620 Saltmarsh House')
    await sees(office, '5 circuits')
    expect(await office.$$eval('.drawn[data-part=rcd]', (list) => list.length)).toBe(3)
    await allSent(office)
    const kinds = new Set((await entriesOfJob(id)).map((entry) => entry.body.kind))
    expect([...kinds]).toEqual(['plant-change'])
    expect(office.complaints).toEqual([])
  })
})

describe('strings of the wrong type', () => {
  it('are put right together, and that is undone after the page was loaded anew', async () => {
    const job = await new TestJob().open(`P${uuid().slice(-9)}`)
    const office = await pageOf(browser, 'supervisor', `/job#${job.id}/plant`)
    await office.click('.drawn[data-part=string]')
    await fillId(office, 'copies', '3')
    await pressId(office, 'make-copies')
    await sees(office, 'Change the 3 alike as well')
    await office.click('[data-testid=together]')
    await fillId(office, 'part-modulesInSeries', '9')
    await office.keyboard.press('Tab')
    const counts = async (): Promise<number[]> => {
      await allSent(office)
      const last = new Map<string, number>()
      for (const { partId, body } of await entriesOfJob(job.id))
        if (body.kind === 'plant-change' && body.after?.kind === 'string') last.set(partId!, body.after.modulesInSeries)
      return [...last.values()]
    }
    await sees(office, '4 strings, 36 modules')
    expect(await counts()).toEqual([9, 9, 9, 9])
    await office.reload()
    await sees(office, '4 strings, 36 modules')
    await pressId(office, 'undo')
    await sees(office, '4 strings, 44 modules')
    expect(await counts()).toEqual([11, 11, 11, 11])
    expect(office.complaints).toEqual([])
  })
})

describe('two fingers on the drawing', () => {
  it('that move apart make it larger, and together smaller; one finger scrolls', async () => {
    await page.goto(`${base}/job#${demo.job.workshop}/plant`)
    await page.waitForSelector('.plant-drawing')
    const wide = (): Promise<number> => page.$eval('.plant-drawing', (one) => one.getBoundingClientRect().width)
    const fingers = (...apart: number[]): Promise<void> =>
      page.$eval(
        '.drawing-pane',
        (pane, distances) => {
          for (const [k, distance] of distances.entries()) {
            const at = (x: number, identifier: number) =>
              new Touch({ identifier, target: pane, clientX: 300 + x, clientY: 300 })
            const touches = distance === 0 ? [at(0, 1)] : [at(-distance / 2, 1), at(distance / 2, 2)]
            const name = k === 0 ? 'touchstart' : 'touchmove'
            pane.dispatchEvent(new TouchEvent(name, { touches, cancelable: true, bubbles: true }))
          }
          pane.dispatchEvent(new TouchEvent('touchend', { touches: [], bubbles: true }))
        },
        apart,
      )
    const before = await wide()
    await fingers(100, 120, 150)
    await page.waitForFunction(
      (was: number) => document.querySelector('.plant-drawing')!.getBoundingClientRect().width > 1.4 * was,
      {},
      before,
    )
    const larger = await wide()
    await fingers(0, 0)
    expect(await wide()).toBeCloseTo(larger, 0)
    await fingers(150, 100)
    await page.waitForFunction(
      (was: number) => Math.abs(document.querySelector('.plant-drawing')!.getBoundingClientRect().width - was) < 3,
      {},
      before,
    )
    expect(page.complaints).toEqual([])
  })
})
