import { describe, expect, it } from 'vitest'
import { exampleString } from '../steps/worked'
import { plantOf, testId } from '../testing/factsBuilder'
import { type AddedKind, alikeTo, copiesOf, mayComeAt, nameable, partsAt, tagsAfter } from './additions'
import { copyOf, houseWith, pointWith, roofWith } from './begin'
import { fieldsOf, kindOf } from './kinds'
import { partDataSchema, partKinds } from './part'
import { PlantIndex } from './plantIndex'

let n = 0x9000
const newId = (): string => testId(n++)

const array = { kind: 'array', tag: 'Barn', tilt_deg: 20, azimuth_deg: 160, mounting: 'open-rack' } as const
const board = (tag: string, boardId: string | null = null) => ({ kind: 'board', tag, name: '', boardId }) as const

describe('what may come where', () => {
  const all = plantOf((builder) => {
    const roof = builder.part(array)
    builder.string('1')
    const db = builder.part(board('DB1'))
    for (const kind of partKinds) {
      if (['site', 'string', 'array', 'board'].includes(kind)) continue
      for (const one of partsAt(kind as AddedKind, null, new PlantIndex(new Map()), newId))
        builder.part(one.data, one.id)
    }
    expect([roof, db]).toHaveLength(2)
  })

  it('is taken by the core wherever it is offered', () => {
    const offered = [...all.parts.values()].flatMap((part) => mayComeAt(part, all).map((kind) => ({ part, kind })))
    expect(offered.length).toBeGreaterThan(30)
    for (const { part, kind } of offered)
      for (const made of partsAt(kind, part, all, newId))
        expect(partDataSchema.safeParse(made.data).error?.issues ?? [], `${kind} at ${part.data.kind}`).toEqual([])
  })

  it('hangs where it was put: a rail on its array, a circuit behind its device, a point on a circuit of its own', () => {
    const of = (kind: string) => [...all.parts.values()].find((one) => one.data.kind === kind)!
    expect(partsAt('row', of('array'), all, newId)[0]!.data).toMatchObject({ arrayId: of('array').id })
    expect(partsAt('circuit', of('rcd'), all, newId)[0]!.data).toMatchObject({ rcdId: of('rcd').id })
    expect(partsAt('board', of('board'), all, newId)[0]!.data).toMatchObject({ boardId: of('board').id, tag: 'DB2' })
    const [point, way] = partsAt('charge-point', of('board'), all, newId)
    expect(way!.data).toMatchObject({ kind: 'circuit', boardId: of('board').id })
    expect(point!.data).toMatchObject({ kind: 'charge-point', circuitId: way!.id })
  })

  it('offers no string where none can be copied: it is made of a module type', () => {
    const empty = plantOf((builder) => builder.part(array))
    expect(mayComeAt(empty.ofKind('array')[0]!, empty)).toEqual(['row'])
    expect(() => partsAt('string', empty.ofKind('array')[0]!, empty, newId)).toThrow('a string to copy')
  })
})

describe('a second of a kind', () => {
  it('leaves what went by the only one where it was', () => {
    const plant = plantOf((builder) => {
      builder.part(array)
      builder.string('1')
      builder.string('2')
      builder.part({ kind: 'dc-switch', tag: 'DC1', ratedVoltage_V: 1000, rating_A: 25 })
    })
    const [first, second] = plant.ofKind('string')
    const [only] = plant.ofKind('dc-switch')
    expect(plant.switchOf(first!)?.id).toBe(only!.id)
    const made = partsAt('dc-switch', second!, plant, newId)
    const after = new PlantIndex(
      new Map([...plant.parts, ...made.map((one) => [one.id, { ...one, revision: 'x', retired: false }] as const)]),
    )
    expect(after.switchOf(after.ofKind('string')[0]!)?.data.tag).toBe('DC1')
    expect(after.switchOf(after.ofKind('string')[1]!)?.data.tag).toBe('DC2')
  })

  it('needs no names as long as it is the first', () => {
    const plant = plantOf((builder) => builder.string('1'))
    const made = partsAt('dc-switch', plant.ofKind('string')[0]!, plant, newId)
    expect(made).toHaveLength(1)
  })
})

describe('what a field may name', () => {
  it('is no board that it feeds itself, however far below, and never itself', () => {
    const [a, b, c, d] = [newId(), newId(), newId(), newId()]
    const plant = plantOf((builder) => {
      builder.part(board('DB1'), a)
      builder.part(board('DB2', a), b)
      builder.part(board('DB3', b), c)
      builder.part(board('DB4'), d)
    })
    const field = fieldsOf(kindOf('board')).find((one) => one.id === 'boardId')!
    const named = (id: string) => nameable(plant.parts.get(id)!, field, plant).map((one) => one.data.tag)
    expect(named(a)).toEqual(['DB4'])
    expect(named(b)).toEqual(['DB1', 'DB4'])
    expect(named(d)).toEqual(['DB1', 'DB2', 'DB3'])
  })
})

describe('tags', () => {
  it.each([
    ['E7', ['E8', 'E9']],
    ['3', ['4', '5']],
    ['09', ['10', '11']],
    ['Cooker', ['Cooker 2', 'Cooker 3']],
    ['Kitchen east', ['Kitchen 2', 'Kitchen 3']],
  ])('%s is counted on to %j', (tag, next) => {
    expect(tagsAfter(tag, 'circuit', 2, new PlantIndex(new Map()))).toEqual(next)
  })

  it('that are taken are passed over, and copies stay tags', () => {
    const plant = plantOf((builder) => {
      for (const tag of ['1', '2', '4']) builder.string(tag)
    })
    const copies = copiesOf(plant.ofKind('string')[0]!, 3, plant)
    expect(copies.map((one) => one.tag)).toEqual(['3', '5', '6'])
    for (const one of copies) expect(partDataSchema.safeParse(one).success).toBe(true)
  })

  it('of a copied charge point come without its serial number and without its circuit', () => {
    const plant = plantOf((builder) => {
      for (const one of pointWith(newId))
        builder.part(one.data.kind === 'charge-point' ? { ...one.data, serial: 'A17' } : one.data, one.id)
    })
    expect(copiesOf(plant.ofKind('charge-point')[0]!, 1, plant)).toMatchObject([
      { tag: 'CP2', serial: '', circuitId: null },
    ])
  })
})

describe('a plant to begin with', () => {
  it.each([
    ['house', houseWith],
    ['point', pointWith],
    ['roof', roofWith],
  ] as const)('%s is taken whole, its figures open', (_, make) => {
    for (const one of make(newId)) expect(partDataSchema.safeParse(one.data).error?.issues ?? []).toEqual([])
  })

  it('copied from another job hangs as it did there, under ids of its own', () => {
    const from = plantOf((builder) => {
      builder.part({ kind: 'site', tag: 'Site', lowestTemperature_C: -14, highestCellTemperature_C: 72 })
      for (const one of pointWith(newId)) builder.part(one.data, one.id)
    })
    const copy = copyOf(from.parts.values(), newId, testId(0xb1))
    const of = (kind: string) => copy.find((one) => one.data.kind === kind)!
    expect(of('site').id).toBe(testId(0xb1))
    expect(of('circuit').data).toMatchObject({ boardId: of('board').id })
    expect(of('charge-point').data).toMatchObject({ circuitId: of('circuit').id })
    const old = new Set(from.parts.keys())
    expect(copy.filter((one) => old.has(one.id))).toEqual([])
  })
})

describe('parts alike', () => {
  it('differ in nothing but their tags', () => {
    const plant = plantOf((builder) => {
      for (const tag of ['1', '2', '3']) builder.string(tag)
      builder.part({ ...exampleString(7), tag: '4' })
    })
    const [first, ...rest] = plant.ofKind('string')
    expect(alikeTo(first!, plant).map((one) => one.data.tag)).toEqual(['2', '3'])
    expect(alikeTo(rest.at(-1)!, plant)).toEqual([])
  })
})
