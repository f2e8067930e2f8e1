/** What may be behind a reading, and the next check that would tell. One maker for all of them. */
import type { Figures, Finding } from './verdict'

export type Fit = 'fits' | 'may-fit' | 'does-not-fit'

export type Cause = {
  code: string
  figures: Figures
  fit: Fit
  /** What the reading would be if this were the cause, in the slot's unit; null where it has no one value. */
  predicted: number | null
  /** The next check that would tell. */
  next: Finding
}

type More = { predicted?: number | null; nextFigures?: Figures }

/** @param figures of the cause, and of its next check unless that has its own. */
export const causeOf = (code: string, fit: Fit, next: string, figures: Figures, more: More = {}): Cause => ({
  code,
  figures,
  fit,
  predicted: more.predicted ?? null,
  next: { code: next, figures: more.nextFigures ?? figures },
})
