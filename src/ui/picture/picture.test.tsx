import '@/words/ac'
import { renderToStaticMarkup } from 'react-dom/server'
import { describe, expect, it } from 'vitest'
import { evaluate, picturesOf } from '@/core/evaluate'
import { stepKey } from '@/core/evaluation/types'
import { readValueOf } from '@/core/quantity/readValue'
import type { SlotValue } from '@/core/record/entry'
import { defaultRegime, shippedRegimes } from '@/core/regime/shipped'
import type { Picture } from '@/core/steps/picture'
import { exampleElectrode, exampleRcd } from '@/core/steps/worked'
import { FactsBuilder } from '@/core/testing/factsBuilder'
import { StepPicture } from './StepPicture'

const classic = shippedRegimes.find((one) => one.id === 'bs7671-three-multiple')!
const build = new FactsBuilder()
const rcd = build.part(exampleRcd)
const electrode = build.part(exampleElectrode)

function picture(step: string, partId: string, slots: Record<string, SlotValue>, regime = defaultRegime): Picture {
  const facts = { ...build.facts(), regime }
  const evaluation = evaluate(facts, 0)
  return picturesOf(evaluation, evaluation.byKey.get(stepKey(step, partId))!, { slots })[0]!
}
const drawn = (data: Picture): string => renderToStaticMarkup(<StepPicture picture={data} timeZone="Europe/London" />)
const ms = (value: number): SlotValue => readValueOf(value, 'ms', 1)

describe('the picture of trips', () => {
  const slots = {
    'half-0': { ...ms(1999), text: '>1999', bound: 'more-than' as const },
    'once-180': ms(310),
    'five-0': ms(12),
  }

  it('has a lane a multiple with its limits, and each trip by its own verdict', () => {
    expect(picture('rcd-trips', rcd, slots, classic)).toEqual({
      kind: 'times',
      limits: [
        { multiple: 0.5, current_mA: 15, least_ms: 2000, most_ms: null },
        { multiple: 1, current_mA: 30, least_ms: null, most_ms: 300 },
        { multiple: 5, current_mA: 150, least_ms: null, most_ms: 40 },
      ],
      trips: [
        { multiple: 0.5, angle_deg: 0, time_ms: 1999, isBound: true, verdict: 'within' },
        { multiple: 1, angle_deg: 180, time_ms: 310, isBound: false, verdict: 'outside' },
        { multiple: 5, angle_deg: 0, time_ms: 12, isBound: false, verdict: 'within' },
      ],
    })
  })

  it('is drawn with words, and one lane where one trip is asked', () => {
    const three = drawn(picture('rcd-trips', rcd, slots, classic))
    for (const words of ['½ IΔn', '5 IΔn', 'no trip', '0°', '180°']) expect(three).toContain(words)
    expect(three).toContain('aria-label="Time against current: 3 trips, limits as lines"')
    const one = drawn(picture('rcd-trips', rcd, {}))
    expect(one).not.toContain('5 IΔn')
  })
})

describe('the picture of spikes', () => {
  const three = {
    're-1': readValueOf(18.3, 'ohm', 1),
    're-2': readValueOf(17.7, 'ohm', 1),
    're-3': readValueOf(18.3, 'ohm', 1),
  }

  it('has the places of the school, in metres where the way was measured', () => {
    const data = picture('electrode', electrode, { ...three, 'spike-distance': readValueOf(40, 'm', 0) })
    expect(data).toMatchObject({ kind: 'spikes', distance_m: 40, mean_ohm: expect.closeTo(18.1, 9) })
    expect(drawn(data)).toContain('25 m')
    expect(drawn(data)).toContain('mean 18.1')
  })

  it('is there before anything is read, and says shares where nobody measured the way', () => {
    const data = picture('electrode', electrode, {})
    expect(data).toMatchObject({ distance_m: null, mean_ohm: null })
    const svg = drawn(data)
    expect(svg).toContain('62 %')
    expect(svg).not.toContain('<circle')
  })
})
