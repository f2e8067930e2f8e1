import type { Browser, ElementHandle, Page } from 'puppeteer-core'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { v7 as uuid } from 'uuid'
import type { Facts } from '@/core/record/facts'
import type { Regime } from '@/core/regime/regime'
import { chooseIn, clickOn, fileShelf, fillId, openBrowser, pageOf, press, pressId, sees } from '../support/browser'
import { knock } from '../support/server'

let browser: Browser
let page: Page & { complaints: string[] }
let shelf: Awaited<ReturnType<typeof fileShelf>>
beforeAll(async () => {
  browser = await openBrowser()
  page = await pageOf(browser, 'supervisor', '/office#regimes')
  shelf = await fileShelf()
})
afterAll(async () => {
  await browser.close()
  await shelf.clear()
})

const takeIn = (name: string, text: string): Promise<void> => shelf.give(page, 'sheet', name, text)

describe('the office', () => {
  it('copies a regime and changes a figure with a reason', async () => {
    await pressId(page, 'change-regime')
    await fillId(page, 'regime-name', 'Roof rules of ours')
    await fillId(page, 'limit-pv.operating', '90')
    await pressId(page, 'make-regime')
    await sees(page, 'A reason of a few words is needed')
    await fillId(page, 'regime-reason', 'customer wants closer strings')
    await pressId(page, 'make-regime')
    await sees(page, 'out of reach')
    await fillId(page, 'limit-pv.operating', '3')
    await pressId(page, 'make-regime')
    await sees(page, 'customer wants closer strings')
    await sees(page, 'set by the company')
    // Beside what it was made from only what differs is told.
    await chooseIn(page, 'compare-regime', 'BS 7671:2018+A2 and IEC 62446-1, version')
    await sees(page, '1 figure or school differs')
    expect(await page.$$eval('.ant-table-tbody > tr', (rows) => rows.length)).toBe(1)
  })

  it('moves a job to a newer version of its rules, once what differs was seen', async () => {
    const { body } = await knock<{ regimes: Regime[] }>('supervisor', '/api/regimes')
    const own = body.regimes.find(({ name }) => name === 'Roof rules of ours')!
    const next = { name: own.name, limits: { 'pv.operating': 4 }, schools: {}, reason: 'three was too close' }
    expect((await knock('supervisor', '/api/regimes', { ...next, from: { id: own.id, version: 1 } })).status).toBe(201)
    const id = uuid()
    const job = { id, visitId: uuid(), number: '0777', name: 'Weir Lodge', place: '', people: [] }
    const made = await knock('supervisor', '/api/jobs', { ...job, regime: { id: own.id, version: 1 } })
    expect(made.status).toBe(201)
    const today = await pageOf(browser, 'supervisor', '/')
    await pressId(today, 'more-0777')
    await today.waitForSelector('.ant-dropdown-menu-item', { visible: true })
    for (const item of await today.$$('.ant-dropdown-menu-item'))
      if ((await item.evaluate((one) => one.textContent)) === 'Move to newer rules') await item.click()
    await sees(today, 'Newer rules for job 0777')
    await sees(today, '1 figure or school differs')
    await press(today, 'Move to version 2')
    await sees(today, 'Say in a few words why the job moves.')
    await fillId(today, 'move-reason', 'the club agreed to four')
    await press(today, 'Move to version 2')
    await today.waitForFunction(() => !document.querySelector('[data-testid=move-reason]'))
    const { body: after } = await knock<{ facts: Facts }>('supervisor', `/api/jobs/${id}/facts`)
    expect(after.facts.regime).toMatchObject({ id: own.id, version: 2 })
    expect(after.facts.entries.at(-1)!.body).toMatchObject({ kind: 'regime-move', reason: 'the club agreed to four' })
    expect(today.complaints).toEqual([])
  })

  it('takes the good rows of a table in, and says what is wrong with the others', async () => {
    await pressId(page, 'pane-modules')
    await takeIn('empty.csv', 'make;name\nA;B')
    await sees(page, 'These columns are missing')
    await takeIn(
      'sheets.csv',
      '\uFEFFmodel;make;Pmax;Voc;Isc;Vmp;Imp;cells;alpha;beta;gamma\n' +
        'HL 410;Heidelicht;410;37,4;13,9;31,3;13,1;54;0,05;-0,26;-0,34\n' +
        'HL 420;Heidelicht;420;37,6;14,1;31,6;13,3;54;0,05;0,26;-0,34\n' +
        '=1+1;Heidelicht;420;37,6;14,1;31,6;13,3;54;0,05;-0,26;-0,34\n',
    )
    await sees(page, 'Types that can be taken in: 1. Rows that cannot: 2.')
    await sees(page, 'Row 3: Coefficient of Voc')
    await sees(page, 'is a formula')
    await pressId(page, 'sheet-add')
    await sees(page, 'Taken into the library: 1.')
    await fillId(page, 'module-search', 'heide 410')
    await sees(page, 'Heidelicht HL 410')
    await page.waitForFunction(() => !document.body.innerText.includes('Corvane'))
  })

  it('asks what a column holds whose head says nothing, and remembers it', async () => {
    const table = (name: string): string =>
      `model;make;Pmax;U zero;Isc;Vmp;Imp;cells;alpha;beta;gamma\n${name};Heidelicht;410;37,4;13,9;31,3;13,1;54;0,05;-0,26;-0,34\n`
    await takeIn('strange.csv', table('HL 411'))
    await sees(page, 'Say which column holds what')
    const field = await page.waitForFunction(() =>
      [...document.querySelectorAll('.sheet-import .ant-form-item')].find((one) =>
        one.querySelector('label')?.textContent?.startsWith('Voc, V'),
      ),
    )
    await page.evaluate((one) => one?.querySelector('.ant-select')?.scrollIntoView({ block: 'center' }), field)
    await clickOn(await (field as unknown as ElementHandle).$('.ant-select'))
    const option = await page.waitForFunction(() =>
      [...document.querySelectorAll<HTMLElement>('.ant-select-item-option')].find(
        (one) => one.textContent === 'U zero' && one.checkVisibility(),
      ),
    )
    await clickOn(option)
    await pressId(page, 'sheet-read-so')
    await sees(page, 'Types that can be taken in: 1.')
    await pressId(page, 'sheet-add')
    await sees(page, 'Taken into the library: 1.')
    await takeIn('strange again.csv', table('HL 411'))
    await sees(page, '1 type is in the library already')
    await takeIn('strange later.csv', table('HL 412'))
    await sees(page, 'Types that can be taken in: 1.')
    expect(page.complaints).toEqual([])
  })

  it('keeps an instrument with its calibration and what it measures', async () => {
    await pressId(page, 'pane-kit')
    await pressId(page, 'add-tool')
    await fillId(page, 'kit-tag', '15')
    await fillId(page, 'kit-name', 'Inclinometer')
    await pressId(page, 'keep-tool')
    await sees(page, 'Tick what it measures')
    await page.$$eval('.range .ant-checkbox-wrapper', (rows) =>
      (rows.find((row) => row.textContent === 'tilt')!.querySelector('input') as HTMLInputElement).click(),
    )
    // Nothing stands there that nobody read in the manual.
    await pressId(page, 'keep-tool')
    await sees(page, 'The range for tilt needs figures')
    for (const [k, figure] of ['90', '0', '2', '0'].entries()) {
      await (await page.$$('.range input[inputmode=decimal]'))[k]!.focus()
      await page.keyboard.type(figure)
    }
    await pressId(page, 'keep-tool')
    await page.click('[aria-label^="What instrument 15 measures"]')
    await sees(page, 'to 90°, ±(0 % + 2 digits)')
    expect(page.complaints).toEqual([])
  })

  it('prints a letterhead as the office wrote it, and refuses what is no address', async () => {
    await pressId(page, 'pane-company')
    const asLetterhead = (): Promise<string> =>
      page.$eval('[data-testid=letterhead]', (one) => (one as HTMLElement).innerText)
    await page.waitForSelector('[data-testid=letterhead]')
    await fillId(page, 'company-email', 'office at home')
    await sees(page, 'This is no e-mail address')
    await pressId(page, 'company-keep')
    expect(await page.$eval('[data-testid=company-keep] ~ [role=status]', (one) => one.textContent)).toBe('')
    await fillId(page, 'company-email', 'desk@halewick.invalid')
    await fillId(page, 'company-phone', '01632 960 119')
    await pressId(page, 'company-keep')
    await sees(page, 'Kept. The next certificate prints it so.')
    expect(await asLetterhead()).toContain('01632 960 119 · desk@halewick.invalid')
    const company = await page.evaluate(async () => (await (await fetch('/api/office/company')).json()) as object)
    expect(company).toMatchObject({ letterhead: { email: 'desk@halewick.invalid', paper: 'A4' } })
    expect(page.complaints).toEqual([])
  })

  it('shows the key of an instrument once, and takes the instrument out of the kit', async () => {
    await pressId(page, 'pane-kit')
    await page.click('[aria-label="Change instrument 15"]')
    // The form takes the focus into its first field, and the page moves there.
    await page.waitForFunction(() => document.activeElement?.matches('[data-testid=kit-tag]'))
    await pressId(page, 'give-key')
    const shown = await page.waitForSelector('[data-testid=feed-key]')
    expect(await shown!.evaluate((one) => one.textContent)).toMatch(/^[\w-]{32}$/)
    await pressId(page, 'take-key')
    await sees(page, 'Instrument 15 has no key now')
    expect(await page.$('[data-testid=feed-key]')).toBeNull()
    await pressId(page, 'retire-tool')
    await sees(page, 'Yes, 15 leaves the kit for good')
    await pressId(page, 'retire-tool')
    await page.waitForFunction(() => !document.querySelector('[aria-label="Change instrument 15"]'))
    expect(page.complaints).toEqual([])
  })

  it('opens a module type, puts a figure right, and takes it out', async () => {
    await pressId(page, 'pane-modules')
    await fillId(page, 'module-search', 'heide 410')
    await page.waitForFunction(() => document.querySelectorAll('[data-testid=module-open]').length === 1)
    const name = await page.$eval('[data-testid=module-open]', (one) => (one as HTMLElement).innerText.trim())
    await pressId(page, 'module-open')
    await sees(page, 'Strings carry a copy of their type')
    await pressId(page, 'module-correct')
    await fillId(page, 'plate-maxSeriesFuse_A', '31.5')
    await pressId(page, 'keep-type')
    await page.waitForFunction(() => !document.querySelector('.ant-drawer [data-testid=keep-type]'))
    await page.waitForFunction(() => document.querySelector('.ant-table tbody')?.textContent?.includes('31.5'))
    await pressId(page, 'module-open')
    await pressId(page, 'module-retire')
    await sees(page, 'is not offered any more')
    await page.click('.ant-popconfirm-buttons .ant-btn-primary')
    await page.waitForFunction(
      (gone: string) =>
        ![...document.querySelectorAll<HTMLElement>('[data-testid=module-open]')].some(
          (one) => one.innerText.trim() === gone,
        ),
      {},
      name,
    )
    // The log of the office says who did it.
    await pressId(page, 'pane-log')
    await sees(page, `took module type ${name} out of the library`)
    await sees(page, `corrected module type ${name}`)
  })
})
