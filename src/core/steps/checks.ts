/** What every list of checks shares: how it is judged, and what is said of it. */
import type { Body } from '../record/entry'
import type { Figures, Finding, Verdict } from '../verdict/verdict'
import type { PartKind } from '../plant/part'
import type { PlantIndex } from '../plant/plantIndex'
import type { ChoiceSlot, Judgement, Slot, Step } from './step'
import { choiceIn } from './stringReading'

/** As it should be, not as it should be, or left out with a few words. */
export const CHECK_OPTIONS = ['as-it-should', 'not-as-it-should', 'check-left-out'] as const

/** One line of a list, looked at by a person. */
export function check(id: string, balloon: number): ChoiceSlot {
  return { kind: 'choice', id, measures: null, options: CHECK_OPTIONS, sound: ['as-it-should'], balloon }
}

/** A plant with strings, or one that has nothing of the AC side yet. */
export const hasModules = (plant: PlantIndex): boolean => plant.ofKind('string').length > 0 || plant.supply === null

/** A judgement that has no scale. */
export function plain(verdict: Verdict, finding: Finding): Judgement {
  return { verdict, finding, flags: [], rule: null, comparable: null, referred: null, limits: [] }
}

type Said = { verdict: Verdict; code: string; figures: Figures }

/** Outside where any line is not as it should be; not yet while lines are open. Figures name the first such line. */
export function checksSay(slots: readonly Slot[], reading: Pick<Body<'reading'>, 'slots'>): Said {
  const lines = slots.filter((slot): slot is ChoiceSlot => slot.kind === 'choice' && slot.options === CHECK_OPTIONS)
  const bad = lines.filter((slot) => choiceIn(reading, slot.id) === 'not-as-it-should')
  if (bad.length > 0)
    return { verdict: 'outside', code: 'checks.outside', figures: { what: bad[0]!.id, more: bad.length - 1 } }
  const open = lines.filter((slot) => choiceIn(reading, slot.id) === null)
  if (open.length > 0)
    return { verdict: 'not-yet', code: 'checks.not-yet', figures: { what: open[0]!.id, count: open.length } }
  const left = lines.filter((slot) => choiceIn(reading, slot.id) === 'check-left-out').length
  return {
    verdict: 'within',
    code: left > 0 ? 'checks.within-but' : 'checks.within',
    figures: { count: lines.length, left },
  }
}

function judgeChecks(slots: readonly Slot[], reading: Pick<Body<'reading'>, 'slots'>): Judgement {
  const { verdict, code, figures } = checksSay(slots, reading)
  return plain(verdict, { code, figures })
}

/** A step that is a list of checks: what they all share stands here. */
export function checklist<Kind extends PartKind>(
  step: Omit<Step<Kind>, 'needsConditions' | 'counts' | 'inputs' | 'judge'>,
): Step<Kind> {
  return {
    ...step,
    needsConditions: false,
    counts: 'latest',
    inputs: () => '',
    judge: (_, reading) => judgeChecks(step.slots, reading),
  }
}
