/** What was begun and not kept: it stays on this device until it is kept or thrown away, also over a reload. */
import type { StepEvaluation } from '@/core/evaluation/types'
import type { Draft } from './draft'

export type HeldDraft = {
  draft: Draft
  /** When it was begun, ISO 8601. */
  since: string
  /** The reading that counted then: once that is mended or void, what was begun over it is of no use. */
  over: string | null
}

/** The drafts of one person in one visit of a job: of another day nothing is taken for today's, of another person nothing at all. */
export type DraftShelf = {
  of(one: StepEvaluation): HeldDraft | null
  put(one: StepEvaluation, draft: Draft | null): void
  /** The tests that were begun, by their key. */
  begun(): ReadonlySet<string>
}

/** Another shape of drafts gets another name. */
const SHELF = 'upstand.draft.1.'
/** Where the device refuses to store, as long as the page lives. */
const unstored = new Map<string, string>()

export function draftShelf(personId: string, jobId: string, visitId: string | undefined): DraftShelf {
  const shelf = `${SHELF}${personId}.${jobId}.${visitId}.`
  const textOf = (key: string): string | null => unstored.get(shelf + key) ?? localStorage.getItem(shelf + key)
  const put = (key: string, text: string | null): void => {
    unstored.delete(shelf + key)
    localStorage.removeItem(shelf + key)
    if (text === null) return
    try {
      localStorage.setItem(shelf + key, text)
    } catch {
      unstored.set(shelf + key, text)
    }
  }
  const of = (one: StepEvaluation): HeldDraft | null => {
    const text = textOf(one.key)
    if (text === null) return null
    const held = JSON.parse(text) as HeldDraft
    return held.over !== null && one.counting === null ? null : held
  }
  return {
    of,
    put: (one, draft) => {
      if (!draft) return put(one.key, null)
      const { since, over } = of(one) ?? {
        since: new Date().toISOString(),
        over: one.counting?.entry.id ?? null,
      }
      put(one.key, JSON.stringify({ draft, since, over } satisfies HeldDraft))
    },
    begun: () =>
      new Set(
        [...Object.keys(localStorage), ...unstored.keys()]
          .filter((name) => name.startsWith(shelf))
          .map((name) => name.slice(shelf.length)),
      ),
  }
}
