import { describe, expect, it } from 'vitest'
import { testId } from '@/core/testing/factsBuilder'
import { blankModel, type ModelValues, readModel } from './modelForm'

const whole: ModelValues = {
  ...blankModel,
  make: 'Sorrel',
  name: 'S7',
  rated_A: 32,
  ready_s: 15,
  reset: 'Cable out\n\n  Button for three seconds ',
  charging: 'blue',
}
const read = (over: Partial<ModelValues>) => readModel({ ...whole, ...over }, testId(7))
const messages = (over: Partial<ModelValues>) => {
  const one = read(over)
  return 'messages' in one ? one.messages : {}
}

describe('a model of charge point as it is typed', () => {
  it('keeps its reset words line by line and leaves away what a socket and a point without a device have not', () => {
    const one = read({ cable_A: 20, rcdRated_mA: 30 })
    expect(one).toMatchObject({
      model: {
        make: 'Sorrel',
        data: {
          cable_A: null,
          rcdType: null,
          rcdRated_mA: null,
          reset: ['Cable out', 'Button for three seconds'],
          shows: { ready: '', charging: 'blue' },
        },
      },
    })
  })

  it('says at each field what it wants', () => {
    expect(messages({ make: ' ', rated_A: null, ready_s: null })).toEqual({
      make: expect.any(String),
      rated_A: 'This is needed.',
      ready_s: 'This is needed.',
    })
    expect(messages({ rated_A: 5 })).toEqual({ rated_A: expect.stringContaining('a pilot codes no other current') })
    expect(messages({ outlet: 'tethered', cable_A: null })).toEqual({ cable_A: 'This is needed.' })
    expect(messages({ rcdType: 'A' })).toEqual({ rcdRated_mA: 'This is needed.' })
    expect(messages({ reset: 'x\n'.repeat(7) })).toEqual({ reset: expect.stringContaining('At most 6 lines') })
  })

  it('may have no reset words: then the general ones are said', () => {
    expect(read({ reset: '' })).toHaveProperty('model')
  })
})
