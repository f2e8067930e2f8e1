import { describe, expect, it } from 'vitest'
import { evaluate } from '../evaluate'
import { exampleString } from '../steps/worked'
import { FactsBuilder, testId } from '../testing/factsBuilder'
import { moduleTypeSchema, modulesInSeriesSchema, partDataSchema, tagSchema } from './part'
import { compareTags, partsOfKind, plantFrom } from './projection'

describe('the plant as its entries leave it', () => {
  it('takes the later change of a part, and keeps the entry that made it', () => {
    const build = new FactsBuilder()
    const id = build.string('1', 11)
    const change = build.add(
      { kind: 'plant-change', v: 1, before: exampleString(11), after: exampleString(12), base: null },
      { partId: id },
    )
    expect(plantFrom(build.entries).get(id)).toMatchObject({
      revision: change,
      retired: false,
      data: { modulesInSeries: 12 },
    })
  })

  it('retires a part, which stays readable, and takes it back', () => {
    const build = new FactsBuilder()
    const id = build.string('1')
    build.add({ kind: 'plant-change', v: 1, before: exampleString(11), after: null, base: null }, { partId: id })
    const retired = plantFrom(build.entries)
    expect(retired.get(id)).toMatchObject({ retired: true, data: { tag: '1' } })
    expect(partsOfKind(retired, 'string')).toEqual([])
    expect(evaluate(build.facts(), 0).steps.filter((one) => one.part.id === id)).toEqual([])
    build.add({ kind: 'plant-change', v: 1, before: null, after: exampleString(11), base: null }, { partId: id })
    expect(partsOfKind(plantFrom(build.entries), 'string').length).toBe(1)
  })

  it('counts tags as people do', () => {
    const build = new FactsBuilder()
    for (const tag of ['10', '2', 'A1', '1', 'A10', 'A2']) build.string(tag)
    const tags = partsOfKind(plantFrom(build.entries), 'string').map((part) => part.data.tag)
    expect(tags).toEqual(['1', '2', '10', 'A1', 'A2', 'A10'])
    expect(compareTags('2', '10')).toBeLessThan(0)
  })

  it('asks nothing of strings that are not there', () => {
    const build = new FactsBuilder()
    build.part({ kind: 'array', tag: 'South', tilt_deg: 35, azimuth_deg: 180, mounting: 'open-rack' })
    build.part({ kind: 'inverter', tag: 'INV', maxInput_V: null })
    const { steps, stations } = evaluate(build.facts(), 0)
    expect(steps.filter((one) => one.part.data.kind === 'string')).toEqual([])
    expect(stations.map((one) => one.station)).toEqual(['modules', 'inverter'])
  })
})

describe('what a part may be', () => {
  it.each([0, -1, 61, 400, 1.5, Number.NaN])('a string of %d modules is none', (count) => {
    expect(modulesInSeriesSchema.safeParse(count).success).toBe(false)
  })

  it.each([
    ['', false],
    ['1', true],
    ['A-12', true],
    ['Süd 3', true],
    ['=SUM(A1)', false],
    ['<b>', false],
    ['x'.repeat(13), false],
  ])('a tag "%s" is taken: %s', (tag, taken) => {
    expect(tagSchema.safeParse(tag).success).toBe(taken)
  })

  it('refuses a plane that no roof has', () => {
    const array = { kind: 'array', tag: 'S', tilt_deg: 35, azimuth_deg: 180, mounting: 'open-rack' }
    expect(partDataSchema.safeParse(array).success).toBe(true)
    for (const wrong of [{ tilt_deg: 91 }, { azimuth_deg: 360 }, { mounting: 'floating' }, { colour: 'red' }]) {
      expect(partDataSchema.safeParse({ ...array, ...wrong }).success).toBe(false)
    }
  })

  it('keeps the module type whole', () => {
    const type = exampleString(11).moduleType
    expect(moduleTypeSchema.safeParse(type).success).toBe(true)
    expect(moduleTypeSchema.safeParse({ ...type, id: testId(1).slice(1) }).success).toBe(false)
  })
})
