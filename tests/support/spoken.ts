/** A screen in the language that nobody speaks: what stays readable on it was in no table, what is cut off has no room. */
import type { Page } from 'puppeteer-core'
import { sources } from '@/core/regime/sources'

/** Documents, as they are cited in every language. */
const cited = Object.values(sources)
  .filter((one) => one.standing === 'published')
  .flatMap(({ document, clause, edition }) => [document, clause ?? '', edition ?? ''])
/** Names that are the same in every language. */
const names = ['Upstand', 'Atkinson Hyperlegible Next']

/** Every text that a door gives: names, tags and notes are somebody's own words. */
export async function ownWords(page: Page, jobIds: readonly string[]): Promise<string[]> {
  const doors = ['jobs', 'me', 'people', 'instruments', 'regimes', 'module-types', 'charge-point-models']
  const office = ['office/people', 'office/company', 'office/audit']
  const paths = [...doors, ...office, ...jobIds.map((id) => `jobs/${id}/facts`)].map((path) => `/api/${path}`)
  const found = await page.evaluate(async (asked: string[]) => {
    const all = new Set<string>()
    const gather = (value: unknown): void => {
      if (typeof value === 'string') all.add(value)
      else if (typeof value === 'object' && value !== null) Object.values(value).forEach(gather)
    }
    for (const path of asked) {
      const answer = await fetch(path)
      if (answer.ok) gather(await answer.json())
    }
    return [...all]
  }, paths)
  const lines = found.flatMap((one) => [one, ...one.split('\n')])
  return [...new Set([...lines, ...cited, ...names])].filter((one) => /[A-Za-z]{3}/.test(one))
}

/** What is readable though nobody wrote it, and what is cut off, where the page stands. */
export function strangers(page: Page, own: readonly string[]): Promise<{ readable: string[]; cut: string[] }> {
  return page.evaluate((known: string[]) => {
    const longestFirst = [...known].sort((a, b) => b.length - a.length)
    const without = (text: string): string => longestFirst.reduce((left, one) => left.split(one).join(' '), text)
    const clipped = (one: HTMLElement): boolean =>
      one.scrollWidth > one.clientWidth + 1 || one.scrollHeight > one.clientHeight + 2
    const shown = (one: Element): boolean =>
      one.checkVisibility({ visibilityProperty: true }) && !one.closest('script, style, [data-own-words]')
    const readable = new Set<string>()
    const look = (text: string | null | undefined): void => {
      if (!text || !/[A-Za-z]{3}/.test(text)) return
      if (/[A-Za-z]{3}/.test(without(text))) readable.add(text.trim())
    }
    const walker = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT)
    for (let node = walker.nextNode(); node; node = walker.nextNode())
      if (node.parentElement && shown(node.parentElement)) look(node.textContent)
    const attributes = ['aria-label', 'placeholder', 'title', 'alt', 'aria-description']
    for (const one of document.querySelectorAll('*'))
      if (shown(one)) for (const name of attributes) look(one.getAttribute(name))
    const cut = new Set<string>()
    for (const one of document.querySelectorAll<HTMLElement>('body *')) {
      if (!shown(one) || !one.textContent?.trim()) continue
      const style = getComputedStyle(one)
      // What is only read aloud is no larger than a point.
      const clips =
        /hidden|clip/.test(style.overflowX) &&
        one.clientWidth > 1 &&
        !one.closest('.hidden, .ant-table-measure-row, .ant-table-measure-cell')
      // What is drawn in no colour is for those who listen.
      if (style.color.endsWith(', 0)')) continue
      const holdsText = [...one.childNodes].some((node) => node.nodeType === 3 && node.textContent?.trim())
      if (clips && (holdsText || style.textOverflow === 'ellipsis') && clipped(one))
        cut.add(`${one.className}: ${one.textContent.trim().slice(0, 60)}`)
    }
    for (const text of document.querySelectorAll<SVGTextElement>('svg text')) {
      const svg = text.ownerSVGElement
      if (!svg || !shown(text) || getComputedStyle(svg).overflow === 'visible') continue
      const [inner, outer] = [text.getBoundingClientRect(), svg.getBoundingClientRect()]
      if (inner.right > outer.right + 1 || inner.left < outer.left - 1)
        cut.add(`drawn ${svg.getAttribute('class') ?? ''}: ${text.textContent?.slice(0, 60)}`)
    }
    return { readable: [...readable], cut: [...cut] }
  }, own as string[])
}
