/**
 * The architecture's numbers, each against something else in the same run, so that a slow machine does not look like a
 * slow program. Nothing here passes or fails. Run: npm run bench, or some chapters of it: npm run bench -- curves
 */
import { curveBench } from './curve'
import { curveCausesBench } from './curveCauses'
import { curveFitBench } from './curveFit'
import { evaluateBench } from './evaluate'
import { fitBench } from './fit'
import { lawsBench } from './laws'
import { sealBench } from './seal'
import { printBench } from './print'

export type Row = { what: string; reach: string; figure: string; against: string }

const chapters: Record<string, () => Row[] | Promise<Row[]>> = {
  evaluate: evaluateBench,
  fit: fitBench,
  curves: () => [...curveBench(), ...curveFitBench(), ...curveCausesBench()],
  seal: sealBench,
  print: printBench,
  laws: lawsBench,
}
/** Chapters named behind the command, or all of them. */
const wanted = process.argv.slice(2)
const rows: Row[] = []
for (const [name, work] of Object.entries(chapters))
  if (wanted.length === 0 || wanted.includes(name)) rows.push(...(await work()))
const wide = (key: keyof Row): number => Math.max(key.length, ...rows.map((row) => row[key].length))
const line = (row: Row): string =>
  (['what', 'reach', 'figure', 'against'] as const).map((key) => row[key].padEnd(wide(key))).join('  ')
console.log(line({ what: 'what', reach: 'reach', figure: 'figure', against: 'against, in the same run' }))
for (const row of rows) console.log(line(row))
