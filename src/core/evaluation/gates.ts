import type { Part, StringPart } from '../plant/part'
import type { PlantIndex } from '../plant/plantIndex'
import type { Facts } from '../record/facts'
import type { AnyStep, GateRule, NumberSlot, Slot, StepContext } from '../steps/step'
import type { EntryIndex } from './entryIndex'
import type { GateState, StepEvaluation } from './types'

/** What was evaluated so far, by step and then by part: no key is put together for a look. */
export type Evaluated = ReadonlyMap<string, ReadonlyMap<string, StepEvaluation>>

/** Whether each gate before a step is met; earlier steps must have been evaluated. */
export function gateStates(
  { step, key }: StepEvaluation,
  context: StepContext,
  facts: Facts,
  evaluated: Evaluated,
  index: EntryIndex,
): GateState[] {
  const gates = (step.gates as readonly GateRule[]).map((gate) =>
    gateState(gate, key, context, facts, evaluated, index),
  )
  const rating = ratingGate(step, context, facts)
  if (rating) gates.push(rating)
  return gates
}

function gateState(
  gate: GateRule,
  key: string,
  context: StepContext,
  facts: Facts,
  evaluated: Evaluated,
  index: EntryIndex,
): GateState {
  const { part } = context
  const others = evaluated.get(gate.waitsFor)
  let shows: StepEvaluation | undefined
  let unmet = 0
  if (gate.on === undefined || gate.on === 'part') {
    shows = others?.get(part.id)
    if (shows && !isMet(gate, shows, facts)) unmet = 1
  } else {
    for (const one of partsOfGate(gate, part, context.plant)) {
      const other = others?.get(one.id)
      if (!other) continue
      const met = isMet(gate, other, facts)
      // The first that is not met is shown, else the first of all.
      if (!shows || (!met && unmet === 0)) shows = other
      if (!met) unmet++
    }
  }
  const override = gate.hard || index.overrides.size === 0 ? undefined : index.overrides.get(`${key}:${gate.id}`)
  return {
    id: gate.id,
    hard: gate.hard,
    met: unmet === 0 || override !== undefined,
    waitsFor: shows?.key ?? null,
    nowVerdict: shows?.verdict ?? null,
    overridden: override ? { reason: override.body.reason, personId: override.personId } : null,
    figures: { tag: part.data.tag, other: shows?.part.data.tag ?? '', count: unmet },
  }
}

/** The parts on which the step stands that a gate waits for; none where the plant has no such part. */
function partsOfGate({ on = 'part' }: GateRule, part: Part, plant: PlantIndex): readonly Part[] {
  if (on === 'part') return [part]
  if (on === 'strings') return plant.stringsOf(part)
  if (on === 'circuits') return plant.circuitsOf(part)
  if (on === 'electrodes') return plant.ofKind('electrode')
  if (on === 'strings-array') {
    const arrays = plant.stringsOf(part).map((string) => plant.arrayOf(string))
    return [...new Set(arrays)].filter((one) => one !== null)
  }
  const found =
    on === 'site'
      ? plant.site
      : on === 'supply'
        ? plant.supply
        : on === 'array'
          ? plant.arrayOf(part)
          : part.data.kind === 'string'
            ? plant.inverterOf(part as StringPart)
            : null
  return found ? [found] : []
}

function isMet(gate: GateRule, other: StepEvaluation, facts: Facts): boolean {
  if (gate.until === 'not-outside') return other.verdict !== 'outside'
  if (other.verdict === 'left-out') return !gate.hard
  if (other.verdict !== 'within' && other.verdict !== 'close') return false
  return !gate.sameVisit || other.counting?.entry.visitId === facts.visits.at(-1)?.id
}

/** Current at the edge of a cloud can pass the rated one: the same factor as for conductors (handbook 3). */
const CURRENT_FACTOR = 1.25

/** The kit's own limits: an instrument that the string can overload must not be connected. */
function ratingGate(step: AnyStep, context: StepContext, facts: Facts): GateState | null {
  const slot = step.slots.find((one: Slot): one is NumberSlot => one.kind === 'number')
  if (!slot || context.part.data.kind !== 'string') return null
  const needed = highestAtPlugs(slot.measures, context.part.data)
  if (needed === null) return null
  let best: number | null = null
  for (const instrument of facts.instruments) {
    const range = instrument.ranges.find((one) => one.measures === slot.measures)
    if (range) best = Math.max(best ?? 0, range.most)
  }
  if (best === null || best >= needed) return null
  return {
    id: 'tester-rating',
    hard: true,
    met: false,
    waitsFor: null,
    nowVerdict: null,
    overridden: null,
    figures: { tag: context.part.data.tag, needed, best, unit: slot.unit },
  }
}

function highestAtPlugs(
  measures: string,
  string: { modulesInSeries: number; moduleType: { data: { voc_V: number; isc_A: number } } },
): number | null {
  if (measures === 'dc-voltage') return string.modulesInSeries * string.moduleType.data.voc_V
  if (measures === 'dc-current') return CURRENT_FACTOR * string.moduleType.data.isc_A
  return null
}
