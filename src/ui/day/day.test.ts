import { describe, expect, it } from 'vitest'
import { dayPlan, planesOf, type Shift } from '@/core/evaluation/dayPlan'
import { piecesOf } from '@/core/evaluation/dayWork'
import { lightBetween } from '@/core/evaluation/sunOfDay'
import { walkOf } from '@/core/evaluation/walk'
import { evaluate } from '@/core/evaluate'
import { readStepById } from '@/core/steps'
import { FactsBuilder } from '@/core/testing/factsBuilder'
import { colours } from '@/look/tokens'
import '@/words/day'
import { init } from '../chart/echarts'
import { type DayDrawn, dayHeight, dayMarks, dayOption, hoursOf, measuredText } from './dayOption'
import { leftText, partsText, planeText, workName } from './dayWords'
import { shiftAt, shiftOn, timeAt, wholeDay } from './shift'

const LONDON = 'Europe/London'
const plain = (text: string): string => text.replaceAll('\u00a0', ' ')

describe('the shift of a day', () => {
  const now = (clock: string): number => timeAt('2026-07-06', clock, LONDON)

  it('is today from the next quarter on, from eight before that, and tomorrow in the evening', () => {
    expect(shiftAt(now('10:07'), LONDON)).toEqual({ day: '2026-07-06', from: '10:15', to: '17:00' })
    expect(shiftAt(now('06:00'), LONDON)).toEqual({ day: '2026-07-06', from: '08:00', to: '17:00' })
    expect(shiftAt(now('19:30'), LONDON)).toEqual({ day: '2026-07-07', from: '08:00', to: '17:00' })
    expect(shiftOn('2026-07-06', now('10:07'), LONDON).from).toBe('10:15')
    expect(shiftOn('2026-07-09', now('10:07'), LONDON).from).toBe('08:00')
  })

  it('is reckoned in the time of the site, also where a day has 23 hours', () => {
    expect(timeAt('2026-07-06', '08:00', LONDON)).toBe(Date.parse('2026-07-06T07:00:00Z'))
    expect(timeAt('2026-01-06', '08:00', 'America/New_York')).toBe(Date.parse('2026-01-06T13:00:00Z'))
    const spring = wholeDay('2026-03-29', LONDON)
    expect((spring.to - spring.from) / 3_600_000).toBe(23)
  })
})

describe('a day drawn', () => {
  const build = new FactsBuilder()
  const roof = build.part({ kind: 'array', tag: 'South', tilt_deg: 35, azimuth_deg: 180, mounting: 'open-rack' })
  const [first] = [build.string('1'), build.string('2')]
  const voc = readStepById('pv-voc')!.example.reading!
  build.reading('pv-voc', first, voc)
  const evaluation = evaluate(build.facts(), 0)
  const whole = wholeDay('2026-05-14', LONDON)
  const shift: Shift = { from: whole.from + 8 * 3_600_000, to: whole.from + 9 * 3_600_000, people: 1, sky: 'clear' }
  const planes = planesOf(evaluation.plant, { latitude_deg: 52, longitude_deg: 0 }, whole, 400)
  const plan = dayPlan(piecesOf(walkOf(evaluation, 'by-test'), evaluation.plant), planes, shift)
  const drawn: DayDrawn = {
    planes,
    plan,
    shift,
    least_Wm2: 400,
    measured: lightBetween(evaluation, whole.from, whole.to),
  }

  it('names work, parts and planes as people do', () => {
    const { piece, units } = plan.stretches.find((one) => one.piece.step?.id === 'pv-polarity')!
    expect(workName(piece)).toBe('B4 Polarity')
    expect(partsText(piece, units)).toBe('string 1 to 2, 2 in all')
    expect(plain(planeText(planes[0]!, 400, LONDON))).toMatch(
      /^South: \d\d:\d\d to \d\d:\d\d under a clear sky; most \d+ W\/m² at 1[23]:\d\d\.$/,
    )
    expect(plain(planeText({ ...planes[0]!, windows: [] }, 400, LONDON))).toContain('never 400 W/m² on this day')
    const night = planes[0]!.points.map((one) => ({ ...one, elevation_deg: -4 }))
    expect(planeText({ ...planes[0]!, points: night }, 400, LONDON)).toContain('does not rise')
    expect(plan.left.map(leftText)).toContain('no time in this shift')
  })

  it('has what was read today at its moment, in its plane', () => {
    expect(drawn.measured).toHaveLength(1)
    expect(plain(measuredText({ ...drawn.measured[0]!, arrayId: roof }, planes, LONDON))).toMatch(
      /^\d\d:\d\d: \d+ W\/m² read in South at Voltage 1$/,
    )
  })

  it('is told mark by mark, window and work, and drawn over the hours that it takes', () => {
    const says = dayMarks(drawn, LONDON).map((mark) => mark.says)
    expect(says[0]).toMatch(/^South: enough light from/)
    expect(says).toHaveLength(1 + plan.stretches.length)
    expect(says[1]).toMatch(/^08:00 to 08:\d\d, First: /)
    const { from, to } = hoursOf(drawn)
    expect(from).toBeLessThan(shift.from)
    expect(to).toBeGreaterThan(shift.to)
    const chart = init(null, null, { renderer: 'svg', ssr: true, width: 700, height: dayHeight(drawn) })
    chart.setOption(dayOption(drawn, LONDON, colours.day))
    const svg = chart.renderToSVGString()
    for (const words of ['W/m²', 'South', 'light South', 'First', ':00']) expect(plain(svg)).toContain(words)
  })

  it('without planes has only who does what', () => {
    const bare: DayDrawn = {
      ...drawn,
      planes: [],
      plan: dayPlan(piecesOf(walkOf(evaluation, 'by-test'), evaluation.plant), [], shift),
    }
    const chart = init(null, null, { renderer: 'svg', ssr: true, width: 700, height: dayHeight(bare) })
    chart.setOption(dayOption(bare, LONDON, colours.day))
    const svg = chart.renderToSVGString()
    expect(svg).toContain('First')
    expect(svg).not.toContain('W/m²')
    expect(dayHeight(bare)).toBeLessThan(dayHeight(drawn))
  })
})
