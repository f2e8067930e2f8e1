import type { StepEvaluation } from '@/core/evaluation/types'
import { feedSampleSchema, type LiveSample, liveSample } from '@/core/record/feed'
import type { Facts } from '@/core/record/facts'
import type { Measurable } from '@/core/record/instrument'
import { say, sayCode } from '@/words/say'
import { Answered, ask } from '../device/api'

/** Presses the simulated tester: on the server, or in the page without reception, through the same schema. */
export async function pressSimulated(
  jobId: string,
  facts: Facts,
  one: StepEvaluation,
  measures: Measurable,
  instrumentId: string,
): Promise<LiveSample | string> {
  const instrument = facts.instruments.find((tool) => tool.id === instrumentId)
  const loaded = one.step.tag === 'live'
  // Leads that wait to be nulled show their own resistance, also where somebody went on anyway.
  const nulled = !one.step.nulled || one.gates.every((gate) => gate.met && gate.overridden === null)
  if (!instrument) return say('door.standin-only')
  try {
    const { sample } = await ask<{ sample: unknown }>(`/api/jobs/${jobId}/standin`, {
      instrumentId,
      partId: one.part.id,
      key: measures,
      loaded,
      nulled,
    })
    const live = liveSample(instrument, feedSampleSchema.parse(sample))
    return 'code' in live ? sayCode('door', live.code, live) : live
  } catch (error) {
    // A part that waits in the queue is not known to the server yet: the page measures it itself.
    if (error instanceof Answered && error.status !== 404) return error.message
  }
  const [{ pressStandIn }, { PRACTICE_SKY }] = await Promise.all([import('@/standin/press'), import('@/standin/sky')])
  const pressed = pressStandIn(instrument, measures, one.part, PRACTICE_SKY, Date.now(), {
    loaded,
    nulled,
    mended: one.readings.some((reading) => reading.ended?.by === 'remedy'),
  })
  if (pressed.state === 'refused') {
    const { code, state: _, ...figures } = pressed
    return sayCode('door', code, figures)
  }
  const live = liveSample(instrument, feedSampleSchema.parse(pressed.sample))
  return 'code' in live ? sayCode('door', live.code, live) : live
}
