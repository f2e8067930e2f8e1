import type { Browser, Page } from 'puppeteer-core'
import { v7 as uuid } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { evaluate, stepKey } from '@/core/evaluate'
import type { PartData, StringData } from '@/core/plant/part'
import type { Facts } from '@/core/record/facts'
import { hasLeak, wayToEarth } from '@/standin/leak'
import { asBuilt } from '@/standin/roof'
import { allSent, openBrowser, pageOf, press, pressId, sees, waitForVerdict } from '../support/browser'
import { byKeyboard, type Figures, takeReading } from '../support/commission'
import { builtId, copiedJob, partOf, plantOf } from '../support/jobs'
import { base, demo, knock } from '../support/server'

const FIRST_OPENED = 5

/** A string whose plug leaks and moves, well away from its ends. */
function wanderingId(data: StringData): string {
  for (;;) {
    const id = uuid()
    if (!hasLeak(id) || asBuilt(id, data.modulesInSeries).fault !== 'none') continue
    const leak = wayToEarth(id, data, false, 'dry').leak!
    // Where it is parted to halve it both halves would be low.
    if (
      leak.wanders &&
      leak.afterModule !== FIRST_OPENED &&
      leak.afterModule > 2 &&
      leak.afterModule < data.modulesInSeries - 3
    )
      return id
  }
}
const isLeaky = (data: PartData): data is StringData => data.kind === 'string' && data.tag === '2'

let browser: Browser
let page: Page & { complaints: string[] }
let jobId: string
const ids: Record<string, string> = {}
let leaksAfter: number
beforeAll(async () => {
  const entries = await plantOf(demo.job.boathouse)
  const idOf = (data: PartData): string => {
    const id = isLeaky(data) ? wanderingId(data) : builtId(data)
    ids[`${data.kind} ${data.tag}`] = id
    return id
  }
  jobId = await copiedJob({ number: `W${uuid().slice(-9)}`, name: 'Wandering', entries, idOf })
  const string = entries.map(partOf).find(isLeaky)!
  leaksAfter = wayToEarth(ids['string 2']!, string, false, 'dry').leak!.afterModule
  browser = await openBrowser()
  page = await pageOf(browser, 'tester')
  await page.setViewport({ width: 1280, height: 800 })
})
afterAll(() => browser.close())

const site = (): string => Object.entries(ids).find(([name]) => name.startsWith('site'))![1]
async function open(step: string, partId: string): Promise<void> {
  await page.goto('about:blank')
  await page.goto(`${base}/job#${jobId}/run/${step}/${partId}`)
  await page.waitForSelector('.bench')
}
/** No instrument counts plugs: it is opened where the screen says, first in the middle. */
const figures: Figures = (_, slot) => {
  if (slot !== 'opened-after') throw new Error(`no figure for ${slot}`)
  return String(FIRST_OPENED)
}
const take = (): Promise<string> => takeReading(page, byKeyboard(page), figures)
const choose = (option: string): Promise<void> =>
  page.waitForFunction(
    (wanted: string) => {
      document.querySelector<HTMLElement>('.setup-line button')?.click()
      const own = document.querySelector<HTMLElement>(`[data-option=${wanted}]`)
      if (own?.getAttribute('aria-pressed') === 'true') return true
      own?.click()
      return false
    },
    { polling: 300 },
    option,
  ) as unknown as Promise<void>
const drawn = (): Promise<string> =>
  page.$eval('[data-picture=string-place]', (one) => one.getAttribute('aria-label') ?? '')
const now = async () => {
  const { body } = await knock<{ facts: Facts }>('tester', `/api/jobs/${jobId}/facts`)
  const evaluation = evaluate(body.facts, Date.now())
  return Object.assign((step: string) => evaluation.byKey.get(stepKey(step, ids['string 2']!))!, {
    snags: evaluation.snags,
  })
}

describe('an earth fault that wanders', () => {
  it('is not looked for before insulation is low', async () => {
    await open('safe-isolation', site())
    expect(await take()).toBe('within')
    await open('pv-polarity', ids['string 2']!)
    expect(await take()).toBe('within')
    await open('pv-insulation', ids['string 2']!)
    expect(await page.$eval('.sheet-groups', (one) => one.textContent)).not.toContain('Earth fault')
  })

  it('is seen as it wanders, and the way to find it is one press away', async () => {
    await press(page, 'Go on anyway')
    await page.waitForSelector('[role=dialog] textarea')
    await page.type('[role=dialog] textarea', 'voltage is read tomorrow')
    await page.$eval('[role=dialog] button[type=submit]', (button) => (button as HTMLButtonElement).click())
    await page.waitForFunction(() => !document.querySelector('[role=dialog]')?.checkVisibility())
    expect(await take()).toBe('outside')
    await sees(page, 'wanders')
    await pressId(page, 'hunt')
    await page.waitForFunction(() => document.querySelector('h1')?.textContent?.startsWith('Find the earth fault'))
  })

  it('is placed by three voltages, drawn on the string', async () => {
    expect(await take()).toBe('outside')
    await sees(page, `after module ${leaksAfter} of`)
    expect(await drawn()).toContain(`at the plugs after module ${leaksAfter}`)
  })

  it('is found again by halves, led from place to place', async () => {
    await page.keyboard.press('r')
    await choose('halves')
    expect(await take()).toBe('outside')
    await sees(page, leaksAfter <= FIRST_OPENED ? 'half with +' : 'half with −')
    // Both ways name one place.
    expect(await drawn()).toContain(`at the plugs after module ${leaksAfter}`)
  })

  it('is mended from here: what the mending touched is asked for again, and the hunt with it is over', async () => {
    await byKeyboard(page).mend('Plug remade, cable clipped up')
    await allSent(page)
    expect((await now())('pv-insulation').repeatAsked).toBe(true)
    await open('pv-insulation', ids['string 2']!)
    expect(await take()).toBe('within')
    await allSent(page)
    const of = await now()
    expect(of('pv-insulation').verdict).toBe('within')
    expect(of('earth-fault')).toMatchObject({ verdict: 'left-out', done: true, finding: { code: 'not-needed' } })
    expect(of.snags.map(({ state }) => state)).toEqual(of.snags.map(() => 'closed'))
    expect(of.snags.length).toBeGreaterThan(0)
    await waitForVerdict(page, 'within')
    expect(page.complaints).toEqual([])
  })
})
