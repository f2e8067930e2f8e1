/** A picture that stands over a step's questions and fills as they are answered: data only, drawn by the interface. */
import type { PilotState } from '../pilot/state'
import type { Verdict } from '../verdict/verdict'

/** One state of a plug, as it must be and as both witnesses saw it. */
export type PlugColumn = {
  /** Group of questions that it stands for, as the step names it; null where another step asks. */
  group: string | null
  id: string
  state: PilotState
  /** What must happen at the outlet. */
  must: string
  /** Held plug is asked as well. */
  mustHold: boolean
  /** Between which volts its level lies, and where it was read; null where nobody did. */
  band: { low: number; high: number }
  level_V: number | null
  /** Share of the time at the upper level, %; null where it does not swing, or nobody read it. */
  duty_pct: number | null
  swings: boolean
  /** What the adapter told of the outlet, what the point showed, what the pad of the earth told: choices of the steps. */
  adapter: string | null
  shown: string | null
  pad: string | null
  /** Volts on its earth as they were read. */
  pad_V: string | null
  verdict: Verdict
  /** Asked of this point; the others are drawn bare. */
  isAsked: boolean
}
export type PlugPanel = { kind: 'plug'; columns: readonly PlugColumn[] }
export type Panel = PlugPanel
