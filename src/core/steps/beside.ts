/** What stands beside a reading that was taken without a light meter. */
import type { LightWorkedBack } from '../pv/workedBack'

/** Alike parts are held against each other as read where no more than this lies between them, minutes [D, house rule 22]. */
export const TOGETHER_MIN = 10
/** Light is worked back from currents no further away than this, minutes [D, house rule 22]. */
export const LIGHT_HOLDS_MIN = 30

/** A figure as it was read, in what alike parts have in common, and with which others it may be compared. */
export type AsRead = { value: number; group: string }

/** A current that tells the light of its plane. */
export type TellsLight = { plane: string; current_A: number; uncertainty_A: number }

export type Alike = {
  /** What the others read, a part each, as `AsRead` has it. */
  others: readonly number[]
  /** A part that was read twice in between came to another figure: the light moved. */
  moved: boolean
}

/** Null where there is nothing of it. */
export type Beside = { alike: Alike | null; light: LightWorkedBack | null }
