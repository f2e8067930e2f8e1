import { describe, expect, it } from 'vitest'
import { testId } from '../../testing/factsBuilder'
import { partDataSchema, partKinds } from '../part'
import { PlantIndex } from '../plantIndex'
import { stationsOfLine } from '../stations'
import { fieldsOf, kindOf, kinds, nameOf, namedBy } from './index'

const near = { arrayId: null, boardId: null }

describe('what a kind of part says of itself', () => {
  it.each(kinds.map((kind) => [nameOf(kind), kind] as const))('is whole for a %s', (name, kind) => {
    for (const { id, names, rule, usual, yesNo } of fieldsOf(kind)) {
      if (names) expect(partKinds).toContain(names.kind)
      expect(rule.takes === 'part').toBe(names !== undefined)
      expect(rule.takes === 'yes-no').toBe(yesNo !== undefined)
      if (rule.takes === 'number') expect(rule.most, id).toBeGreaterThan(rule.least!)
      if (usual !== undefined && rule.takes === 'choice') expect(rule.options).toContain(usual)
    }
    if (kind.station) expect(stationsOfLine.map((one) => one.id)).toContain(kind.station)
    if (kind.prefix === null) return
    expect(partDataSchema.safeParse(kind.blank('T1', near)).success, name).toBe(true)
  })

  it('has bounds read off its schema, with what is outside already', () => {
    const ruleOf = (kind: string, id: string) => fieldsOf(kindOf(kind)).find((one) => one.id === id)!.rule
    expect(ruleOf('array', 'tilt_deg')).toMatchObject({ takes: 'number', least: 0, most: 90, above: false })
    expect(ruleOf('array', 'azimuth_deg')).toMatchObject({ most: 360, below: true, optional: false })
    expect(ruleOf('dc-switch', 'rating_A')).toMatchObject({ least: 0, above: true, most: 2000, optional: true })
    expect(ruleOf('row', 'conductor.joints')).toMatchObject({ whole: true, least: 0, most: 200 })
    expect(ruleOf('circuit', 'phases')).toMatchObject({ takes: 'choice', options: [1, 3], isNumber: true })
    expect(ruleOf('circuit', 'sockets')).toMatchObject({ takes: 'yes-no', optional: true })
    expect(ruleOf('board', 'name')).toMatchObject({ takes: 'text', optional: true, empty: '' })
  })

  it('refuses a name that nobody has', () => {
    expect(() => kindOf('roof')).toThrow('expected a kind of part')
    expect(() => namedBy('board', 'tag')).toThrow('expected a field that names a part')
  })
})

describe('a part that names another', () => {
  const part = (id: number, data: Parameters<typeof partDataSchema.parse>[0], retired = false) => ({
    id: testId(id),
    data: partDataSchema.parse(data),
    revision: '',
    retired,
  })
  const blank = (kind: string, tag: string, over: object = {}) => ({ ...kindOf(kind).blank(tag, near), ...over })
  const plantOf = (...parts: ReturnType<typeof part>[]) => new PlantIndex(new Map(parts.map((one) => [one.id, one])))

  it('has the only one there is where nobody said which, if its kind has it so', () => {
    const circuit = part(2, blank('circuit', '1'))
    const plant = plantOf(part(1, blank('board', 'DB1')), circuit, part(3, blank('rcd', 'RCD1')))
    expect(plant.named('board', circuit, 'boardId')?.data.tag).toBe('DB1')
    expect(plant.named('rcd', circuit, 'rcdId')).toBeNull()
  })

  it('has none of several, and none that was taken out', () => {
    const circuit = part(2, blank('circuit', '1', { rcdId: testId(9) }))
    const boards = [part(1, blank('board', 'DB1')), part(4, blank('board', 'DB2'))]
    const plant = plantOf(...boards, circuit, part(9, blank('rcd', 'RCD1'), true))
    expect(plant.named('board', circuit, 'boardId')).toBeNull()
    expect(plant.named('rcd', circuit, 'rcdId')).toBeNull()
  })
})
