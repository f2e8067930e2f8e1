import '@/words/everyTest'
import { describe, expect, it } from 'vitest'
import { evaluate, tripsOf } from '@/core/evaluate'
import { exampleChargePoint, exampleModel } from '@/core/steps/worked'
import { Installation } from '@/core/testing/installation'
import { bandOf, detailOf, halfOf, instructionOf, limitOf } from './guideWords'

const site = new Installation({ rcd: null, circuit: { rating_A: 40 } })
const id = site.build.part({ ...exampleChargePoint, circuitId: site.circuit, model: exampleModel })
const evaluation = evaluate(site.facts, 0)
const { trips, waveform } = tripsOf(evaluation, evaluation.parts.get(id) as never)
const plain = (text: string): string => text.replaceAll('\u00a0', ' ')

describe('what the guide says', () => {
  it('before each trip: what flows, on which half, what it must come to', () => {
    expect(trips.map((trip) => [halfOf(trip), plain(limitOf(trip))])).toEqual([
      ['0°', 'must hold'],
      ['180°', 'must hold'],
      ['0°', 'by 300 ms'],
      ['180°', 'by 300 ms'],
      ['0°', 'by 40 ms'],
      ['180°', 'by 40 ms'],
      ['+', '3 to 6 mA'],
      ['−', '3 to 6 mA'],
    ])
  })

  it('at the reset: one line of its model at a time, and where nobody entered any, how to have them', () => {
    const own = ['Plug out', 'Lift the flap']
    expect([0, 1].map((line) => instructionOf('reset', line, trips[3]!, own))).toEqual(own)
    expect(detailOf('reset', trips[3]!, {}, waveform, true)).toBe('')
    expect(detailOf('reset', trips[3]!, {}, waveform, false)).toContain('entered once with the model')
    expect(bandOf('reset', 0, 2, trips[3]!, '', null)).toBe('Done')
    expect(bandOf('reset', 1, 2, trips[3]!, '', null)).toBe('Done, it is reset')
  })

  it('where it stopped: which figure, and that it counts', () => {
    const texts = { [trips[7]!.slot.id]: '2.4' }
    expect(detailOf('stopped', trips[7]!, texts, waveform, true)).toContain('2.4')
  })
})
