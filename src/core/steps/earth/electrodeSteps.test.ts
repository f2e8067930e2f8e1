import { describe, expect, it } from 'vitest'
import { causes, evaluate, linesOf, picturesOf, stepKey } from '../../evaluate'
import { readOverTrue } from '../../earth/fallOfPotential'
import { type PartData, partDataSchema, type ServiceData } from '../../plant/part'
import type { SlotValue } from '../../record/entry'
import { FactsBuilder, START_ms } from '../../testing/factsBuilder'
import { bare, choose, Installation, read } from '../../testing/installation'
import { slotsAsked } from '../slot'
import { readStepById } from '../index'
import { exampleElectrode, exampleRcd, exampleSupply } from '../worked'

type Slots = Record<string, SlotValue>
const base: Slots = { 'electrode-method': choose('three-lead'), 'electrode-lead': choose('taken-off') }
const three: Slots = { 're-1': read(18.3), 're-2': read(17.7), 're-3': read(18.3) }
const way = (bearing: number, distance = 40): Slots => ({
  'spike-bearing': read(bearing, 'deg', 0),
  'spike-distance': read(distance, 'm', 0),
})
const pipe: ServiceData = {
  kind: 'buried-service',
  tag: 'W1',
  what: 'water',
  material: 'metal',
  bearing_deg: 90,
  away_m: 3,
  electrodeId: null,
}

function ground(own: Partial<Extract<PartData, { kind: 'electrode' }>> = {}, ...services: PartData[]) {
  const site = new Installation({ supply: { arrangement: 'TT' }, rcd: {} })
  const id = site.build.part({ ...exampleElectrode, ...own })
  for (const service of services) site.build.part(service)
  const says = (slots: Slots) => site.take('electrode', id, slots).says('electrode', id)
  const trap = (slots: Slots) => site.trap('electrode', id, slots)
  return { site, id, says, trap }
}

describe('metal in the ground', () => {
  it('beside the way makes a sound reading close, and says to turn the spikes', () => {
    const { says } = ground({}, pipe)
    const along = says({ ...base, ...three, ...way(10) })
    expect(along).toMatchObject({ verdict: 'close', code: 'electrode.along-metal-turn' })
    expect(along.one.finding.figures.best).toBe(90)
    expect(along.one.finding.figures.service).toBe('W1')
    expect(causes(along.evaluation, along.one).map((one) => one.next.code)).toEqual(['turn-the-spikes'])
    expect(says({ ...base, ...three, ...way(270) }).verdict).toBe('within')
  })

  it('is no matter where it is plastic, or where nobody said which way', () => {
    expect(ground({}, { ...pipe, material: 'plastic' }).says({ ...base, ...three, ...way(10) }).verdict).toBe('within')
    expect(ground({}, pipe).says({ ...base, ...three }).verdict).toBe('within')
  })
})

describe('a spike on a buried service', () => {
  it('is caught before it is driven, whatever the service is made of', () => {
    // At 62 % of 40 m due east the potential spike stands 24.8 m off; the gas pipe passes 25 m off.
    const gas: ServiceData = { ...pipe, tag: 'G1', what: 'gas', material: 'plastic', away_m: 25 }
    const { trap, says } = ground({}, gas)
    expect(trap({ ...base, ...way(90) })).toMatchObject({
      code: 'electrode.spike-on-service',
      figures: { service: 'G1', at_m: expect.closeTo(24.8, 6), away_m: expect.closeTo(0.2, 6) },
    })
    expect(trap({ ...base, ...way(90, 60) })).toBeNull()
    expect(trap({ ...base, ...way(270) })).toBeNull()
    expect(says({ ...base, ...three, ...way(90) })).toMatchObject({
      verdict: 'not-yet',
      code: 'electrode.spike-on-service',
    })
  })

  it('counts the current spike, and the places of a curve', () => {
    const cable: ServiceData = { ...pipe, tag: 'P1', what: 'power', material: 'plastic', away_m: 40 }
    expect(ground({}, cable).trap({ ...base, ...way(90) })?.figures).toMatchObject({ at_m: 40 })
    const near: ServiceData = { ...cable, away_m: 8 }
    expect(ground({}, near).trap({ ...base, ...way(90) })).toBeNull()
    const curve = { ...base, 'electrode-method': choose('curve') }
    expect(ground({}, near).trap({ ...curve, ...way(90) })?.figures).toMatchObject({ at_m: 8 })
  })
})

describe('a curve of places', () => {
  const curve: Slots = { ...base, 'electrode-method': choose('curve') }
  const even = (radius_m: number, way_m: number): Slots =>
    Object.fromEntries(
      [20, 30, 40, 50, 60, 70, 80].map((share) => [
        `re-at-${share}`,
        read(20 * readOverTrue(radius_m, way_m, share / 100), 'ohm', 4),
      ]),
    )

  it('is read off at 61.8 % of the way', () => {
    const { says } = ground()
    const { one, evaluation, verdict } = says({ ...curve, ...even(0.3, 40) })
    expect(verdict).toBe('within')
    expect(one.finding.figures.mean as number).toBeCloseTo(20, 1)
    const lines = linesOf(evaluation, one)
    expect(lines.map((line) => line.code)).toEqual(
      expect.arrayContaining(['electrode.at-true-place', 'electrode.even-soil']),
    )
    const soil = lines.find((line) => line.code === 'electrode.even-soil')!
    expect(soil.result!.value).toBeCloseTo(20, 3)
  })

  it('decides nothing where it has no flat part', () => {
    const found = ground().says({ ...curve, ...even(3, 20) })
    expect(found).toMatchObject({ verdict: 'not-yet', code: 'electrode.spread-wide' })
  })

  it('decides nothing before both sides of the true place are read', () => {
    const { 're-at-70': _, 're-at-80': __, ...short } = even(0.3, 40)
    expect(ground().says({ ...curve, ...short })).toMatchObject({ verdict: 'not-yet', code: 'electrode.no-reading' })
  })
})

describe('several rods', () => {
  it('that read better than one over their number are close', () => {
    // Handbook 8: 20 ohm alone, three rods, 6.4 ohm.
    const rods = { rods: 3, spacing_m: 3 }
    const better: Slots = { ...base, 're-1': read(6.4), 're-2': read(6.4), 're-3': read(6.4), 're-single': read(20) }
    const { says } = ground(rods)
    const found = says(better)
    expect(found).toMatchObject({ verdict: 'close', code: 'electrode.too-good' })
    expect(found.one.finding.figures.best as number).toBeCloseTo(6.667, 3)
    expect(causes(found.evaluation, found.one).map((one) => one.code)).toContain('still-joined')
    expect(ground(rods).says({ ...better, 're-single': read(18) }).verdict).toBe('within')
  })

  it('are asked for one alone; a single rod is not', () => {
    const asked = (rods: number): string[] =>
      slotsAsked(readStepById('electrode'), bare({ ...exampleElectrode, rods })).map((slot) => slot.id)
    expect(asked(2)).toContain('re-single')
    expect(asked(1)).not.toContain('re-single')
  })
})

describe('pictures of an electrode', () => {
  it('are the way, and the ground once something is known of it', () => {
    const kinds = (slots: Slots, ...services: PartData[]): string[] => {
      const { site, id } = ground({}, ...services)
      const evaluation = evaluate(site.facts, 0)
      const one = evaluation.byKey.get(stepKey('electrode', id))!
      return picturesOf(evaluation, one, { slots }).map((picture) => picture.kind)
    }
    expect(kinds(base)).toEqual(['spikes'])
    expect(kinds({ ...base, ...way(90) })).toEqual(['spikes', 'garden'])
    expect(kinds(base, pipe)).toEqual(['spikes', 'garden'])
    expect(kinds({ ...base, 'electrode-method': choose('loop-method') }, pipe)).toEqual([])
  })

  it('have a trend once it was read twice, alike only where the set-up was', () => {
    const { says } = ground()
    says({ ...base, ...three, ...way(90) })
    says({ ...base, 're-1': read(14), 're-2': read(14), 're-3': read(14.1), ...way(200), soil: choose('soil-dry') })
    const { one, evaluation } = says({ ...base, 're-1': read(13), 're-2': read(13), 're-3': read(13), ...way(200) })
    const trend = picturesOf(evaluation, one, { slots: {} }).find((picture) => picture.kind === 'trend')
    expect(trend).toMatchObject({ unit: 'ohm', limit: 1667 })
    expect(
      trend?.kind === 'trend' && trend.points.map(({ value, alike, counts, note }) => [value, alike, counts, note]),
    ).toEqual([
      // Another bearing is no other set-up where nothing lies in the ground.
      [expect.closeTo(18.1, 9), true, false, null],
      [expect.closeTo(14.033, 3), true, false, 'soil-dry'],
      [13, true, true, null],
    ])
    expect(trend).toMatchObject({ change: { percent: expect.closeTo(-7.36, 1) } })
  })

  it('tell rod by rod what each of them brought', () => {
    const { says } = ground()
    const read3 = (value: number, rods: number): Slots => ({
      ...base,
      're-1': read(value),
      're-2': read(value),
      're-3': read(value),
      ...way(200),
      'rods-in': { text: String(rods), value: rods, bound: 'exact', unit: 'one' },
    })
    says(read3(58, 1))
    const { one, evaluation } = says(read3(36, 2))
    const trend = picturesOf(evaluation, one, { slots: {} }).find((picture) => picture.kind === 'trend')
    // 36 of 58 ohm: 37.9 % less by the second rod.
    expect(trend).toMatchObject({ change: { percent: expect.closeTo(-37.93, 1), counts: [1, 2] } })
  })

  it('are unlike by their bearing where metal lies along one of them, or by their distance', () => {
    const { says } = ground({}, pipe)
    says({ ...base, 're-1': read(9), 're-2': read(9), 're-3': read(9), ...way(10) })
    says({ ...base, 're-1': read(14), 're-2': read(14), 're-3': read(14), ...way(90, 30) })
    says({ ...base, 're-1': read(14), 're-2': read(14), 're-3': read(14), ...way(100) })
    const { one, evaluation } = says({ ...base, 're-1': read(13), 're-2': read(13), 're-3': read(13), ...way(90) })
    const trend = picturesOf(evaluation, one, { slots: {} }).find((picture) => picture.kind === 'trend')
    expect(trend?.kind === 'trend' && trend.points.map(({ alike }) => alike)).toEqual([false, false, true, true])
  })
})

describe('the target of an electrode', () => {
  const alike = (value: number): Slots => ({ ...base, 're-1': read(value), 're-2': read(value), 're-3': read(value) })
  const taken = (value: number, target_ohm: number | null, withDevice = true) => {
    const build = new FactsBuilder()
    const supply = build.part({ ...exampleSupply, arrangement: 'TT' })
    if (withDevice) {
      const board = build.part({ kind: 'board', tag: 'DB1', name: 'House', boardId: null, phases: 1 })
      build.part({ ...exampleRcd, boardId: board })
    }
    const id = build.part({ ...exampleElectrode, target_ohm })
    build.reading('electrode', id, { slots: alike(value) })
    expect(supply).toBeTruthy()
    return evaluate(build.facts(), START_ms).byKey.get(stepKey('electrode', id))!
  }

  it('is held besides what its devices allow', () => {
    expect(taken(16, null).verdict).toBe('within')
    expect(taken(16, 10)).toMatchObject({ verdict: 'outside', finding: { code: 'electrode.target.outside' } })
    expect(taken(10, 10)).toMatchObject({ verdict: 'close', finding: { code: 'electrode.target.close' } })
    expect(taken(9, 10).verdict).toBe('within')
  })

  it('is all that it is held against where no device is entered', () => {
    expect(taken(9, null, false)).toMatchObject({ verdict: 'not-yet', finding: { code: 'electrode.no-device' } })
    expect(taken(9, 10, false)).toMatchObject({ verdict: 'within', finding: { code: 'electrode.target.within' } })
    expect(taken(11, 10, false).verdict).toBe('outside')
  })

  it('of nothing is none', () => {
    for (const target_ohm of [0, -5])
      expect(partDataSchema.safeParse({ ...exampleElectrode, target_ohm }).success).toBe(false)
  })
})
