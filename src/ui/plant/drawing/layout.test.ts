import '@/words/everyTest'
import '@/words/plant'
import { describe, expect, it } from 'vitest'
import type { Verdict } from '@/core/verdict/verdict'
import { isAlike, type NewPart } from '@/core/plant/additions'
import { houseWith, pointWith } from '@/core/plant/begin'
import type { PartData } from '@/core/plant/part'
import type { PlantIndex } from '@/core/plant/plantIndex'
import { partsIn, treeOf } from '@/core/plant/tree'
import { type FactsBuilder, plantOf, testId } from '@/core/testing/factsBuilder'
import { exampleModule } from '@/core/steps/worked'
import { lanesOf } from './lanes'
import { type Layout, layoutOf } from './layout'
import { nearest } from './nearest'

let n = 0x9000
const newId = (): string => testId(n++)
const addAll = (builder: FactsBuilder, parts: readonly NewPart[]): void => {
  for (const one of parts) builder.part(one.data, one.id)
}
const moduleType = { id: testId(1), make: 'Example', name: 'Sixty', data: exampleModule }
const array = (tag: string) => ({ kind: 'array', tag, tilt_deg: 20, azimuth_deg: 160, mounting: 'open-rack' }) as const
const string = (tag: string, links: object) =>
  ({ kind: 'string', tag, arrayId: null, modulesInSeries: 18, moduleType, ...links }) as const
const inverter = (tag: string) => ({ kind: 'inverter', tag, maxInput_V: 1000 }) as const
const board = (tag: string, boardId: string | null = null) => ({ kind: 'board', tag, name: '', boardId }) as const

const nothing = {
  opened: new Set<string>(),
  troubles: new Map<string, Verdict>(),
  drafts: new Set<string>(),
  selected: null,
  canWrite: true,
}
const drawn = (plant: PlantIndex, opened: string[] = []): Layout =>
  layoutOf({ ...nothing, plant, opened: new Set(opened) })

/** Sheds with many strings: combiners and inverters of their own. */
const field = (combiners: number) =>
  plantOf((builder) => {
    const roof = builder.part(array('Field'))
    for (let k = 1; k <= combiners; k++) {
      const inverterId = builder.part(inverter(`INV${k}`))
      const combinerId = builder.part({ kind: 'combiner', tag: `CB${k}`, inverterId })
      for (let m = 1; m <= 20; m++) builder.part(string(`${k}.${m}`, { arrayId: roof, combinerId }))
    }
  })

/** Boards below boards, devices before some ways and in others, points, electrodes, and what hangs nowhere. */
const works = () =>
  plantOf((builder) => {
    const supplyId = builder.part({
      kind: 'supply',
      tag: 'S1',
      arrangement: 'TT',
      phases: 3,
      nominal_V: 230,
      declaredZe_ohm: null,
      faultLevel_kA: null,
    })
    const origin = builder.part({ ...board('DB1'), supplyId })
    const hall = builder.part(board('DB2', origin))
    builder.part(board('DB3', hall))
    builder.part(board('DB4', origin))
    const rcd = (tag: string, boardId: string | null, form: 'rccb' | 'rcbo', upstreamId: string | null = null) =>
      builder.part({
        kind: 'rcd',
        tag,
        boardId,
        upstreamId,
        form,
        type: 'A',
        delay: 'general',
        rated_mA: 30,
        standard: 'iec-61008',
      })
    const main = rcd('RCD0', origin, 'rccb')
    const some = rcd('RCD1', hall, 'rccb', main)
    rcd('RCD7', hall, 'rccb')
    rcd('RCD8', null, 'rccb')
    const circuit = (tag: string, boardId: string | null, rcdId: string | null = null) =>
      builder.part({
        kind: 'circuit',
        tag,
        feeds: `Feeds ${tag}`,
        boardId,
        rcdId,
        phases: 1,
        device: 'B',
        rating_A: 16,
        breaking_kA: 6,
        line_mm2: 2.5,
        protective_mm2: 1.5,
        length_m: 20,
      })
    circuit('1', origin, main)
    for (const tag of ['2', '3']) circuit(tag, hall, some)
    const own = circuit('4', hall, rcd('RCD4', hall, 'rcbo'))
    circuit('5', null)
    const point = pointWith(newId).at(-1)!.data
    for (const circuitId of [own, null])
      builder.part({ ...point, tag: circuitId ? 'CP1' : 'CP2', circuitId } as PartData)
    builder.part({ ...inverter('INV1'), circuitId: own })
    for (const tag of ['E1', 'E2', 'E3', 'E4', 'E5'])
      builder.part({ kind: 'electrode', tag, form: 'rods', rods: 2, length_m: 2.4, diameter_mm: 16, spacing_m: 3 })
    builder.part({
      kind: 'buried-service',
      tag: 'W1',
      what: 'water',
      material: 'metal',
      bearing_deg: 10,
      away_m: 4,
      electrodeId: null,
    })
  })

const plants: [string, () => PlantIndex][] = [
  [
    'a roof of three',
    () =>
      plantOf((builder) => {
        const arrayId = builder.part(array('South'))
        for (const tag of ['1', '2', '3']) builder.part(string(tag, { arrayId }))
        for (let k = 1; k <= 19; k++) builder.part({ kind: 'row', tag: `R${k}`, arrayId, conductor: null })
        builder.part({ kind: 'dc-switch', tag: 'DC1', ratedVoltage_V: 1000, rating_A: 16 })
        builder.part({ kind: 'surge-protection', tag: 'SPD1', ratedVoltage_V: null })
        builder.part(inverter('INV1'))
      }),
  ],
  ['400 strings in 20 combiners', () => field(20)],
  ['boards, devices and points', works],
  ['a house', () => plantOf((builder) => addAll(builder, houseWith(newId)))],
  ['a charge point', () => plantOf((builder) => addAll(builder, pointWith(newId)))],
  [
    'parts that hang nowhere',
    () =>
      plantOf((builder) => {
        builder.part(string('1', {}))
        for (const tag of ['CB1', 'CB2']) builder.part({ kind: 'combiner', tag, inverterId: null })
        for (const tag of ['DC1', 'DC2']) builder.part({ kind: 'dc-switch', tag, ratedVoltage_V: null, rating_A: null })
        for (const tag of ['INV1', 'INV2', 'INV3', 'INV4', 'INV5']) builder.part(inverter(tag))
        builder.part({ kind: 'row', tag: 'R1', arrayId: null, conductor: null })
      }),
  ],
  [
    'boards that feed each other by mistake',
    () => {
      const [a, b] = [newId(), newId()]
      return plantOf((builder) => {
        builder.part(board('DB1', b), a)
        builder.part(board('DB2', a), b)
      })
    },
  ],
]

describe.each(plants)('%s', (_, make) => {
  const plant = make()
  const inService = [...plant.parts.values()].filter((one) => !one.retired).map((one) => one.id)

  it('is drawn whole: every part stands there, by itself or in a fold', () => {
    const pieces = drawn(plant).pieces.flatMap((piece) => piece.ids)
    expect(inService.filter((id) => !pieces.includes(id))).toEqual([])
  })

  it('stands in the outline, every part once', () => {
    const listed = treeOf(plant)
      .flatMap(partsIn)
      .map((one) => one.id)
    expect([...listed].sort()).toEqual([...inService].sort())
  })

  it('stays on its sheet, and no two pieces have one key', () => {
    const { pieces, places, width, height } = drawn(plant)
    for (const { box, key } of [...pieces, ...places]) {
      expect(
        box.x >= 0 && box.y >= 0 && box.x + box.w <= width + 1 && box.y + box.h <= height + 1,
        `${key} ${JSON.stringify(box)}`,
      ).toBe(true)
    }
    const keys = [...pieces, ...places].map((one) => one.key)
    expect(new Set(keys).size).toBe(keys.length)
  })

  it('is gone through by arrows alone', () => {
    const layout = drawn(plant)
    const reached = new Set<string>()
    const go = (key: string): void => {
      if (reached.has(key)) return
      reached.add(key)
      for (const heading of ['left', 'right', 'up', 'down'] as const) {
        const next = nearest(layout, key, heading)
        if (next) go(next)
      }
    }
    go(layout.pieces[0]!.key)
    const all = [...layout.pieces, ...layout.places].map((one) => one.key)
    expect(all.filter((key) => !reached.has(key))).toEqual([])
  })
})

describe('strings alike', () => {
  it('of 20 combiners are two lanes and one for the rest, and open in place', () => {
    const plant = field(20)
    const lanes = lanesOf(plant.ofKind('string'), plant, new Set())
    expect(lanes.map((lane) => lane.strings.length)).toEqual([20, 20, 360])
    const opened = lanesOf(plant.ofKind('string'), plant, new Set([lanes[2]!.fold!]))
    expect(opened).toHaveLength(20)
    const first = lanesOf(plant.ofKind('string'), plant, new Set([lanes[0]!.fold!]))
    expect(first.flatMap((lane) => lane.strings)).toHaveLength(400)
  })

  it('are drawn each by itself up to eight', () => {
    const plant = plantOf((builder) => Array.from({ length: 8 }, (_, k) => builder.string(`${k + 1}`)))
    expect(lanesOf(plant.ofKind('string'), plant, new Set())).toHaveLength(8)
  })

  it('wear the worst that is wrong with one of them', () => {
    const plant = plantOf((builder) => Array.from({ length: 12 }, (_, k) => builder.string(`${k + 1}`)))
    const [first, , third] = plant.ofKind('string')
    const troubles = new Map<string, Verdict>([
      [first!.id, 'close'],
      [third!.id, 'outside'],
    ])
    const { pieces } = layoutOf({ ...nothing, plant, troubles })
    const stacks = pieces.filter((one) => one.kind === 'string' && one.ids.length > 1)
    expect(stacks.map((one) => one.trouble?.verdict)).toEqual(['outside'])
  })

  it('leave the stack when one of them is changed', () => {
    const plant = plantOf((builder) =>
      Array.from({ length: 12 }, (_, k) => builder.string(`${k + 1}`, k === 5 ? 10 : 11)),
    )
    const lanes = lanesOf(plant.ofKind('string'), plant, new Set())
    expect(lanes.map((lane) => lane.strings.length)).toEqual([5, 1, 6])
    const [a, b] = plant.ofKind('string')
    expect(isAlike(a!.data, b!.data)).toBe(true)
  })
})
