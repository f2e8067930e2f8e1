import type { Browser, Page } from 'puppeteer-core'
import sharp from 'sharp'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Entry } from '@/core/record/entry'
import { allSent, fileShelf, openBrowser, pageOf, pressId, sees } from '../support/browser'
import { base, cookieOf, demo, knock } from '../support/server'

let browser: Browser
let page: Page & { complaints: string[] }
let shelf: Awaited<ReturnType<typeof fileShelf>>
beforeAll(async () => {
  browser = await openBrowser()
  page = await pageOf(browser, 'tester', `/job#${demo.job.mill}/run`)
  shelf = await fileShelf()
})
afterAll(async () => {
  await browser.close()
  await shelf.clear()
})

const choose = (name: string, bytes: Buffer): Promise<void> => shelf.give(page, 'photo', name, bytes)
const photos = async () => {
  const { body } = await knock<{ facts: { entries: Entry[] } }>('tester', `/api/jobs/${demo.job.mill}/facts`)
  return body.facts.entries.map((entry) => entry.body).filter((body) => body.kind === 'photo')
}

describe('a photo at the step', () => {
  it('is made small, stripped but for its time, and reaches the office', async () => {
    const large = await sharp({ create: { width: 4000, height: 3000, channels: 3, background: '#765' } })
      .jpeg()
      .withExif({
        IFD0: { Artist: 'somebody' },
        IFD2: { DateTimeOriginal: '2026:05:14 10:11:12' },
        IFD3: { GPSLatitudeRef: 'N', GPSLatitude: '51/1 30/1 0/1' },
      })
      .toBuffer()
    await sees(page, 'Photos')
    await pressId(page, 'photo-open')
    await page.waitForSelector('.photo-add input')
    await page.type('.photo-add input', 'plug of string 1')
    await choose('large.jpg', large)
    await page.waitForSelector('.photos img')
    await allSent(page)
    const [photo] = await photos()
    expect(photo).toMatchObject({ caption: 'plug of string 1' })
    expect(photo!.takenAt).toContain('2026-05-14T')
    const answer = await fetch(`${base}/api/jobs/${demo.job.mill}/attachments/${photo!.attachment}`, {
      headers: { cookie: await cookieOf('tester') },
    })
    const kept = Buffer.from(await answer.arrayBuffer())
    const found = await sharp(kept).metadata()
    expect([found.width, found.height, found.exif]).toEqual([1600, 1200, undefined])
    expect(kept.length).toBeLessThan(1_200_000)
    expect(kept.includes(Buffer.from('somebody'))).toBe(false)
  })

  it('that is no photo is refused in a sentence, and nothing is kept', async () => {
    const before = (await photos()).length
    await choose('note.jpg', Buffer.from('this is no picture at all'))
    await sees(page, 'This is no photo that can be read')
    expect((await photos()).length).toBe(before)
    expect(page.complaints).toEqual([])
  })

  it('waits on the device without reception, and is shown from there', async () => {
    const before = (await photos()).length
    const bytes = await sharp({ create: { width: 800, height: 600, channels: 3, background: '#272' } })
      .jpeg()
      .toBuffer()
    await page.setOfflineMode(true)
    await choose('offline.jpg', bytes)
    await page.waitForFunction(() => document.querySelectorAll('.photos img').length === 2)
    expect(
      await page.$$eval('.photos img', (all) => all.every((one) => (one as HTMLImageElement).src.startsWith('blob:'))),
    ).toBe(true)
    await page.setOfflineMode(false)
    await page.evaluate(() => window.dispatchEvent(new Event('online')))
    await allSent(page)
    expect((await photos()).length).toBe(before + 1)
  })

  it('is printed with the certificate', async () => {
    const answer = await fetch(`${base}/api/jobs/${demo.job.mill}/certificate`, {
      headers: { cookie: await cookieOf('tester') },
    })
    const pdf = Buffer.from(await answer.arrayBuffer()).toString('latin1')
    expect(pdf.match(/\/Subtype \/Image/g)?.length ?? 0).toBeGreaterThan(0)
  })
})
