import type { Browser } from 'puppeteer-core'
import { v7 as uuid } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { evaluate } from '@/core/evaluate'
import type { Entry } from '@/core/record/entry'
import type { Facts } from '@/core/record/facts'
import { allSent, openBrowser, pageOf, sees } from '../support/browser'
import { byKeyboard, commission, type Figures, signed } from '../support/commission'
import { copiedJob, entriesOfJob, partOf, plantOf } from '../support/jobs'
import { demo, knock } from '../support/server'

let browser: Browser
beforeAll(async () => {
  browser = await openBrowser()
})
afterAll(() => browser.close())

/** The house of the demo, its electrode read with the loop tester. */
const byLoop = (entry: Entry): Entry => {
  const after = partOf(entry)
  if (after.kind !== 'electrode') return entry
  return { ...entry, body: { ...entry.body, after: { ...after, testedBy: 'loop' } } as Entry['body'] }
}
const figures: Figures = (title, slot) => {
  throw new Error(`no figure for ${slot} on "${title}"`)
}

describe('a house on its own electrode, which is read by its loop', () => {
  let jobId: string
  beforeAll(async () => {
    const entries = (await plantOf(demo.job.house)).map(byLoop)
    jobId = await copiedJob({ number: `L${uuid().slice(-9)}`, name: 'House by loop', entries })
  })

  it('is tested from the run sheet alone: one disconnection serves Ze and the electrode', async () => {
    const page = await pageOf(browser, 'tester', `/job#${jobId}/run`)
    await sees(page, 'Inspect the electrical installation')
    expect(await page.$eval('.sheet-groups', (one) => one.textContent)).not.toMatch(/spikes/i)
    expect(await commission(page, byKeyboard(page), figures)).toEqual([])
    await allSent(page)
    const steps = (await entriesOfJob(jobId)).filter(({ body }) => body.kind === 'reading').map(({ step }) => step)
    const order = (step: string): number => steps.indexOf(step)
    // Dead before anything comes off; off for both loops; back, both of them, before anything is energised.
    const wanted = ['prove-dead', 'ze', 'electrode-loop', 'electrode-loop-back', 'earth-back', 'fault-current', 'zs']
    expect(wanted.map(order)).toEqual(wanted.map(order).sort((a, b) => a - b))
    expect(wanted.map(order)).not.toContain(-1)
    expect(steps).not.toContain('electrode')
    await page.keyboard.press('g')
    await sees(page, 'Before you can seal')
    await signed(page)
    expect(page.complaints).toEqual([])
  }, 400_000)

  it('comes out whole: every test stands, no hard gate was gone round, the loop is held against its devices', async () => {
    const { body } = await knock<{ facts: Facts }>('tester', `/api/jobs/${jobId}/facts`)
    const { steps, progress } = evaluate(body.facts, Date.now())
    expect(progress.done).toBe(progress.total)
    expect(steps.flatMap(({ flags }) => flags)).not.toContain('while-held-back')
    const electrode = steps.find(({ step }) => step.id === 'electrode-loop')!
    expect(electrode.verdict).toMatch(/within|close/)
    // 100 mA above two of 30 mA: the highest decides, 500 ohm.
    expect(electrode.judgement!.limits.map(({ value }) => value)).toContain(500)
  })
})
