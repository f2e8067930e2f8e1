/** What every list of checks shares: how it is judged, and what is said of it. */
import type { PartKind } from '../plant/part'
import type { PlantIndex } from '../plant/plantIndex'
import { decide, type Ruling } from '../verdict/judgement'
import type { Decided, Figures, Verdict } from '../verdict/verdict'
import { choiceIn } from './reading'
import { CHECK_BAD, CHECK_LEFT_OUT, CHECK_SOUND, type CheckSlot, isLater, slotsAsked } from './slot'
import type { AnyContext, ReadStep } from './step'

/** A plant with strings, or one that has nothing of the AC side yet. */
export const hasModules = (plant: PlantIndex): boolean => plant.ofKind('string').length > 0 || !plant.hasAcSide

/** Outside where any line is not as it should be; not yet while lines are open. Figures name the first such line. */
export function checksRuling(context: AnyContext, source: ReadStep['sources'][number]): Ruling {
  const { reading } = context
  const lines = slotsAsked(context, context).filter(
    // What came later than the reading was not asked of it.
    (slot): slot is CheckSlot => slot.kind === 'check' && (!isLater(slot, reading) || slot.id in reading.slots),
  )
  const say = (verdict: Decided, code: string, figures: Figures): Ruling => ({
    verdict,
    finding: { code, figures },
    line: { code: 'checks.rule', figures: { count: lines.length }, result: null, source },
  })
  const [bad, ...more] = lines.filter((slot) => choiceIn(reading, slot.id) === CHECK_BAD)
  if (bad)
    return say('outside', more.length > 0 ? 'checks.outside-more' : 'checks.outside', {
      what: bad.id,
      more: more.length,
    })
  const open = lines.filter((slot) => choiceIn(reading, slot.id) === null)
  if (open[0]) return say('not-yet', 'checks.not-yet', { what: open[0].id, count: open.length })
  const left = lines.filter((slot) => choiceIn(reading, slot.id) === CHECK_LEFT_OUT).length
  return say('within', left > 0 ? 'checks.within-but' : 'checks.within', { count: lines.length, left })
}

/** One line of a list by itself, as it is printed beside its answer. */
export function answerVerdict(choice: string | null): Verdict {
  if (choice === null) return 'not-yet'
  return choice === CHECK_SOUND ? 'within' : choice === CHECK_BAD ? 'outside' : 'left-out'
}

/** A step that is a list of checks: what they all share stands here. */
export function checklist<Kind extends PartKind>(
  step: Omit<ReadStep<Kind>, 'kind' | 'counts' | 'judge'>,
): ReadStep<Kind> {
  return {
    ...step,
    kind: 'read',
    counts: 'latest',
    judge: (context) => decide([checksRuling(context as unknown as AnyContext, step.sources[0]!)]),
  }
}
