import type { Evaluation, StepEvaluation } from '@/core/evaluation/types'
import { feedSampleSchema, type LiveSample, liveSample } from '@/core/record/feed'
import type { Facts } from '@/core/record/facts'
import type { Measurable } from '@/core/record/instrument'
import { isRead } from '@/core/steps/step'
import { say, sayCode } from '@/words/say'
import { remedyKey } from '@/standin/chargePoint'
import type { PressSetting } from '../bench/types'
import { Answered, ask } from '../device/api'
import type { JobStore } from '../device/jobStore'

type Wanted = { measures: Measurable; setting: PressSetting; instrumentId: string }

/** What was mended, as stand-ins know it: parts, and tests of parts. */
export const remediesOf = ({ snags }: Evaluation): ReadonlySet<string> =>
  new Set(
    snags.flatMap(({ remedy, partId, step }) =>
      remedy && partId ? [partId, ...(step ? [remedyKey(step, partId)] : [])] : [],
    ),
  )

/** Presses the simulated tester: on the server, or in the page without reception, through the same schema. */
export async function pressSimulated(
  { jobId, officeTime }: Pick<JobStore, 'jobId' | 'officeTime'>,
  facts: Facts,
  evaluation: Evaluation,
  one: StepEvaluation,
  { measures, setting, instrumentId }: Wanted,
): Promise<LiveSample | string> {
  const instrument = facts.instruments.find((tool) => tool.id === instrumentId)
  const loaded = one.step.tag === 'live'
  // Leads that wait to be nulled show their own resistance, also where somebody went on anyway.
  const nulled =
    !isRead(one.step) || !one.step.nulled || one.gates.every((gate) => gate.met && gate.overridden === null)
  if (!instrument) return say('door.standin-only')
  try {
    const { sample } = await ask<{ sample: unknown }>(`/api/jobs/${jobId}/standin`, {
      instrumentId,
      partId: one.part.id,
      key: measures,
      loaded,
      nulled,
      setting,
    })
    const live = liveSample(instrument, feedSampleSchema.parse(sample))
    return 'code' in live ? sayCode('door', live.code, live) : live
  } catch (error) {
    // A part that waits in the queue is not known to the server yet: the page measures it itself.
    if (error instanceof Answered && error.status !== 404) return error.message
  }
  const [{ pressStandIn }, { PRACTICE_SKY }] = await Promise.all([import('@/standin/press'), import('@/standin/sky')])
  const pressed = pressStandIn(instrument, measures, one.part, PRACTICE_SKY, officeTime(), {
    loaded,
    nulled,
    mended: one.readings.some((reading) => reading.ended?.by === 'remedy'),
    setting,
    others: [...evaluation.parts.values()].filter((part) => !part.retired),
    mendedParts: remediesOf(evaluation),
  })
  if (pressed.state === 'refused') {
    const { code, state: _, ...figures } = pressed
    return sayCode('door', code, figures)
  }
  const live = liveSample(instrument, feedSampleSchema.parse(pressed.sample))
  return 'code' in live ? sayCode('door', live.code, live) : live
}
