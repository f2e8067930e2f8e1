import type { Browser, Page } from 'puppeteer-core'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { evaluate } from '@/core/evaluate'
import type { Body, Entry } from '@/core/record/entry'
import type { Facts } from '@/core/record/facts'
import { allSent, holdFeed, openBrowser, pageOf, sees } from '../support/browser'
import { altP, cellText, openCell, pasteHere, setUp, standsAs } from '../support/schedule'
import { base, demo, knock } from '../support/server'

const { joinery } = demo.job
let browser: Browser
let page: Page & { complaints: string[] }

beforeAll(async () => {
  browser = await openBrowser()
  page = await pageOf(browser, 'tester')
  await page.setViewport({ width: 1280, height: 800 })
  await page.goto(`${base}/job#${joinery}/schedule`)
  await page.waitForSelector('[data-cell="14.zs"]')
})
afterAll(() => browser.close())

const alt = async (key: string): Promise<void> => {
  await page.keyboard.down('Alt')
  await page.keyboard.press(key as 'f')
  await page.keyboard.up('Alt')
}
const whereNow = (): Promise<string> =>
  page.evaluate(() => document.querySelector('.sg input:focus')?.getAttribute('aria-label') ?? '')
const kept = async (step: string): Promise<number> => {
  const { body } = await knock<{ facts: { entries: Entry[] } }>('tester', `/api/jobs/${joinery}/facts`)
  return body.facts.entries.filter((entry) => entry.step === step && entry.body.kind === 'reading').length
}

describe('a board of fourteen circuits', () => {
  it('stands on one screen with all its tests, the open row as well', async () => {
    await openCell(page, '3.ring-ends')
    const seen = await page.evaluate(() => {
      const foot = document.querySelector('.sfoot')!.getBoundingClientRect().top
      const rows = [...document.querySelectorAll('.sg [role=row].ant-table-row')]
      const cells = rows.at(-1)!.querySelectorAll('[role=gridcell], [role=rowheader]')
      return {
        rows: rows.filter((row) => row.getBoundingClientRect().bottom <= foot + 0.5).length,
        right: Math.max(...[...cells].map((cell) => cell.getBoundingClientRect().right)),
        pens: document.querySelectorAll('.opened [data-slot]').length,
      }
    })
    expect(seen).toEqual({ rows: 14, right: expect.closeTo(1280, -1), pens: 7 })
  })

  it('says at the cell what a figure is held against, before and after it is typed', async () => {
    await openCell(page, '8.zs')
    const about = (): Promise<string> =>
      page.$eval('.opened .about', (one) => (one as HTMLElement).innerText.replaceAll('\u00a0', ' '))
    expect(await about()).toMatch(/Zs\s+at most 4\.37 Ω, expected \d\.\d\d Ω/)
    await page.keyboard.type('44')
    await page.waitForSelector('[data-cell="8.zs"] .gcell.pen[data-verdict=outside]')
    await page.keyboard.press('Escape')
    expect(await cellText(page, '8.zs')).toBe('')
    expect(await about()).toMatch(/at most 4\.37 Ω/)
  })

  it('is read from the keyboard alone, a press a figure', async () => {
    await page.keyboard.press('Escape')
    const before = await kept('zs')
    await page.keyboard.press('f')
    await page.keyboard.type('11')
    await page.keyboard.press('Enter')
    await page.waitForFunction(() => document.querySelector('.sg .now .no')?.textContent === '11')
    for (let k = 0; k < 9 && !(await whereNow()).endsWith('Zs'); k++) await page.keyboard.press('Tab')
    expect(await whereNow()).toBe('circuit 11, Zs')
    for (const tag of ['11', '12', '13', '14']) {
      await altP(page)
      await page.waitForSelector(`[data-cell="${tag}.zs"] .gcell:not([data-verdict=""])`)
    }
    for (const tag of ['11', '12', '13', '14']) await standsAs(page, `${tag}.zs`, 'within')
    await allSent(page)
    expect(await kept('zs')).toBe(before + 4)
  })

  it('asks about a pasted figure that could be two, where it stands', async () => {
    await openCell(page, '8.zs')
    await pasteHere(page, '1,234\n1,33\n')
    await sees(page, 'Which one does the instrument show?')
    const answers = await page.$$eval('[data-testid=schedule-either]', (all) =>
      all.map((one) => (one as HTMLElement).innerText),
    )
    expect(answers).toEqual(['1.234', '1234'])
    await standsAs(page, '9.zs', 'within')
    // The other one is kept by now: what is asked stands there all the same.
    await sees(page, '2 figures taken, 1 of them waits. “1,234” could be 1.234 or 1234. Which one')
    await page.click('[data-testid=schedule-either]')
    await page.waitForFunction(() => !document.querySelector('[data-testid=schedule-either]'))
    await page.keyboard.press('Enter')
    await standsAs(page, '8.zs', 'within')
    expect(await cellText(page, '8.zs')).toBe('1.234')
  })

  it('takes no block for what waits: the board is not dead any more', async () => {
    await page.keyboard.press('Escape')
    await page.click('[data-cell="13.r1r2"] button')
    await page.waitForSelector('[data-cell="13.r1r2"] input:focus')
    await pasteHere(page, '0.5\n0.5\n')
    await sees(page, 'Nothing of the block was taken')
    expect(await page.$$('.gcell.pen')).toHaveLength(0)
  })

  it('copies out what a spreadsheet takes, with headings', async () => {
    await page.bringToFront()
    await page
      .browserContext()
      .overridePermissions(base, ['clipboard-read', 'clipboard-write', 'clipboard-sanitized-write'])
    await page.click('[data-testid=schedule-copy]')
    await sees(page, '14 rows copied')
    const lines = (await page.evaluate(() => navigator.clipboard.readText()))
      .split('\n')
      .map((line) => line.split('\t'))
    expect(lines).toHaveLength(15)
    expect(lines[0]!.slice(0, 5)).toEqual(['Circuit', 'Feeds', 'device', 'Ring', 'R1+R2'])
    const row = lines.find(([tag]) => tag === '6')!
    expect(row.slice(0, 3)).toEqual(['6', 'Dust extract', 'C16'])
    expect(row[lines[0]!.indexOf('Zs')]).toMatch(/^\d\.\d\d \/ \d\.\d\d \/ \d\.\d\d$/)
  })

  it('leads to the bench and back to the same circuit', async () => {
    await openCell(page, '12.zs')
    await alt('b')
    await sees(page, 'circuit 12')
    await page.waitForSelector('[data-testid=to-schedule]')
    await page.click('[data-testid=to-schedule]')
    await page.waitForFunction(() => document.querySelector('.sg .now .no')?.textContent === '12')
  })

  it('takes nothing from somebody who only reads, and says so', async () => {
    const reader = await pageOf(browser, 'viewer')
    await reader.goto(`${base}/job#${joinery}/schedule`)
    await reader.waitForSelector('[data-cell="9.zs"] button')
    await reader.click('[data-cell="10.zs"] button')
    await reader.waitForSelector('[data-cell="10.zs"] input')
    await reader.keyboard.type('4')
    await sees(reader, 'Nothing was taken: this job is only read here.')
    expect(await cellText(reader, '10.zs')).toBe('')
  })

  it('takes what a paired instrument shows where the pen is, never over a figure and never of an earlier place', async () => {
    const { body } = await knock<{ facts: Facts }>('tester', `/api/jobs/${joinery}/facts`)
    const circuit = evaluate(body.facts, Date.now())
      .plant.ofKind('circuit')
      .find(({ data }) => data.tag === '10')!
    const tester = body.facts.instruments.find(({ ranges }) => ranges.some((one) => one.measures === 'loop-impedance'))!
    expect((await knock('tester', `/api/jobs/${joinery}/pair`, { instrumentId: tester.id })).status).toBe(200)
    // Pressed elsewhere: this page hears it through the feed.
    const pressed = async (): Promise<void> => {
      const asked = {
        instrumentId: tester.id,
        partId: circuit.id,
        key: 'loop-impedance',
        setting: { step: 'zs', slot: 'zs', choices: { 'loop-method': 'non-trip' } },
      }
      expect((await knock('tester', `/api/jobs/${joinery}/standin`, asked)).status).toBe(200)
    }
    const offer = '[data-testid=schedule-offered]'
    await openCell(page, '9.zs')
    // The figure is heard after the pen has moved on.
    const letHear = await holdFeed(page)
    await pressed()
    await openCell(page, '10.zs')
    await letHear()
    await page.waitForSelector(offer)
    expect(await page.$eval(offer, (one) => (one as HTMLElement).innerText)).toMatch(/before this was open/)
    expect(await cellText(page, '10.zs')).toBe('')
    await pressed()
    await page.waitForFunction(
      () => document.querySelector<HTMLInputElement>('[data-cell="10.zs"] input')?.value !== '',
    )
    const first = await cellText(page, '10.zs')
    expect(first).toMatch(/^\d\.\d\d$/)
    expect(await page.$(offer)).toBeNull()
    await page.keyboard.type('1')
    const typed = await cellText(page, '10.zs')
    await pressed()
    await page.waitForSelector(offer)
    expect(await cellText(page, '10.zs')).toBe(typed)
    await page.click(`${offer} button`)
    await page.waitForFunction(() => !document.querySelector('[data-testid=schedule-offered]'))
    expect(await cellText(page, '10.zs')).toMatch(/^\d\.\d\d$/)
    await alt('i')
    await sees(page, 'Why this limit')
    await page.waitForSelector('[data-testid=why-limits]')
    // Esc closes what was asked, and leaves the figure where it stands.
    await page.keyboard.press('Escape')
    await page.waitForFunction(() => !document.querySelector('[data-testid=why-limits]')?.checkVisibility())
    expect(await cellText(page, '10.zs')).toMatch(/^\d\.\d\d$/)
    await page.keyboard.press('Enter')
    await page.waitForSelector('[data-cell="10.zs"] .gcell:not(.pen):not([data-verdict=""])')
    await allSent(page)
    // What the same press gave besides is kept with it, though no cell asks for it.
    const kept = await knock<{ facts: Facts }>('tester', `/api/jobs/${joinery}/facts`)
    const read = kept.body.facts.entries.findLast(({ step, partId }) => step === 'zs' && partId === circuit.id)!
    expect(Object.keys((read.body as Body<'reading'>).slots)).toEqual(
      expect.arrayContaining(['zs', 'loop-l-n', 'loop-n-pe', 'volts-l-pe', 'pefc-besides']),
    )
    expect(page.complaints).toEqual([])
  })

  it('shows what was read another way than is set up, and asks for what is', async () => {
    const before = [await cellText(page, '1.r1r2'), await cellText(page, '1.zs')]
    expect(before).toEqual([expect.stringMatching(/^\d\.\d\d$/), expect.stringMatching(/^\d\.\d\d$/)])
    await setUp(page, 'r1r2', 'continuity-way', 'R2 alone')
    await setUp(page, 'zs', 'loop-method', 'Ze + (R1+R2)')
    await page.waitForSelector('[data-cell="1.r1r2"] .gcell.apart[data-verdict=within]')
    await page.waitForSelector('[data-cell="1.zs"] .gcell.apart[data-verdict=within]')
    expect(await cellText(page, '1.r1r2')).toBe(before[0])
    expect(await cellText(page, '1.zs')).toContain(before[1])
    // The pen there is for R2; the loop is only looked at.
    await openCell(page, '1.r1r2')
    expect(await cellText(page, '1.r1r2')).toBe('')
    await page.keyboard.press('Escape')
    await page.waitForSelector('[data-cell="1.r1r2"] .gcell.apart')
    expect(await page.$('[data-cell="1.zs"] button')).toBeNull()
    await setUp(page, 'r1r2', 'continuity-way', 'Both, linked')
    await setUp(page, 'zs', 'loop-method', 'Non-trip')
    await page.waitForSelector('[data-cell="1.zs"] .gcell:not(.apart)')
    expect([await cellText(page, '1.r1r2'), await cellText(page, '1.zs')]).toEqual(before)
    expect(page.complaints).toEqual([])
  })
})
