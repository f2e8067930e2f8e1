import { describe, expect, it } from 'vitest'
import { evaluate, evaluateDraft, stepKey } from '../evaluate'
import { readValueOf } from '../quantity/readValue'
import { readStepById } from '../steps'
import { FactsBuilder, readingBody, testId } from '../testing/factsBuilder'
import type { Body } from './entry'
import type { Instrument } from './instrument'
import { instrumentsNamed, withKitCopies } from './kitCopies'

type Air = NonNullable<Body<'reading'>['air']>
const thermometer: Instrument = {
  id: testId(0xe1),
  tag: '05',
  name: 'Thermometer',
  serial: '5',
  calibrationDue: '2026-01-31',
  standIn: true,
  ranges: [{ measures: 'air-temperature', accuracy: { ofReading_pct: 0, digits: 5 }, most: 60, decimals: 1 }],
}
const air = (read: Air['read'], instrument: Air['instrument'] = null): Air => ({ read, instrument })

describe('the air beside a reading without light', () => {
  const build = new FactsBuilder()
  const string = build.string('1')
  build.polarity(string)
  const evaluation = evaluate(build.facts(), 0)
  const one = evaluation.byKey.get(stepKey('pv-voc', string))!
  const check = (own: Air) =>
    evaluateDraft(evaluation, one, readingBody({ slots: { voltage: readValueOf(372, 'V', 0) }, air: own })).check

  it('is refused where nobody could work in it, in another unit, or where its text says something else', () => {
    expect(check(air(readValueOf(9, 'degC', 0)))).toEqual({ state: 'fine' })
    expect(check(air(readValueOf(95, 'degC', 0)))).toMatchObject({ state: 'refused', code: 'air-out-of-reach' })
    expect(check(air(readValueOf(-60, 'degC', 0)))).toMatchObject({ state: 'refused', code: 'air-out-of-reach' })
    expect(check(air(readValueOf(9, 'V', 0)))).toMatchObject({ state: 'refused', code: 'conditions-unit' })
    expect(check(air({ ...readValueOf(9, 'degC', 0), value: 19 }))).toMatchObject({ code: 'conditions-text' })
  })

  it('keeps its instrument as the kit has it, whatever was sent', () => {
    const claimed = {
      id: thermometer.id,
      tag: '99',
      name: 'Mine',
      calibrationDue: null,
      standIn: false,
      accuracy: null,
      most: null,
    }
    const body = readingBody({
      slots: { voltage: readValueOf(372, 'V', 0) },
      air: air(readValueOf(9, 'degC', 0), claimed),
    })
    expect(instrumentsNamed(body)).toEqual([thermometer.id])
    const kept = withKitCopies(body, readStepById('pv-voc')!, new Map([[thermometer.id, thermometer]]))
    expect(kept).toMatchObject({ air: { instrument: { tag: '05', calibrationDue: '2026-01-31', standIn: true } } })
  })
})
