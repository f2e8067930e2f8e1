import type { Unit } from '../quantity/unit'
import type { SourceId } from '../regime/sources'
import type { Decided, Figures } from './verdict'

/**
 * One line of a written sum. The screen and the certificate both print it: the words under `code` take the figures,
 * the result stands on the right, the source beneath. A result
 * that is a reading itself is written as it was read: >1999 is not 1999.
 */
export type WorkingLine = {
  code: string
  figures: Figures
  result: { value: number; unit: Unit; decimals: number; signed?: boolean; asRead?: string } | null
  source: SourceId | null
  /** How the comparison of this line came out; left away on lines that compare nothing. */
  verdict?: Decided
  /** True on the line whose comparison gave the verdict. */
  decides?: boolean
}
