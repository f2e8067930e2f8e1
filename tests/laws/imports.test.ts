import { describe, expect, it } from 'vitest'
import { curvesAsCsv, curvesAsJson, curvesOf, curvesOfJson, readCurveTable } from '@/core/curve/curveFile'
import { parseReading } from '@/core/quantity/parseReading'
import { type Unit, units } from '@/core/quantity/unit'
import { readLogger } from '@/core/record/loggerFile'
import { isBareJpeg } from '@/server/attachments/bareJpeg'
import { readDataSheets } from '@/ui/plant/dataSheetCsv'
import { readBlock } from '@/ui/schedule/block'
import { Dice, mutatedText } from '../support/fuzz'

/** Files and pasted texts that were good once. `UPSTAND_TEST_RUNS` reads more than the few of every run. */
const RUNS = Number(process.env.UPSTAND_TEST_RUNS ?? 400)
const LONGEST_ms = 3_600_000

const curve = {
  tag: '1',
  at: '2026-06-01T10:00:00.000Z',
  irradiance_Wm2: 800,
  cellTemperature_C: 40,
  points: Array.from({ length: 30 }, (_, k) => [k * 10, 8 * (1 - (k / 30) ** 8)] as [number, number]),
}
const sheets = `Make;Type;Pmax (W);Voc (V);Isc (A);Vmp (V);Imp (A);Alpha (%/K);Beta (%/K);Gamma (%/K);Cells
Hazel;HZ 400;400;37,2;13,8;31,1;12,9;0,05;-0,27;-0,35;54
Hazel;HZ 410;410;37.4;13.9;31.3;13.1;0.05;-0.27;-0.35;54`
const logger = `time,irradiance,module temperature
2026-06-01 10:00:00,801,41.2
2026-06-01 10:00:10,803,41.3
01.06.2026 10:00:20;799,5;41,1`
const block = '0.42\t>999\n0,43\t500\n1.2e3\t<0.01'

type Import = { name: string; good: string; read(text: string): unknown }
const imports: readonly Import[] = [
  { name: 'a table of curves', good: curvesAsCsv([curve as never]), read: tableOfCurves },
  { name: 'curves as JSON', good: curvesAsJson([curve as never]), read: curvesOfJson },
  { name: 'a table of data sheets', good: sheets, read: readDataSheets },
  { name: 'a logger’s record', good: logger, read: (text) => readLogger(text, 'Europe/London') },
  { name: 'a pasted block', good: block, read: (text) => readBlock(text, { columns: 4, rows: 9 }) },
]

function tableOfCurves(text: string): unknown {
  const read = readCurveTable(text)
  return typeof read === 'string' ? read : curvesOf(text, read.columns)
}

/** No figure that is none: what cannot be read is left out or refused. */
function refuseNoNumbers(value: unknown, seed: string): void {
  if (typeof value === 'number') expect(Number.isFinite(value), seed).toBe(true)
  else if (Array.isArray(value)) for (const one of value) refuseNoNumbers(one, seed)
  else if (value && typeof value === 'object') for (const one of Object.values(value)) refuseNoNumbers(one, seed)
}

describe('an import', () => {
  it.each(imports)('of $name is taken before it is changed', ({ good, read }) => {
    const taken = JSON.stringify(read(good))
    expect(taken).not.toMatch(/refused|curve-file/)
    expect(taken).toMatch(/37.2|803|8,|999/)
  })

  it.each(imports)(
    `of $name that was changed is read or refused, ${RUNS} times`,
    ({ good, read }) => {
      for (let seed = 0; seed < RUNS; seed++) {
        const dice = new Dice(seed)
        let text = good
        for (let n = 1 + dice.below(4); n > 0; n--) text = mutatedText(text, dice)
        refuseNoNumbers(read(text), `seed ${seed}: ${JSON.stringify(text.slice(0, 500))}`)
      }
    },
    LONGEST_ms,
  )

  it(
    `of a reading that was changed is a figure or a refusal, ${RUNS} times`,
    () => {
      for (let seed = 0; seed < RUNS; seed++) {
        const dice = new Dice(seed)
        const text = mutatedText(dice.one(['12.30', '>999', '<0,01', '-4.5', '1,234', '1.2e3', ' 7 ']), dice)
        for (const unit of Object.keys(units) as Unit[])
          refuseNoNumbers(parseReading(text, unit), `seed ${seed}: ${JSON.stringify(text)}`)
      }
    },
    LONGEST_ms,
  )

  it(`of a picture with bytes changed is a picture or none, ${RUNS} times`, () => {
    const good = Uint8Array.from([0xff, 0xd8, 0xff, 0xdb, 0, 5, 1, 2, 3, 0xff, 0xda, 0, 3, 1, 9, 9, 0xff, 0xd9])
    for (let seed = 0; seed < RUNS; seed++) {
      const dice = new Dice(seed)
      const bytes = good.slice(0, dice.below(good.length + 1))
      for (let n = dice.below(4); n > 0 && bytes.length > 0; n--) bytes[dice.below(bytes.length)] = dice.below(256)
      expect(typeof isBareJpeg(bytes)).toBe('boolean')
    }
  })
})
