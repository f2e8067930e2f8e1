/** Readings of a scenario that belong nowhere: refused by name, as every door does, where they would be passed over. */
import { checkBody } from '../core/evaluate'
import type { Evaluation } from '../core/evaluation/types'
import { type Entry, isKind } from '../core/record/entry'
import { stepById, steps } from '../core/steps'
import { type AnyReadStep, isAskedOf, isRead, slotsOf } from '../core/steps/step'
import { CalcProblem } from './problem'

/** What is no matter of what was read, but of where it was put. */
const misplaced = new Set(['slot-unknown', 'slot-not-here', 'number-wanted', 'unit-of-slot', 'choice-unknown'])

type Why = { at: string[]; message: string }

/** @throws CalcProblem that names each reading which belongs nowhere. @param entries those of the input, in its order. */
export function refuseMisplaced(
  evaluation: Evaluation,
  entries: readonly Entry[],
  textOf: (id: string) => string,
): void {
  // A plant that changes on the way may have asked for something then that it does not ask for now.
  const isStill = !entries.some((entry) => isKind(entry, 'plant-change'))
  const errors = entries.flatMap((entry, k) => {
    const why = isKind(entry, 'reading') ? whyNot(evaluation, entry, isStill, textOf) : null
    return why ? [{ path: ['entries', k, ...why.at], message: why.message }] : []
  })
  if (errors.length > 0) throw new CalcProblem(errors)
}

function whyNot(
  evaluation: Evaluation,
  { step: id, partId, body }: Entry<'reading'>,
  isStill: boolean,
  textOf: (id: string) => string,
): Why | null {
  const { parts, plant, facts } = evaluation
  const step = id === null ? null : stepById(id)
  if (!step || !isRead(step)) {
    const known = steps.filter(isRead).map((one) => one.id)
    return { at: ['step'], message: `step is ${JSON.stringify(id)}; it may be: one of ${known.join(', ')}` }
  }
  const part = partId === null ? undefined : parts.get(partId)
  if (!part) {
    const held = partId === null ? 'null' : JSON.stringify(textOf(partId))
    return { at: ['partId'], message: `partId is ${held}; it may be: the id of one of the parts` }
  }
  const { kind, tag } = part.data
  if (kind !== step.appliesTo)
    return { at: ['partId'], message: `partId names a ${kind}; ${step.id} is made on a ${step.appliesTo}` }
  if (part.retired || !isStill) return null
  if (!isAskedOf(step, part, plant, facts.regime))
    return { at: ['step'], message: `step is "${step.id}"; it is not asked of ${tag}, as the plant has it` }
  const { check } = checkBody(evaluation, { step, part }, body)
  if (check.state !== 'refused' || !misplaced.has(check.code)) return null
  const asked = slotsOf(step).map((slot) => slot.id)
  const slot = check.slot ?? ''
  return {
    at: ['body', 'slots', slot],
    message:
      check.code === 'slot-unknown'
        ? `slot is "${slot}"; it may be: one of ${asked.join(', ')}`
        : `${slot} holds ${JSON.stringify(body.slots[slot])}; ${allowed(step, slot)}`,
  }
}

/** What may stand in a slot. */
function allowed(step: AnyReadStep, id: string): string {
  const slot = slotsOf(step).find((one) => one.id === id)!
  if (slot.kind === 'number') return `it may be: a figure in ${slot.unit}, where this part is asked for it`
  if (slot.kind === 'choice') return `it may be: one of ${slot.options.join(', ')}, where this part is asked for it`
  return 'it may be: an answer, where this part is asked for it'
}
