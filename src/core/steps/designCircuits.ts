/** The circuits of an array as the design check sees them: strings alike are checked once. */
import type { StringPart } from '../plant/part'
import type { PlantIndex } from '../plant/plantIndex'
import { type Circuit, type RatingCheck, type RatingFactors, ratingChecks } from '../pv/ratings'
import type { Regime } from '../regime/regime'
import { worst } from '../verdict/verdict'
import type { Judgement, StepContext } from './step'

/** Used where no site is entered: a mild winter, and cells on a hot roof [D]. */
const USUAL = { lowest_C: -10, hottest_C: 70 }

export function factorsOf(regime: Regime): RatingFactors {
  return {
    current: regime.limits['pv.current-factor'].value,
    fuseLow: regime.limits['pv.fuse-low'].value,
    fuseHigh: regime.limits['pv.fuse-high'].value,
    flat: regime.limits['pv.cold-flat'].value,
  }
}

export type Checked = { tag: string; circuit: Circuit; check: Omit<RatingCheck, 'id'> & { id: string } }

function circuitOf({ plant, regime }: StepContext<'array'>, string: StringPart): Circuit {
  const inverter = plant.inverterOf(string)?.data ?? null
  const site = plant.site?.data ?? null
  const dcSwitch = plant.switch?.data ?? null
  return {
    module: string.data.moduleType.data,
    modulesInSeries: string.data.modulesInSeries,
    stringsInParallel: plant.inParallel(string),
    lowestTemperature_C: site?.lowestTemperature_C ?? USUAL.lowest_C,
    highestCellTemperature_C: site?.highestCellTemperature_C ?? USUAL.hottest_C,
    inverter: inverter && {
      maxInput_V: inverter.maxInput_V,
      trackerMin_V: inverter.trackerMin_V ?? null,
      trackerMax_V: inverter.trackerMax_V ?? null,
      maxShortCircuit_A: inverter.maxShortCircuit_A ?? null,
    },
    switch: dcSwitch && { ratedVoltage_V: dcSwitch.ratedVoltage_V, rating_A: dcSwitch.rating_A },
    fuse: string.data.fuse ?? null,
    school: regime.schools['pv.cold-voltage'],
  }
}

type Unlike = { tag: string; circuit: Circuit }[]
const known = new WeakMap<PlantIndex, Map<string, { regime: Regime; circuits: Unlike }>>()

/** Every circuit of the array that is unlike the others, with the tag of its first string; worked out once a plant. */
export function circuitsOf(context: StepContext<'array'>): Unlike {
  const ofPlant = known.get(context.plant) ?? new Map<string, { regime: Regime; circuits: Unlike }>()
  known.set(context.plant, ofPlant)
  const found = ofPlant.get(context.part.id)
  if (found?.regime === context.regime) return found.circuits
  const circuits = unlikeCircuits(context)
  ofPlant.set(context.part.id, { regime: context.regime, circuits })
  return circuits
}

function unlikeCircuits(context: StepContext<'array'>): Unlike {
  const unlike = new Map<string, { tag: string; circuit: Circuit }>()
  for (const string of context.plant.stringsOf(context.part)) {
    const circuit = circuitOf(context, string)
    const key = JSON.stringify(circuit)
    if (!unlike.has(key)) unlike.set(key, { tag: string.data.tag, circuit })
  }
  return [...unlike.values()]
}

/** Whether the plant has the device which a check holds the string against: without it there is nothing to check. */
function isThere(id: string, circuit: Circuit): boolean {
  if (id.endsWith('-switch')) return circuit.switch !== null
  return /-(inverter|tracker)$/.test(id) ? circuit.inverter !== null : true
}

/** A check that is settled without any limit says nothing: a string by itself needs no fuse. */
const isSettled = ({ verdict, limit }: RatingCheck): boolean =>
  verdict === 'left-out' || (verdict === 'within' && limit === null)

/** The named checks of every circuit, those that are settled anyway not among them. */
export function checksOf(context: StepContext<'array'>, ids: readonly string[]): Checked[] {
  const factors = factorsOf(context.regime)
  return circuitsOf(context).flatMap(({ tag, circuit }) =>
    ratingChecks(circuit, context.models.of(circuit.module as never), factors)
      .filter((check) => ids.includes(check.id) && isThere(check.id, circuit) && !isSettled(check))
      .map((check) => ({ tag, circuit, check })),
  )
}

/** How near a check is to its limit, 1 on it; none without a limit. */
const nearness = ({ check }: Checked): number => {
  if (check.value === null || check.limit === null) return -1
  return check.limit === check.high ? check.value / check.limit : check.limit / Math.max(check.value, 1e-9)
}

/** The check that decides a group: the worst, and among alike ones the nearest to its limit. */
export function decidingOf(list: readonly Checked[]): Checked | null {
  const verdict = worst(list.map((one) => one.check.verdict))
  return list.filter((one) => one.check.verdict === verdict).sort((a, b) => nearness(b) - nearness(a))[0] ?? null
}

/** A group of checks as one judgement; nothing to check is within. */
export function judgeDesign(list: readonly Checked[], decimals: number): Judgement {
  const deciding = decidingOf(list)
  const empty = { flags: [], rule: null, comparable: null, referred: null, limits: [] }
  if (!deciding) return { ...empty, verdict: 'within', finding: { code: 'design.nothing', figures: {} } }
  const { check, tag } = deciding
  const { verdict, value, limit, unit } = check
  return {
    ...empty,
    verdict,
    finding: {
      code: `design.${verdict}`,
      figures: { what: check.id, tag, unit, decimals, value: value ?? 0, limit: limit ?? 0, count: list.length },
    },
    rule:
      value === null || (check.low === null && check.high === null)
        ? null
        : {
            unit,
            scale: 'linear',
            measured: { value, bound: 'exact', whisker: 0, text: value.toFixed(decimals) },
            expected: null,
            band: { low: check.low, high: check.high, closeLow: null, closeHigh: null },
            source: 'iec-60364-712',
          },
    limits: limit === null ? [] : [{ id: check.id, value: limit, unit, source: 'iec-60364-712' as const }],
  }
}
