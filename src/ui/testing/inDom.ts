/** Draws screens into a stand-in for a browser's document, for tests of what is drawn again and what is pressed. */
import { act } from 'react'
import { createRoot } from 'react-dom/client'
import { afterEach, beforeEach, vi } from 'vitest'

/** A place to draw, made anew for each test. Names as a person sees them are looked for in the whole document. */
export function inDom() {
  let root: ReturnType<typeof createRoot>
  beforeEach(() => {
    vi.stubGlobal('IS_REACT_ACT_ENVIRONMENT', true)
    // What a browser has and this stand-in for one has not.
    window.matchMedia ??= (() => ({
      matches: false,
      addListener: vi.fn(),
      removeListener: vi.fn(),
      addEventListener: vi.fn(),
      removeEventListener: vi.fn(),
    })) as never
    Element.prototype.scrollIntoView ??= vi.fn()
    vi.stubGlobal(
      'ResizeObserver',
      class {
        observe = vi.fn()
        unobserve = vi.fn()
        disconnect = vi.fn()
      },
    )
    root = createRoot(document.body.appendChild(document.createElement('div')))
  })
  afterEach(async () => {
    await act(async () => root.unmount())
    document.body.replaceChildren()
    vi.unstubAllGlobals()
  })
  const find = <E extends HTMLElement>(selector: string): E => {
    const found = document.querySelector<E>(selector)
    if (!found) throw new Error(`find: expected ${selector} in ${document.body.textContent}`)
    return found
  }
  return {
    draw: (screen: React.ReactNode): Promise<void> => act(async () => root.render(screen)),
    find,
    press: (selector: string): Promise<void> =>
      act(async () => {
        const one = find(selector)
        one.dispatchEvent(new MouseEvent('mousedown', { bubbles: true }))
        one.click()
      }),
    type: (selector: string, text: string): Promise<void> =>
      act(async () => {
        const one = find<HTMLInputElement | HTMLTextAreaElement>(selector)
        const set = Object.getOwnPropertyDescriptor(Object.getPrototypeOf(one), 'value')!.set!
        set.call(one, text)
        one.dispatchEvent(new Event('input', { bubbles: true }))
      }),
  }
}
