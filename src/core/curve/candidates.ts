/** Causes that are tried on a curve: what they do to the cell groups of a string, and which figures they leave free. */
import type { CellGroup } from './cellGroup'
import type { CurveFeatures } from './features'
import { GROUPS_PER_MODULE, referenceOf } from './reference'
import type { Counted } from './stringCurve'
import type { CurveQuestion } from './question'

export const curveCauses = [
  'sound',
  'shade',
  'shade-two-levels',
  'groups-bypassed',
  'modules-missing',
  'module-reversed',
  'soiling',
  'wrong-light',
  'series-resistance',
  'shunt',
  'hot-cells',
  'rounder-knee',
  'other-type',
  'parallel-mismatch',
] as const
export type CurveCause = (typeof curveCauses)[number]

/** Logarithms of factors on the light, series resistance, shunt conductance and ideality; kelvin; ohm; shares of the light. */
export type State = {
  lnLight: number
  warmer_K: number
  lnSeries: number
  lnShunt: number
  lnIdeality: number
  joint_ohm: number
  shade: number
  shade2: number
}

export type Candidate = {
  id: CurveCause
  start: Partial<State>
  /** Figures that it leaves free, whatever is known of them otherwise. */
  free: readonly (keyof State)[]
  bounds?: Partial<Record<keyof State, [number, number]>>
  believed?: Partial<Record<keyof State, { about: number; spread: number }>>
  /** Further figures that it needs, a count among them. */
  price: number
  groups(sound: CellGroup, all: number, state: State): Counted[]
  /** One of several strings in parallel that is not like the others. */
  oddString?(sound: CellGroup, all: number): Counted[]
  figures(state: State): Record<string, number>
}

const lit = (group: CellGroup, share: number): CellGroup => ({
  ...group,
  photocurrent_A: group.photocurrent_A * share,
  // A shunt that goes with the light grows as it fails.
  shuntResistance_ohm: group.shuntResistance_ohm / Math.max(share, 0.05),
})
const SHORT: CellGroup['bypass'] = { kind: 'short', resistance_ohm: 1e-3 }
const alike = (sound: CellGroup, all: number): Counted[] => [{ count: all, group: sound }]

/** Groups that counts are tried near: the estimate and its neighbours. */
const near = (estimate: number, most: number, reach: number): number[] =>
  Array.from({ length: 2 * reach + 1 }, (_, k) => Math.round(estimate) - reach + k).filter((k) => k >= 1 && k <= most)

/** Everything that is tried on a curve. */
export function candidatesFor(question: CurveQuestion, features: CurveFeatures): Candidate[] {
  const all = question.modulesInSeries * GROUPS_PER_MODULE
  const { parameters, module, modulesInSeries, irradiance_Wm2, cellTemperature_C } = question
  const one = referenceOf(parameters, module, modulesInSeries, irradiance_Wm2, cellTemperature_C)
  const strings = question.stringsInParallel ?? 1
  const reference = { ...one, isc_A: strings * one.isc_A, imp_A: strings * one.imp_A, pmax_W: strings * one.pmax_W }
  return [
    plain('sound', [], 0, () => ({})),
    ...shades(features, all),
    ...bypassed(features.voc_V / reference.voc_V, all),
    ...reversedModules(features.voc_V / reference.voc_V, modulesInSeries),
    ...light(features.isc_A / reference.isc_A),
    ...resistances(reference, features),
    ...wholeModules(),
    ...oddStrings(strings, modulesInSeries),
  ]
}

function plain(
  id: CurveCause,
  free: readonly (keyof State)[],
  price: number,
  figures: Candidate['figures'],
  rest: Partial<Candidate> = {},
): Candidate {
  return { id, free, price, figures, start: {}, groups: alike, ...rest }
}

/** Half of a string's groups at most: beyond that it is the others that stand out. */
function shades({ steps, isc_A }: CurveFeatures, all: number): Candidate[] {
  const [first, second] = steps
  const most = Math.floor(all / 2)
  const one = (count: number, share: number): Candidate => ({
    id: 'shade',
    start: { shade: share },
    free: ['shade'],
    price: 2,
    groups: (sound, of, { shade }) => [
      { count: of - count, group: sound },
      { count, group: lit(sound, shade) },
    ],
    figures: ({ shade }) => ({ count, light_pct: 100 * shade }),
  })
  if (!first) return [1, 2, 4].flatMap((count) => (count <= most ? [one(count, 0.85), one(count, 0.3)] : []))
  const share = Math.min(0.97, Math.max(0.03, 1 - first.drop_A / isc_A))
  const estimate = (first.width_V / (first.voltage_V + first.width_V)) * all
  const found = near(estimate * 0.85, most, 2).map((count) => one(count, share))
  if (!second) return found
  const lower = Math.min(0.95, Math.max(0.02, share - second.drop_A / isc_A))
  const widths = [first.width_V, second.width_V].map(
    (width) => (width / (first.voltage_V + first.width_V + second.width_V)) * all,
  )
  for (const upper of near(widths[0]! * 0.85, most, 1))
    for (const deeper of near(widths[1]! * 0.85, most, 1)) found.push(twoLevels(upper, share, deeper, lower))
  return found
}

const twoLevels = (count: number, share: number, deeper: number, lower: number): Candidate => ({
  id: 'shade-two-levels',
  start: { shade: share, shade2: lower },
  free: ['shade', 'shade2'],
  price: 4,
  groups: (sound, all, { shade, shade2 }) => [
    { count: Math.max(0, all - count - deeper), group: sound },
    { count, group: lit(sound, shade) },
    { count: deeper, group: lit(sound, shade2) },
  ],
  figures: ({ shade, shade2 }) => ({ count, light_pct: 100 * shade, deeper, lower_pct: 100 * shade2 }),
})

/** What each further diode that must have failed costs, as a share of a free figure's price [D]. */
const EACH_DIODE = 0.6

function bypassed(voltageShare: number, all: number): Candidate[] {
  const estimate = Math.max(1, (1 - voltageShare) * all)
  return near(estimate, all - 1, 2).map((count) => {
    const whole = count % GROUPS_PER_MODULE === 0
    // A module left out is one slip; diodes fail one by one.
    return plain('groups-bypassed', [], whole ? 1 : 1 + EACH_DIODE * (count - 1), () => ({ count }), {
      id: whole ? 'modules-missing' : 'groups-bypassed',
      figures: (): Record<string, number> => (whole ? { count: count / GROUPS_PER_MODULE, groups: count } : { count }),
      groups: (sound, of) => [
        { count: of - count, group: sound },
        { count, group: { ...sound, bypass: SHORT } },
      ],
    })
  })
}

/** A module the wrong way round takes its own volts twice. */
function reversedModules(voltageShare: number, modules: number): Candidate[] {
  const estimate = Math.max(1, ((1 - voltageShare) * modules) / 2)
  return near(estimate, Math.floor((modules - 1) / 2), 1).map((count) =>
    plain('module-reversed', [], 1, () => ({ count }), {
      groups: (sound, of) => [
        { count: of - count * GROUPS_PER_MODULE, group: sound },
        { count: count * GROUPS_PER_MODULE, group: sound, reversed: true },
      ],
    }),
  )
}

/** Dirt takes light away; a sensor that is off may show less or more than there is. */
const light = (currentShare: number): Candidate[] => [
  plain('soiling', ['lnLight'], 1, ({ lnLight }) => ({ light_pct: 100 * Math.exp(lnLight) }), {
    start: { lnLight: Math.min(-0.02, Math.log(currentShare)) },
    bounds: { lnLight: [-3, 0] },
  }),
  plain('wrong-light', ['lnLight'], 1, ({ lnLight }) => ({ light_pct: 100 * Math.exp(lnLight) }), {
    start: { lnLight: Math.log(currentShare) },
  }),
]

function resistances(
  reference: { vmp_V: number; imp_A: number; pmax_W: number },
  features: CurveFeatures,
): Candidate[] {
  const lost_W = Math.max(0, reference.pmax_W - features.pmax_W)
  return [
    plain('series-resistance', ['joint_ohm'], 1, ({ joint_ohm }) => ({ ohm: joint_ohm }), {
      start: { joint_ohm: Math.max(0.1, lost_W / reference.imp_A ** 2) },
    }),
    plain('shunt', ['lnShunt'], 1, ({ lnShunt }) => ({ times: Math.exp(lnShunt) }), {
      start: { lnShunt: 2 },
      bounds: { lnShunt: [0, 7] },
    }),
  ]
}

const wholeModules = (): Candidate[] => [
  plain('hot-cells', ['warmer_K'], 1, ({ warmer_K }) => ({ warmer_K }), {
    start: { warmer_K: 10 },
    bounds: { warmer_K: [0, 60] },
    // Beyond some twenty kelvin no sensor is that wrong.
    believed: { warmer_K: { about: 0, spread: 10 } },
  }),
  plain(
    'rounder-knee',
    ['lnIdeality', 'lnSeries'],
    2,
    ({ lnIdeality, lnSeries }) => ({
      ideality_pct: 100 * (Math.exp(lnIdeality) - 1),
      series_pct: 100 * (Math.exp(lnSeries) - 1),
    }),
    { start: { lnIdeality: 0.1 }, bounds: { lnIdeality: [0, 0.8] }, believed: { lnSeries: { about: 0, spread: 0.6 } } },
  ),
  plain('other-type', ['lnLight', 'warmer_K'], 3, ({ lnLight, warmer_K }) => ({
    current_pct: 100 * Math.exp(lnLight),
    warmer_K,
  })),
]

/** The most modules that one of several strings in parallel is tried to be short by. */
const MOST_SHORT = 3

/** One of several strings in parallel is short by a few modules: its current comes back through the others. */
const oddStrings = (strings: number, modules: number): Candidate[] =>
  strings < 2
    ? []
    : Array.from({ length: Math.min(MOST_SHORT, modules - 1) }, (_, k) =>
        plain('parallel-mismatch', [], 1, () => ({ count: k + 1, strings }), {
          oddString: (sound, all) => [{ count: all - (k + 1) * GROUPS_PER_MODULE, group: sound }],
        }),
      )
