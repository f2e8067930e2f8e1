import { describe, expect, it } from 'vitest'
import { exampleSite, exampleString } from '../steps/worked'
import type { Part, PartData } from './part'
import { emptyPlant, PlantIndex } from './plantIndex'

let count = 0
const made: Part[] = []
function add(data: PartData, retired = false): Part {
  const part = { id: `p${count++}`, data, revision: '', retired }
  made.push(part)
  return part
}
const array = add({ kind: 'array', tag: 'South', tilt_deg: 35, azimuth_deg: 180, mounting: 'open-rack' })
const gone = add({ kind: 'array', tag: 'Old', tilt_deg: 35, azimuth_deg: 180, mounting: 'open-rack' }, true)
const [one, two] = ['INV1', 'INV2'].map((tag) => add({ kind: 'inverter', tag, maxInput_V: 1000 }))
const combiner = add({ kind: 'combiner', tag: 'C1', inverterId: two!.id })
const string = (tag: string, more: object = {}) => add({ ...exampleString(10), tag, ...more }) as never
const s10 = string('10', { arrayId: array.id, inverterId: one!.id, input: 'A' })
const s2 = string('2', { arrayId: array.id, inverterId: one!.id, input: 'A' })
const s3 = string('3', { arrayId: array.id, combinerId: combiner.id })
const s4 = string('4', { arrayId: gone.id, combinerId: combiner.id, input: 'A' })
const s5 = string('5')
const row = add({ kind: 'row', tag: 'R1', arrayId: array.id, conductor: null })
const plant = new PlantIndex(new Map(made.map((part) => [part.id, part])))
const tags = (parts: readonly Part[]): string[] => parts.map((part) => part.data.tag)

describe('how parts hang together', () => {
  it('counts tags as people do, and leaves out what is retired', () => {
    expect(tags(plant.ofKind('string'))).toEqual(['2', '3', '4', '5', '10'])
    expect(tags(plant.ofKind('array'))).toEqual(['South'])
  })

  it('finds the array of strings, rows and arrays; none that is retired', () => {
    expect(plant.arrayOf(s2)).toBe(array)
    expect(plant.arrayOf(row)).toBe(array)
    expect(plant.arrayOf(array)).toBe(array)
    expect(plant.arrayOf(s4)).toBeNull()
    expect(plant.arrayOf(one!)).toBeNull()
  })

  it('finds the inverter that a string names, or its combiner; of two, none is guessed', () => {
    expect(plant.inverterOf(s2)).toBe(one)
    expect(plant.inverterOf(s3)).toBe(two)
    expect(plant.inverterOf(s5)).toBeNull()
  })

  it('takes the only inverter there is without being told', () => {
    const small = new PlantIndex(new Map([one!, s5 as Part].map((part) => [part.id, part])))
    expect(small.inverterOf(s5)).toBe(one)
  })

  it('lists the strings of an array, a combiner, an inverter, and of itself', () => {
    expect(tags(plant.stringsOf(array))).toEqual(['2', '3', '10'])
    expect(tags(plant.stringsOf(combiner))).toEqual(['3', '4'])
    expect(tags(plant.stringsOf(one!))).toEqual(['2', '10'])
    expect(tags(plant.stringsOf(s5))).toEqual(['5'])
    expect(tags(plant.stringsOf(row))).toEqual(['2', '3', '4', '5', '10'])
  })

  it('counts strings in parallel at one tracker input or one combiner', () => {
    expect(plant.inParallel(s10)).toBe(2)
    expect(plant.inParallel(s4)).toBe(2)
    // Nobody said to which inverter: it may share an input with any of the others.
    expect(plant.inParallel(s5)).toBeNull()
  })

  it('keeps inputs of one name at two inverters apart', () => {
    const other = string('6', { inverterId: two!.id, input: 'A' })
    const all = new PlantIndex(new Map(made.map((part) => [part.id, part])))
    expect(all.inParallel(other)).toBe(1)
  })

  it('knows the one site, the one switch, and of two switches the one that a string names', () => {
    const site = { id: 'site', data: exampleSite, revision: '', retired: false }
    const dc = (id: string): Part => ({
      id,
      data: { kind: 'dc-switch', tag: id, ratedVoltage_V: null, rating_A: null },
      revision: '',
      retired: false,
    })
    const of = (...parts: Part[]) => new PlantIndex(new Map(parts.map((part) => [part.id, part])))
    expect(of(site, dc('DC1')).site).toBe(site)
    const one = string('1')
    expect(of(one, dc('DC1')).switchOf(one)!.id).toBe('DC1')
    expect(of(one, dc('DC1'), dc('DC2')).switchOf(one)).toBeNull()
    const named = string('2', { switchId: 'DC2' })
    expect(of(named, dc('DC1'), dc('DC2')).switchOf(named)!.id).toBe('DC2')
    expect(emptyPlant.site).toBeNull()
    expect(emptyPlant.surgeProtection).toEqual([])
  })
})
