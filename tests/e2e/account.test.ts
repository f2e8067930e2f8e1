import type { Browser, Page } from 'puppeteer-core'
import { v7 as uuid } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { openDatabase } from '@/server/db/client'
import { addPerson } from '@/server/people/people'
import { barePage, listens, openBrowser } from '../support/browser'
import { base } from '../support/server'

const email = `una.${uuid().slice(-8)}@test.invalid`
const [OLD, NEW] = ['the password until now', 'the password from now on']
let browser: Browser
let page: Page

const says = (text: string) =>
  page.waitForFunction((wanted: string) => document.body.innerText.includes(wanted), {}, text)
const pressed = async (selector: string, text: string): Promise<void> => {
  await page.waitForFunction(
    (where: string, wanted: string) => {
      const found = [...document.querySelectorAll<HTMLElement>(where)].find((one) => one.innerText.includes(wanted))
      found?.click()
      return found !== undefined
    },
    {},
    selector,
    text,
  )
}
const menu = async (item: string): Promise<void> => {
  await page.waitForSelector('.who-cell')
  await page.click('.who-cell')
  await pressed('[role=menuitem]', item)
}
async function signIn(password: string): Promise<void> {
  await listens(page, 'input[type=email]')
  await page.type('input[type=email]', email)
  await page.type('input[type=password]', password)
  await page.keyboard.press('Enter')
  await page.waitForSelector('.who-cell')
}
const elsewhere = (password: string) =>
  fetch(`${base}/api/auth/sign-in/email`, {
    method: 'POST',
    headers: { origin: base, 'content-type': 'application/json' },
    body: JSON.stringify({ email, password }),
  })

beforeAll(async () => {
  const db = openDatabase(process.env.UPSTAND_TEST_DATABASE!, 1)
  await addPerson(db, { name: 'Una Fern', email, password: OLD, role: 'tester' })
  await db.close()
  browser = await openBrowser()
  page = await barePage(browser)
})
afterAll(() => browser.close())

describe('one’s own account', () => {
  it('leads nowhere else after signing in, whatever the address says', async () => {
    await page.goto(`${base}/sign-in?then=${encodeURIComponent('/\t/evil.example')}`)
    await signIn(OLD)
    expect(new URL(page.url()).origin).toBe(base)
  })

  it('shows where else one is signed in, and signs out there', async () => {
    await elsewhere(OLD)
    await menu('Where you are signed in')
    await says('this one')
    await pressed('button', 'Sign out there')
    await page.waitForFunction(() => !document.body.innerText.includes('Sign out there'))
    await page.keyboard.press('Escape')
  })

  it('takes a new password, after the old one', async () => {
    await menu('A new password')
    const type = async (values: readonly string[]): Promise<void> => {
      await page.waitForSelector('[role=dialog] input')
      for (const [k, input] of (await page.$$('[role=dialog] input')).entries()) {
        await input.click({ count: 3 })
        await input.type(values[k]!)
      }
      await pressed('[role=dialog] button', 'Change it')
    }
    await type(['not the old one', NEW, NEW])
    await says('The password until now is another one')
    await type([OLD, NEW, `${NEW}!`])
    await says('The two are not alike')
    await type([OLD, NEW, NEW])
    await says('The password is changed')
    expect((await elsewhere(OLD)).status).toBe(401)
    expect((await elsewhere(NEW)).status).toBe(200)
  })

  it('asks before it signs out', async () => {
    await page.goto(base)
    await menu('Sign out')
    await says('Sign out here?')
    await pressed('[role=dialog] button', 'Stay')
    expect(page.url()).not.toContain('sign-in')
    await page.reload()
    await menu('Sign out')
    await says('Sign out here?')
    await pressed('[role=dialog] button', 'Sign out')
    await listens(page, 'input[type=email]')
    await signIn(NEW)
  })
})
