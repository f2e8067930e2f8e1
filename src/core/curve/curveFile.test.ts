import { describe, expect, it } from 'vitest'
import {
  type CurveFileRefusal,
  curvesAsCsv,
  curvesAsJson,
  curvesOf,
  curvesOfJson,
  readCurveTable,
  type CurveTable,
} from './curveFile'
import { curveOf, MOST_POINTS_KEPT } from './curveValue'
import { featuresOf } from './features'
import type { CurvePoint } from './points'

const points: CurvePoint[] = [
  [0, 9.6],
  [100, 9.55],
  [200, 9.5],
  [300, 8.9],
  [340, 6.2],
  [380, 0.05],
]
const lines = (by: string, of: CurvePoint[] = points, write: (value: number) => string = String): string =>
  of.map(([voltage, current]) => [voltage, current].map(write).join(by)).join('\n')
const read = (text: string): CurveTable => {
  const table = readCurveTable(text)
  if (typeof table === 'string') throw new Error(table)
  return table
}
const curves = (text: string) => curvesOf(text, read(text).columns)

describe('a file of curves', () => {
  const comma = (value: number): string => String(value).replace('.', ',')
  it.each([
    ['commas', `Voltage (V),Current (A)\n${lines(',')}`],
    ['semicolons', `Voltage (V);Current (A)\n${lines(';')}`],
    ['tabs, as a spreadsheet pastes', `U [V]\tI [A]\n${lines('\t')}`],
    ['a decimal comma', `Spannung [V];Strom [A]\n${lines(';', points, comma)}`],
    ['a byte order mark and Windows line ends', `\uFEFFV;I\r\n${lines(';').replaceAll('\n', '\r\n')}`],
    ['current first', `Current (A);Voltage (V)\n${points.map(([v, i]) => `${i};${v}`).join('\n')}`],
    [
      'milliamperes',
      `Voltage (V);Current (mA)\n${lines(
        ';',
        points.map(([v, i]) => [v, i * 1000]),
      )}`,
    ],
    [
      'kilovolts',
      `Voltage (kV);Current (A)\n${lines(
        ';',
        points.map(([v, i]) => [v / 1000, i]),
      )}`,
    ],
    ['a power column beside', `V,I,P\n${points.map(([v, i]) => `${v},${i},${v * i}`).join('\n')}`],
    ['no heads at all', lines(';')],
    ['spaces between', lines('   ')],
  ])('is read with %s', (_, text) => {
    const [one, second] = curves(text)
    expect(second).toBeUndefined()
    expect(one!.points).toHaveLength(points.length)
    one!.points.forEach(([voltage, current], k) => {
      expect(voltage).toBeCloseTo(points[k]![0], 9)
      expect(current).toBeCloseTo(points[k]![1], 9)
    })
  })

  it('tells what stands above the points: name, light and temperature', () => {
    const [one] = curves(`Tracer;A-1\nString;4\nIrradiance [W/m2];812\nTemperature [°C];46,2\n\nV;I\n${lines(';')}`)
    expect(one).toMatchObject({ name: '4', irradiance_Wm2: 812, temperature_C: 46.2 })
  })

  it('may hold several: by a column, one after another, or beside each other', () => {
    const byColumn = `Memory;V;I\n${points.map(([v, i]) => `1;${v};${i}`).join('\n')}\n${points.map(([v, i]) => `2;${v};${i / 2}`).join('\n')}`
    expect(curves(byColumn).map(({ name, points: of }) => [name, of.length, of[0]![1]])).toEqual([
      ['1', 6, 9.6],
      ['2', 6, 4.8],
    ])
    const after = `String;1\nV;I\n${lines(';')}\n\nString;2\nV;I\n${lines(';')}`
    expect(curves(after).map(({ name, points: of }) => [name, of.length])).toEqual([
      ['1', 6],
      ['2', 6],
    ])
    const beside = `V1 (V);I1 (A);V2 (V);I2 (A)\n${points.map(([v, i]) => `${v};${i};${v};${i / 3}`).join('\n')}`
    expect(curves(beside).map(({ points: of }) => of[0]![1])).toEqual([9.6, expect.closeTo(3.2, 9)])
  })

  it('in reversed order, with noise and double lines, is the same curve', () => {
    const [one] = curves(`V;I\n${lines(';', [...points, ...points].reverse())}`)
    const [plain] = curves(`V;I\n${lines(';')}`)
    expect(featuresOf(one!.points)).toEqual(featuresOf(plain!.points))
  })

  it('asks what a comma is where nobody can tell, and takes either answer', () => {
    const text = `V;I\n0;9,600\n100;9,550\n200;9,500\n300;8,900\n340;6,200\n380;0`
    const table = read(text)
    expect(table.asksComma).toBe(true)
    expect(curvesOf(text, { ...table.columns, comma: 'decimal' })[0]!.points[0]).toEqual([0, 9.6])
    expect(curvesOf(text, { ...table.columns, comma: 'thousands' })[0]!.points[0]).toEqual([0, 9600])
    expect(read(`V;I\n${lines(';', points, (v) => String(v).replace('.', ','))}`).asksComma).toBe(false)
  })

  it('says that it guesses where heads say nothing', () => {
    expect(read(lines(';')).isGuessed).toBe(true)
    expect(read(`V;I\n${lines(';')}`).isGuessed).toBe(false)
  })

  it.each([
    ['', 'curve-file-empty'],
    ['hello\nworld', 'curve-file-no-figures'],
    ['1\n2\n3\n4', 'curve-file-one-column'],
  ] as [string, CurveFileRefusal][])('%j is refused', (text, why) => {
    expect(readCurveTable(text)).toBe(why)
  })

  it('of a million points is thinned, ends and shape kept, and says so', () => {
    const many = Array.from({ length: 1_000_000 }, (_, k): CurvePoint => {
      const voltage = (400 * k) / 999_999
      return [voltage, Math.max(0, 10 * (1 - Math.exp((voltage - 400) / 18)))]
    })
    const kept = curveOf(many)
    expect(kept.voltages_V.length).toBeLessThanOrEqual(MOST_POINTS_KEPT)
    expect(kept.thinnedFrom).toBe(1_000_000)
    expect([kept.voltages_V[0], kept.voltages_V.at(-1)]).toEqual([0, 400])
    expect(curveOf(many.slice(0, 300)).thinnedFrom).toBeUndefined()
  })
})

describe('curves out again', () => {
  const out = [{ tag: '4', points, irradiance_Wm2: 812, cellTemperature_C: 46.2 }]
  it('are the same numbers as CSV and as JSON', () => {
    expect(curves(curvesAsCsv(out))[0]!.points).toEqual(points)
    expect(curves(curvesAsCsv(out))[0]!.name).toBe('4')
    expect(curvesOfJson(curvesAsJson(out))).toEqual([
      { name: '4', points, skipped: 0, irradiance_Wm2: 812, temperature_C: 46.2 },
    ])
  })

  it('are read from JSON of two lists as well, and anything else is none', () => {
    expect(curvesOfJson('{"voltages_V":[0,1],"currents_A":[2,0]}')![0]!.points).toEqual([
      [0, 2],
      [1, 0],
    ])
    for (const text of [
      '{}',
      '[]',
      'V;I',
      '{"points":[[1]]}',
      '{"points":[[1,"2"],[2,3]]}',
      '{"points":[[0,8],[1e999,0]]}',
      'null',
    ])
      expect(curvesOfJson(text), text).toBeNull()
  })
})
