import '@/words/everyTest'
import { colours } from '@/look/tokens'
import { describe, expect, it } from 'vitest'
import { evaluate, picturesOf } from '@/core/evaluate'
import { stepKey } from '@/core/evaluation/types'
import { readValueOf } from '@/core/quantity/readValue'
import type { SlotValue } from '@/core/record/entry'
import { defaultRegime, shippedRegimes } from '@/core/regime/shipped'
import type {
  Picture,
  SpikesPicture as SpikesData,
  TimesPicture,
  TrendPicture as TrendData,
} from '@/core/steps/picture'
import { exampleChargePoint, exampleElectrode, exampleModel, exampleRcd } from '@/core/steps/worked'
import { FactsBuilder, testId } from '@/core/testing/factsBuilder'
import { choose, Installation } from '@/core/testing/installation'
import { init } from '../chart/echarts'
import type { ChartOption } from '../chart/echarts'
import { spikesFigures, spikesMarks, spikesOption } from './spikesOption'
import { timesFigures, timesMarks, timesOption } from './timesOption'
import { changeText } from '@/report/drawing/trend'
import { trendFigures, trendMarks, trendOption } from './trendOption'

const classic = shippedRegimes.find((one) => one.id === 'bs7671-three-multiple')!
const build = new FactsBuilder()
const rcd = build.part(exampleRcd)
const electrode = build.part(exampleElectrode)

function picture(step: string, partId: string, slots: Record<string, SlotValue>, regime = defaultRegime): Picture {
  const facts = { ...build.facts(), regime }
  const evaluation = evaluate(facts, 0)
  return picturesOf(evaluation, evaluation.byKey.get(stepKey(step, partId))!, { slots })[0]!
}
const palette = colours.day
const plain = (text: string): string => text.replaceAll('\u00a0', ' ')
/** As the chart library draws it. */
function drawnBy(option: ChartOption): string {
  const chart = init(null, null, { renderer: 'svg', ssr: true, width: 360, height: 230 })
  chart.setOption(option)
  return plain(chart.renderToSVGString())
}
const charted = (data: Picture, tag = 'RCD1'): string => drawnBy(timesOption(data as TimesPicture, tag, palette))
const ms = (value: number): SlotValue => readValueOf(value, 'ms', 1)

describe('the picture of trips', () => {
  const slots = {
    'half-0': { ...ms(1999), text: '>1999', bound: 'more-than' as const },
    'once-180': ms(310),
    'five-0': ms(12),
  }

  it('has a lane a multiple with its limits, and each trip by its own verdict', () => {
    expect(picture('rcd-trips', rcd, slots, classic)).toEqual({
      kind: 'times',
      limits: [
        { multiple: 0.5, current_mA: 15, least_ms: 2000, most_ms: null },
        { multiple: 1, current_mA: 30, least_ms: null, most_ms: 300 },
        { multiple: 5, current_mA: 150, least_ms: null, most_ms: 40 },
      ],
      trips: [
        { multiple: 0.5, angle_deg: 0, time_ms: 1999, isBound: true, verdict: 'within' },
        { multiple: 1, angle_deg: 180, time_ms: 310, isBound: false, verdict: 'outside' },
        { multiple: 5, angle_deg: 0, time_ms: 12, isBound: false, verdict: 'within' },
      ],
      beside: [],
    })
  })

  it('is drawn with words, and one lane where one trip is asked', () => {
    const three = charted(picture('rcd-trips', rcd, slots, classic))
    for (const words of ['½ IΔn', '5 IΔn', '15 mA, no trip', '0°', '180°']) expect(three).toContain(words)
    expect(charted(picture('rcd-trips', rcd, {}))).not.toContain('5 IΔn')
  })

  it('tells each trip in words, in the order of the arrow keys', () => {
    const marks = timesMarks(picture('rcd-trips', rcd, slots, classic) as TimesPicture, 'RCD1')
    expect(marks.map((one) => plain(one.says))).toEqual([
      'RCD1, ½ IΔn, 0°: >1999 ms, Within',
      'RCD1, IΔn, 180°: 310.0 ms, Outside',
      'RCD1, 5 IΔn, 0°: 12.0 ms, Within',
    ])
    const { rows } = timesFigures(picture('rcd-trips', rcd, slots, classic) as TimesPicture, 'RCD1')
    expect(rows[1]!.map(plain)).toEqual(['RCD1', 'IΔn', '180°', '310.0 ms', 'Outside'])
  })
})

describe('the trips of twins', () => {
  const site = new Installation({ circuit: { rating_A: 40 } })
  const other = { ...exampleModel, id: testId(0xee) }
  const points = (['CP1', 'CP2', 'CP3'] as const).map((tag, k) =>
    site.build.part({ ...exampleChargePoint, tag, circuitId: site.circuit, ...(k === 2 ? { model: other } : {}) }),
  )
  const waves = { 'plug-waveform': choose('wave-ac') }
  const trip = (once: number) => ({ ...waves, 'once-0': ms(once), 'five-0': ms(12) })
  for (const [k, id] of points.entries()) site.take('point-trips', id, trip(20 + 10 * k))
  const evaluation = evaluate(site.facts, 0)
  const one = evaluation.byKey.get(stepKey('point-trips', points[0]!))!
  const [data] = picturesOf(evaluation, one, { slots: trip(24) }) as TimesPicture[]

  it('stand beside the own ones, those of another model do not', () => {
    expect(data!.trips.map((own) => own.time_ms)).toEqual([24, 12])
    expect(data!.beside.map(({ tag, trips }) => [tag, trips.map((own) => own.time_ms)])).toEqual([['CP2', [30, 12]]])
    expect(data!.limits.map((own) => own.multiple)).toEqual([0.5, 1, 5])
  })

  it('are named in the legend and told one by one', () => {
    const svg = charted(data!, 'CP1')
    expect(svg).toContain('CP1')
    expect(svg).toContain('CP2')
    expect(timesMarks(data!, 'CP1').map((own) => own.says.slice(0, 3))).toEqual(['CP1', 'CP1', 'CP2', 'CP2'])
  })
})

describe('the picture of spikes', () => {
  const three = {
    're-1': readValueOf(18.3, 'ohm', 1),
    're-2': readValueOf(17.7, 'ohm', 1),
    're-3': readValueOf(18.3, 'ohm', 1),
  }

  it('has the places of the school, in metres where the way was measured', () => {
    const data = picture('electrode', electrode, { ...three, 'spike-distance': readValueOf(40, 'm', 0) })
    expect(data).toMatchObject({ kind: 'spikes', distance_m: 40, mean_ohm: expect.closeTo(18.1, 9) })
    const { rows } = spikesFigures(data as SpikesData)
    expect(rows.map((row) => row.map(plain))).toEqual([
      ['24.8 m', '18.3 Ω'],
      ['20.8 m', '17.7 Ω'],
      ['28.8 m', '18.3 Ω'],
    ])
    expect(spikesMarks(data as SpikesData).map(({ says }) => plain(says))).toEqual([
      '24.8 m: 18.3 Ω',
      '20.8 m: 17.7 Ω',
      '28.8 m: 18.3 Ω',
    ])
    expect(drawnBy(spikesOption(data as SpikesData, palette))).toContain('40 m')
  })

  it('is there before anything is read, and says shares where nobody measured the way', () => {
    const data = picture('electrode', electrode, {})
    expect(data).toMatchObject({ distance_m: null, mean_ohm: null })
    expect(spikesFigures(data as SpikesData).rows.map((row) => row.map(plain))).toEqual([
      ['62 %', 'not read'],
      ['52 %', 'not read'],
      ['72 %', 'not read'],
    ])
    expect(spikesMarks(data as SpikesData)).toEqual([])
    expect(drawnBy(spikesOption(data as SpikesData, palette))).toContain('100 %')
  })
})

describe('the picture of a trend', () => {
  const day = (n: number): number => Date.UTC(2026, 0, 1) + n * 86_400_000
  const point = { verdict: 'within', note: 'soil-dry', alike: true, counts: false, count: null } as const
  const trend: TrendData = {
    kind: 'trend',
    change: null,
    unit: 'ohm',
    decimals: 1,
    limit: 500,
    points: [
      { ...point, at: day(0), value: 52.6 },
      { ...point, at: day(200), value: 96.3, verdict: 'close', note: 'soil-frozen', alike: false },
      { ...point, at: day(370), value: 49.6, counts: true },
    ],
  }

  it('tells how many rods were driven by then, and what the last of them brought', () => {
    const { points } = trend
    const rods: typeof trend = {
      ...trend,
      points: points.map((one, k) => ({ ...one, count: k + 1 })),
      change: { percent: -38.2, sinceAt: day(0), counts: [1, 2] },
    }
    expect(plain(trendMarks(rods, 'Europe/London')[1]!.says)).toContain('2 rods')
    expect(plain(changeText(rods.change!, 'Europe/London'))).toBe('−38 % from 1 rod to 2 rods')
    expect(plain(changeText({ ...rods.change!, counts: [2, 2] }, 'Europe/London'))).toBe('−38 % since 1 Jan 26')
  })

  it('tells each reading with its day, how it stands, and what was noted', () => {
    expect(trendMarks(trend, 'Europe/London').map(({ says }) => plain(says))).toEqual([
      '1 Jan 2026: 52.6 Ω, Within, Dry',
      '20 Jul 2026: 96.3 Ω, Close to limit, Frozen, set up another way',
      '6 Jan 2027: 49.6 Ω, Within, Dry',
    ])
    expect(trendFigures(trend, 'Europe/London').rows[1]!.map(plain)).toEqual([
      '20 Jul 2026',
      '96.3 Ω',
      'Close to limit',
      'Frozen, set up another way',
    ])
  })

  it('joins those that were set up alike, and draws a limit that is near', () => {
    const lines = (limit: number): unknown[] =>
      (trendOption({ ...trend, limit }, 'Europe/London', palette).series as { type: string; data: unknown[] }[])
        .filter(({ type }) => type === 'line')
        .map(({ data }) => data)
    expect(lines(500)).toEqual([
      [
        [day(0), 52.6],
        [day(370), 49.6],
      ],
    ])
    expect(lines(120)[1]).toEqual([
      [day(0), 120],
      [day(370), 120],
    ])
    expect(drawnBy(trendOption(trend, 'Europe/London', palette))).toContain('96.3')
  })
})
