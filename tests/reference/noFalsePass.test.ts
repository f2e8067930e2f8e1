import { describe, expect, it } from 'vitest'
import { calc } from '../support/calc'

/** What the command line must not pass: bounds, readings that were not taken, figures in the wrong unit. */
const verdicts = (name: string, inputs: readonly object[]): string[] =>
  (calc(name, inputs).out as { verdict: string }[]).map((one) => one.verdict)
const problem = (name: string, input: object): { path: (string | number)[]; message: string } => {
  const { status, stdout, problem: found } = calc(name, input)
  expect([status, stdout]).toEqual([2, ''])
  return found.errors[0]
}

describe('rcd-verdict', () => {
  const device = { type: 'A', kind: 'general', ratedResidualCurrent_mA: 30, standard: '61008' }
  const three = { ...device, regime: 'bs7671-three-multiple' }
  const at = (multiple: number, angle_deg: number, time_ms: number | string, rest = {}) => ({
    multiple,
    angle_deg,
    time_ms,
    ...rest,
  })
  const rest = [at(0.5, 180, '>2000'), at(1, 180, 30), at(5, 0, 20), at(5, 180, 20)]

  it('is not yet where a trip that is asked for is wanting', () => {
    expect(
      verdicts('rcd-verdict', [
        { ...three, readings: [at(1, 0, 30)] },
        { ...three, readings: [{ ramp_mA: 22 }] },
        { ...three, readings: [at(5, 0, 20), at(5, 180, 20)] },
        { ...device, regime: 'bs7671-a2', readings: [at(1, 0, 30, { waveform: 'pulsating' })] },
        { ...device, regime: 'bs7671-a2', place: 'charge-point', readings: [{ ramp_mA: 5, waveform: 'dc' }] },
      ]),
    ).toEqual(['not-yet', 'not-yet', 'not-yet', 'not-yet', 'not-yet'])
  })

  it('does not let a close trip stand before one that decided nothing, and records the longer', () => {
    const readings = [at(0.5, 0, '>300'), at(1, 0, 300), ...rest]
    expect(verdicts('rcd-verdict', [{ ...three, readings }])).toEqual(['not-yet'])
    const single = { ...device, regime: 'bs7671-a2', readings: [at(1, 0, '>300'), at(1, 180, 300)] }
    expect(calc('rcd-verdict', single).out).toMatchObject({ verdict: 'outside', recorded_ms: '>300' })
  })

  it('takes half the current that ended in a trip for a trip, however late', () => {
    const readings = [at(0.5, 0, 2500), at(1, 0, 30), ...rest]
    expect(verdicts('rcd-verdict', [{ ...three, readings }])).toEqual(['outside'])
  })
})

describe('electrode', () => {
  it('goes by the highest loop, and refuses amperes typed for milliamperes', () => {
    const loops = { readings_ohm: [5, 5, 400], method: 'loop', ratedResidualCurrents_mA: [300] }
    expect(verdicts('electrode', [loops])).toEqual(['outside'])
    const amperes = problem('electrode', { ...loops, ratedResidualCurrents_mA: [0.03] })
    expect(amperes.path).toEqual(['ratedResidualCurrents_mA', 0])
    expect(amperes.message).toContain('30, not 0.03')
  })

  it('decides nothing by displays over their range', () => {
    const over = { readings_ohm: ['>20', '>20', '>20'], method: 'three-lead', ratedResidualCurrents_mA: [30] }
    expect(verdicts('electrode', [over])).toEqual(['not-yet'])
  })
})

describe('insulation-verdict', () => {
  const circuit = { nominalVoltage_V: 230, surgeProtection: false, devicesOn: true }

  it('is not within by live conductors alone, nor by a figure beside a bound', () => {
    expect(
      verdicts('insulation-verdict', [
        { ...circuit, pairs: { 'L-N': '>999' } },
        { ...circuit, pairs: { 'L-N': 3, 'L-PE': '<5', 'N-PE': 300 } },
      ]),
    ).toEqual(['not-yet', 'not-yet'])
  })

  it.each([
    [{ 'N-N': 300 }, /pair/],
    [{ 'L1-L1': 300 }, /pair/],
    [{ 'L-N': '>1,234' }, /two figures|1,234/],
  ])('refuses %j in a sentence', (pairs, says) => {
    const { path, message } = problem('insulation-verdict', { ...circuit, pairs })
    expect(path[0]).toBe('pairs')
    expect(message).toMatch(says)
    expect(message).not.toBe('Invalid input')
  })
})

describe('ratings and rods', () => {
  it('know nothing of a fuse where the modules’ largest is unknown', () => {
    const module = {
      pmax_W: 405,
      voc_V: 37.2,
      isc_A: 13.78,
      vmp_V: 31.1,
      imp_A: 13.03,
      alpha_pctPerK: 0.046,
      beta_pctPerK: -0.26,
      gamma_pctPerK: -0.34,
      cellsInSeries: 54,
    }
    const { out } = calc('ratings', {
      module,
      modulesInSeries: 10,
      stringsInParallel: 3,
      lowestTemperature_C: -10,
      highestCellTemperature_C: 70,
      inverter: { maxInput_V: 1000, trackerMin_V: 200, trackerMax_V: 850, maxShortCircuit_A: 60 },
      switch: { ratedVoltage_V: 1000, rating_A: 63 },
      fuse: { ratedVoltage_V: 1000, rating_A: 25 },
    })
    const range = (out as { checks: { id: string; verdict: string }[] }).checks.find((one) => one.id === 'fuse-range')
    expect(range!.verdict).toBe('not-yet')
  })

  it('ends where rods stand closer than their length', () => {
    const rods = { resistivity_ohm_m: 100, length_m: 3, diameter_m: 0.016, count: 2, spacing_m: 0.05 }
    expect(problem('rods', rods)).toMatchObject({ path: ['spacing_m'] })
  })
})

describe('a refusal', () => {
  it.each([
    ['fault-current', { lineEarth_ohm: 0.3, lineNeutral_ohm: 0.3, phases: 2, nominalVoltage_V: 230 }, 'phases'],
    [
      'rcd-verdict',
      {
        type: 'A',
        kind: 'general',
        ratedResidualCurrent_mA: 30,
        standard: '61008',
        regime: 'bs7671-a2',
        readings: [{ multiple: 1, angle_deg: 90, time_ms: 30 }],
      },
      'angle_deg',
    ],
    ['max-zs', { device: 'B', rating_A: 'sixteen' }, 'rating_A'],
  ])('of %s says what may stand there', (name, input, field) => {
    const { path, message } = problem(name, input)
    expect(path).toContain(field)
    expect(message).not.toMatch(/^Invalid input/)
    expect(message.length).toBeGreaterThan(12)
  })
})

describe('evaluate', () => {
  const parts = [
    {
      id: 'supply',
      data: {
        kind: 'supply',
        tag: 'S',
        arrangement: 'TN-S',
        phases: 1,
        nominal_V: 230,
        declaredZe_ohm: null,
        faultLevel_kA: 16,
      },
    },
    { id: 'board', data: { kind: 'board', tag: 'DB1', name: 'House', boardId: null, phases: 1 } },
    {
      id: 'c1',
      data: {
        kind: 'circuit',
        tag: '1',
        feeds: 'Sockets',
        boardId: 'board',
        rcdId: null,
        phases: 1,
        device: 'B',
        rating_A: 32,
        breaking_kA: 6,
        line_mm2: 2.5,
        protective_mm2: 1.5,
        length_m: 20,
      },
    },
  ]
  const ok = { choice: 'as-it-should' }
  const ohm = (text: string) => ({ text, value: Number(text), bound: 'exact', unit: 'ohm' })
  const reading = (step: string, partId: string, slots: object, visitId = 'one') => ({
    step,
    partId,
    visitId,
    body: { kind: 'reading', slots },
  })
  const dead = reading('prove-dead', 'supply', {
    'locked-off': ok,
    'other-sources-off': ok,
    'tester-proved': ok,
    'all-pairs-dead': ok,
    'tester-proved-again': ok,
  })
  type Out = {
    steps: {
      step: string
      tag: string
      verdict: string
      gates: { id: string; met: boolean; hard: boolean; why: string }[]
      lines: { decides?: boolean }[]
    }[]
    states: { place: string; state: string; stands: boolean }[]
    next: string | null
  }
  const played = (entries: readonly object[]): Out =>
    calc('evaluate', { regime: 'bs7671-a2', parts, entries, now: '2026-05-14T10:00:00Z' }).out as Out
  const at = (out: Out, step: string) => out.steps.find((one) => one.step === step)!

  it('plays a scenario as the screens would show it', () => {
    const r1r2 = reading('r1r2', 'c1', { r1r2: ohm('0.4'), 'lead-set': { choice: 'set-a' } })
    const nulled = reading('lead-null', 'job', { 'lead-set': { choice: 'set-a' }, nulled: ohm('0.01') })
    // Leads that nobody nulled are never better than close.
    expect(at(played([dead, r1r2]), 'r1r2').verdict).toBe('close')
    const out = played([dead, nulled, r1r2])
    expect(at(out, 'r1r2').verdict).toBe('within')
    expect(at(out, 'r1r2').lines.filter((line) => line.decides)).toHaveLength(1)
    expect(out.states).toContainEqual(expect.objectContaining({ place: 'supply', state: 'dead', stands: true }))
    expect(
      at(out, 'zs')
        .gates.filter((gate) => !gate.met)
        .map((gate) => gate.id),
    ).toContain('earth-back')
  })

  it('ends what was proved with a second visit', () => {
    const out = played([
      dead,
      reading('lead-null', 'job', { 'lead-set': { choice: 'set-a' }, nulled: ohm('0.01') }, 'two'),
    ])
    expect(at(out, 'r1r2').gates.find((gate) => gate.id === 'proved-dead')).toMatchObject({ met: false, hard: true })
  })

  it.each([
    ['a test that nobody knows', reading('zs-twice', 'c1', { zs: ohm('0.4') }), ['step'], 'it may be: one of'],
    ['a test that the part does not have', reading('ring-ends', 'c1', { zs: ohm('0.4') }), ['step'], 'not asked of 1'],
    ['a part of another kind', reading('zs', 'board', { zs: ohm('0.4') }), ['partId'], 'is made on a circuit'],
    ['a part that is not there', reading('zs', 'c9', { zs: ohm('0.4') }), ['partId'], 'one of the parts'],
    [
      'a slot that it does not know',
      reading('zs', 'c1', { ze: ohm('0.4') }),
      ['body', 'slots', 'ze'],
      'loop-method, zs',
    ],
    ['a unit of another', reading('zs', 'c1', { zs: { ...ohm('0.4'), unit: 'V' } }), ['body', 'slots', 'zs'], 'in ohm'],
  ])('refuses %s, by its place', (_what, entry, at, words) => {
    const input = { regime: 'bs7671-a2', parts, entries: [entry], now: '2026-05-14T10:00:00Z' }
    const { status, problem: found } = calc('evaluate', input)
    expect(status).toBe(2)
    expect(found!.errors[0]).toMatchObject({ path: ['entries', 0, ...at], message: expect.stringContaining(words) })
  })

  it('refuses what it cannot play, and says where', () => {
    const { status, problem: found } = calc('evaluate', { regime: 'nobody', parts: [], entries: [], now: 0 })
    expect(status).toBe(2)
    expect(found.errors[0].path).toEqual(['regime'])
    expect(found.errors[0].message).toContain('bs7671-a2')
  })
})
