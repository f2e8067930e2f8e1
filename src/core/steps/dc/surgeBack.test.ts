import { describe, expect, it } from 'vitest'
import { evaluate, evaluateDraft, stepKey } from '../../evaluate'
import { readValueOf } from '../../quantity/readValue'
import type { SlotValue } from '../../record/entry'
import { FactsBuilder, readingBody, START_ms } from '../../testing/factsBuilder'

const lines = {
  'surge-seated': 'as-it-should',
  'surge-flag-sound': 'as-it-should',
  'surge-earth-tight': 'as-it-should',
}
const said = (choices: Record<string, string>): Record<string, SlotValue> =>
  Object.fromEntries(Object.entries(choices).map(([id, choice]) => [id, { choice }]))
const insulation = (surge: string): Record<string, SlotValue> => ({
  ...said({ method: 'joined-to-earth', 'set-voltage': 'v500', behaviour: 'steady', surface: 'dry', surge }),
  joined: readValueOf(410, 'Mohm', 0),
})

/** A string, surge protection and an inverter. */
function plant(withSurge = true) {
  const build = new FactsBuilder()
  const string = build.string('1')
  const surge = withSurge ? build.part({ kind: 'surge-protection', tag: 'SPD1', ratedVoltage_V: 1000 }) : ''
  const inverter = build.part({ kind: 'inverter', tag: 'INV', maxInput_V: 1000 })
  const gate = () => {
    const one = evaluate(build.facts(), START_ms).byKey.get(stepKey('reconnect', inverter))!
    return one.gates.find(({ id }) => id === 'surge-back')!
  }
  return { build, string, surge, inverter, gate }
}

describe('surge protection that was taken out', () => {
  it('holds back switching on until somebody says that it is back', () => {
    const { build, string, surge, gate } = plant()
    expect(gate()).toMatchObject({ met: false, hard: false, waitsFor: stepKey('surge-back', surge) })
    build.reading('pv-insulation', string, { slots: insulation('disconnected') })
    build.reading('surge-back', surge, { slots: said(lines) })
    expect(gate().met).toBe(true)
  })

  it('is out again after one more test with it taken out, not after one with it left in', () => {
    const { build, string, surge, gate } = plant()
    build.reading('surge-back', surge, { slots: said(lines) })
    build.reading('pv-insulation', string, { slots: insulation('left-in') })
    expect(gate().met).toBe(true)
    build.reading('pv-insulation', string, { slots: insulation('disconnected') })
    expect(gate().met).toBe(false)
    const back = evaluate(build.facts(), START_ms).byKey.get(stepKey('surge-back', surge))!
    expect(back).toMatchObject({ verdict: 'not-yet', finding: { code: 'lapsed.surge-in.entry' } })
  })

  it('does not count as back while it does not sit in its base', () => {
    const { build, surge, gate } = plant()
    build.reading('surge-back', surge, {
      slots: { ...said(lines), 'surge-seated': { choice: 'check-left-out', note: 'no time left' } },
    })
    expect(gate().met).toBe(false)
  })

  it('that is no part of the plant is said beside the reading', () => {
    const { build, string, gate } = plant(false)
    build.reading('pv-insulation', string, { slots: insulation('disconnected') })
    const one = evaluate(build.facts(), START_ms).byKey.get(stepKey('pv-insulation', string))!
    expect(one.flags).toContain('surge-not-entered')
    expect(gate().met).toBe(true)
  })

  it('that is a part of the plant is not answered away', () => {
    const { build, string } = plant()
    const evaluation = evaluate(build.facts(), START_ms)
    const { step, part } = evaluation.byKey.get(stepKey('pv-insulation', string))!
    const draft = evaluateDraft(evaluation, { step, part } as never, readingBody({ slots: insulation('none-there') }))
    expect(draft.judgement).toMatchObject({ verdict: 'not-yet', finding: { code: 'pv-insulation.surge-entered' } })
  })
})
