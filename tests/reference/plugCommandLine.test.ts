import { describe, expect, it } from 'vitest'
import { calc } from '../support/calc'

/** The plug of a charge point on the command line, to the letter; each figure from the table named beside it. */
const answers = <T>(name: string, input: unknown) => calc(name, input).out as T

type Coded = { class: string; current_A: number | null }

describe('pilot', () => {
  /** IEC 61851-1:2017 tables A.7 and A.8 (from memory), written out anew as text: from, to, class, ampere a per cent, from. */
  const bands: readonly [number, number, string, (duty: number) => number | null][] = [
    [3, 7, 'digital', () => null],
    [10, 85, 'analogue', (duty) => (duty * 6) / 10],
    [85.5, 96, 'analogue', (duty) => ((duty - 64) * 25) / 10],
  ]
  const duties = Array.from({ length: 201 }, (_, k) => k / 2)

  it('codes every half per cent as the table of what a charge point may set', () => {
    const out = answers<Coded[]>(
      'pilot',
      duties.map((duty_pct) => ({ duty_pct })),
    )
    out.forEach((one, k) => {
      const duty = duties[k]!
      const band = bands.find(([from, to]) => duty >= from && duty <= to)
      expect([duty, one.class]).toEqual([duty, band?.[2] ?? 'not-allowed'])
      const current = band ? band[3](duty) : null
      if (current === null) expect(one.current_A).toBeNull()
      else expect(one.current_A).toBeCloseTo(current, 9)
    })
  })

  it('lets a vehicle take two narrow bands more: 8 to 10 % as 6 A, 96 to 97 % as 80 A', () => {
    const out = answers<{ vehicle: Coded }[]>(
      'pilot',
      [8, 9.5, 97, 97.5, 7.5, 5].map((duty_pct) => ({ duty_pct })),
    )
    expect(out.map(({ vehicle }) => [vehicle.class, vehicle.current_A])).toEqual([
      ['analogue', 6],
      ['analogue', 6],
      ['analogue', 80],
      ['not-allowed', null],
      ['not-allowed', null],
      ['digital', null],
    ])
  })

  it('gives the duty of a current and the current that it reads back as', () => {
    const out = answers<{ duty_pct: number; current_A: number }[]>('pilot', [
      { current_A: 10 },
      { current_A: 20 },
      { current_A: 70 },
      { current_A: 52 },
    ])
    expect(out.map((one) => one.duty_pct)).toEqual([10 / 0.6, 20 / 0.6, 92, 84.8].map((x) => expect.closeTo(x, 9)))
    // Between the two lines of the table a current comes back as a little less, never as more.
    expect(out.map((one) => one.current_A)).toEqual([10, 20, 70, 50.88].map((x) => expect.closeTo(x, 9)))
  })

  it('knows a state within a volt of its level and none between (IEC 61851-1 table A.2, from memory)', () => {
    const volts = [12.4, 11, 9.6, 8, 6.9, 5, 3.1, 0.4, -0.9, -11.2, -13, 10.5, 7.5, 4.5, 1.5, -6, 13.2]
    const out = answers<{ state: string | null }[]>(
      'pilot',
      volts.map((voltage_V) => ({ voltage_V })),
    )
    const states = ['A', 'A', 'B', 'B', 'C', 'C', 'D', 'E', 'E', 'F', 'F', null, null, null, null, null, null]
    expect(out.map((one) => one.state)).toEqual(states)
  })

  it('refuses two questions at once, none, and a current that no duty codes', () => {
    expect(calc('pilot', { duty_pct: 20, current_A: 12 }).status).toBe(2)
    expect(calc('pilot', {}).problem.errors[0].message).toContain('one of duty_pct, current_A and voltage_V')
    expect(calc('pilot', { current_A: 5 }).problem.errors[0]).toEqual({
      path: ['current_A'],
      message: 'current_A is 5; it may be: at least 6',
    })
    expect(calc('pilot', { duty_pct: 101 }).status).toBe(2)
  })
})

describe('proximity', () => {
  it('knows the four cables, IEC 61851-1 table B.2 (from memory)', () => {
    const out = answers<object[]>(
      'proximity',
      [1500, 680, 220, 100].map((resistance_ohm) => ({ resistance_ohm })),
    )
    expect(out).toMatchObject([
      { current_A: 13, currentSinglePhase_A: 13 },
      { current_A: 20, currentSinglePhase_A: 20 },
      { current_A: 32, currentSinglePhase_A: 32 },
      { current_A: 63, currentSinglePhase_A: 70 },
    ])
  })

  it('knows no cable between codes, by an open contact or a short', () => {
    const between = [0, 60, 150, 420, 1050, 5000, 1e8]
    const out = answers<object[]>(
      'proximity',
      between.map((resistance_ohm) => ({ resistance_ohm })),
    )
    for (const one of out) expect(one).toMatchObject({ current_A: null, currentSinglePhase_A: null })
  })
})

describe('dc-detector-verdict', () => {
  const ramps = (plus: number | string, minus: number | string) => ({
    readings: [
      { polarity: 'positive', ramp_mA: plus },
      { polarity: 'negative', ramp_mA: minus },
    ],
  })
  const verdicts = (inputs: readonly object[]) =>
    answers<{ verdict: string }[]>('dc-detector-verdict', inputs).map((x) => x.verdict)

  it('asks for more than 3 mA and at most 6 mA on both polarities (IEC 62955, from memory)', () => {
    const inputs = [ramps(4.1, 4.9), ramps(6, 4.9), ramps(4.1, 6.01), ramps(3, 4.9), ramps(4.1, 3.01), ramps('>6', 5)]
    expect(verdicts(inputs)).toEqual(['within', 'close', 'outside', 'outside', 'within', 'outside'])
  })

  it('opens within 10 s at 6 mA, 0.3 s at 60 mA and 0.1 s at 200 mA', () => {
    const timed = (atCurrent_mA: number, time_ms: number | string) => ({
      readings: ['positive', 'negative'].map((polarity) => ({ polarity, atCurrent_mA, time_ms })),
    })
    const inputs = [
      timed(6, 9400),
      timed(6, 10_400),
      timed(60, 280),
      timed(60, 310),
      timed(200, 90),
      timed(200, 110),
      timed(6, '>10000'),
    ]
    expect(verdicts(inputs)).toEqual(['within', 'outside', 'within', 'outside', 'within', 'outside', 'outside'])
  })

  it('says nothing of a detector that was read on one polarity, or at a current where it may do either', () => {
    const one = { readings: [4, 4.2, 4.4].map((ramp_mA) => ({ polarity: 'positive', ramp_mA })) }
    const between = {
      readings: ['positive', 'negative'].map((polarity) => ({ polarity, atCurrent_mA: 4, time_ms: 900 })),
    }
    expect(verdicts([one, between, { readings: [] }])).toEqual(['not-yet', 'not-yet', 'not-yet'])
    const wanting = { code: 'polarity-wanting', figures: { polarity: 'negative' }, verdict: 'not-yet', reading: null }
    expect(answers<{ findings: object[] }>('dc-detector-verdict', one).findings).toContainEqual(wanting)
  })

  it('must hold at 3 mA', () => {
    const at3 = (time_ms: number | string) => ({
      readings: [...ramps(4.4, 4.6).readings, { polarity: 'positive', atCurrent_mA: 3, time_ms }],
    })
    expect(verdicts([at3('>10000'), at3(4000)])).toEqual(['within', 'outside'])
  })

  it('refuses what is no reading', () => {
    const refused = (reading: object) => calc('dc-detector-verdict', { readings: [reading] }).problem.errors
    expect(refused({ polarity: 'positive' })[0].path).toEqual(['readings', 0, 'ramp_mA'])
    expect(refused({ polarity: 'positive', atCurrent_mA: 6 })[0].path).toEqual(['readings', 0, 'time_ms'])
    expect(refused({ polarity: 'up', ramp_mA: 4 })[0].message).toContain('one of "positive", "negative"')
    expect(refused({ polarity: 'positive', ramp_mA: 0 })[0].message).toContain('no detector opens at 0 mA')
  })
})
