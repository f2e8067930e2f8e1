/**
 * What one test of the trade says of itself. Adding a test is one file beside this one, its arithmetic in its chapter,
 * its words, and its hook-up drawing: bench, run sheet, certificate and exports pick it up from here.
 */
import type { Part, PartData, PartKind } from '../plant/part'
import type { PlantIndex } from '../plant/plantIndex'
import type { ModelCache } from '../pv/stringModel'
import type { Unit } from '../quantity/unit'
import type { Picture } from './picture'
import type { Body, Conditions } from '../record/entry'
import type { Instrument, Measurable } from '../record/instrument'
import type { LimitId, Regime } from '../regime/regime'
import type { SourceId } from '../regime/sources'
import type { Band } from '../verdict/judge'
import type { Figures, Finding, Flag, Verdict } from '../verdict/verdict'
import type { WorkingLine } from '../verdict/working'

type SlotBase = {
  id: string
  /** The balloon in the hook-up drawing which this slot belongs to. */
  balloon: number
  /** Shown only while another slot holds this choice. */
  when?: { slot: string; is: readonly string[] }
  /** May stay empty. */
  optional?: boolean
  /** Asked only of such a part, or only under such a regime; everywhere where it is not given. */
  only?: (part: PartData, regime: Regime) => boolean
}
export type NumberSlot = SlotBase & {
  kind: 'number'
  measures: Measurable
  unit: Unit
  /** Set-up that is best as it was at the part's last reading: then the two can be compared. */
  again?: boolean
}
export type ChoiceSlot = SlotBase & {
  kind: 'choice'
  /** What an instrument tells by it, null where a person looks. */
  measures: Measurable | null
  options: readonly string[]
  /** Options that are as they should be; the others want a few words. */
  sound: readonly string[]
  /** Options are the lead sets of the kit. */
  from?: 'lead-sets'
  /** What an instrument answers that waits by itself until it is so. */
  auto?: string
  /** Set-up that stays the same from part to part in a visit. */
  sticky?: boolean
}
export type Slot = NumberSlot | ChoiceSlot

/** A figure worked out from several slots. */
export type Standing = { value: number; unit: Unit; decimals: number }
export type Planner = 'rods'

/** The scale on which a reading is shown. */
export type RuleData = {
  unit: Unit
  scale: 'linear' | 'log'
  measured: { value: number; bound: 'exact' | 'more-than' | 'less-than'; whisker: number; text: string } | null
  expected: { value: number; uncertainty: number } | null
  band: Band
  source: SourceId
}

export type Judgement = {
  verdict: Verdict
  finding: Finding
  flags: Flag[]
  rule: RuleData | null
  /** The reading made comparable with its sisters' (referred to STC, per module), null where it is not. */
  comparable: number | null
  /** The reading referred to standard test conditions. */
  referred: { value: number; unit: Unit; difference_pct: number } | null
  limits: readonly { id: string; value: number; unit: Unit; source: SourceId }[]
}

export type Cause = {
  code: string
  figures: Figures
  fit: 'fits' | 'may-fit' | 'does-not-fit'
  /** What the reading would be if this were the cause, in the slot's unit; null where it has no one value. */
  predicted: number | null
  /** The next check that would tell. */
  next: Finding
}

export type Hookup = {
  /** Which drawing; the drawing itself stands in the interface under this name. */
  drawing: string
  /** How the leads lie, where two drawings show the same leads: then nobody moves them from one to the other. */
  wiring?: string
  leads: readonly { balloon: number; code: string }[]
}

export type StepContext<Kind extends PartKind = PartKind> = {
  part: Part<Extract<PartData, { kind: Kind }>>
  plant: PlantIndex
  instruments: readonly Instrument[]
  regime: Regime
  models: ModelCache
  /** The reading of another step that counts now, null where there is none: Ze for a circuit's loop. */
  counted(step: string, partId: string): Body<'reading'> | null
}

export type GateRule = {
  id: string
  hard: boolean
  /** Waits for this step to be within or close (`done`), or merely not to be outside (`not-outside`). */
  waitsFor: string
  until: 'done' | 'not-outside'
  /** On which parts that step stands: this one, another that it belongs to, or each of several. */
  on?: 'part' | 'site' | 'array' | 'inverter' | 'strings' | 'strings-array' | 'supply' | 'electrodes' | 'circuits'
  /** Only a reading of the visit that is going on opens it. */
  sameVisit?: boolean
}

/** Stations of the line, from the sun to earth. */
export const stations = ['modules', 'strings', 'dc-switch', 'inverter', 'supply', 'board', 'rcd', 'electrode'] as const
export type Station = (typeof stations)[number]

export type WorkedExample = {
  source: string
  part: Extract<PartData, { kind: PartKind }>
  /** Further parts that the judgement takes in; they are given the part's own id. */
  others?: (partId: string) => readonly PartData[]
  /** A part that the example's own names by its id. */
  named?: { id: string; data: PartData }
  /** Null where the step is computed from the plant alone. */
  reading: Pick<Body<'reading'>, 'slots' | 'conditions'> | null
  verdict: Verdict
}

export type Step<Kind extends PartKind = PartKind> = {
  id: string
  /** Position in the working order: letter, then figure. */
  order: `${'A' | 'B' | 'C' | 'D' | 'E' | 'F' | 'G'}${number}`
  appliesTo: Kind
  /** Asked only of such a plant: nobody looks at modules where there are none. */
  where?: (plant: PlantIndex) => boolean
  /** Asked only of such parts of its kind; of all where it is not given. */
  of?(part: Part<Extract<PartData, { kind: Kind }>>, plant: PlantIndex): boolean
  station: Station
  /** Present where the verdict follows from the plant alone and nobody reads anything. */
  compute?(context: StepContext<Kind>): Judgement
  /** A reading that is within nulls its lead set for its visit. */
  nulls?: boolean
  /** The leads must have been nulled in this visit: else the reading says so. */
  nulled?: boolean
  tag: 'live' | 'live-in-daylight' | 'dead'
  slots: readonly Slot[]
  /** The same slots in the order that a regime's school takes them. */
  arrange?(slots: readonly Slot[], regime: Regime): readonly Slot[]
  needsConditions: boolean
  counts: 'latest' | 'worst' | 'mean'
  /** Which of several figures of one quantity stands for the reading in lists; the lowest where nothing is said. */
  stands?: 'highest'
  /** The figure that stands for a reading where it is none of its slots: a mean, a place on a curve. */
  standing?(reading: Pick<Body<'reading'>, 'slots'>): Standing | null
  gates: readonly GateRule[]
  cautions: readonly { id: string; hard: boolean }[]
  hookup: Hookup
  minutes: number
  sources: readonly SourceId[]
  /** Text of every fact of the part that the judgement takes in: when it changes, a reading asks for a second look. */
  inputs(part: Part<Extract<PartData, { kind: Kind }>>): string
  /** The value that the reading should show, null where there is nothing to expect or no usable conditions. */
  expect?(context: StepContext<Kind>, conditions: Conditions | null): { value: number; uncertainty: number } | null
  judge(context: StepContext<Kind>, reading: Body<'reading'>): Judgement
  /** What is wrong with the set-up before a figure is read: the wrong method for the place. Null where nothing is. */
  trap?(context: StepContext<Kind>, reading: Pick<Body<'reading'>, 'slots'>): Finding | null
  working(
    context: StepContext<Kind>,
    reading: Pick<Body<'reading'>, 'slots' | 'conditions' | 'instrument'>,
  ): WorkingLine[]
  /** What looks like a mistake of typing: asked about, and kept once it is confirmed. */
  doubt?(reading: Pick<Body<'reading'>, 'slots'>): { code: string; slot: string; figures: Figures } | null
  /** Pictures of its own beside the working, as data. */
  pictures?(context: StepContext<Kind>, reading: Pick<Body<'reading'>, 'slots'>): readonly Picture[]
  /** A planning sheet of its own, by name; the sheet itself stands in the interface. */
  planner?: Planner
  /** Readings of one part over months are held side by side: what must be alike for it, and what is said beside each. */
  trend?: { same: readonly string[]; note: string | null }
  /** Other parts that one reading speaks for as well: it is kept on each of them. */
  sharedWith?(context: StepContext<Kind>, reading: Pick<Body<'reading'>, 'slots'>): readonly Part[]
  causes?(context: StepContext<Kind>, reading: Body<'reading'>, judgement: Judgement): Cause[]
  /** Which readings of other parts may be compared with this one; null where sisters are not compared. */
  sisterGroup?(part: Part<Extract<PartData, { kind: Kind }>>): string | null
  /** How far alike parts may lie apart; the regime's figure for strings where nothing else is named. */
  sisterLimit?: LimitId
  example: WorkedExample
}

/** What slots are asked of: a part, under a regime. */
export type Asked = { part: Pick<Part, 'data'>; regime: Regime }

/** All slots of a step in the order of the regime's school. */
export const slotsInOrder = (step: AnyStep, regime: Regime): readonly Slot[] =>
  step.arrange?.(step.slots, regime) ?? step.slots

/** The slots that are asked of a part under a regime, whatever is chosen. */
export function slotsAsked(step: AnyStep, { part, regime }: Asked): readonly Slot[] {
  return slotsInOrder(step, regime).filter(({ only }) => !only || only(part.data, regime))
}

/** The slots that are asked for, given the choices made so far. */
export function slotsShown(
  step: AnyStep,
  choices: Readonly<Record<string, string | undefined>>,
  asked: Asked,
): readonly Slot[] {
  return slotsAsked(step, asked).filter(({ when }) => !when || when.is.includes(choices[when.slot] ?? ''))
}

/** The slot whose figure stands for the reading in lists: the first number, else the first choice. */
export function mainSlot(step: AnyStep): Slot | null {
  const slots = step.slots as readonly Slot[]
  const numbers = slots.filter((slot) => slot.kind === 'number')
  return numbers.find((slot) => !slot.optional) ?? numbers[0] ?? slots[0] ?? null
}

/** A step whose part kind is only known when it runs. */
// biome-ignore lint/suspicious/noExplicitAny: the registry holds steps of every part kind; `applies` checks before use
export type AnyStep = Step<any>
