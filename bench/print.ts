import { certificateOf } from '@/report/certificate'
import { certificatePdf } from '@/server/report/pdf'
import { manyStrings } from './facts'
import { time, timeAsync, written } from './measure'
import type { Row } from './run'

/** The certificate of many strings, drawn, against computing what it says. */
export async function printBench(): Promise<Row[]> {
  const rows: Row[] = []
  for (const [strings, reach] of [
    [40, ''],
    [500, 'under 10 s with curves'],
  ] as const) {
    const facts = manyStrings(strings)
    const sections = time(() => certificateOf(facts, 0, null), 3, 1)
    const certificate = certificateOf(facts, 0, null)
    const drawn = await timeAsync(() => certificatePdf(certificate, null), 1, 0)
    const peak_MB = process.resourceUsage().maxRSS / 1024
    rows.push({
      what: `certificate of ${strings} strings as PDF`,
      reach,
      figure: `${written(drawn)}, peak ${peak_MB.toFixed(0)} MB`,
      against: `computing its sections: ${written(sections)}`,
    })
  }
  return rows
}
