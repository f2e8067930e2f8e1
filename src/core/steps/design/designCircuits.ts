/** The circuits of an array as the design check sees them: strings alike are checked once. */
import { STC_TEMPERATURE_C } from '../../pv/constants'
import { convertersOf } from '../../plant/moduleElectronics'
import type { StringPart } from '../../plant/part'
import type { PlantIndex } from '../../plant/plantIndex'
import { type Circuit, nextRating, type RatingCheck, type RatingFactors, ratingChecks } from '../../pv/ratings'
import type { Regime } from '../../regime/regime'
import { decide, decidingOf, type Judgement, type Ruling } from '../../verdict/judgement'
import type { Decided, Finding } from '../../verdict/verdict'
import type { WorkingLine } from '../../verdict/working'
import type { StepContext } from '../step'

export function factorsOf(context: Pick<StepContext, 'limit'>): RatingFactors {
  // Each is asked for where it is used: what is asked for is what the record prints.
  return {
    get current() {
      return context.limit('pv.current-factor').value
    },
    get fuseLow() {
      return context.limit('pv.fuse-low').value
    },
    get fuseHigh() {
      return context.limit('pv.fuse-high').value
    },
    get flat() {
      return context.limit('pv.cold-flat').value
    },
  }
}

/** What a string goes through, where nobody said which of several it is; how cold and hot it gets, where nobody said. */
export type Unclear = 'which-switch' | 'which-inverter' | 'which-input' | 'how-cold' | 'how-hot'

type Unlike = { tag: string; ids: Set<string>; circuit: Circuit; unclear: readonly Unclear[] }
export type Checked = {
  tag: string
  circuit: Circuit
  check: Omit<RatingCheck, 'id'> & { id: string }
  unclear: Unclear | null
}

function circuitOf({ plant, regime }: StepContext<'array'>, string: StringPart): Omit<Unlike, 'tag' | 'ids'> {
  const inverter = plant.inverterOf(string)?.data ?? null
  const site = plant.site?.data
  const dcSwitch = plant.switchOf(string)?.data ?? null
  const parallel = plant.inParallel(string)
  const unclear: Unclear[] = []
  if (!dcSwitch && plant.ofKind('dc-switch').length > 1) unclear.push('which-switch')
  if (!inverter && plant.ofKind('inverter').length > 1) unclear.push('which-inverter')
  if (parallel === null) unclear.push('which-input')
  // A flat factor holds for any winter.
  const converters = convertersOf(string)
  if (!converters && (site?.lowestTemperature_C ?? null) === null) unclear.push('how-cold')
  if (!converters && (site?.highestCellTemperature_C ?? null) === null) unclear.push('how-hot')
  const circuit: Circuit = {
    module: string.data.moduleType.data,
    modulesInSeries: string.data.modulesInSeries,
    stringsInParallel: parallel ?? 1,
    // Where nobody said: no winter is warmer and no roof cooler than this. What fails here fails anywhere.
    lowestTemperature_C: site?.lowestTemperature_C ?? STC_TEMPERATURE_C,
    highestCellTemperature_C: site?.highestCellTemperature_C ?? STC_TEMPERATURE_C,
    inverter: inverter && {
      maxInput_V: inverter.maxInput_V,
      trackerMin_V: inverter.trackerMin_V ?? null,
      trackerMax_V: inverter.trackerMax_V ?? null,
      maxShortCircuit_A: inverter.maxShortCircuit_A ?? null,
    },
    switch: dcSwitch && { ratedVoltage_V: dcSwitch.ratedVoltage_V, rating_A: dcSwitch.rating_A },
    fuse: string.data.fuse ?? null,
    ...(string.data.cable_A ? { cable_A: string.data.cable_A } : {}),
    ...(converters ? { converters: { most_V: converters.most_V, most_A: converters.most_A } } : {}),
    school: regime.schools['pv.cold-voltage'],
  }
  return { circuit, unclear }
}

const known = new WeakMap<PlantIndex, Map<string, { regime: Regime; circuits: Unlike[] }>>()

/** Every circuit of the array that is unlike the others, with the tag of its first string; worked out once a plant. */
export function circuitsOf(context: StepContext<'array'>): Unlike[] {
  const ofPlant = known.get(context.plant) ?? new Map<string, { regime: Regime; circuits: Unlike[] }>()
  known.set(context.plant, ofPlant)
  const found = ofPlant.get(context.part.id)
  if (found?.regime === context.regime) return found.circuits
  const circuits = unlikeCircuits(context)
  ofPlant.set(context.part.id, { regime: context.regime, circuits })
  return circuits
}

function unlikeCircuits(context: StepContext<'array'>): Unlike[] {
  const unlike = new Map<string, Unlike>()
  for (const string of context.plant.stringsOf(context.part)) {
    const found = circuitOf(context, string)
    const key = JSON.stringify(found)
    const known = unlike.get(key)
    if (known) known.ids.add(string.id)
    else unlike.set(key, { tag: string.data.tag, ids: new Set([string.id]), ...found })
  }
  return [...unlike.values()]
}

/** What a check must know of the string before it can be made. */
function wants(id: string): Unclear | null {
  if (id.endsWith('-switch')) return 'which-switch'
  if (/-(inverter|tracker)$/.test(id)) return 'which-inverter'
  return id === 'fuse-needed' ? 'which-input' : null
}

/** Which temperature of the site a check must know. */
function wantsTemperature(id: string, school: Circuit['school']): Unclear | null {
  if (id === 'vmp-hot-tracker') return 'how-hot'
  if (id === 'vmp-cold-tracker') return 'how-cold'
  return id.startsWith('voc-cold') || id === 'kit-voltage' ? (school === 'flat' ? null : 'how-cold') : null
}

/** A check that goes by a temperature which nobody said is not made, unless it fails whatever that is. */
export function byWeather(one: Checked, unclear: readonly Unclear[]): Checked {
  const wanted = wantsTemperature(one.check.id, one.circuit.school)
  if (!wanted || !unclear.includes(wanted) || one.check.verdict === 'outside') return one
  return { ...one, check: { ...one.check, value: null, verdict: 'not-yet' }, unclear: wanted }
}

/** Whether the plant has the device which a check holds the string against: without it there is nothing to check. */
function isThere(id: string, circuit: Circuit): boolean {
  if (id.endsWith('-switch')) return circuit.switch !== null
  return /-(inverter|tracker)$/.test(id) ? circuit.inverter !== null : true
}

/** A fuse that is there answers the need of one: whether it is the right one is another check. */
const isAnswered = ({ id, value, limit }: RatingCheck, { fuse }: Circuit): boolean =>
  id === 'fuse-needed' && fuse !== null && value !== null && limit !== null && value > limit

/** The named checks of every circuit. One that does not apply is none; one whose device is not clear is not made. */
export function checksOf(context: StepContext<'array'>, ids: readonly string[]): Checked[] {
  const factors = factorsOf(context)
  return circuitsOf(context).flatMap(({ tag, circuit, unclear }) =>
    ratingChecks(circuit, context.models.of(circuit.module as never), factors).flatMap((check): Checked[] => {
      if (!ids.includes(check.id) || check.verdict === 'left-out' || isAnswered(check, circuit)) return []
      const asked = wants(check.id)
      const isShared = check.id.startsWith('isc-') && check.id !== 'isc-cable'
      const carries = isShared && unclear.includes('which-input') ? 'which-input' : null
      const open = asked && unclear.includes(asked) ? asked : carries
      if (open) return [{ tag, circuit, check: { ...check, verdict: 'not-yet' }, unclear: open }]
      return isThere(check.id, circuit) ? [byWeather({ tag, circuit, check, unclear: null }, unclear)] : []
    }),
  )
}

const isByWeather = ({ unclear }: Checked): boolean => unclear === 'how-cold' || unclear === 'how-hot'

/** How near a check is to its limit, 1 on it; none without a limit. */
const nearness = ({ check }: Checked): number => {
  if (check.value === null || check.limit === null) return -1
  return check.limit === check.high ? check.value / check.limit : check.limit / Math.max(check.value, 1e-9)
}

/** What must be carried, in words: the size that a shop has. */
function sizeOf({ id, value }: Checked['check'], verdict: Decided): { also?: Finding['also'] } {
  const next = value === null || verdict === 'not-yet' || !id.startsWith('isc-') ? null : nextRating(value)
  return next === null ? {} : { also: [{ code: 'design.next-size', figures: { value: value!, next } }] }
}

function rulingOf(one: Checked, decimals: number, count: number): Ruling {
  const { check, tag, unclear } = one
  const { verdict, value, limit, unit, id } = check
  const decided = verdict === 'outside' || verdict === 'close' || verdict === 'within' ? verdict : 'not-yet'
  // A string by itself drives nothing back: that is settled without any limit.
  const code = unclear
    ? `design.${unclear}`
    : decided === 'within' && limit === null
      ? 'design.alone'
      : `design.${decided}`
  return {
    verdict: decided,
    finding: {
      code,
      figures: { what: id, tag, unit, decimals, value: value ?? 0, limit: limit ?? 0, count },
      ...sizeOf(check, decided),
    },
    line: {
      code: limit === null ? 'design.no-limit' : 'design.limit',
      figures: { what: id, tag, verdict: decided },
      result: limit === null ? null : { value: limit, unit, decimals },
      source: 'iec-60364-712',
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
    limit: limit === null ? null : { id, value: limit, unit, source: 'iec-60364-712' },
  }
}

/** A group of checks as one judgement; what there is nothing to compare with is not judged. */
export function judgeDesign(
  list: readonly Checked[],
  decimals: number,
  nothing: { code: string; tag: string },
  sum: (deciding: Checked) => WorkingLine[],
): Judgement {
  if (list.length === 0)
    return decide([
      {
        verdict: 'not-yet',
        finding: { code: nothing.code, figures: { tag: nothing.tag } },
        line: { code: 'nothing-to-compare', figures: {}, result: null, source: null },
      },
    ])
  const nearestFirst = [...list].sort((a, b) => nearness(b) - nearness(a))
  const rulings = nearestFirst.map((one) => rulingOf(one, decimals, list.length))
  const deciding = nearestFirst[rulings.indexOf(decidingOf(rulings)!)]!
  const shown = nearestFirst.filter((one) => one.circuit === deciding.circuit)
  return decide(
    nearestFirst
      .map((one, k) => ({ one, ruling: rulings[k]! }))
      .filter(({ one }) => shown.includes(one))
      .map(({ ruling }) => ruling),
    { before: () => (isByWeather(deciding) ? [] : sum(deciding)) },
  )
}
