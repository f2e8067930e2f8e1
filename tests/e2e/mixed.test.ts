import type { Browser } from 'puppeteer-core'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { PartData } from '@/core/plant/part'
import type { Entry } from '@/core/record/entry'
import { allSent, openBrowser, pageOf, sees } from '../support/browser'
import { byKeyboard, commission, type Figures, signed } from '../support/commission'
import { copiedJob, entriesOfJob, partOf, plantOf } from '../support/jobs'
import { demo } from '../support/server'

let browser: Browser
beforeAll(async () => {
  browser = await openBrowser()
})
afterAll(() => browser.close())

const figures: Figures = (title, slot) => {
  if (slot === 'tilt') return '22'
  if (slot === 'azimuth') return '95'
  throw new Error(`no figure for ${slot} on "${title}"`)
}

const withData = (entry: Entry, change: Partial<PartData>): Entry =>
  ({ ...entry, body: { ...entry.body, after: { ...partOf(entry), ...change } } }) as Entry

/**
 * One face of the demo's roof and one of its charge points on one supply, each on a circuit of its own. Of three strings
 * two tell which one a cloud's edge put out; of two nobody can.
 */
async function roofAndPoint(): Promise<string> {
  const roof = (await plantOf(demo.job.barn)).filter((one) =>
    ['Site', 'East', '1', '2', '3', 'R1', 'DC1', 'INV'].includes(partOf(one).tag),
  )
  const plugs = (await plantOf(demo.job.mews)).filter((one) => !['Site', 'CP1'].includes(partOf(one).tag))
  const circuit = plugs.find((one) => partOf(one).kind === 'circuit' && partOf(one).tag === '1')!
  const changes = [...plugs, ...roof].map((one) => {
    if (one === circuit) return withData(one, { feeds: 'Inverter', rating_A: 20 } as Partial<PartData>)
    if (partOf(one).tag === 'INV') return withData(one, { circuitId: circuit.partId } as Partial<PartData>)
    return one
  })
  return copiedJob({ number: '0624', name: 'Larkspur House', entries: changes })
}

describe('a roof and a charge point on one supply', () => {
  it('goes from isolation to signature by keyboard, the origin tested once', async () => {
    const jobId = await roofAndPoint()
    const page = await pageOf(browser, 'tester', `/job#${jobId}/run`)
    await sees(page, 'Inspect the site')
    await page.focus('[data-testid=pair]')
    await page.keyboard.press('Enter')
    await page.waitForSelector('[data-testid=live-light]')
    expect(await commission(page, byKeyboard(page), figures)).toEqual([])
    await allSent(page)
    await page.keyboard.press('g')
    await sees(page, 'Before you can seal')
    await signed(page)
    const entries = await entriesOfJob(jobId)
    expect(entries.at(-1)!.body.kind).toBe('signature')
    const readings = entries.filter((entry) => entry.body.kind === 'reading').map((entry) => entry.step)
    // What belongs to the supply is read once, whatever hangs on it.
    for (const once of ['prove-dead', 'ze', 'earth-back', 'lead-null', 'close-out'])
      expect([once, readings.filter((step) => step === once).length]).toEqual([once, 1])
    const at = (step: string): number => readings.indexOf(step)
    // One order over the whole site: nothing live before the earth is back, and no plug before its circuit is proved.
    expect(at('safe-isolation')).toBe(Math.min(...['safe-isolation', 'pv-voc', 'ze', 'point-locks-off'].map(at)))
    expect(at('ac-insulation')).toBeLessThan(at('ze'))
    expect(at('earth-back')).toBeLessThan(at('point-states'))
    expect(readings.lastIndexOf('ac-insulation')).toBeLessThan(at('reconnect'))
    expect(page.complaints).toEqual([])
  }, 400_000)
})
