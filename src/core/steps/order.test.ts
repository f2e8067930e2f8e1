import { describe, expect, it } from 'vitest'
import { evaluate, stepKey } from '../evaluate'
import type { PartData } from '../plant/part'
import type { SlotValue } from '../record/entry'
import { FactsBuilder, JOB, START_ms, testId, VISIT } from '../testing/factsBuilder'
import { choose, Installation, read } from '../testing/installation'
import { exampleBoard, exampleCircuit, exampleElectrode, exampleString, exampleSupply } from './worked'

const leftOut = (ids: readonly string[]): Record<string, SlotValue> =>
  Object.fromEntries(ids.map((id) => [id, { choice: 'check-left-out', note: 'not today' }]))
const gate = (site: Installation, step: string, part: string, id: string) =>
  site.says(step, part).one.gates.find((one) => one.id === id)
const shut = (site: Installation, step: string, part: string): string[] =>
  site
    .says(step, part)
    .one.gates.filter((one) => !one.met)
    .map((one) => one.id)
const tt = { arrangement: 'TT' as const, declaredZe_ohm: null }
const SPIKES = {
  'electrode-method': choose('three-lead'),
  're-1': read(40),
  're-2': read(40.2),
  're-3': read(39.8),
}

/** A house on its own electrode, everything up to the live tests done as it should be. */
function readyHouse(): Installation & { electrode: string } {
  const site = new Installation({ supply: tt, rcd: {} })
  const electrode = site.build.part({ ...exampleElectrode, rods: 1 })
  site.take('prove-dead', site.supply, {}).take('electrode', electrode, SPIKES).take('electrode-back', electrode, {})
  site.take('ze', site.supply, { ze: read(41) }).take('earth-back', site.supply, {})
  site.take('r1r2', site.circuit, { r1r2: read(0.4) }).take('ac-polarity', site.circuit, {})
  site.take('ac-insulation', site.circuit, {
    pairing: choose('pair-by-pair'),
    'l-n': read(300, 'Mohm', 0),
    'l-pe': read(300, 'Mohm', 0),
    'n-pe': read(300, 'Mohm', 0),
  })
  return Object.assign(site, { electrode })
}

describe('a list whose decisive line was left out', () => {
  it.each([
    ['prove-dead', 'supply', ['all-pairs-dead'], 'r1r2', 'circuit', 'proved-dead'],
    ['prove-dead', 'supply', ['tester-proved'], 'r1r2', 'circuit', 'proved-dead'],
    ['earth-back', 'supply', ['earthing-conductor-back'], 'zs', 'circuit', 'earth-back'],
  ] as const)('closes %s and opens nothing: %s %j', (step, at, lines, waiting, place, id) => {
    const site = new Installation({ rcd: {} })
    site.take(step, site[at], leftOut(lines))
    expect(site.says(step, site[at]).one.done).toBe(true)
    expect(gate(site, waiting, site[place], id)).toMatchObject({ met: false, hard: true })
  })

  it('is no isolation, and no conductor on an electrode', () => {
    const build = new FactsBuilder(false)
    const string = build.string('1')
    const slots = { 'ac-off': choose('as-it-should'), 'clamp-current': read(0, 'A') }
    build.reading('safe-isolation', JOB, { slots: { ...slots, ...leftOut(['dc-switch-off']) } })
    const one = evaluate(build.facts(), START_ms).byKey.get(stepKey('pv-polarity', string))!
    expect(one.gates.find((found) => found.id === 'isolated')).toMatchObject({ met: false, hard: true })
    const site = readyHouse()
    site.take('electrode', site.electrode, SPIKES)
    site.take('electrode-back', site.electrode, leftOut(['electrode-conductor-back']))
    expect(gate(site, 'zs', site.circuit, 'electrode-back')).toMatchObject({ met: false, hard: true })
  })
})

describe('a subject of a gate that is missing, or that there are two of', () => {
  it('shuts it: two supplies and no board that says which', () => {
    const site = readyHouse()
    expect(shut(site, 'zs', site.circuit)).toEqual([])
    site.build.part({ ...exampleSupply, tag: 'Generator' })
    expect(shut(site, 'zs', site.circuit)).toContain('earth-back')
    expect(gate(site, 'r1r2', site.circuit, 'proved-dead')).toMatchObject({ met: false, hard: true })
  })

  it('is settled by a board that names its supply', () => {
    const site = readyHouse()
    const generator = site.build.part({ ...exampleSupply, tag: 'Generator' })
    const before: PartData = exampleBoard
    const named = (supplyId: string): PartData => ({ ...exampleBoard, supplyId })
    const change = (after: PartData) =>
      site.build.add({ kind: 'plant-change', v: 1, before, after, base: null }, { partId: site.board })
    change(named(site.supply))
    expect(gate(site, 'r1r2', site.circuit, 'proved-dead')!.met).toBe(
      gate(site, 'ac-insulation', site.circuit, 'proved-dead')!.met,
    )
    expect(shut(site, 'zs', site.circuit)).not.toContain('earth-back')
    change(named(generator))
    expect(shut(site, 'zs', site.circuit)).toContain('earth-back')
  })

  it('shuts it where there is no supply at all', () => {
    const build = new FactsBuilder()
    const circuit = build.part(exampleCircuit)
    const one = evaluate(build.facts(), START_ms).byKey.get(stepKey('r1r2', circuit))!
    expect(one.gates.find((found) => found.id === 'proved-dead')).toMatchObject({ met: false, hard: true })
  })
})

describe('a state of a place', () => {
  it('ends where the conductor comes off again', () => {
    const site = readyHouse()
    site.take('ze', site.supply, { ze: read(41) })
    expect(shut(site, 'zs', site.circuit)).toEqual(['earth-back'])
    site.take('earth-back', site.supply, {}).take('electrode', site.electrode, SPIKES)
    expect(shut(site, 'zs', site.circuit)).toEqual(['electrode-back'])
  })

  it('of being dead ends with a live test, and with the inverter', () => {
    const site = readyHouse()
    expect(shut(site, 'r1r2', site.circuit)).not.toContain('proved-dead')
    site.take('zs', site.circuit, { 'loop-method': choose('non-trip'), zs: read(41.2) })
    expect(shut(site, 'r1r2', site.circuit)).toContain('proved-dead')
  })

  it('is never carried into another visit: dead, isolated, nulled', () => {
    const visits = [
      { id: VISIT, startsAt: new Date(START_ms).toISOString(), title: '' },
      { id: testId(0xc2), startsAt: new Date(START_ms + 86_400_000).toISOString(), title: '' },
    ]
    const site = new Installation()
    const string = site.build.string('1')
    site.take('prove-dead', site.supply, {})
    const on = (visitCount: number, step: string, part: string, id: string) =>
      evaluate({ ...site.facts, visits: visits.slice(0, visitCount) }, 0)
        .byKey.get(stepKey(step, part))!
        .gates.find((one) => one.id === id)!
    expect([on(1, 'r1r2', site.circuit, 'proved-dead').met, on(1, 'pv-polarity', string, 'isolated').met]).toEqual([
      true,
      true,
    ])
    for (const later of [on(2, 'r1r2', site.circuit, 'proved-dead'), on(2, 'pv-polarity', string, 'isolated')])
      expect(later).toMatchObject({ met: false, hard: true })
  })
})

describe('being dead', () => {
  const boardWork = { 'boards-labelled': choose('as-it-should') }

  it('ends on every supply where nobody said on which of two something was switched on', () => {
    const site = new Installation()
    site.build.part({ ...exampleSupply, tag: 'Generator' })
    site.take('prove-dead', site.supply, {})
    const states = () => site.says('r1r2', site.circuit).evaluation.states.of('dead', site.supply, VISIT).stands
    expect(states()).toBe(true)
    site.take('ac-functional', site.board, boardWork)
    expect(states()).toBe(false)
  })

  it('stays ended where the device that was tripped is taken out of the plant since', () => {
    const site = readyHouse()
    site.take('rcd-trips', site.rcd!, { 'once-0': read(30, 'ms') })
    const { data, revision } = site.says('rcd-trips', site.rcd!).one.part
    site.build.add({ kind: 'plant-change', v: 1, before: data, after: null, base: revision }, { partId: site.rcd! })
    expect(gate(site, 'r1r2', site.circuit, 'proved-dead')!.met).toBe(false)
  })
})

describe('live tests of a circuit', () => {
  const LIVE = ['zs', 'rcd-trips', 'ac-functional', 'fault-current'] as const
  const partOf = (site: Installation, step: (typeof LIVE)[number]): string =>
    step === 'rcd-trips' ? site.rcd! : step === 'zs' ? site.circuit : site.board

  it.each(LIVE)('%s waits hard for continuity, polarity and the earth, and for insulation that is low', (step) => {
    const site = new Installation({ rcd: {} })
    const gates = site.says(step, partOf(site, step)).one.gates
    for (const id of ['protective-proved', 'ac-polarity', 'earth-back'])
      expect(gates.find((one) => one.id === id)).toMatchObject({ hard: true, met: false })
    const low = { pairing: choose('pair-by-pair'), 'l-n': read(300, 'Mohm'), 'n-pe': read(300, 'Mohm') }
    site.take('ac-insulation', site.circuit, { ...low, 'l-pe': read(0.2, 'Mohm') })
    expect(gate(site, step, partOf(site, step), 'low-insulation')).toMatchObject({ hard: true, met: false })
  })

  it('are open where all of that is proved', () => {
    const site = readyHouse()
    for (const step of ['zs', 'rcd-trips'] as const) expect(shut(site, step, partOf(site, step))).toEqual([])
  })

  it('stay shut where R1+R2 was outside, polarity reversed, or one pair of insulation is low', () => {
    const site = readyHouse()
    site.take('r1r2', site.circuit, { r1r2: read(3) })
    expect(shut(site, 'zs', site.circuit)).toEqual(['protective-proved'])
    site
      .take('r1r2', site.circuit, { r1r2: read(0.4) })
      .take('ac-polarity', site.circuit, { polarity: choose('reversed') })
    expect(shut(site, 'zs', site.circuit)).toEqual(['ac-polarity'])
  })

  it('in TT wait hard for an electrode that is good', () => {
    const site = readyHouse()
    const bad = { ...SPIKES, 're-1': read(5000), 're-2': read(5010), 're-3': read(4990) }
    site.take('electrode', site.electrode, bad).take('electrode-back', site.electrode, {})
    expect(site.says('electrode', site.electrode).verdict).toBe('outside')
    for (const step of ['zs', 'rcd-trips'] as const)
      expect(gate(site, step, partOf(site, step), 'electrode-good')).toMatchObject({ met: false, hard: true })
  })
})

describe('a circuit that is kept off', () => {
  const OFF = { 'off-locked': choose('as-it-should'), 'off-line-out': choose('as-it-should') }
  const LOW = {
    pairing: choose('pair-by-pair'),
    'l-n': read(300, 'Mohm'),
    'l-pe': read(0.2, 'Mohm'),
    'n-pe': read(300, 'Mohm'),
  }
  const BAD = ['low-insulation', 'ac-insulation']
  /** A house that is ready, and a second circuit on the same device whose insulation is low. */
  function withBad() {
    const site = readyHouse()
    const { data } = site.says('zs', site.circuit).one.part
    const bad = site.build.part({ ...(data as typeof exampleCircuit), tag: '2' })
    site.take('r1r2', bad, { r1r2: read(0.4) }).take('ac-polarity', bad, { polarity: choose('correct') })
    site.take('ac-insulation', bad, LOW)
    return { site, bad }
  }

  it('is asked for only while a test of it is close or outside', () => {
    const { site, bad } = withBad()
    expect(site.says('circuit-off', bad).code).toBe('on-need')
    expect(site.says('circuit-off', site.circuit).code).toBe('not-needed')
  })

  it('holds back board and device no more, and stays held back itself', () => {
    const { site, bad } = withBad()
    expect(shut(site, 'rcd-trips', site.rcd!)).toEqual(BAD)
    expect(shut(site, 'fault-current', site.board)).toEqual(BAD)
    site.take('circuit-off', bad, OFF)
    expect(shut(site, 'rcd-trips', site.rcd!)).toEqual([])
    expect(shut(site, 'fault-current', site.board)).toEqual([])
    expect(shut(site, 'zs', bad)).toEqual(BAD)
    expect(shut(site, 'zs', site.circuit)).toEqual([])
  })

  it('is not off while a line of it is not as it should be, or was left out', () => {
    for (const choice of ['not-as-it-should', 'check-left-out']) {
      const { site, bad } = withBad()
      site.take('circuit-off', bad, { ...OFF, 'off-line-out': { choice, note: 'no tool' } })
      expect(shut(site, 'fault-current', site.board), choice).toEqual(BAD)
    }
  })

  it('is not off any more once somebody reads it again, in whatever test', () => {
    for (const again of [
      (site: Installation, bad: string) => site.take('ac-insulation', bad, LOW),
      (site: Installation, bad: string) => site.take('r1r2', bad, { r1r2: read(0.4) }),
      (site: Installation, bad: string) => site.take('ac-polarity', bad, { polarity: choose('correct') }),
      (site: Installation, bad: string) => site.take('zs', bad, { zs: read(0.7) }),
    ]) {
      const { site, bad } = withBad()
      again(site.take('circuit-off', bad, OFF), bad)
      expect(shut(site, 'fault-current', site.board)).toEqual(BAD)
    }
  })

  it('ends with its visit, and with the reading that said it', () => {
    const { site, bad } = withBad()
    site.take('circuit-off', bad, OFF)
    const visits = [VISIT, testId(0xc2)].map((id, k) => ({
      id,
      startsAt: new Date(START_ms + k * 86_400_000).toISOString(),
      title: '',
    }))
    const on = evaluate({ ...site.facts, visits }, 0).byKey.get(stepKey('fault-current', site.board))!
    expect(on.gates.find(({ id }) => id === 'low-insulation')).toMatchObject({ met: false })
    site.build.add({ kind: 'void', v: 1, target: site.build.entries.at(-1)!.id, reason: 'wrong circuit' })
    expect(shut(site, 'fault-current', site.board)).toEqual(BAD)
  })
})

describe('the loop of an electrode', () => {
  it('is a live test of its own, after proving dead, with its own cautions and drawing', () => {
    const site = new Installation({ supply: tt, rcd: {} })
    const id = site.build.part({ ...exampleElectrode, testedBy: 'loop' })
    const { one } = site.says('electrode-loop', id)
    expect(one.step.tag).toBe('live')
    expect(one.step.hookup.drawing).toBe('electrode-loop')
    expect(one.step.cautions.map((caution) => caution.id)).toEqual(
      expect.arrayContaining(['finger-guarded', 'fault-current-flows', 'ahead-of-every-rcd']),
    )
    expect(one.gates.find((found) => found.id === 'proved-dead')).toMatchObject({ hard: true, met: false })
    expect(evaluate(site.facts, 0).byKey.has(stepKey('electrode', id))).toBe(false)
  })
})

describe('switching an inverter on', () => {
  it('waits hard for the dead tests of its own circuit and for its earth', () => {
    const site = new Installation()
    const inverter = site.build.part({ kind: 'inverter', tag: 'INV', maxInput_V: 1000, circuitId: site.circuit })
    const before = shut(site, 'reconnect', inverter)
    for (const id of ['protective-proved', 'ac-polarity', 'earth-back']) {
      expect(before).toContain(id)
      expect(gate(site, 'reconnect', inverter, id)!.hard).toBe(true)
    }
  })

  it('waits hard where nobody said which circuit is its own', () => {
    const site = new Installation()
    const inverter = site.build.part({ kind: 'inverter', tag: 'INV', maxInput_V: 1000 })
    expect(gate(site, 'reconnect', inverter, 'protective-proved')).toMatchObject({ met: false, hard: true })
  })

  it('in a plant without its AC side waits for whoever says that that was proved', () => {
    const build = new FactsBuilder()
    const inverter = build.part({ kind: 'inverter', tag: 'INV', maxInput_V: 1000 })
    const of = () =>
      evaluate(build.facts(), START_ms)
        .byKey.get(stepKey('reconnect', inverter))!
        .gates.find((one) => one.id === 'ac-side-proved')
    expect(of()).toMatchObject({ met: false, hard: true })
    const slots = { 'ac-dead-tests-done': choose('as-it-should'), 'ac-earth-in-place': choose('as-it-should') }
    build.reading('ac-proved', inverter, { slots })
    expect(of()).toMatchObject({ met: true })
  })

  it('is never shown as done while plugs are open again', () => {
    const build = new FactsBuilder()
    const string = build.part(exampleString(10))
    build.reading('plugs-locked', string, { slots: { 'plugs-locked': choose('as-it-should') } })
    build.polarity(string)
    expect(evaluate(build.facts(), START_ms).byKey.get(stepKey('plugs-locked', string))!.done).toBe(false)
  })
})
