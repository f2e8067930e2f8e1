import { type Limit, type LimitId, type Regime, regimeSchema, type Schools } from './regime'

/** What all shipped regimes share; they differ on the AC side, below. */
const limits: Record<LimitId, Limit> = {
  /** String against expectation where irradiance and cell temperature were measured. */
  'pv.expectation.measured': { value: 5, unit: 'pct', source: 'house-expectation' },
  /** String against the rating plate where the cell temperature was only estimated. */
  'pv.expectation.estimated': { value: 10, unit: 'pct', source: 'rating-plate' },
  /** Strings alike, under stable light. */
  'pv.sisters': { value: 5, unit: 'pct', source: 'iec-62446-strings' },
  /** Below this light, comparisons of current are weak. */
  'pv.least-light': { value: 400, unit: 'Wm2', source: 'iec-62446-light' },
  /** Light that moved more than this between strings makes their comparison weak. */
  'pv.light-moved': { value: 5, unit: 'pct', source: 'house-light-moved' },
  /** Above this a clamp on the DC conductors shows that current flows: no plug is parted. */
  'pv.isolation-current': { value: 0.1, unit: 'A', source: 'house-clamp' },
  /** The sensor's plane against the plane entered for the array. */
  'pv.sensor-tilt': { value: 5, unit: 'deg', source: 'house-plane' },
  'pv.sensor-azimuth': { value: 10, unit: 'deg', source: 'house-plane' },
  /** Earth continuity to a rail row, where a set limit is used. */
  'pv.continuity': { value: 1, unit: 'ohm', source: 'continuity-practice' },
  'pv.continuity-joint': { value: 0.05, unit: 'ohm', source: 'house-joint' },
  /** Strings tested together for insulation have at most this power. */
  'pv.insulation-group': { value: 10, unit: 'kW', source: 'iec-62446-insulation' },
  /** Power of alike strings under equal light. */
  'pv.operating': { value: 5, unit: 'pct', source: 'operating-practice' },
  /** How far the fill factor of a curve may lie under the model's. */
  'pv.curve-fill': { value: 5, unit: 'pct', source: 'house-curve-shape' },
  /** A ledge that takes more than this of the short-circuit current is no scatter of sound modules. */
  'pv.curve-ledge': { value: 3, unit: 'pct', source: 'house-curve-shape' },
  /** Everything in the DC circuit carries this times Isc. */
  'pv.current-factor': { value: 1.25, unit: 'one', source: 'iec-60364-712' },
  'pv.fuse-low': { value: 1.5, unit: 'one', source: 'iec-62548' },
  'pv.fuse-high': { value: 2.4, unit: 'one', source: 'iec-62548' },
  /** Highest voltage in the cold, where a flat factor is used. */
  'pv.cold-flat': { value: 1.15, unit: 'one', source: 'rating-plate' },
  /** Lowest voltage of the supply over its nominal one, in the limit of a loop. */
  'ac.voltage-factor': { value: 0.95, unit: 'one', source: 'bs7671-zs' },
  /** What is measured cold stays under this share of the limit; above it the reading is close. */
  'ac.cold-share': { value: 80, unit: 'pct', source: 'loop-practice' },
  /** A loop or continuity reading above what it should be by more than this points at a joint. */
  'ac.loop-above': { value: 20, unit: 'pct', source: 'house-loop' },
  'ac.joint': { value: 0.05, unit: 'ohm', source: 'house-joint' },
  /** How far the supply may lie under and over its nominal voltage. */
  'ac.supply-low': { value: 6, unit: 'pct', source: 'supply-voltage' },
  'ac.supply-high': { value: 10, unit: 'pct', source: 'supply-voltage' },
  /** From the origin of a public supply to the farthest point. */
  'ac.drop-lighting': { value: 3, unit: 'pct', source: 'bs7671-drop' },
  'ac.drop-other': { value: 5, unit: 'pct', source: 'bs7671-drop' },
  /** In how long a point has let go, its protective conductor too, where the PEN of the supply is lost. */
  'point.lost-pen': { value: 5, unit: 's', source: 'bs7671-point-earth' },
  /** How far the duty of a pilot may lie off what it codes, points of it. */
  'point.duty': { value: 1, unit: 'pct', source: 'iec-61851-pilot' },
  'earth.touch-voltage': { value: 50, unit: 'V', source: 'bs7671-electrode' },
  /** Readings at several places of the spike lie this close together. */
  'earth.spread': { value: 5, unit: 'pct', source: 'electrode-practice' },
  /** Above this an electrode may not be stable. */
  'earth.unstable': { value: 200, unit: 'ohm', source: 'bs7671-electrode' },
  /** Share of each half of a two-sided band, next to the limit, which counts as close. */
  'close.two-sided': { value: 20, unit: 'pct', source: 'house-close-band' },
  /** Up to this times the least insulation is close. */
  'close.insulation': { value: 2, unit: 'one', source: 'insulation-practice' },
  /** A reading farther than this from its conditions says so. */
  'conditions.apart': { value: 60, unit: 's', source: 'house-minute' },
}

const schools: Schools = {
  'work.order': 'pv-first',
  'pv.cold-voltage': 'beta',
  'pv.insulation-voltage': 'table',
  'pv.continuity-judged': 'set-limit',
  'pv.curves': 'category-2',
  'rcd.sequence': 'single',
  'rcd.half': 'two-seconds',
  'rcd.half-when': 'half-first',
  'rcd.five': 'five-times',
  'earth.spread-rule': 'range',
  'earth.probe': 'sixty-two',
  'loop.rcd-stands-in': 'near-the-sum',
  'point.sequence': 'six-and-two',
  'point.waveform': 'alternating',
  'point.fault-sign': 'only-close',
  cites: 'national',
}

type Own = { limits?: Partial<Record<LimitId, Limit>>; schools?: Partial<Schools> }
const shipped = (id: string, name: string, own: Own = {}): Regime => ({
  id,
  version: 4,
  name,
  limits: { ...limits, ...own.limits },
  schools: { ...schools, ...own.schools },
  changed: null,
})

/**
 * Version 1 knew only polarity, voltage and current; version 2 took a further 80 % of the two thirds of IEC 60364-6 and
 * cited the national documents everywhere; version 3 gave IEC 62446-1 for a string against its model, though that standard
 * compares strings with each other. The other figures are the same.
 */
export const shippedRegimes: readonly Regime[] = [
  shipped('bs7671-a2', 'BS 7671:2018+A2 and IEC 62446-1'),
  shipped('bs7671-three-multiple', 'BS 7671 classic three-multiple', {
    schools: { 'rcd.sequence': 'three-multiples' },
  }),
  // As many small domestic roofs are tested: a string within 10 % of its plate, and the general rule for its insulation.
  shipped('domestic-fixed', 'BS 7671:2018+A2, domestic PV practice, insulation at 500 V', {
    limits: { 'pv.expectation.measured': { value: 10, unit: 'pct', source: 'rating-plate' } },
    schools: { 'pv.insulation-voltage': 'fixed' },
  }),
  shipped('domestic-twice', 'BS 7671:2018+A2, domestic PV practice, insulation at twice the working voltage', {
    limits: { 'pv.expectation.measured': { value: 10, unit: 'pct', source: 'rating-plate' } },
    schools: { 'pv.insulation-voltage': 'twice' },
  }),
  // U0/Ia is the limit; two thirds of it hold the warming of the conductors, and above them a reading is close.
  shipped('iec60364-6', 'IEC 60364-6 and IEC 62446-1', {
    limits: {
      'ac.voltage-factor': { value: 1, unit: 'one', source: 'iec-60364-6-zs' },
      'point.lost-pen': { value: 5, unit: 's', source: 'point-practice' },
      'ac.supply-low': { value: 10, unit: 'pct', source: 'supply-voltage' },
      'ac.cold-share': { value: 200 / 3, unit: 'pct', source: 'iec-60364-6-zs' },
      'earth.touch-voltage': { value: 50, unit: 'V', source: 'iec-60364-4-electrode' },
      'earth.unstable': { value: 200, unit: 'ohm', source: 'electrode-practice' },
    },
    schools: { 'earth.probe': 'halfway', cites: 'international' },
  }),
]

export const defaultRegime: Regime = shippedRegimes[0]!

/**
 * A regime as it was once stored. A shipped version from before a test existed says nothing of it: what that test needs is
 * filled in from what ships, and everything that it does say stays. A company's copy is left as the company made it: what
 * it lacks is for a supervisor to say. Schools that came later are as everybody worked before.
 *
 * @throws ZodError where it is no regime at all.
 */
export function regimeFrom(stored: unknown): Regime {
  const old = stored as Partial<Regime>
  const isCopy = old.changed !== null && old.changed !== undefined
  return regimeSchema.parse({
    ...old,
    limits: isCopy ? old.limits : { ...limits, ...old.limits },
    schools: { ...schools, ...old.schools },
    changed: old.changed ?? null,
  })
}
