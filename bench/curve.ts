import type { CellGroup } from '@/core/curve/cellGroup'
import { type CurveModule, ParallelStrings } from '@/core/curve/stringCurve'
import { time, written } from './measure'
import type { Row } from './run'

const POINTS = 500
const MODULES = 20

const group = (light: number): CellGroup => ({
  photocurrent_A: 10.4 * light,
  saturationCurrent_A: 2.9e-10,
  modifiedIdeality_V: 0.55,
  seriesResistance_ohm: 0.08,
  shuntResistance_ohm: 120,
  bypass: { kind: 'diode', saturationCurrent_A: 2e-7, slope_V: 0.03 },
})
const modules = (lightOf: (n: number) => number): CurveModule[] =>
  Array.from({ length: MODULES }, (_, m) => ({
    reversed: false,
    groups: [0, 1, 2].map((g) => group(lightOf(3 * m + g))),
  }))

const strings: readonly { what: string; reach: string; modules: CurveModule[] }[] = [
  {
    what: '60 cell groups, 3 shaded',
    reach: 'under 0.6 ms',
    modules: modules((n) => (n % 20 === 7 ? 0.4 : 1)),
  },
  { what: '60 cell groups, all different', reach: 'under 8 ms', modules: modules((n) => 1 - 0.008 * n) },
]

/** A string's curve at 500 voltages in a row, against each voltage by itself. */
export function curveBench(): Row[] {
  return strings.map(({ what, reach, modules: of }) => {
    const string = { seriesResistance_ohm: 0.5, modules: of }
    const { voc_V } = new ParallelStrings([string]).features()
    const voltages = Array.from({ length: POINTS }, (_, k) => (k * voc_V) / (POINTS - 1))
    const inARow = time(
      () => {
        const array = new ParallelStrings([string])
        return voltages.map((voltage) => array.currentAt(voltage))
        // Warm first: what a page does again and again is compiled by then.
      },
      101,
      60,
    )
    const alone = time(() => voltages.map((voltage) => new ParallelStrings([string]).currentAt(voltage)), 7)
    return {
      what: `curve of ${MODULES} modules, ${what}, ${POINTS} points`,
      reach,
      figure: written(inARow),
      against: `each voltage by itself: ${written(alone)}`,
    }
  })
}
