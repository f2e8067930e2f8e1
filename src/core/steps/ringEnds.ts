/**
 * The ends of a ring final circuit: line, neutral and protective conductor each read from end to end with nulled leads.
 * An open ring still feeds every socket, and overloads its cable. Source: BS 7671:2018 643.2 (from memory); how far they
 * may differ: a joint, house rule 9.
 */
import { conductor_mohmPerM } from '../circuit/conductors'
import { ringDifference, ringR1r2_ohm } from '../circuit/ring'
import type { CircuitData } from '../plant/part'
import { readValueOf } from '../quantity/readValue'
import type { Body } from '../record/entry'
import type { WorkingLine } from '../verdict/working'
import { deadGate, judgeMeasured, notYet, nulledGate, numberSlot, saying } from './acShared'
import { plain } from './checks'
import { leadSetSlot } from './leadSetSlot'
import type { NumberSlot, Step, StepContext } from './step'
import { numberIn } from './stringReading'
import { exampleCircuit } from './worked'

type Context = StepContext<'circuit'>
type Reading = Pick<Body<'reading'>, 'slots'>

const endSlots: readonly NumberSlot[] = ['ring-r1', 'ring-rn', 'ring-r2'].map((id) =>
  numberSlot(id, 'continuity', 'ohm', 2),
)

/** The three readings, null until all are there. */
export function ringEndsIn(reading: Reading) {
  const [line, neutral, protective] = endSlots.map(({ id }) => numberIn(reading, id))
  return line && neutral && protective ? { line, neutral, protective } : null
}

const areaRatio = ({ line_mm2, protective_mm2 }: CircuitData): number | null =>
  line_mm2 === null || protective_mm2 === null ? null : line_mm2 / protective_mm2

/** What the line should read from end to end, by its length and area; null where they are not entered. */
function lineOf({ line_mm2, length_m }: CircuitData): number | null {
  const each = line_mm2 === null ? null : conductor_mohmPerM(line_mm2)
  return each === null || length_m === null ? null : (each * length_m) / 1000
}

function differenceOf({ part }: Context, reading: Reading) {
  const ends = ringEndsIn(reading)
  if (!ends) return null
  const { line, neutral, protective } = ends
  const read = { line_ohm: line.value, neutral_ohm: neutral.value, protective_ohm: protective.value }
  return { ends, read, ...ringDifference(read, areaRatio(part.data)) }
}

export const ringEnds: Step<'circuit'> = {
  id: 'ring-ends',
  order: 'C2',
  appliesTo: 'circuit',
  of: ({ data }) => data.layout === 'ring',
  station: 'board',
  tag: 'dead',
  slots: [...endSlots, leadSetSlot],
  stands: 'highest',
  nulled: true,
  needsConditions: false,
  counts: 'latest',
  gates: [deadGate, nulledGate],
  cautions: [
    { id: 'dead-before-touch', hard: true },
    { id: 'null-belongs-to-leads', hard: false },
  ],
  hookup: {
    drawing: 'ring-ends',
    leads: [
      { balloon: 1, code: 'both-ends-out' },
      { balloon: 2, code: 'end-to-end' },
    ],
  },
  minutes: 4,
  sources: ['bs7671-continuity', 'iec-60228', 'house-joint'],
  inputs: ({ data }) => JSON.stringify([data.line_mm2, data.protective_mm2, data.length_m]),
  expect: ({ part }) => {
    const value = lineOf(part.data)
    return value === null ? null : { value, uncertainty: 0 }
  },
  judge(context, reading) {
    const found = differenceOf(context, reading)
    const { tag } = context.part.data
    if (!found) return notYet('ring-ends.no-reading', context)
    const { line, neutral, protective } = found.ends
    const open = [line, neutral, protective].find((one) => one.bound === 'more-than')
    if (open) return plain('outside', { code: 'ring-ends.open', figures: { tag, read: open.text } })
    const most = context.regime.limits['ac.joint']
    const judged = judgeMeasured(context, {
      step: 'ring-ends',
      read: readValueOf(found.difference_ohm, 'ohm', 3),
      reading,
      unit: 'ohm',
      band: { low: null, high: most.value, closeLow: null, closeHigh: null },
      source: most.source,
      limit: { id: 'ac.joint', value: most.value },
      figures: {
        line: line.text,
        other: (found.of === 'neutral' ? neutral : protective).text,
        expected: found.expected_ohm,
      },
    })
    return judged.verdict === 'outside' ? saying(judged, `ring-ends.${found.of}-differs`) : judged
  },
  working(context, reading): WorkingLine[] {
    const expected = lineOf(context.part.data)
    const ratio = areaRatio(context.part.data)
    const found = differenceOf(context, reading)
    const { line_mm2, length_m } = context.part.data
    const lines: WorkingLine[] = []
    if (expected !== null)
      lines.push({
        code: 'ring-ends.line',
        figures: { each: conductor_mohmPerM(line_mm2!)!, length_m: length_m! },
        result: { value: expected, unit: 'ohm', decimals: 3 },
        source: 'iec-60228',
      })
    if (!found) return lines
    if (ratio !== null)
      lines.push({
        code: 'ring-ends.protective',
        figures: { line: found.ends.line.text, ratio },
        result: { value: found.read.line_ohm * ratio, unit: 'ohm', decimals: 3 },
        source: 'bs7671-continuity',
      })
    lines.push(
      {
        code: 'ring-ends.apart',
        figures: { most: context.regime.limits['ac.joint'].value },
        result: { value: found.difference_ohm, unit: 'ohm', decimals: 3 },
        source: 'house-joint',
        decides: true,
      },
      {
        code: 'ring-ends.quarter',
        figures: { line: found.ends.line.text, protective: found.ends.protective.text },
        result: { value: ringR1r2_ohm(found.read), unit: 'ohm', decimals: 3 },
        source: 'bs7671-continuity',
      },
    )
    return lines
  },
  causes(context, _, judgement) {
    if (judgement.verdict !== 'outside') return []
    const figures = { tag: context.part.data.tag }
    const isOpen = judgement.finding.code === 'ring-ends.open'
    return [
      {
        code: isOpen ? 'ring-open' : 'loose-terminal',
        figures,
        fit: isOpen ? 'fits' : 'may-fit',
        predicted: null,
        next: { code: 'halve-the-circuit', figures },
      },
      { code: 'ring-crossed', figures, fit: 'may-fit', predicted: null, next: { code: 'sort-the-ends', figures } },
    ]
  },
  example: {
    source:
      'IEC 60228 (from memory): 54 m of 2.5 mm2 is 0.40 ohm, of 1.5 mm2 0.65 ohm; joints of 0.05 ohm: house rule 9',
    part: { ...exampleCircuit, layout: 'ring', length_m: 54 },
    reading: {
      slots: {
        'ring-r1': readValueOf(0.4, 'ohm', 2),
        'ring-rn': readValueOf(0.41, 'ohm', 2),
        'ring-r2': readValueOf(0.66, 'ohm', 2),
      },
      conditions: null,
    },
    verdict: 'within',
  },
}
