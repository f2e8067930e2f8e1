import { describe, expect, it } from 'vitest'
import { evaluate, stepKey } from '../../evaluate'
import { allCauses } from '../../evaluation/allCauses'
import type { PartData, StringData } from '../../plant/part'
import { readValueOf } from '../../quantity/readValue'
import type { SlotValue } from '../../record/entry'
import { FactsBuilder, START_ms } from '../../testing/factsBuilder'
import { exampleConditions, exampleString } from '../worked'

/** Eleven modules, each with a converter that gives 1.2 V while it is held back; the figures are our own. */
const converters = { acts: 'converts', held_V: 1.2, most_V: 460, most_A: 14, insulation_V: 500 } as const
const shutOff = { acts: 'shuts-off', held_V: 0.6, most_V: null, most_A: null, insulation_V: null } as const
const array: PartData = {
  kind: 'array',
  tag: 'South',
  tilt_deg: 35,
  azimuth_deg: 175,
  mounting: 'open-rack',
  category: 2,
}
const volts = (value: number, decimals = 1): SlotValue => readValueOf(value, 'V', decimals)
const choice = (name: string): SlotValue => ({ choice: name })

function roof(electronics: StringData['electronics'], others: readonly PartData[] = []) {
  const build = new FactsBuilder()
  build.part({ kind: 'site', tag: 'Site', lowestTemperature_C: -10, highestCellTemperature_C: 70 })
  const arrayId = build.part(array)
  const { moduleType, ...string } = exampleString(11)
  const data = { ...moduleType.data, maxSystemVoltage_V: 1000 }
  const id = build.part({ ...string, moduleType: { ...moduleType, data }, arrayId, electronics })
  for (const other of others) build.part(other)
  const all = () => evaluate(build.facts(), START_ms)
  const look = (step: string, part = id) => all().byKey.get(stepKey(step, part))
  return { build, id, arrayId, all, look }
}

function readAt(electronics: StringData['electronics'], voltage: SlotValue) {
  const made = roof(electronics)
  made.build.reading('pv-voc', made.id, { slots: { voltage } })
  return { ...made, step: made.look('pv-voc')! }
}

describe('a string whose modules have converters', () => {
  it.each([
    [13.2, 'within'],
    [13.7, 'close'],
    [12, 'outside'],
    [14.4, 'outside'],
    [411, 'outside'],
  ])('held back at %d V, with 13.2 V expected, is %s', (value, verdict) => {
    expect(readAt(converters, volts(value)).step.verdict).toBe(verdict)
  })

  it('is read without light, and its sum counts the modules', () => {
    const { step } = readAt(converters, volts(12))
    expect(step.finding).toMatchObject({ code: 'pv-voc.held.outside', figures: { count: 10, modules: 11 } })
    expect(step.counting!.judgement.rule!.expected).toEqual({ value: 11 * 1.2, uncertainty: 0 })
  })

  it('that nothing holds back is said to be live, not to be a module short', () => {
    const { step, all } = readAt(converters, volts(411, 0))
    expect(step.finding.code).toBe('pv-voc.held-not')
    expect(allCauses(all(), step)[0]).toMatchObject({ code: 'not-held', fit: 'fits' })
  })

  it('names the converter that gives nothing', () => {
    const { step, all } = readAt(converters, volts(12))
    expect(allCauses(all(), step).map(({ code }) => code)).toEqual(['converter-dead', 'modules-missing'])
  })

  it('is judged by nothing as long as nobody entered what each gives', () => {
    const { step } = readAt({ ...converters, held_V: null }, volts(13.2))
    expect(step).toMatchObject({ verdict: 'not-yet', finding: { code: 'pv-voc.held-unknown' } })
  })

  it('is not asked for short-circuit current, curve, tracker window or string fuses', () => {
    const { look, arrayId } = roof(converters)
    for (const step of ['pv-isc', 'pv-curve']) expect(look(step), step).toBeUndefined()
    for (const step of ['design-tracker', 'design-fuses']) expect(look(step, arrayId), step).toBeUndefined()
    for (const step of ['pv-polarity', 'pv-voc', 'pv-insulation', 'operating']) expect(look(step), step).toBeDefined()
  })

  it('is held against its inverter by the most that its converters give, whatever the winter', () => {
    const inverter: PartData = { kind: 'inverter', tag: 'INV', maxInput_V: 480, maxShortCircuit_A: 15 }
    const { look, arrayId } = roof(converters, [inverter])
    expect(look('design-voltage', arrayId)).toMatchObject({ verdict: 'within', finding: { figures: { value: 460 } } })
    expect(look('design-current', arrayId)).toMatchObject({ verdict: 'within', finding: { figures: { value: 14 } } })
    const above = roof({ ...converters, most_V: 500 }, [inverter])
    expect(above.look('design-voltage', above.arrayId)!.verdict).toBe('outside')
    const unknown = roof({ ...converters, most_V: null, most_A: null }, [inverter])
    expect(unknown.look('design-voltage', unknown.arrayId)!.verdict).toBe('not-yet')
    expect(unknown.look('design-current', unknown.arrayId)!.verdict).toBe('not-yet')
  })
})

describe('modules that are shut off', () => {
  it('are read as ever once they are released: every test is asked', () => {
    const { look, arrayId } = roof(shutOff)
    for (const step of ['pv-voc', 'pv-isc', 'pv-curve', 'pv-insulation']) expect(look(step), step).toBeDefined()
    for (const step of ['design-tracker', 'design-fuses']) expect(look(step, arrayId), step).toBeDefined()
  })

  it('that are still held back are outside, and that is the first cause', () => {
    const made = roof(shutOff)
    const conditions = exampleConditions(800, 40)
    made.build.reading('pv-voc', made.id, { slots: { voltage: volts(6.6) }, conditions })
    const step = made.look('pv-voc')!
    expect(step.verdict).toBe('outside')
    expect(allCauses(made.all(), step)[0]).toMatchObject({ code: 'still-held', fit: 'fits' })
  })
})

describe('insulation with electronics on the modules', () => {
  function tested(electronics: StringData['electronics'], setting: string) {
    const made = roof(electronics)
    made.build.reading('pv-insulation', made.id, {
      slots: {
        method: choice('joined-to-earth'),
        'set-voltage': choice(setting),
        joined: readValueOf(400, 'Mohm', 0),
        behaviour: choice('steady'),
        surface: choice('dry'),
        surge: choice('none-there'),
      },
    })
    return made.look('pv-insulation')!
  }

  it('is tested at no more than they bear: 575 V asks for 1000 V, and 500 V is what they take', () => {
    expect(tested(converters, 'v500')).toMatchObject({
      verdict: 'within',
      flags: expect.arrayContaining(['test-voltage-lowered']),
    })
    expect(tested(null, 'v500').verdict).toBe('not-yet')
    expect(tested({ ...converters, insulation_V: 250 }, 'v500').finding.code).toBe('pv-insulation.above-electronics')
  })

  it('is never better than close where nobody knows what they bear', () => {
    expect(tested({ ...converters, insulation_V: null, most_V: 390 }, 'v500').verdict).toBe('close')
    expect(tested(shutOff, 'v1000').verdict).toBe('close')
  })
})
