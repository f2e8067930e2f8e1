/** What axe says of a page. */
import type { AxeResults, RunOptions } from 'axe-core'
import axe from 'axe-core'
import type { Page } from 'puppeteer-core'

type Told = Pick<AxeResults, 'violations' | 'passes'>

/**
 * Runs it in the page, into which it is brought once for each load. No page here has frames, so none is asked.
 *
 * @param within a selector, where not all of the page
 */
export async function axeOn(page: Page, options: RunOptions = {}, within?: string): Promise<Told> {
  const isThere = await page.evaluate(() => 'axe' in window)
  if (!isThere) await page.evaluate(axe.source)
  return page.evaluate(
    async (asked: RunOptions, place: string | undefined) => {
      const { axe } = window as unknown as { axe: { run(on: unknown, asked: RunOptions): Promise<Told> } }
      const { violations, passes } = await axe.run(place ?? document, asked)
      return JSON.parse(JSON.stringify({ violations, passes })) as Told
    },
    { iframes: false, ...options },
    within,
  )
}
