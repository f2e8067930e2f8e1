/** Whether whoever goes by Tab sees where they are: what has the focus must not lie under what stays in its place. */
import type { Page } from 'puppeteer-core'

/** Where the focus is, in words, and whether something lies over it or it is out of sight. */
const focusNow = (page: Page): Promise<{ name: string; seen: boolean } | null> =>
  page.evaluate(() => {
    const focused = document.activeElement as HTMLElement | null
    if (!focused || focused === document.body) return null
    const one = focused.closest<HTMLElement>('label, .ant-select, .ant-radio-button-wrapper') ?? focused
    const { x, y, width, height } = one.getBoundingClientRect()
    const isHit = (share: number): boolean => {
      const found = document.elementFromPoint(x + width / 2, y + height * share)
      return found !== null && (one.contains(found) || found.contains(one))
    }
    // What is taller than the window shows a part of itself.
    const isTall = height > window.innerHeight / 3
    return {
      name: `${focused.tagName} ${focused.dataset.testid ?? ''} ${(focused.innerText ?? '').slice(0, 40)} at ${Math.round(y)}`,
      seen: isTall || [0.2, 0.5, 0.8].every(isHit),
    }
  })

/** Goes on by Tab, so many times. @returns what had the focus and could not be seen */
export async function hiddenByTab(page: Page, tabs: number): Promise<string[]> {
  const hidden: string[] = []
  for (let k = 0; k < tabs; k++) {
    await page.keyboard.press('Tab')
    const now = await focusNow(page)
    if (now && !now.seen) hidden.push(now.name)
  }
  return hidden
}
