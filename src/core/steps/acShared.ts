/** What the tests of earth and the AC side share: slots, gates, and how a figure is judged on one scale. */
import type { Part, PartData } from '../plant/part'
import type { PartOf } from '../plant/plantIndex'
import type { ReadValue } from '../quantity/readValue'
import { readingUncertainty } from '../quantity/uncertainty'
import type { Unit } from '../quantity/unit'
import type { Body } from '../record/entry'
import type { Measurable } from '../record/instrument'
import type { SourceId } from '../regime/sources'
import { type Band, judge } from '../verdict/judge'
import type { Figures, Verdict } from '../verdict/verdict'
import { plain } from './checks'
import type { ChoiceSlot, GateRule, Judgement, NumberSlot, Slot, StepContext } from './step'
import { numberIn } from './stringReading'

/** The context of a step on whatever part. */
export type AnyContext = Omit<StepContext, 'part'> & { part: Part }

export const isThreePhase = (part: PartData): boolean => 'phases' in part && part.phases === 3

type Choice = Pick<ChoiceSlot, 'id' | 'options' | 'balloon'> & Partial<ChoiceSlot>
/** A question with several sound answers, unless `sound` says otherwise. */
export const choiceSlot = (slot: Choice): ChoiceSlot => ({
  kind: 'choice',
  measures: null,
  sound: slot.options,
  ...slot,
})

export const numberSlot = (
  id: string,
  measures: Measurable,
  unit: Unit,
  balloon: number,
  rest: Partial<Omit<NumberSlot, 'kind'>> = {},
): NumberSlot => ({ kind: 'number', id, measures, unit, balloon, ...rest })

export const LINES = ['l1', 'l2', 'l3'] as const

/** One slot where there is one phase, one for each line where there are three. */
export function lineSlots(
  id: string,
  measures: Measurable,
  unit: Unit,
  balloon: number,
  rest: Partial<Omit<NumberSlot, 'kind' | 'only'>> = {},
): readonly NumberSlot[] {
  return [
    numberSlot(id, measures, unit, balloon, { ...rest, only: (part) => !isThreePhase(part) }),
    ...LINES.map((line) => numberSlot(`${id}-${line}`, measures, unit, balloon, { ...rest, only: isThreePhase })),
  ]
}

/** The highest figure of those read, whichever line it was; null where none was. */
export function highestIn(reading: Pick<Body<'reading'>, 'slots'>, slots: readonly Slot[]): ReadValue | null {
  const all = [...readingsIn(reading, slots).values()]
  return all.length === 0 ? null : all.reduce((most, one) => (one.value > most.value ? one : most))
}

/** Nothing is touched before the installation was proved dead. */
export const deadGate: GateRule = { id: 'proved-dead', hard: true, waitsFor: 'prove-dead', until: 'done', on: 'supply' }

/** Leads that were not nulled in this visit show their own resistance. */
export const nulledGate: GateRule = {
  id: 'leads-nulled',
  hard: false,
  waitsFor: 'lead-null',
  until: 'done',
  on: 'site',
  sameVisit: true,
}

/** The earthing conductor and every electrode are back before anything is energised. */
export const liveGates: readonly GateRule[] = [
  { id: 'electrode-back', hard: true, waitsFor: 'electrode-back', until: 'done', on: 'electrodes' },
  { id: 'earth-back', hard: true, waitsFor: 'earth-back', until: 'done', on: 'supply' },
]

/** Insulation that is not proved, and polarity that is wrong, hold back what is done with the supply on. */
export const soundCircuits: readonly GateRule[] = [
  { id: 'ac-insulation', hard: false, waitsFor: 'ac-insulation', until: 'done', on: 'circuits' },
  { id: 'ac-polarity', hard: true, waitsFor: 'ac-polarity', until: 'not-outside', on: 'circuits' },
]

type Measured = {
  step: string
  read: ReadValue
  reading: Body<'reading'>
  unit: Unit
  band: Band
  source: SourceId
  scale?: 'linear' | 'log'
  expected?: { value: number; uncertainty: number } | null
  figures?: Figures
  limit: { id: string; value: number }
  /** Half the spread of repeats, where it is more than the instrument's own uncertainty. */
  spread?: number
}

/** A figure against a band: verdict, rule and limit; the finding is `step.verdict` until the step says more. */
export function judgeMeasured(context: AnyContext, ask: Measured): Judgement {
  const { read, band, unit, source } = ask
  const own = readingUncertainty(read, ask.reading.instrument?.accuracy ?? null)
  const whisker = Math.max(own, ask.spread ?? 0)
  const { verdict } = judge(read, band, whisker)
  const { tag } = context.part.data
  return {
    ...plain(verdict, {
      code: `${ask.step}.${verdict}`,
      figures: { read: read.text, tag, limit: ask.limit.value, ...ask.figures },
    }),
    rule: {
      unit,
      scale: ask.scale ?? 'linear',
      measured: { value: read.value, bound: read.bound, whisker, text: read.text },
      expected: ask.expected ?? null,
      band,
      source,
    },
    limits: [{ ...ask.limit, unit, source }],
  }
}

/** Another sentence, and another verdict where one is given, on the same figures. */
export function saying(judgement: Judgement, code: string, figures: Figures = {}, verdict?: Verdict): Judgement {
  const own = { ...judgement.finding.figures, ...figures }
  return { ...judgement, verdict: verdict ?? judgement.verdict, finding: { code, figures: own } }
}

export const notYet = (code: string, { part }: Pick<AnyContext, 'part'>, figures: Figures = {}): Judgement =>
  plain('not-yet', { code, figures: { tag: part.data.tag, ...figures } })

/** Figures of several slots that were read, by slot. */
export function readingsIn(reading: Pick<Body<'reading'>, 'slots'>, slots: readonly Slot[]): Map<string, ReadValue> {
  const found = new Map<string, ReadValue>()
  for (const { id } of slots) {
    const read = numberIn(reading, id)
    if (read) found.set(id, read)
  }
  return found
}

/** Slots of Ze and of R1+R2: other steps take the highest line of them. */
export const zeSlots = lineSlots('ze', 'loop-impedance', 'ohm', 2)
export const r1r2Slots = lineSlots('r1r2', 'continuity', 'ohm', 2)

/** Ze as it was measured, the highest line of it, ohm; null where nobody has yet. */
export function measuredZe(context: AnyContext): ReadValue | null {
  const { supply } = context.plant
  const body = supply && context.counted('ze', supply.id)
  return body ? highestIn(body, zeSlots) : null
}

/** R1+R2 of a circuit as it was measured, the highest line of it, ohm. */
export function measuredR1r2(context: AnyContext): ReadValue | null {
  const body = context.counted('r1r2', context.part.id)
  return body ? highestIn(body, r1r2Slots) : null
}

export const ratedOf = (rcds: readonly PartOf<'rcd'>[]): number[] => rcds.map((one) => one.data.rated_mA)
