import type { Browser, Page } from 'puppeteer-core'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { clickOn, openBrowser, pageOf, press, pressId, sees } from '../support/browser'
import { base, knock } from '../support/server'

let browser: Browser
let page: Page & { complaints: string[] }
beforeAll(async () => {
  browser = await openBrowser()
  page = await pageOf(browser, 'supervisor')
  await page.waitForSelector('.jobrow')
})
afterAll(() => browser.close())

const numbers = (): Promise<string[]> =>
  page.$$eval('.jobrow', (rows) => rows.map((row) => (row as HTMLElement).dataset.job ?? ''))
/** Waits until the list shows exactly the job, or a condition of all of them holds. */
const until = (isSo: (numbers: string[]) => boolean): Promise<void> =>
  expect
    .poll(async () => isSo(await numbers()), { timeout: 10_000 })
    .toBe(true)
    .then(() => undefined)
async function search(text: string): Promise<void> {
  await page.focus('#find-job')
  await page.$eval('#find-job', (one) => (one as HTMLInputElement).select())
  await page.keyboard.press('Backspace')
  if (text) await page.keyboard.type(text)
}
async function show(words: string): Promise<void> {
  const found = await page.waitForFunction(
    (wanted: string) =>
      [...document.querySelectorAll<HTMLElement>('.shows .ant-segmented-item')].find((one) =>
        one.textContent?.startsWith(wanted),
      ),
    {},
    words,
  )
  await clickOn(found)
}
async function choose(number: string, words: string): Promise<void> {
  await pressId(page, `more-${number}`)
  const found = await page.waitForFunction(
    (wanted: string) =>
      [...document.querySelectorAll<HTMLElement>('.ant-dropdown:not(.ant-dropdown-hidden) li')].find((one) =>
        one.textContent?.startsWith(wanted),
      ),
    {},
    words,
  )
  await clickOn(found)
}

describe('the jobs of today', () => {
  it('are found by number, name, place and people, wherever they stand', async () => {
    await search('mill')
    await until((shown) => shown.join() === '0608')
    await search('brackley tolling')
    await until((shown) => shown.join() === '0608')
    await search('no such job')
    await sees(page, 'No job here has “no such job”')
    await search('')
    await until((shown) => shown.length > 3)
  })

  it('are shown by where they stand', async () => {
    const open = await numbers()
    await show('Outside')
    await until((shown) => shown.length > 0 && shown.every((number) => open.includes(number)))
    await show('Sealed')
    await until((shown) => shown.every((number) => !open.includes(number)))
    await show('To do')
    await until((shown) => shown.length === open.length)
  })

  it('are put away and taken back', async () => {
    await choose('0608', 'Put away')
    await until((shown) => !shown.includes('0608'))
    await show('Put away')
    await until((shown) => shown.includes('0608'))
    await choose('0608', 'Take back')
    await until((shown) => !shown.includes('0608'))
    await show('To do')
    await until((shown) => shown.includes('0608'))
  })

  it('say by when they are wanted, the late ones first', async () => {
    await choose('0608', 'When it is wanted')
    await page.waitForSelector('[role=dialog] .ant-picker input')
    await page.click('[role=dialog] .ant-picker input')
    await page.keyboard.down('Control')
    await page.keyboard.press('a')
    await page.keyboard.up('Control')
    await page.keyboard.type('2020-01-02')
    // Once takes the day, twice keeps it.
    await page.keyboard.press('Enter')
    if (await page.$('[role=dialog]')) await page.keyboard.press('Enter')
    await page.waitForSelector('[role=dialog]', { hidden: true })
    const { body } = await knock<{ jobs: { number: string; dueOn: string }[] }>('supervisor', '/api/jobs')
    expect(body.jobs.find((one) => one.number === '0608')?.dueOn).toBe('2020-01-02')
    await until((shown) => shown[0] === '0608')
    expect(page.complaints).toEqual([])
  })

  it('of a new one people, place and day are seen in the list', async () => {
    const number = `N-${Date.now() % 100_000}`
    await pressId(page, 'new-job')
    await page.waitForSelector('[data-testid=job-people]')
    await sees(page, 'Nobody is chosen')
    const fields = await page.$$('.form input[type=text].ant-input')
    for (const [k, text] of [number, 'Hedge House', '3 Hedge Lane'].entries()) await fields[k]!.type(text)
    await page.click('[data-testid=job-people]')
    await page.keyboard.type('Tam')
    await page.keyboard.press('Enter')
    await page.keyboard.press('Escape')
    await press(page, 'Make the job')
    await page.waitForFunction(() => window.location.pathname === '/job')
    await page.goto(base)
    await page.waitForSelector(`[data-job="${number}"]`)
    const text = await page.$eval(`[data-job="${number}"]`, (one) => one.textContent)
    expect(text).toContain('3 Hedge Lane')
    expect(text).toContain('Tam Brackley')
    const { body } = await knock<{ jobs: { number: string }[] }>('tester', '/api/jobs')
    expect(body.jobs.map((one) => one.number)).toContain(number)
  })
})
