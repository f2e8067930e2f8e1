import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { exactly, spanOf } from '../quantity/span'
import { judgeDetector } from './detector'
import { CODED_A, codedBy, dutyFor, takenBy } from './duty'
import { cableBy, cableCodes } from './proximity'
import { pilotLevel_V, pilotStates, stateAt } from './state'

const current = fc.double({ min: CODED_A.least, max: CODED_A.most, noNaN: true })
const duty = fc.double({ min: 0, max: 100, noNaN: true })

describe('the duty of a pilot', () => {
  it('reads back as the current that it was made for, or as a little less where the two lines part', () => {
    fc.assert(
      fc.property(current, (wanted) => {
        const back = codedBy(dutyFor(wanted)).current_A!
        expect(back).toBeLessThanOrEqual(wanted + 1e-9)
        expect(back).toBeGreaterThan(wanted - 1.5)
      }),
    )
  })

  it('never lets a vehicle take more than the point coded, where it coded a current', () => {
    fc.assert(
      fc.property(duty, (one) => {
        const coded = codedBy(one)
        if (coded.class === 'analogue') expect(takenBy(one)).toEqual(coded)
      }),
    )
  })

  it('codes more with more duty', () => {
    fc.assert(
      fc.property(duty, duty, (a, b) => {
        const [low, high] = [codedBy(Math.min(a, b)), codedBy(Math.max(a, b))]
        if (low.current_A !== null && high.current_A !== null)
          expect(high.current_A).toBeGreaterThanOrEqual(low.current_A - 1e-9)
      }),
    )
  })

  it('refuses a duty that is none and a current that no duty codes', () => {
    for (const wrong of [-1, 101, Number.NaN]) expect(() => codedBy(wrong)).toThrow('expected 0 to 100 %')
    for (const wrong of [5.9, 81, Number.NaN]) expect(() => dutyFor(wrong)).toThrow('expected 6 to 80 A')
  })
})

describe('levels and resistors', () => {
  it('knows each state at its level, and never two at once', () => {
    for (const state of pilotStates) expect(stateAt(pilotLevel_V[state])).toBe(state)
    expect(stateAt(10.5)).toBeNull()
  })

  it('knows each cable by its resistor and a little beside it', () => {
    for (const code of cableCodes)
      for (const share of [0.91, 1, 1.09]) expect(cableBy(code.resistance_ohm * share)).toBe(code)
  })
})

describe('a detector of direct current', () => {
  const ramp = (current_mA: number, whisker = 0) =>
    judgeDetector({ polarity: 'positive', kind: 'ramp', current: exactly(current_mA, whisker) })

  it('is close where the uncertainty of its ramp touches a limit', () => {
    expect(ramp(5.8, 0.3)).toMatchObject({ verdict: 'close', closeBy: 'whisker' })
    expect(ramp(5.8, 0.1).verdict).toBe('within')
    expect(ramp(3.2, 0.3).verdict).toBe('close')
  })

  it('is too sensitive where it opens at 3 mA or below', () => {
    expect(ramp(2.6)).toMatchObject({ verdict: 'outside', code: 'ramp-too-sensitive' })
    expect(ramp(3).verdict).toBe('outside')
  })

  it('is undecided where the ramp ended before it opened', () => {
    const current = spanOf({ value: 5, bound: 'more-than' }, 0)
    expect(judgeDetector({ polarity: 'negative', kind: 'ramp', current }).verdict).toBe('not-yet')
  })
})
