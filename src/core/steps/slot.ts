/** What a test asks: figures, answers, lines of a list, the leads it is read with. A slot says what it is. */
import type { Part, PartData } from '../plant/part'
import type { PlantIndex } from '../plant/plantIndex'
import type { Unit } from '../quantity/unit'
import type { Body, ReadingVersion } from '../record/entry'
import type { Measurable } from '../record/instrument'
import type { Regime } from '../regime/regime'
import type { Multiple, Waveform } from '../rcd/limits'

export type When = { slot: string; is: readonly string[] }

type SlotBase = {
  id: string
  /** The balloon in the hook-up drawing which this slot belongs to. */
  balloon: number
  /** Shown only while other slots hold one of these choices; all of them where there are several. */
  when?: When | readonly When[]
  /** May stay empty. */
  optional?: boolean
  /** Asked only of such a part, or only under such a regime; everywhere where it is not given. */
  only?: (part: PartData, regime: Regime, asked: Asked) => boolean
  /** Asked of readings from this version of the entry on: an earlier one is whole without it. */
  since?: Exclude<ReadingVersion, 1>
  /** Under which heading of the schedule it stands; under its test's own where it is not given. */
  column?: Column
}

/** A heading of the schedule: figures under one stand in one cell, of which the worst is shown. */
export type Column = { id: string; worst: 'highest' | 'lowest' }

/** Which of several figures of one test a slot holds. */
export type SlotOf = {
  line?: 'l1' | 'l2' | 'l3'
  /** Conductors, as the schedule names them: L-N, L1-PE. */
  pair?: string
  /** Place of a potential spike, as a share of the way. */
  share?: number
  multiple?: Multiple
  waveform?: Waveform
  angle_deg?: 0 | 180 | null
}

export type NumberSlot = SlotBase & {
  kind: 'number'
  /** Null where no instrument shows it: somebody counts. */
  measures: Measurable | null
  unit: Unit
  of?: SlotOf
  /** Set-up that is best as it was at the part's last reading: then the two can be compared. */
  again?: boolean
  /** What was entered of the part, against which it is held: shown beside it before anybody reads. */
  entered?: (part: PartData) => number | null
  /** Another quantity than the test's own, read in its place: printed in a column by itself. */
  apart?: true
  /** What the press of another figure gave besides: kept where it is there, asked of nobody. */
  besides?: true
}
export type ChoiceSlot = SlotBase & {
  kind: 'choice'
  /** What an instrument tells by it, null where a person looks. */
  measures: Measurable | null
  options: readonly string[]
  /** Options that are as they should be. */
  sound: readonly string[]
  /** Options that earlier readings hold and that nobody is offered any more. */
  retired?: readonly string[]
  /** Which option the figure of an instrument stands for. */
  told?: (value: number) => string
  /** Set-up that stays the same from part to part in a visit. */
  sticky?: boolean
  /** Never filled in before somebody said it: what an instrument is set to. */
  stated?: boolean
}
/** A line of a list: as it should be, not as it should be, or left out with a few words. */
export type CheckSlot = SlotBase & {
  kind: 'check'
  measures: null
  /** The state that the list sets begins only where this line is as it should be; left out it does not. */
  decisive?: boolean
  /** What the tool knows of it by itself: it is answered so before anybody looks, or what speaks against it is said. */
  knows?: 'kit'
}
/** The leads that a resistance was read with: what was nulled holds for that set and no other. */
export type LeadSetSlot = SlotBase & { kind: 'lead-set'; measures: null; sticky: true }

/** A whole curve of voltage and current. */
export type CurveSlot = SlotBase & { kind: 'curve'; measures: 'iv-curve' }

export type Slot = NumberSlot | ChoiceSlot | CheckSlot | LeadSetSlot | CurveSlot

/** As it should be, not as it should be, or left out with a few words. */
export const CHECK_OPTIONS = ['as-it-should', 'not-as-it-should', 'check-left-out'] as const
export const [CHECK_SOUND, CHECK_BAD, CHECK_LEFT_OUT] = CHECK_OPTIONS
/** The words beside a line that is not as it should be, characters. */
export const LEAST_WORDS = 3

type Rest<S extends Slot> = Partial<Omit<S, 'kind' | 'id' | 'measures' | 'balloon'>>

export const numberSlot = (
  id: string,
  measures: Measurable | null,
  unit: Unit,
  balloon: number,
  rest: Partial<Omit<NumberSlot, 'kind'>> = {},
): NumberSlot => ({ kind: 'number', id, measures, unit, balloon, ...rest })

type Choice = Pick<ChoiceSlot, 'id' | 'options' | 'balloon'> & Partial<ChoiceSlot>
/** A question with several sound answers, unless `sound` says otherwise. */
export const choiceSlot = (slot: Choice): ChoiceSlot => ({
  kind: 'choice',
  measures: null,
  sound: slot.options,
  ...slot,
})

/** One line of a list, looked at by a person. */
export const check = (id: string, balloon: number, rest: Rest<CheckSlot> = {}): CheckSlot => ({
  kind: 'check',
  id,
  measures: null,
  balloon,
  ...rest,
})
/** A line without which the state that its list sets does not begin. */
export const decisive = (id: string, balloon: number, rest: Rest<CheckSlot> = {}): CheckSlot =>
  check(id, balloon, { decisive: true, ...rest })

export const leadSetSlot: LeadSetSlot = { kind: 'lead-set', id: 'lead-set', measures: null, sticky: true, balloon: 1 }

export const isThreePhase = (part: PartData): boolean => 'phases' in part && part.phases === 3
export const LINES = ['l1', 'l2', 'l3'] as const

/** One slot where there is one phase, one for each line where there are three. @param to which conductor each line is read to */
export function lineSlots(
  id: string,
  measures: Measurable,
  unit: Unit,
  balloon: number,
  rest: Partial<Omit<NumberSlot, 'kind' | 'only' | 'of'>> = {},
  to?: 'N' | 'PE',
): readonly NumberSlot[] {
  return [
    numberSlot(id, measures, unit, balloon, { ...rest, only: (part) => !isThreePhase(part) }),
    ...LINES.map((line) => {
      const of = to ? { line, pair: `${line.toUpperCase()}-${to}` } : { line }
      return numberSlot(`${id}-${line}`, measures, unit, balloon, { ...rest, of, only: isThreePhase })
    }),
  ]
}

/** What the press of another figure gave besides, between which conductors. */
export const besidesSlot = (
  id: string,
  measures: Measurable,
  unit: Unit,
  balloon: number,
  of: SlotOf,
  rest: Partial<Omit<NumberSlot, 'kind' | 'of' | 'besides' | 'optional'>> = {},
): NumberSlot => numberSlot(id, measures, unit, balloon, { ...rest, of, optional: true, besides: true })

/** Whether a slot is only what another figure's press gave besides. */
export const isBesides = (slot: Slot): boolean => slot.kind === 'number' && slot.besides === true

/** What slots are asked of: a part in its plant, under a regime. */
export type Asked = { part: Pick<Part, 'id' | 'data'>; regime: Regime; plant: PlantIndex }
type Choices = Readonly<Record<string, string | undefined>>

/** What a step that is read asks, and in which order. */
export type Asking = {
  slots: readonly Slot[]
  /** The same slots in the order that a regime's school takes them. */
  arrange?(slots: readonly Slot[], regime: Regime): readonly Slot[]
}

/** All slots of a step in the order of the regime's school. */
export const slotsInOrder = (step: Asking, regime: Regime): readonly Slot[] =>
  step.arrange?.(step.slots, regime) ?? step.slots

/** The slots that are asked of a part under a regime, whatever is chosen. */
export function slotsAsked(step: Asking, asked: Asked): readonly Slot[] {
  return slotsInOrder(step, asked.regime).filter((slot) => isSlotAsked(slot, asked))
}

/** Whether a slot is asked of such a part, in such a plant, under such a regime. */
export const isSlotAsked = ({ only }: Slot, asked: Asked): boolean =>
  !only || only(asked.part.data, asked.regime, asked)

/** How the choice of a slot is looked up. */
type Look<From> = (from: From, slot: string) => string | undefined
const amongChoices: Look<Choices> = (choices, slot) => choices[slot]
const inReading: Look<Read> = ({ slots }, slot) => {
  const value = slots[slot]
  return value && 'choice' in value ? value.choice : undefined
}

function areChosen<From>(when: readonly When[], from: From, look: Look<From>): boolean {
  for (const { slot, is } of when) if (!is.includes(look(from, slot) ?? '')) return false
  return true
}
const isShown = <From>({ when = [] }: Slot, from: From, look: Look<From>): boolean =>
  areChosen('slot' in when ? [when] : when, from, look)

/** The slots that are asked for, given the choices made so far. */
export function slotsShown(step: Asking, choices: Choices, asked: Asked): readonly Slot[] {
  return slotsAsked(step, asked).filter((slot) => isShown(slot, choices, amongChoices))
}

type Read = Pick<Body<'reading'>, 'slots'> & { v?: ReadingVersion }

/** Whether a slot came later than a reading. */
export const isLater = ({ since }: Slot, { v }: { v?: ReadingVersion }): boolean =>
  since !== undefined && v !== undefined && v < since

/** Whether a slot has its answer: a figure, a choice, and the few words beside a line that is not as it should be. */
export function isAnswered(slot: Slot, { slots }: Read): boolean {
  const value = slots[slot.id]
  if (!value) return false
  if (slot.kind === 'curve') return 'curve' in value
  if (slot.kind !== 'check') return slot.kind === 'number' ? 'value' in value : 'choice' in value
  if (!('choice' in value)) return false
  return value.choice === CHECK_SOUND || (value.note ?? '').trim().length >= LEAST_WORDS
}

/** A slot that is not left to whoever reads, as what it is asked for is looked at: thousands of times in a job. */
type Must = {
  slot: Slot
  id: string
  since: number
  only: Slot['only'] | null
  when: readonly When[]
}
const musts = new WeakMap<Asking, readonly Must[]>()

function mustsOf(step: Asking): readonly Must[] {
  const known = musts.get(step)
  if (known) return known
  const found = step.slots
    .filter(({ optional }) => !optional)
    .map((slot): Must => {
      const { id, since = 0, only = null, when = [] } = slot
      return { slot, id, since, only, when: 'slot' in when ? [when] : when }
    })
  musts.set(step, found)
  return found
}

function isMissing({ slot, id, since, only, when }: Must, reading: Read, asked: Asked): boolean {
  const { slots, v } = reading
  const value = slots[id]
  if (value && (slot.kind === 'choice' ? 'choice' in value : isAnswered(slot, reading))) return false
  if (v !== undefined && v < since) return false
  if (only && !only(asked.part.data, asked.regime, asked)) return false
  return areChosen(when, reading, inReading)
}

/** The slots that want an answer still, in order; a reading of an earlier version is not asked what came later. */
export function missingSlots(step: Asking, reading: Read, asked: Asked): readonly Slot[] {
  let missing: Slot[] | null = null
  for (const must of mustsOf(step)) {
    if (!isMissing(must, reading, asked)) continue
    missing ??= []
    missing.push(must.slot)
  }
  if (!missing) return NOTHING_MISSING
  const wanted = new Set(missing)
  return slotsInOrder(step, asked.regime).filter((slot) => wanted.has(slot))
}
const NOTHING_MISSING: readonly Slot[] = []

/** The choices of a reading, by slot. */
export function choicesOf({ slots }: Pick<Body<'reading'>, 'slots'>): Record<string, string> {
  const choices: Record<string, string> = {}
  for (const id in slots) {
    const value = slots[id]!
    if ('choice' in value) choices[id] = value.choice
  }
  return choices
}
