/** Verdicts as a chart marks them: shape and colour, the word beside. */
import type { Decided, Verdict } from '@/core/verdict/verdict'
import type { Palette } from '../chart/palette'

const shapes: Record<Decided, string> = {
  within: 'circle',
  close: 'diamond',
  outside: 'rect',
  'not-yet': 'emptyCircle',
}
export const shapeOf = (verdict: Verdict): string => shapes[verdict as Decided] ?? 'emptyCircle'

export const colourOf = (verdict: Verdict, palette: Palette): string =>
  verdict === 'within'
    ? palette.within
    : verdict === 'close'
      ? palette['close-fill']
      : verdict === 'outside'
        ? palette.outside
        : palette.pencil

/** A mark with an edge in ink. */
export const inked = (verdict: Verdict, palette: Palette): object => ({
  color: colourOf(verdict, palette),
  borderColor: palette.ink,
  borderWidth: 1,
  opacity: 1,
})

/** An open ring: it is there, and not compared. */
export const ring = ({ sheet, pencil }: Palette): object => ({
  color: sheet,
  borderColor: pencil,
  borderWidth: 2,
  opacity: 1,
})
