/** Somebody who commissions a whole roof from the run sheet alone, whatever the steps are: by keyboard or by touch. */
import type { Page } from 'puppeteer-core'
import { allSent, pressId, sees, tapAction } from './browser'

/** How a person acts on the page. */
export type Hands = {
  /** Minds what must be minded: one line of it, or all where there is a key for that. */
  tick(): Promise<void>
  /** Gives the answer at a place (1 is the first) to the question that is open. */
  answer(place: number): Promise<void>
  /** Types a figure into the slot that is open. */
  figure(text: string): Promise<void>
  /** The main action: press the instrument, keep, or go on. */
  main(id: 'press' | 'keep' | 'next'): Promise<void>
  again(): Promise<void>
  /** Opens "mended", says how, and sends it. */
  mend(words: string): Promise<void>
}

type Seen = {
  title: string
  verdict: string
  can: string[]
  open: { slot: string; kind: 'choice' | 'number' } | null
  ticks: number
  /** An instrument is reading. */
  busy: boolean
  /** What the bench refused with. */
  said: string | null
}

/** What the bench shows now. */
export const look = (page: Page): Promise<Seen> =>
  page.evaluate(() => {
    const visible = (one: Element): boolean => (one as HTMLElement).checkVisibility()
    const ids = ['press', 'keep', 'next', 'type', 'mend', 'hint']
    const row = [...document.querySelectorAll('.row.next')].find(visible)
    const input = [...document.querySelectorAll<HTMLInputElement>('.slot .fig input')].find(
      (one) => !one.readOnly && one.value === '',
    )
    // A lone answer that no instrument gives.
    const lone = document.querySelector('[data-testid=hint]') && document.querySelector('.choice:not([disabled])')
    return {
      title: document.querySelector('h1')?.textContent ?? '',
      verdict: document.querySelector<HTMLElement>('[data-testid=verdict]')?.dataset.verdict ?? '',
      can: ids.filter((id) => document.querySelector(`[data-testid="${id}"]:not([disabled])`)),
      open: row
        ? { slot: (row as HTMLElement).dataset.slot ?? '', kind: 'choice' as const }
        : lone
          ? { slot: '', kind: 'choice' as const }
          : input
            ? { slot: input.id.replace('slot-', ''), kind: 'number' as const }
            : null,
      busy: document.querySelector('[data-testid=press][disabled]') !== null,
      ticks: document.querySelectorAll('.chk input:not(:checked)').length,
      said: document.querySelector('.said.bad')?.textContent ?? null,
    }
  })

/** The answers that are not the first one, and figures that no instrument of the kit gives. */
const answers: Record<string, number> = {
  'set-voltage': 3,
  behaviour: 2,
  'shown-b': 2,
  'shown-c': 3,
  'cable-full': 3,
  'cable-lower': 2,
}
/** What nobody's instrument gives and any plant may have: lengths of bonds, a wait by the clock. */
const usualFigures: Record<string, string> = {
  'water-length': '9',
  'gas-length': '6',
  'steel-length': '4',
  'other-length': '5',
  'supplementary-length': '3',
  'reconnect-wait': '75',
}
export type Figures = (title: string, slot: string) => string

/** Takes the reading that the bench asks for: cautions, answers, instrument, keep. Gives the verdict. */
export async function takeReading(page: Page, hands: Hands, figures: Figures): Promise<string> {
  for (let act = 0; act < 40; act++) {
    const seen = await look(page)
    if (seen.busy && seen.ticks === 0) await page.waitForSelector('[data-testid=press][disabled]', { hidden: true })
    else if (seen.ticks > 0) await hands.tick()
    else if (seen.can.includes('keep')) {
      await hands.main('keep')
      await page.waitForFunction(
        () =>
          !document.querySelector('[data-testid=keep]') &&
          document.querySelector<HTMLElement>('[data-testid=verdict]')?.dataset.verdict,
      )
      return (await look(page)).verdict
    } else if (seen.open?.kind === 'choice' && !seen.can.includes('press'))
      await hands.answer(answers[seen.open.slot] ?? 1)
    else if (seen.can.includes('press')) {
      const before = seen.open?.slot
      await hands.main('press')
      await page.waitForFunction(
        (slot: string) =>
          document.querySelector('[data-testid=keep]') ||
          document.querySelector('.said.bad') ||
          document.querySelector<HTMLInputElement>(`#slot-${slot}`)?.value ||
          // An answer that an instrument gives: the next question waits.
          document.querySelector<HTMLElement>('.row.next')?.dataset.slot !== slot,
        {},
        before ?? '',
      )
    } else if (seen.open) await hands.figure(usualFigures[seen.open.slot] ?? figures(seen.title, seen.open.slot))
    else throw new Error(`nothing can be done on "${seen.title}": ${JSON.stringify(seen)}`)
  }
  throw new Error(`could not be kept: ${JSON.stringify(await look(page))}`)
}

const MOST_STEPS = 120
const MOST_TRIES = 4
/** The feed is asked every two seconds: a cloud that has just come is seen by then. */
const CLOUD_SEEN_ms = 4000
const CLOUD_PASSES_ms = 180_000

/**
 * Goes from step to step by "Next" until nothing is left to do. A reading outside is taken again, as a passing cloud
 * deserves, once the strip says that the light is steady; one that stays outside is mended, said how, and tested again.
 *
 * @param only titles of the steps to take, where not all of them.
 * @returns the titles of the steps that had to be mended.
 */
export async function commission(
  page: Page,
  hands: Hands,
  figures: Figures,
  only: readonly string[] | null = null,
): Promise<string[]> {
  const mended: string[] = []
  const wanted = new Set(only)
  for (let step = 0; step < MOST_STEPS; step++) {
    const { title, verdict, can } = await look(page)
    if (await allDone(page)) return mended
    if (only && wanted.size === 0) return mended
    if (verdict === 'within' || verdict === 'close' || verdict === 'left-out' || (only && !wanted.has(title))) {
      wanted.delete(title)
      await hands.main('next')
      await page.waitForFunction((was: string) => document.querySelector('h1')?.textContent !== was, {}, title)
      continue
    }
    if (verdict === 'held-back') throw new Error(`"${title}" is held back: ${JSON.stringify(await look(page))}`)
    let found = verdict === 'outside' && can.includes('mend') ? verdict : await takeReading(page, hands, figures)
    // Clouds pass where light is measured; anything else comes out alike.
    const isUnderSky = (await page.$('[data-testid=live-light]')) !== null
    for (let again = 1; isUnderSky && found === 'outside' && again < MOST_TRIES; again++) {
      await new Promise((resolve) => setTimeout(resolve, CLOUD_SEEN_ms))
      await page.waitForSelector('[data-testid=live-light][data-trend=steady]', { timeout: CLOUD_PASSES_ms })
      await hands.again()
      found = await takeReading(page, hands, figures)
    }
    // What was kept and decides nothing yet waits for what is read beside it.
    if (found === 'not-yet') {
      await hands.main('next')
      await page.waitForFunction((was: string) => document.querySelector('h1')?.textContent !== was, {}, title)
    }
    if (found === 'outside') {
      mended.push(title)
      await hands.mend('Put in the module that was left out')
      await sees(page, 'To be done again')
    }
  }
  throw new Error(`not done after ${MOST_STEPS} steps`)
}

async function allDone(page: Page): Promise<boolean> {
  const text = await page.$eval('[data-testid=progress]', (one) => one.textContent ?? '')
  const [done, total] = text.match(/\d+/g) ?? []
  return done !== undefined && done === total
}

/** Goes on by "Next" until a step of this title is open. */
export async function walkTo(page: Page, hands: Hands, title: string): Promise<void> {
  for (let step = 0; step < MOST_STEPS; step++) {
    const seen = await look(page)
    if (seen.title.startsWith(title)) return
    await hands.main('next')
    await page.waitForFunction((was: string) => document.querySelector('h1')?.textContent !== was, {}, seen.title)
  }
  throw new Error(`"Next" does not lead to "${title}"`)
}

/** Tabs on until what has focus meets a condition. */
export async function tabTo(page: Page, condition: string): Promise<void> {
  for (let n = 0; n < 200; n++) {
    await page.keyboard.press('Tab')
    if (await page.evaluate(`(${condition})(document.activeElement)`)) return
  }
  throw new Error(`the keyboard does not reach ${condition}`)
}
const blur = (page: Page): Promise<void> => page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur())

export const byKeyboard = (page: Page): Hands => ({
  // By its key, as somebody at a keyboard would; that Tab reaches each line has a test of its own (keyboard.test).
  async tick() {
    await blur(page)
    await page.keyboard.press('y')
  },
  async answer(place) {
    await blur(page)
    await page.keyboard.press(String(place) as '1')
  },
  async figure(text) {
    await page.keyboard.press('Enter')
    await page.keyboard.type(text)
  },
  async main(id) {
    await blur(page)
    await page.keyboard.press(id === 'next' ? 'n' : 'Enter')
  },
  async again() {
    await page.keyboard.press('r')
    await blur(page)
  },
  async mend(words) {
    await page.keyboard.press('s')
    await page.waitForFunction(() => document.activeElement?.tagName === 'TEXTAREA')
    await page.keyboard.type(words)
    await tabTo(page, `(one) => one.tagName === 'BUTTON' && one.textContent.startsWith('Mended')`)
    await page.keyboard.press('Enter')
  },
})

/** As a thumb does: what lies under the foot of the screen is moved into sight first. */
async function tapInSight(page: Page, selector: string): Promise<void> {
  await page.$eval(selector, (one) => one.scrollIntoView({ block: 'center' }))
  await page.tap(selector)
}

export const byTouch = (page: Page): Hands => ({
  async tick() {
    await tapInSight(page, '.chk input:not(:checked)')
  },
  async answer(place) {
    await tapInSight(page, `.row.next .opt:nth-child(${place}), .choice:nth-child(${place})`)
  },
  async figure(text) {
    const empty = await page.evaluateHandle(() =>
      [...document.querySelectorAll<HTMLInputElement>('.slot .fig input')].find((one) => one.value === ''),
    )
    await page.evaluate((one) => one?.scrollIntoView({ block: 'center' }), empty)
    await (empty as unknown as { tap(): Promise<void> }).tap()
    await page.waitForSelector('.keys')
    for (const key of text) {
      const found = await page.waitForFunction(
        (wanted: string) =>
          [...document.querySelectorAll('.keys button')].find((one) => one.textContent?.trim() === wanted),
        {},
        key,
      )
      await (found as unknown as { tap(): Promise<void> }).tap()
    }
  },
  async main(id) {
    await tapAction(page, id)
  },
  async again() {
    await tapAction(page, 'again')
  },
  async mend(words) {
    await page.tap('[data-testid=mend]')
    const words_ = await page.waitForSelector('[role=dialog] textarea')
    await words_!.tap()
    await words_!.type(words)
    await page.tap('[role=dialog] button[type=submit]')
  },
})

const UNTICKED = '[data-testid=review] input[type=checkbox]:not(:checked)'
const MOST_MATTERS = 100

/** Says a few words of what is grave and ticks what is only to be looked at, before signing. */
export async function reviewed(page: Page): Promise<void> {
  for (const words of await page.$$('[data-testid=review] input:not([type=checkbox])'))
    if (await words.evaluate((input) => (input as HTMLInputElement).value === '')) await words.type('as found')
  for (let ticked = 0; (await page.$(UNTICKED)) !== null; ticked++) {
    if (ticked === MOST_MATTERS) throw new Error('reviewed: expected every matter to be answered')
    // As somebody scrolls: the dialog's buttons stay over the end of the list.
    await page.$eval(UNTICKED, (one) => one.scrollIntoView({ block: 'center' }))
    await page.click(UNTICKED)
  }
}

/** The same by keyboard alone, from where the dialog opens to the field of the name. */
export async function reviewedByKeys(page: Page): Promise<void> {
  const focused = () =>
    page.evaluate(() => {
      const one = document.activeElement as HTMLInputElement
      const inList = one.closest('[data-testid=review]') !== null && one.tagName === 'INPUT'
      const type = one.type === 'checkbox' ? 'tick' : 'words'
      return one.dataset.testid === 'sign-name' ? 'name' : inList ? type : 'other'
    })
  for (let tabs = 0; tabs < 200; tabs++) {
    const on = await focused()
    if (on === 'name') return
    if (on === 'tick') await page.keyboard.press('Space')
    if (on === 'words') await page.keyboard.type('as found')
    await page.keyboard.press('Tab')
  }
  throw new Error('reviewedByKeys: expected to come to the name')
}

/** Signs the record as tested. */
export async function signed(page: Page): Promise<void> {
  await pressId(page, 'sign-tested')
  await page.waitForSelector('[data-testid=sign-name]')
  await reviewed(page)
  await page.type('[data-testid=sign-name]', 'Tam Brackley')
  await page.keyboard.press('Enter')
  await sees(page, 'Signed as tested')
  await allSent(page)
}
