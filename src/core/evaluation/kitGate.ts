/** The kit's own limits: an instrument that the string can overload must not be connected. */
import type { Part, StringPart } from '../plant/part'
import type { PlantIndex } from '../plant/plantIndex'
import { coldFactor } from '../pv/ratings'
import type { Facts } from '../record/facts'
import { type Ability, abilities, type Instrument, type Measurable } from '../record/instrument'
import type { Regime } from '../regime/regime'
import type { AnyReadStep, KitNeed, KitReach } from '../steps/step'
import type { Figures, Finding } from '../verdict/verdict'
import { isReach, lackCode, needFigures } from './kitNeed'
import type { GateState } from './types'

/** Current at the edge of a cloud can pass the rated one: the same factor as for conductors (handbook 3). */
const CURRENT_FACTOR = 1.25
/** Where nobody said how cold it gets a tester is not trusted with less than this asks; no verdict comes of it [D]. */
const ASSUMED_LOWEST_C = -10
/** With one of them reversed the meter between two strings sees both (IEC 62446-1 6.3, from memory). */
const BETWEEN_TWO = 2

/** What a string reaches at its plugs in the coldest hour of the site, V; its plate where the school has no answer. */
function coldVoltageOf({ data }: StringPart, plant: PlantIndex, regime: Regime): number {
  const { voc_V, beta_pctPerK } = data.moduleType.data
  const lowest_C = plant.site?.data.lowestTemperature_C ?? ASSUMED_LOWEST_C
  const flat = regime.limits['pv.cold-flat']?.value ?? 1
  const factor = coldFactor(regime.schools['pv.cold-voltage'], beta_pctPerK, lowest_C, flat)
  return data.modulesInSeries * voc_V * Math.max(1, factor ?? 1)
}

/** What of an evaluation it is looked at with. */
type View = { plant: PlantIndex; facts: Facts }

type Need = { measures: Measurable; unit: 'V' | 'A'; value: number }

function needOf(step: AnyReadStep, part: Part, { plant, facts }: View): Need | null {
  if (part.data.kind === 'combiner') {
    const strings = plant.stringsOf(part)
    const highest = Math.max(0, ...strings.map((one) => coldVoltageOf(one, plant, facts.regime)))
    return strings.length > 1 ? { measures: 'dc-voltage', unit: 'V', value: BETWEEN_TWO * highest } : null
  }
  if (part.data.kind !== 'string') return null
  const slot = step.slots.find((one) => one.measures !== null)
  if (slot?.measures === 'dc-voltage' || slot?.measures === 'dc-polarity')
    return { measures: 'dc-voltage', unit: 'V', value: coldVoltageOf(part as StringPart, plant, facts.regime) }
  if (slot?.measures !== 'dc-current') return null
  return { measures: 'dc-current', unit: 'A', value: CURRENT_FACTOR * part.data.moduleType.data.isc_A }
}

/** A gate where the kit is too weak, or where nothing in it measures what is asked; null where it is made for it. */
export function kitGate(step: AnyReadStep, part: Part, view: View): GateState | null {
  const { instruments } = view.facts
  if (instruments.length === 0) return null
  const [lacks] = lacksOf(step.kit?.(part, view.facts.regime) ?? [], instruments)
  if (lacks) {
    const figures = { tag: part.data.tag, ...needFigures(lacks) }
    return { ...shut('kit-lacks', false, figures), finding: { code: `held-back.${lackCode(lacks)}`, figures } }
  }
  const need = needOf(step, part, view)
  if (!need) return null
  let best: number | null = null
  for (const { ranges } of instruments)
    for (const range of ranges) if (range.measures === need.measures) best = Math.max(best ?? 0, range.most)
  if (best !== null && best >= need.value) return null
  const id = best === null ? 'tester-unknown' : 'tester-rating'
  const figures = { tag: part.data.tag, needed: need.value, best: best ?? 0, unit: need.unit }
  return shut(id, best !== null, figures)
}

/**
 * Why plus and minus of a string must not be joined with this kit: no switch in it is rated for its cold voltage and for
 * 1.25 times the short-circuit current of all that is joined. Null where one is, or where nobody entered one.
 * @param joined strings that are joined together
 */
export function joiningTrap(
  { variants }: AnyReadStep,
  part: Part,
  choices: Readonly<Record<string, string | undefined>>,
  joined: number,
  { plant, facts }: View,
): Finding | null {
  if (
    part.data.kind !== 'string' ||
    !variants?.some((one) => one.joins && 'slot' in one && choices[one.slot] === one.is)
  )
    return null
  const switches = facts.instruments.flatMap(({ joining }) => joining ?? [])
  const needed_V = coldVoltageOf(part as StringPart, plant, facts.regime)
  const needed_A = CURRENT_FACTOR * part.data.moduleType.data.isc_A * joined
  if (switches.length === 0 || switches.some(({ most_V, most_A }) => most_V >= needed_V && most_A >= needed_A))
    return null
  const best = switches.reduce((one, other) => (other.most_V * other.most_A > one.most_V * one.most_A ? other : one))
  const figures = { tag: part.data.tag, needed_V, needed_A, best_V: best.most_V, best_A: best.most_A }
  return { code: 'kit.joining-too-weak', figures }
}

const isAbility = (need: Exclude<KitNeed, KitReach>): need is Ability => (abilities as readonly string[]).includes(need)

/** A tester that times trips makes the currents that its ramps reach; one without ramps says nothing of that. */
function reaches({ ranges }: Instrument, { measures, upTo_mA }: KitReach): boolean {
  const makes = measures === 'rcd-time' ? 'rcd-current' : measures
  const most = ranges.find((range) => range.measures === makes)?.most
  return ranges.some((range) => range.measures === measures) && (most === undefined || most >= upTo_mA)
}

/** Whether an instrument measures what is needed, or can do it. */
function meets(tool: Instrument, need: KitNeed): boolean {
  if (isReach(need)) return reaches(tool, need)
  return isAbility(need) ? (tool.can?.includes(need) ?? false) : tool.ranges.some((range) => range.measures === need)
}

/** What of several needs no instrument meets. */
export const lacksOf = (needs: readonly KitNeed[], instruments: readonly Instrument[]): KitNeed[] =>
  needs.filter((need) => !instruments.some((tool) => meets(tool, need)))

const shut = (id: string, hard: boolean, figures: Figures): GateState => ({
  id,
  hard,
  met: false,
  why: 'unmet',
  finding: { code: `held-back.${id}`, figures },
  waitsFor: null,
  nowVerdict: null,
  state: null,
  overridden: null,
})
