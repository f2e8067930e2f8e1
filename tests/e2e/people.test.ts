import type { Browser, Page } from 'puppeteer-core'
import { v7 as uuid } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { barePage, clickOn, fillId, listens, openBrowser, pageOf, press, pressId, sees } from '../support/browser'
import { base, demo } from '../support/server'

const email = `una.${uuid().slice(-8)}@test.invalid`
let browser: Browser
let office: Page
let una: Page
beforeAll(async () => {
  browser = await openBrowser()
  office = await pageOf(browser, 'supervisor', '/office#people')
  una = await barePage(browser)
})
afterAll(() => browser.close())

/** Opens the menu beside somebody's name and chooses in it. */
async function choose(page: Page, label: string, item: string): Promise<void> {
  await page.waitForSelector(`[aria-label="${label}"]`)
  await page.click(`[aria-label="${label}"]`)
  await pressMenu(page, item)
}
async function pressMenu(page: Page, item: string): Promise<void> {
  const found = await page.waitForFunction(
    (wanted: string) =>
      [...document.querySelectorAll<HTMLElement>('[role=menuitem], .ant-select-item-option')].find(
        (one) => one.innerText.includes(wanted) && one.checkVisibility(),
      ),
    {},
    item,
  )
  await clickOn(found)
}

describe('a person of the demo', () => {
  it('is in by one tap', async () => {
    const page = await barePage(browser)
    await page.goto(`${base}/sign-in`)
    await listens(page, 'button')
    await press(page, 'Tam Brackley')
    await page.waitForFunction(() => window.location.pathname === '/')
    await page.waitForSelector('.who-cell')
    await sees(page, 'Tam Brackley')
    await page.close()
  })
})

describe('somebody who joins the company', () => {
  it('is invited, comes in by the link, and chooses the password', async () => {
    await pressId(office, 'invite')
    await fillId(office, 'invite-name', 'Una Rowan')
    await fillId(office, 'invite-email', 'no address')
    await pressId(office, 'make-code')
    await sees(office, 'An e-mail address is needed')
    await fillId(office, 'invite-email', email)
    await pressId(office, 'make-code')
    const shown = await office.waitForSelector('[data-testid=code]')
    const code = await shown!.evaluate((one) => (one as HTMLElement).innerText.trim())
    await press(office, 'Close')
    await sees(office, 'Codes that wait')

    await una.goto(`${base}/sign-in#code=ABCD-EFGH-JKMN`)
    await pressId(una, 'code-look')
    await sees(una, 'This code is none')
    await fillId(una, 'code', code.toLowerCase())
    await pressId(una, 'code-look')
    await sees(una, `Una Rowan, choose a password. You sign in as ${email}`)
    await fillId(una, 'code-password', 'a password of hers')
    await pressId(una, 'code-in')
    await una.waitForSelector('.who-cell')
    await sees(una, 'Una Rowan')
    expect(await una.evaluate(() => document.body.innerText)).not.toContain('Tolling Mill')
  })

  it('is let into a job from the job itself, sees it, and is taken off again', async () => {
    await office.goto(`${base}/job#${demo.job.mill}/run`)
    await sees(office, 'Run sheet')
    await office.click('.who-cell')
    await pressMenu(office, 'Who works on this job')
    await sees(office, 'Who works on job 0608')
    await office.waitForSelector('[data-testid=add-to-job]')
    await office.click('[data-testid=add-to-job]')
    await pressMenu(office, 'Una Rowan')
    await office.waitForFunction(() =>
      document.querySelector<HTMLElement>('[data-testid=works-on]')?.innerText.includes('Una Rowan'),
    )
    await una.reload()
    await sees(una, 'Tolling Mill')
    const row = await office.waitForFunction(() =>
      [...document.querySelectorAll<HTMLElement>('[data-testid=works-on] tr')]
        .find((one) => one.innerText.includes('Una Rowan'))
        ?.querySelector('button'),
    )
    await clickOn(row)
    await sees(office, 'has not sent yet stays on their device')
    const yes = await office.waitForSelector('.ant-popconfirm-buttons .ant-btn-primary')
    await clickOn(yes)
    await office.waitForFunction(
      () => !document.querySelector<HTMLElement>('[data-testid=works-on]')?.innerText.includes('Una Rowan'),
    )
    await una.reload()
    await sees(una, 'Una Rowan')
    await una.waitForFunction(() => !document.body.innerText.includes('Tolling Mill'))
  })

  it('is signed out for good, and comes in again when the office says so', async () => {
    await office.goto(`${base}/office#people`)
    await choose(office, 'More about Una Rowan', 'Works here no longer')
    await sees(office, 'Una Rowan is signed out everywhere')
    await press(office, 'Yes, sign them out')
    await sees(office, 'works here no longer')
    await una.reload()
    await listens(una, 'input[type=email]')
    await una.type('input[type=email]', email)
    await una.type('input[type=password]', 'a password of hers')
    await una.keyboard.press('Enter')
    await sees(una, 'Una Rowan was signed out for good')
    await choose(office, 'More about Una Rowan', 'Let them in again')
    await office.waitForFunction(() => !document.body.innerText.includes('works here no longer'))
    await una.keyboard.press('Enter')
    await una.waitForSelector('.who-cell')
  })

  it('stands in what was done, with who did it', async () => {
    await pressId(office, 'pane-log')
    await sees(office, 'let Una Rowan in again')
    await sees(office, 'signed Una Rowan out for good')
    await sees(office, 'took Una Rowan off job 0608')
    await sees(office, 'made a code for Una Rowan to join: testing')
    await sees(office, 'joined by a code: testing')
  })

  it('is the business of supervisors alone', async () => {
    const tester = await pageOf(browser, 'tester', '/office')
    await sees(tester, 'Charge points')
    expect(await tester.evaluate(() => document.body.innerText)).not.toContain('What was done')
  })
})
