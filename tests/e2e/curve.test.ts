import { mkdtemp, rm, writeFile } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { Browser, ElementHandle, Page } from 'puppeteer-core'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Entry } from '@/core/record/entry'
import { allSent, openBrowser, openStep, pageOf, pressId, sees, tickAll, verdictOf } from '../support/browser'
import { entriesOfJob } from '../support/jobs'
import { demo } from '../support/server'

let browser: Browser
let page: Page & { complaints: string[] }
let folder: string
beforeAll(async () => {
  browser = await openBrowser()
  folder = await mkdtemp(join(tmpdir(), 'curves-'))
  page = await pageOf(browser, 'tester', `/job#${demo.job.glasshouse}/run`)
})
afterAll(async () => {
  await browser.close()
  await rm(folder, { recursive: true, force: true })
})

const open = (tag: number): Promise<void> => openStep(page, 'I-V curve', `String ${tag}`)
/** Keeps what is on the bench, and waits until the office has it. */
async function kept(): Promise<void> {
  await pressId(page, 'keep')
  await page.waitForSelector('[data-testid=keep]', { hidden: true })
  await allSent(page)
}
/** The cause that stands first, once the causes are there. */
const firstCause = (): Promise<string> =>
  page.waitForSelector('[data-testid=causes] li').then((one) => one!.evaluate((li) => (li as HTMLElement).innerText))
const curvesOf = async (tag: string): Promise<Entry[]> => {
  const entries = await entriesOfJob(demo.job.glasshouse)
  const part = entries.find(
    ({ body }) => body.kind === 'plant-change' && body.after?.kind === 'string' && body.after.tag === tag,
  )
  return entries.filter(
    ({ body, step, partId }) => body.kind === 'reading' && step === 'pv-curve' && partId === part!.partId,
  )
}
const slotOf = ({ body }: Entry) => {
  const value = body.kind === 'reading' ? body.slots.curve : undefined
  if (!value || !('curve' in value)) throw new Error('expected a curve')
  return value
}
/** What a string of fourteen gives, as an instrument writes it: decimal comma, milliamperes. */
const written = (name: string, factor = 1): string[] =>
  Array.from({ length: 80 }, (_, k) => {
    const voltage = (485 * k) / 79
    const current = 11_700 * factor * Math.max(0, 1 - Math.exp((voltage - 485) / 24))
    return `${name};${voltage.toFixed(2).replace('.', ',')};${current.toFixed(1).replace('.', ',')}`
  })

describe('the eight curves of a roof', () => {
  const sound = [1, 3, 5, 8]
  it.each(sound)('string %i is sound, and nothing is explained', async (tag) => {
    await open(tag)
    expect(await verdictOf(page)).toBe('within')
    expect(await page.$('[data-testid=causes]')).toBeNull()
  })

  it.each([
    [2, /^1\s*4 of 42 cell groups with 4\d % of the light[\s\S]*100 % sure/],
    [4, /^1\s*3\.\d Ω in series at one place/],
    [6, /^1\s*Shunts \d+ times as strong/],
    [7, /^1\s*1 module the wrong way round/],
  ])('string %i says what is wrong with it, and what to do next', async (tag, cause) => {
    await open(tag)
    expect(await verdictOf(page)).toBe('outside')
    const first = await firstCause()
    expect(first.replaceAll('\u00a0', ' ')).toMatch(cause)
    // What was ruled out stays in sight.
    const ruledOut = await page.$$eval('[data-testid=causes] li.no', (list) => list.length)
    expect(ruledOut).toBeGreaterThan(4)
  })

  it('are laid over each other at one light, the odd ones named; as a table too', async () => {
    await open(1)
    await page.click('[data-testid=sisters]')
    await sees(page, 'Odd ones of the other strings: 2, 4, 6, 7.')
    await page.click('[data-testid=as-table]')
    await page.waitForSelector('[data-testid=curve-table]')
    await page.click('[data-testid=as-table]')
    await page.click('[data-testid=sisters]')
  })

  it('answers what if, and keeps it as a remark', async () => {
    await open(2)
    await page.click('[data-testid=what-if]')
    const shaded = (await page.waitForSelector('[data-testid=if-shaded]'))!
    await shaded.click({ clickCount: 3 })
    await page.keyboard.type('4')
    await page.keyboard.press('Tab')
    await pressId(page, 'if-remark')
    await page.click('[data-testid=what-if]')
    await allSent(page)
    const remarks = (await entriesOfJob(demo.job.glasshouse)).flatMap(({ body }) =>
      body.kind === 'remark' ? body.text : [],
    )
    expect(remarks).toEqual([
      expect.stringMatching(/^String 2, tried beside the measured curve: 4 cell groups with 50\D+light\.$/),
    ])
  })
})

describe('curves come in', () => {
  it('from the tracer, point by point, and are kept with the light of the sweep', async () => {
    await open(8)
    await page.click('[data-testid=pair]')
    await page.waitForSelector('[data-testid=live-light]')
    await pressId(page, 'again')
    await tickAll(page)
    await pressId(page, 'press')
    await sees(page, ' points')
    await kept()
    const entry = (await curvesOf('8')).at(-1)!
    const { curve, how } = slotOf(entry)
    expect([how, curve.voltages_V.length, curve.currents_A.length]).toEqual(['stand-in', 120, 120])
    expect(curve.sweep_s).toBeGreaterThan(0)
    expect(entry.body.kind === 'reading' && entry.body.conditions?.irradiance.read.value).toBeGreaterThan(0)
  })

  it('without reception as well, explained and kept, and sent once there is some', async () => {
    await page.setOfflineMode(true)
    await open(4)
    expect(await firstCause()).toMatch(/Ω in series at one place/)
    await pressId(page, 'again')
    await tickAll(page)
    await pressId(page, 'press')
    await pressId(page, 'keep')
    await page.waitForSelector('[data-testid=saved]:not([data-waiting="0"])')
    expect(await curvesOf('4')).toHaveLength(1)
    await page.setOfflineMode(false)
    await allSent(page)
    expect(await curvesOf('4')).toHaveLength(2)
    expect(slotOf((await curvesOf('4')).at(-1)!).how).toBe('stand-in')
  })

  it('pasted from a spreadsheet, looked at on the bench before they are kept', async () => {
    await open(1)
    await pressId(page, 'again')
    await tickAll(page)
    await pressId(page, 'curve-paste')
    const field = (await page.waitForSelector('[data-testid=curve-pasted]'))!
    const rows = written('1').map((line) => line.split(';').slice(1).join('\t').replaceAll(',', '.'))
    await field.evaluate(
      (one, text) => {
        const area = one as HTMLTextAreaElement
        Object.getOwnPropertyDescriptor(HTMLTextAreaElement.prototype, 'value')!.set!.call(area, text)
        area.dispatchEvent(new Event('input', { bubbles: true }))
      },
      `Voltage (V)\tCurrent (mA)\n${rows.join('\n')}`,
    )
    await pressId(page, 'curve-take')
    await sees(page, 'Keep the curve of 80 points')
    await page.waitForSelector('[data-testid=curve-pasted]', { hidden: true })
    await kept()
    const { curve, how } = slotOf((await curvesOf('1')).at(-1)!)
    expect([how, curve.currents_A[0], curve.voltages_V[0]]).toEqual(['file', 11.7, 0])
  })

  it('several in a file, each to its string by its memory; what belongs to none is not taken', async () => {
    const text = [
      'Memory;Voltage (V);Current (mA)',
      ...written('STR-03'),
      ...written('STR-05', 0.98),
      ...written('STR-77'),
    ]
    const path = join(folder, 'three.csv')
    await writeFile(path, text.join('\n'))
    await open(3)
    await pressId(page, 'again')
    await tickAll(page)
    await pressId(page, 'curve-file')
    const field = (await page.waitForSelector(
      '[role=dialog] .ant-upload input[type=file]',
    )) as ElementHandle<HTMLInputElement>
    await field.uploadFile(path)
    await sees(page, 'Keep 2 curves')
    await pressId(page, 'curve-take')
    await page.waitForSelector('[data-testid=curve-rows]', { hidden: true })
    await allSent(page)
    expect(slotOf((await curvesOf('3')).at(-1)!).curve.memory).toBe('STR-03')
    expect(slotOf((await curvesOf('5')).at(-1)!).curve.currents_A[0]).toBeCloseTo(11.7 * 0.98, 3)
  })

  it('of another layout are refused in one sentence, and nothing is lost', async () => {
    const path = join(folder, 'none.csv')
    await writeFile(path, 'a;b\nhello;world\n')
    await open(6)
    await pressId(page, 'again')
    await pressId(page, 'curve-file')
    const field = (await page.waitForSelector(
      '[role=dialog] .ant-upload input[type=file]',
    )) as ElementHandle<HTMLInputElement>
    await field.uploadFile(path)
    await sees(page, 'There are no two columns of figures in it')
    expect((await curvesOf('6')).length).toBe(1)
    expect(page.complaints).toEqual([])
  })
})
