import { existsSync } from 'node:fs'
import { mkdtemp, rm, writeFile } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import puppeteer, {
  type Browser,
  type BrowserContext,
  type ClickOptions,
  type ElementHandle,
  type FrameWaitForFunctionOptions,
  type JSHandle,
  type Page,
  type WaitForSelectorOptions,
} from 'puppeteer-core'
import { onTestFinished, TestRunner } from 'vitest'
import { CHROMIUM } from '../../scripts/lib/packages'
import { base, signedIn, type Who } from './server'

export async function openBrowser(): Promise<Browser> {
  return puppeteer.launch({
    ...(existsSync(CHROMIUM.shell)
      ? { executablePath: CHROMIUM.shell, headless: 'shell' }
      : { executablePath: CHROMIUM.whole, headless: true }),
    args: [
      '--no-sandbox',
      '--disable-gpu',
      '--no-first-run',
      '--disable-background-networking',
      '--disable-component-update',
      '--disable-sync',
    ],
    defaultViewport: { width: 1280, height: 800 },
  })
}

const LOOK_EVERY_ms = 40
const WAIT_ms = 20_000
/** So long one wait inside a page may take before it is begun anew. */
const ANEW_ms = 2000

/** Waits again and again, each time for a short while, until there is something or the time is over. */
async function anew<T>(wait: (timeout: number) => Promise<T>, limit_ms: number): Promise<T> {
  const end = Date.now() + limit_ms
  for (;;) {
    const left = end - Date.now()
    try {
      return await wait(Math.max(1, Math.min(ANEW_ms, left)))
    } catch (error) {
      if (left <= ANEW_ms) throw error
    }
  }
}

/**
 * The library waits inside the page, and what waits there is now and then lost when the page is left at that moment: the
 * page shows what is wanted and nobody looks. Here it is told anew what to look for.
 */
function steadily<P extends Page>(page: P): P {
  const [ofFunction, ofSelector] = [page.waitForFunction.bind(page), page.waitForSelector.bind(page)]
  page.waitForFunction = ((fn: () => unknown, options: FrameWaitForFunctionOptions = {}, ...args: []) =>
    anew(
      (timeout) => ofFunction(fn, { polling: LOOK_EVERY_ms, ...options, timeout }, ...args),
      options.timeout ?? WAIT_ms,
    )) as never
  page.waitForSelector = ((selector: string, options: WaitForSelectorOptions = {}) =>
    anew((timeout) => ofSelector(selector, { ...options, timeout }), options.timeout ?? WAIT_ms)) as never
  page.click = (selector: string, options?: ClickOptions) =>
    surely(async () => (await page.waitForSelector(selector))!, options)
  return page
}

const TRIES = 5

/**
 * Clicks as a hand would that sees where it lands: what moved between looking and pressing is clicked again. Whatever the
 * click leads to is not waited for.
 *
 * @param find what to click; asked anew before each try, for it may have been drawn again meanwhile.
 */
async function surely(find: () => Promise<ElementHandle>, options?: ClickOptions): Promise<void> {
  for (let tries = 0; tries < TRIES; tries++) {
    const found = await find()
    try {
      await found.evaluate(standsAndListens)
      await found.click(options)
    } catch (error) {
      if (tries + 1 === TRIES) throw error
      continue
    }
    // A page that was left by the click cannot be asked any more: then it was heard.
    const heard = await found.evaluate(wasHeard).catch(() => true)
    if (heard) return
  }
  throw new Error(`${TRIES} clicks did not reach what they were meant for`)
}

type Heard = { heard?: { pressed: boolean; clicked: boolean } }

/** Clicks what was found, as surely as what is clicked by its selector. */
export const clickOn = (found: JSHandle | null | undefined): Promise<void> =>
  surely(async () => {
    if (!found) throw new Error('there is nothing to click')
    return found as ElementHandle
  })

/** Waits until the element lies where it lay a frame ago, and from then on notes whether the next click reaches it. */
async function standsAndListens(one: Element): Promise<void> {
  const frame = () => new Promise((done) => requestAnimationFrame(done))
  const place = () => {
    const { x, y } = one.getBoundingClientRect()
    return `${x} ${y}`
  }
  for (let before = '', frames = 0; frames < 60 && before !== place(); frames++) {
    before = place()
    await frame()
  }
  const heard = { pressed: false, clicked: false }
  ;(window as Heard).heard = heard
  const id = one.getAttribute('data-testid')
  const words = one.textContent
  const isHere = ({ target }: Event): boolean => {
    const at = target as Element
    const again = id ? at.closest(`[data-testid="${id}"]`) : at.closest('button, a, [role=tab]')
    const own = one.closest('label') ?? one
    return own.contains(at) || (again !== null && (id !== null || again.textContent === words))
  }
  const hear = (event: Event): void => {
    heard[event.type === 'click' ? 'clicked' : 'pressed'] = isHere(event)
  }
  for (const type of ['pointerdown', 'click']) document.addEventListener(type, hear, { capture: true, once: true })
}

/** What opens or gives way when it is pressed is not there any more for the click. */
function wasHeard(one: Element): boolean {
  const { heard } = window as Heard
  const opens = one.closest('.ant-select, [role=combobox], [role=menuitem], .ant-dropdown') !== null
  return !heard || heard.clicked || (heard.pressed && (opens || !one.isConnected))
}

/**
 * A browser profile of its own. Where a test asks for it, it ends with that test: pages that nobody looks at any more go
 * on asking the office for what is new. One that is made for all tests of a file stays.
 */
async function ownProfile(browser: Browser): Promise<BrowserContext> {
  const context = await browser.createBrowserContext()
  // A test may have closed it by itself.
  if (TestRunner.getCurrentTest()) onTestFinished(() => context.close().catch(() => undefined))
  return context
}

/** A page of a browser profile in which nobody ever signed in. */
export async function barePage(browser: Browser): Promise<Page> {
  const context = await ownProfile(browser)
  return steadily(await context.newPage())
}

/** Whoever tests was shown around before; said once, so that a test may forget it. */
function shownAround(): void {
  // A page that is nowhere yet has no store.
  if (window.location.protocol === 'about:' || localStorage.getItem('tests.told')) return
  localStorage.setItem('tests.told', '1')
  localStorage.setItem('upstand.shown-around', '1')
}

/** How many times slower the pages are to be, as on a weak machine: a test that counts on some pace fails then. */
const SLOWER = Number(process.env.UPSTAND_TEST_SLOW ?? 1)
const LATE_ms = 600

/** Slows a page down, and lets each answer of the office come later, each by another time. */
async function slowed(page: Page): Promise<void> {
  if (SLOWER <= 1) return
  await page.emulateCPUThrottling(SLOWER)
  await page.evaluateOnNewDocument((late_ms: number) => {
    const { fetch } = window
    let asked = 0
    window.fetch = async (...request) => {
      const wait_ms = (late_ms * ((asked++ * 7) % 10)) / 9
      await new Promise((resolve) => setTimeout(resolve, wait_ms))
      return fetch(...request)
    }
  }, LATE_ms)
}

/** A page of a person's own browser profile, signed in; what the page complains of is collected. */
export async function pageOf(
  browser: Browser,
  who: Exclude<Who, 'nobody'>,
  path = '/',
): Promise<Page & { complaints: string[] }> {
  const context = await ownProfile(browser)
  const page = steadily((await context.newPage()) as Page & { complaints: string[] })
  page.complaints = []
  page.on('pageerror', (error) => page.complaints.push(String(error)))
  page.on('console', (message) => {
    if (/Content Security Policy/.test(message.text())) page.complaints.push(message.text())
  })
  page.setDefaultTimeout(WAIT_ms)
  await context.setCookie(
    ...(await signedIn(who)).map(({ name, value }) => ({
      name,
      value,
      domain: new URL(base).hostname,
      path: '/',
      httpOnly: true,
      sameSite: 'Lax' as const,
    })),
  )
  await page.evaluateOnNewDocument(shownAround)
  await slowed(page)
  await page.goto(base + path)
  return page
}

/** Waits until a field is one of a page that listens: what is typed before is lost. */
export async function listens(page: Page, selector: string): Promise<void> {
  await page.waitForFunction(
    (wanted: string) => {
      const found = document.querySelector(wanted)
      return found !== null && Object.keys(found).some((key) => key.startsWith('__reactFiber'))
    },
    {},
    selector,
  )
}

/** Waits for text anywhere on the page. */
export async function sees(page: Page, text: string): Promise<void> {
  await page
    .waitForFunction((wanted: string) => document.body?.innerText.replaceAll('\u00a0', ' ').includes(wanted), {}, text)
    .catch(async () => {
      const found = await page.evaluate(() => ({
        text: document.body.innerText,
        worker: navigator.serviceWorker.controller?.state ?? 'none',
        loaded: performance
          .getEntriesByType('resource')
          .map((one) => `${one.name.split('/').at(-1)} ${Math.round(one.startTime)}+${Math.round(one.duration)}`),
      }))
      throw new Error(
        `the page does not say "${text}"; it says:\n${found.text.slice(0, 3000)}\nworker ${found.worker}; loaded ${found.loaded.join(', ')}`,
      )
    })
}

/** Presses the button or link whose words begin so. */
export async function press(page: Page, words: string): Promise<void> {
  const found = await page
    .waitForFunction(
      (wanted: string) =>
        [...document.querySelectorAll<HTMLElement>('button, a, [role=tab]')].find(
          (one) =>
            one.innerText.replaceAll('\u00a0', ' ').trim().startsWith(wanted) &&
            !(one as HTMLButtonElement).disabled &&
            one.checkVisibility(),
        ),
      {},
      words,
    )
    .catch(() => {
      throw new Error(`there is no button "${words}"`)
    })
  await clickOn(found)
}

export async function pressId(page: Page, id: string): Promise<void> {
  await page.waitForSelector(`[data-testid="${id}"]:not([disabled])`, { visible: true })
  await page.click(`[data-testid="${id}"]`)
}

/** Taps an action of the bench, wherever it stands: on a phone those beside the main one are behind "More". */
export async function tapAction(page: Page, id: string): Promise<void> {
  await page.waitForSelector(`[data-testid="${id}"], [data-testid=more]`, { visible: true })
  if (!(await page.$(`.acts [data-testid="${id}"]`))) {
    await page.tap('[data-testid=more]')
    await page.waitForSelector(`.ant-dropdown [data-testid="${id}"]`, { visible: true })
  }
  await page.tap(`[data-testid="${id}"]`)
}

/** Fills the field of a test id anew. */
export async function fillId(page: Page, id: string, text: string): Promise<void> {
  const field = await page.waitForSelector(`[data-testid="${id}"]`, { visible: true })
  await field!.focus()
  await field!.evaluate((one) => (one as HTMLInputElement).select())
  await page.keyboard.press('Backspace')
  await field!.type(text)
}

/** Chooses in the list of a test id what begins with the words. */
export async function chooseIn(page: Page, id: string, words: string): Promise<void> {
  const list = await page.waitForSelector(`.ant-select[data-testid="${id}"], .ant-select:has([data-testid="${id}"])`)
  await clickOn(list)
  const found = await page
    .waitForFunction(
      (wanted: string) =>
        [...document.querySelectorAll<HTMLElement>('.ant-select-item-option')].find(
          (one) => one.innerText.replaceAll('\u00a0', ' ').trim().startsWith(wanted) && one.checkVisibility(),
        ),
      {},
      words,
    )
    .catch(() => {
      throw new Error(`the list "${id}" does not offer "${words}"`)
    })
  await clickOn(found)
}

/** Ticks every caution of the step. */
export async function tickAll(page: Page): Promise<void> {
  await page.waitForSelector('.chk, [data-testid=known]')
  for (const tick of await page.$$('.chk input:not(:checked)')) await clickOn(tick)
}

export const verdictOf = (page: Page): Promise<string> =>
  page.$eval('[data-testid=verdict]', (band) => (band as HTMLElement).dataset.verdict ?? '')

export async function waitForVerdict(page: Page, verdict: string): Promise<void> {
  await page
    .waitForFunction(
      (wanted: string) => document.querySelector<HTMLElement>('[data-testid=verdict]')?.dataset.verdict === wanted,
      {},
      verdict,
    )
    .catch(async () => {
      throw new Error(`the verdict is ${await verdictOf(page).catch(() => 'not shown')}, not ${verdict}`)
    })
}

/** Waits until nothing of this device's queue is left to send. */
export async function allSent(page: Page): Promise<void> {
  await page.waitForSelector('[data-testid=saved][data-waiting="0"]')
}

/**
 * Opens a row of the run sheet: the test by its short name, the part by the words of its row. Rows out of view are not
 * laid out, so their words are read from the document and not from the picture.
 */
export async function openStep(page: Page, group: string, row: string): Promise<void> {
  await page
    .waitForFunction(
      (wanted: string, part: string) => {
        const head = [...document.querySelectorAll<HTMLElement>('.rail .grp b')]
          .find((one) => one.textContent?.replace(/^\S+ /, '').trim() === wanted)
          ?.closest<HTMLElement>('.grp')
        if (!head) return false
        if (head.closest('.ant-collapse-header')?.getAttribute('aria-expanded') !== 'true') {
          head.click()
          return false
        }
        const found = [...head.closest('.ant-collapse-item')!.querySelectorAll<HTMLElement>('.stp')].find(
          (one) => one.querySelector('span')!.firstChild?.textContent?.trim() === part,
        )
        // The sheet may still be moving to the step of the address: only the row that stays current will do.
        if (found?.getAttribute('aria-current') !== 'step') found?.click()
        return found?.getAttribute('aria-current') === 'step'
      },
      { polling: 100 },
      group,
      row,
    )
    .catch(() => {
      throw new Error(`the run sheet has no row "${row}" under "${group}"`)
    })
}

type Held = { held?: number; letGo?: () => void }

/**
 * From here on the page hears nothing of paired instruments until it is let go, however slow the machine is.
 *
 * @returns lets it hear again, with all that was shown meanwhile
 */
export async function holdFeed(page: Page): Promise<() => Promise<void>> {
  await page.evaluate(() => {
    const own = window as Held
    const ask = window.fetch
    const gate = new Promise<void>((open) => {
      own.letGo = () => {
        window.fetch = ask
        open()
      }
    })
    own.held = 0
    window.fetch = async (...asked) => {
      if (/\/feed(\?|$)/.test(String(asked[0]))) {
        own.held = (own.held ?? 0) + 1
        await gate
      }
      return ask(...asked)
    }
  })
  // What was asked before this has been answered once the page asks again.
  await page.waitForFunction(() => ((window as Held).held ?? 0) > 0)
  return () => page.evaluate(() => (window as Held).letGo?.())
}

/** Files that a test hands to the page, in a folder that is thrown away. */
export async function fileShelf(): Promise<{
  give(page: Page, testId: string, name: string, content: string | Buffer): Promise<void>
  clear(): Promise<void>
}> {
  const folder = await mkdtemp(join(tmpdir(), 'upstand-files-'))
  return {
    async give(page, testId, name, content) {
      const path = join(folder, name)
      await writeFile(path, content)
      const input = await page.waitForSelector(`[data-testid="${testId}"]`)
      await (input as ElementHandle<HTMLInputElement>).uploadFile(path)
    },
    clear: () => rm(folder, { recursive: true }),
  }
}
