/** Every screen that a person meets, and what it says once it is there. */
import type { Page } from 'puppeteer-core'
import { sees } from './browser'
import { base, demo } from './server'

/** Stands for the id of a job with nothing in it: the demo's own is filled by other tests. */
export const EMPTY = 'EMPTY'
export const screens = [
  { name: 'Today', path: '/', says: 'Quern House' },
  { name: 'Run, to be read', path: `/job#${demo.job.open}/run`, says: 'Run sheet' },
  { name: 'Run, outside', path: `/job#${demo.job.mill}/run/pv-isc/STRING17`, says: 'Read current, string 17' },
  { name: 'Run, a curve', path: `/job#${demo.job.glasshouse}/run/pv-curve/STRING2`, says: 'Sweep the curve, string 2' },
  { name: 'Plant', path: `/job#${demo.job.open}/plant`, says: 'South roof' },
  { name: 'Plant, boards', path: `/job#${demo.job.workshop}/plant`, says: 'DB2 Hall' },
  { name: 'Plant, empty', path: `/job#${EMPTY}/plant`, says: 'Begin with' },
  { name: 'Run, a circuit', path: `/job#${demo.job.house}/run`, says: 'Inspect the electrical installation' },
  { name: 'Schedule', path: `/job#${demo.job.joinery}/schedule`, says: 'DB1 Joinery' },
  { name: 'Record', path: `/job#${demo.job.sealed}/record`, says: 'Before you can seal' },
  { name: 'Office, regimes', path: '/office#regimes', says: 'Copy and change' },
  { name: 'Office, modules', path: '/office#modules', says: 'types' },
  { name: 'Office, charge points', path: '/office#charge-points', says: 'New charge point model' },
  { name: 'Office, company', path: '/office#company', says: 'As it is printed' },
  { name: 'Office, people', path: '/office#people', says: 'Isolde Marrow' },
  { name: 'Office, instruments', path: '/office#kit', says: 'Add an instrument' },
  { name: 'Day', path: `/job#${demo.job.barn}/day`, says: 'Plan of the day' },
  { name: 'Sign-in', path: '/sign-in', says: 'one tap' },
] as const
export const themes = ['day', 'sun', 'night'] as const

/** A path that names a string by its tag leads to that string's step: ids are made anew with each demo. */
export async function showScreen(page: Page, path: string, says: string): Promise<void> {
  const [, jobId, step, tag] = /#([0-9a-f-]+)\/run\/([a-z-]+)\/STRING(\d+)$/.exec(path) ?? []
  await page.goto('about:blank')
  await page.goto(base + (jobId ? `/job#${jobId}/run` : path))
  if (jobId) {
    await page.waitForSelector('.rail .grp, .pstep .all')
    const partId = await page.evaluate(
      async (id: string, wanted: string) => {
        const answer = await fetch(`/api/jobs/${id}/facts`)
        const { facts } = (await answer.json()) as {
          facts: { entries: { partId: string; body: { kind: string; after?: { tag: string; kind: string } } }[] }
        }
        return facts.entries.find(({ body }) => body.after?.kind === 'string' && body.after.tag === wanted)!.partId
      },
      jobId,
      tag!,
    )
    await page.evaluate((hash: string) => {
      window.location.hash = hash
    }, `#${jobId}/run/${step}/${partId}`)
  }
  await sees(page, says)
}
