import { describe, expect, it } from 'vitest'
import { type PartData, partKinds } from '@/core/plant/part'
import {
  exampleBoard,
  exampleChargePoint,
  exampleCircuit,
  exampleElectrode,
  exampleRcd,
  exampleString,
  exampleSupply,
} from '@/core/steps/worked'
import { bareSite } from '@/core/plant/kinds/site'
import { hasWords } from '@/words/say'
import { fieldsOfKind, newPart, noLibraries, readField, readPart, tagTaken, textsAfter, textsOf } from './partForm'

const example: Record<string, PartData> = {
  site: bareSite,
  array: newPart('array', 'South'),
  row: { kind: 'row', tag: 'R1', arrayId: null, conductor: { length_m: 18, area_mm2: 6, joints: 4 } },
  string: { ...exampleString(11), fuse: { rating_A: 15, ratedVoltage_V: 1000 }, input: 'A' },
  combiner: newPart('combiner', 'C1'),
  'surge-protection': newPart('surge-protection', 'SPD1'),
  'dc-switch': { kind: 'dc-switch', tag: 'DC1', ratedVoltage_V: 1000, rating_A: 32 },
  inverter: { kind: 'inverter', tag: 'INV', maxInput_V: 1000, trackerMin_V: 200, trackerMax_V: 850 },
  supply: { ...exampleSupply, phases: 3, arrangement: 'TT' },
  board: { ...exampleBoard, name: '' },
  rcd: { ...exampleRcd, form: 'rcbo', delay: 'selective', rated_mA: 100 },
  circuit: { ...exampleCircuit, role: 'distribution', layout: 'ring', device: 'gG', protective_mm2: null },
  'charge-point': { ...exampleChargePoint, load: { group: 'L1', limit_A: 40 }, setTo_A: 16, ventilated: true },
  electrode: { ...exampleElectrode, form: 'disc', depth_m: 0.8 },
  'buried-service': {
    kind: 'buried-service',
    tag: 'W1',
    what: 'gas',
    material: 'plastic',
    bearing_deg: 80,
    away_m: 3.5,
    electrodeId: null,
  },
}
const part = (data: PartData, id = 'a') => ({ id, data, revision: '', retired: false })
const said = (data: PartData, texts: Record<string, string>): string => {
  const read = readPart(data, { ...textsOf(data), ...texts }, noLibraries)
  return 'message' in read ? read.message : ''
}

describe('the fields of a part', () => {
  it.each(partKinds)('of a %s have words, and read back what they show', (kind) => {
    for (const field of fieldsOfKind(kind)) expect(hasWords(`plant.${field.label}`)).toBe(true)
    const data = example[kind]!
    const read = readPart(data, textsOf(data), noLibraries)
    expect(read).toHaveProperty('data')
    expect(textsOf((read as { data: PartData }).data)).toEqual(textsOf(data))
  })

  it('take a decimal comma', () => {
    expect(readPart(example.array!, { ...textsOf(example.array!), tilt_deg: '22,5' }, noLibraries)).toMatchObject({
      data: { tilt_deg: 22.5 },
    })
  })

  it.each([
    ['0', 'Type a whole number from 1 to 60'],
    ['400', 'Type a whole number from 1 to 60'],
    ['10.5', 'Type a whole number from 1 to 60'],
    ['ten', 'Type a whole number from 1 to 60'],
    ['', 'Modules in series is needed.'],
  ])('say what is wrong with a string of "%s" modules', (modulesInSeries, sentence) => {
    expect(said(example.string!, { modulesInSeries })).toContain(sentence)
  })

  it('say what is wrong with a tag, a tilt and a rating', () => {
    expect(said(example.inverter!, { tag: '!' })).toContain('is not a tag')
    expect(said(example.array!, { tilt_deg: '95' })).toContain('from 0 to 90')
    expect(said(example['dc-switch']!, { rating_A: '-3' })).toContain('Rated current')
  })

  it('say what a bound leaves out', () => {
    expect(said(example['dc-switch']!, { rating_A: '0' })).toContain('above 0, at most 2000')
    expect(said(example.array!, { azimuth_deg: '360' })).toContain('from 0 to below 360')
    expect(said(example.row!, { 'conductor.length_m': '20', 'conductor.area_mm2': '' })).toContain('is needed')
  })

  it('take no joints where nobody counted them', () => {
    const texts = { ...textsOf(example.row!), 'conductor.joints': '' }
    expect(readPart(example.row!, texts, noLibraries)).toMatchObject({ data: { conductor: { joints: 0 } } })
  })

  it('leave a plate open that nobody has read, and a conductor that nobody knows', () => {
    expect(readPart(example.inverter!, { tag: 'INV' }, noLibraries)).toMatchObject({ data: { maxInput_V: null } })
    expect(
      readPart(example.row!, { tag: 'R1', 'conductor.length_m': '', 'conductor.area_mm2': '' }, noLibraries),
    ).toMatchObject({ data: { conductor: null } })
    expect(
      readPart(
        example.string!,
        { ...textsOf(example.string!), 'fuse.rating_A': '', 'fuse.ratedVoltage_V': '' },
        noLibraries,
      ),
    ).toMatchObject({
      data: { fuse: null },
    })
  })
})

describe('one field', () => {
  const circuit = example.circuit!
  const typed = (change: Record<string, string>) => ({ ...textsOf(circuit), ...change })

  it('is kept though another cannot be read, which stays as it was', () => {
    const read = readField(circuit, typed({ length_m: 'long', breaking_kA: '10' }), 'breaking_kA', noLibraries)
    expect(read).toMatchObject({ lacks: true, data: { breaking_kA: 10, length_m: exampleCircuit.length_m } })
  })

  it('that cannot be read says so, and keeps nothing', () => {
    expect(readField(circuit, typed({ length_m: 'long' }), 'length_m', noLibraries)).toMatchObject({
      field: 'length_m',
    })
  })

  it('that needs another waits for it: a conductor is known whole or not at all', () => {
    const row = { kind: 'row', tag: 'R1', arrayId: null, conductor: null } as const
    const half = { ...textsOf(row), 'conductor.length_m': '18' }
    expect(readField(row, half, 'conductor.length_m', noLibraries)).toHaveProperty('message')
    const whole = { ...half, 'conductor.area_mm2': '6' }
    expect(readField(row, whole, 'conductor.area_mm2', noLibraries)).toMatchObject({
      lacks: false,
      data: { conductor: { length_m: 18, area_mm2: 6 } },
    })
  })

  it('stays as it is being typed when somebody else changes the part, and an undo shows in the others', () => {
    const now = { ...circuit, breaking_kA: 10 } as PartData
    const texts = textsAfter(typed({ length_m: '4' }), circuit, now)
    expect(texts).toMatchObject({ length_m: '4', breaking_kA: '10' })
    expect(textsAfter(texts, now, circuit)).toMatchObject({ length_m: '4', breaking_kA: textsOf(circuit).breaking_kA })
  })
})

describe('tags', () => {
  it('are had by one part of a kind, capitals or not', () => {
    const parts = [part(example.combiner!)]
    expect(tagTaken(parts, 'combiner', 'c1', null)).toBe(parts[0])
    expect(tagTaken(parts, 'combiner', 'C1', 'a')).toBeNull()
    expect(tagTaken(parts, 'row', 'C1', null)).toBeNull()
    expect(tagTaken([{ ...parts[0]!, retired: true }], 'combiner', 'C1', null)).toBeNull()
  })
})
