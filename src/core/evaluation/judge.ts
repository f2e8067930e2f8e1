/** The one place where a step is judged: a draft, a cell, an imported row, a kept reading and a scenario all pass here. */
import type { Part } from '../plant/part'
import type { PlantIndex } from '../plant/plantIndex'
import { ModelCache } from '../pv/stringModel'
import type { Body } from '../record/entry'
import type { Facts } from '../record/facts'
import { citing } from '../regime/documents'
import { Lacking, orLacking } from '../regime/lacking'
import type { Regime } from '../regime/regime'
import type { Beside } from '../steps/beside'
import { missingSlots } from '../steps/slot'
import {
  type AnyReadStep,
  type AnyStep,
  isRead,
  NOTHING_READ,
  type Reading,
  type StepContext,
  slotsOf,
} from '../steps/step'
import { decide, type Judgement, lackingLine, overruled } from '../verdict/judgement'
import type { Finding } from '../verdict/verdict'

export type Counted = StepContext['counted']
const sharedModels = new ModelCache()

/** A reading which was to be judged by itself asks for another: then it must say so, to be judged again with it. */
const unaskedOf = new WeakMap<AnyStep, Counted>()
function unasked(step: AnyStep): Counted {
  const known = unaskedOf.get(step)
  if (known) return known
  const counted: Counted = (other) => {
    throw new Error(`${step.id}: expected a step that reads others, for it asks for ${other}`)
  }
  unaskedOf.set(step, counted)
  return counted
}

/** What a step is judged in. */
export class Context implements StepContext {
  /** One stays: of a shape of which none is left an engine forgets the code that it made for it (decision 20). */
  static readonly kept = new Context({} as AnyStep, {} as never, {} as never, {} as Facts, () => null, NOTHING_READ)
  readonly instruments: Facts['instruments']
  readonly regime: Regime
  readonly models = sharedModels
  readonly slots: StepContext['slots']
  readonly counted: Counted

  constructor(
    step: AnyStep,
    readonly part: StepContext['part'],
    readonly plant: PlantIndex,
    facts: Pick<Facts, 'instruments' | 'regime'>,
    counted: Counted,
    readonly reading: Reading,
  ) {
    this.instruments = facts.instruments
    this.regime = facts.regime
    this.slots = slotsOf(step)
    this.counted = isRead(step) && !step.readsOthers ? unasked(step) : counted
  }

  limit(id: Parameters<StepContext['limit']>[0]) {
    const limit = this.regime.limits[id]
    if (!limit) throw new Lacking(id)
    return limit
  }
}

export const contextOf = (
  step: AnyStep,
  part: Part,
  plant: PlantIndex,
  facts: Pick<Facts, 'instruments' | 'regime'>,
  counted: Counted,
  reading: Reading,
): Context => new Context(step, part as StepContext['part'], plant, facts, counted, reading)

/**
 * Judges: a set-up that proves nothing decides nothing, and nothing that lacks an asked answer is called within or
 * close. A regime without a figure that the step needs gives a reading and no verdict.
 */
export function judgeStep(step: AnyStep, context: StepContext): Judgement {
  try {
    return citing(context.regime, judged(step, context))
  } catch (error) {
    // A big job passes here tens of thousands of times: nothing is made for it that is not needed.
    if (error instanceof Lacking) return lackingLimit(error.limitId)
    throw error
  }
}

function judged(step: AnyStep, context: StepContext): Judgement {
  const own = step.judge(context)
  if (!isRead(step)) return own
  const trap = step.trap?.(context) ?? null
  if (trap) return overruled(own, 'not-yet', trap)
  if (own.verdict === 'outside' || own.verdict === 'not-yet') return own
  const missing = missingSlots(step, context.reading, context)
  if (missing.length === 0) return own
  return overruled(own, 'not-yet', { code: 'incomplete', figures: { slot: missing[0]!.id, more: missing.length - 1 } })
}

const lackingLimit = (limitId: string): Judgement =>
  decide([
    {
      verdict: 'not-yet',
      finding: { code: 'regime-lacks', figures: { limit: limitId } },
      line: lackingLine(limitId),
    },
  ])

/** The trap that a set-up is; a regime that lacks the figure knows of none. */
export const trapOf = (step: AnyReadStep, context: StepContext): Finding | null =>
  orLacking(
    () => step.trap?.(context) ?? null,
    () => null,
  )

/** What a draft or an entry is judged from. */
export const readingOf = (
  { slots, conditions, air, instrument, how, v }: Body<'reading'>,
  beside: Beside | null = null,
): Reading => ({
  slots,
  conditions,
  instrument,
  how,
  v,
  ...(air ? { air } : {}),
  ...(beside ? { beside } : {}),
})
