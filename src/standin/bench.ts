/** What a simulated instrument is pressed with: where it is connected, what for, and how the test was set up. */
import type { PartData } from '@/core/plant/part'
import type { Instrument, Measurable } from '@/core/record/instrument'

export type Connected = { id: string; data: PartData }

export type Setting = {
  /** The test it is pressed for; several ask the same question. */
  step?: string
  slot: string
  choices: Readonly<Record<string, string>>
  figures?: Readonly<Record<string, number>>
}
export type Bench = {
  instrument: Instrument
  key: Measurable
  part: Connected
  others: readonly Connected[]
  mended: ReadonlySet<string>
  nulled: boolean
  setting: Setting
  at_ms: number
}
