import type { Browser, Page } from 'puppeteer-core'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Entry } from '@/core/record/entry'
import { allSent, openBrowser, openStep, pageOf, press, pressId, sees, tickAll } from '../support/browser'
import { base, demo, knock } from '../support/server'

let browser: Browser
beforeAll(async () => {
  browser = await openBrowser()
})
afterAll(() => browser.close())

const JOB = demo.job.mill
const readings = async (): Promise<Entry[]> => {
  const { body } = await knock<{ facts: { entries: Entry[] } }>('tester', `/api/jobs/${JOB}/facts`)
  return body.facts.entries.filter((entry) => entry.body.kind === 'reading')
}

/** The worker that keeps the application on the device must be in charge before the network goes. */
async function kept(page: Page): Promise<void> {
  await page.evaluate(async () => {
    await navigator.serviceWorker.ready
    if (!navigator.serviceWorker.controller)
      await new Promise((resolve) =>
        navigator.serviceWorker.addEventListener('controllerchange', resolve, { once: true }),
      )
  })
}

describe('without reception', () => {
  it('keeps five readings over a closed tab, and sends each once', async () => {
    const before = await readings()
    const page = await pageOf(browser, 'tester', `/job#${JOB}/run`)
    await sees(page, 'Tolling Mill')
    await kept(page)
    await allSent(page)

    await page.setOfflineMode(true)
    for (const string of ['27', '28', '29', '30', '31']) {
      await openStep(page, 'Voltage', `String ${string}`)
      await sees(page, `Read voltage, string ${string}`)
      await tickAll(page)
      await pressId(page, 'press')
      await page.waitForSelector('[data-testid=keep]')
      await pressId(page, 'keep')
      await sees(page, 'Take again')
    }
    await sees(page, 'no reception, 5 to send')
    expect((await readings()).length).toBe(before.length)

    // The tab is closed, and opened again from the device alone.
    const context = page.browserContext()
    await page.close()
    const again = await context.newPage()
    again.setDefaultTimeout(20_000)
    await again.setOfflineMode(true)
    await again.goto(`${base}/job#${JOB}/run`)
    await sees(again, 'Tolling Mill')
    await sees(again, '5 to send')
    await openStep(again, 'Voltage', 'String 29')
    await sees(again, 'not sent yet')

    await again.setOfflineMode(false)
    await again.evaluate(() => window.dispatchEvent(new Event('online')))
    await allSent(again)
    const after = await readings()
    const fresh = after.filter((one) => !before.some((old) => old.id === one.id))
    expect(fresh.length).toBe(5)
    expect(new Set(fresh.map((one) => one.partId)).size).toBe(5)
    for (const one of fresh)
      expect(one).toMatchObject({ step: 'pv-voc', personId: demo.person.tester, body: { how: 'stand-in' } })
  })

  it('keeps a refused entry on the device with its reason', async () => {
    const page = await pageOf(browser, 'tester', `/job#${JOB}/run`)
    await sees(page, 'Tolling Mill')
    await allSent(page)
    // An entry that the office must refuse: it stands in the queue as an older version of a page might have left it.
    await page.evaluate(
      async (jobId: string, personId: string, visitId: string) => {
        const open = indexedDB.open('upstand')
        const db = await new Promise<IDBDatabase>((resolve) => {
          open.onsuccess = () => resolve(open.result)
        })
        const id = crypto.randomUUID()
        const entry = {
          id,
          jobId,
          visitId,
          partId: null,
          step: 'pv-voc',
          deviceTime: new Date().toISOString(),
          clockOffset_ms: 0,
          personId,
          receivedAt: null,
          body: { kind: 'wish', v: 1 },
        }
        const put = db
          .transaction('queue', 'readwrite')
          .objectStore('queue')
          .put({ id, personId, jobId, entry, state: 'waiting', reason: null, addedAt: entry.deviceTime })
        await new Promise((resolve) => {
          put.onsuccess = resolve
        })
      },
      JOB,
      demo.person.tester,
      demo.visit.mill,
    )
    await page.reload()
    await sees(page, 'Not taken by the office')
    await sees(page, 'The entry is not as it must be')
    await press(page, 'Take it off this device')
    await page.waitForFunction(() => !document.body.innerText.includes('Not taken by the office'))
  })
})
