import type { Evaluation, StepEvaluation } from '@/core/evaluation/types'
import { feedSampleSchema, type LiveSample, liveSample } from '@/core/record/feed'
import type { Facts } from '@/core/record/facts'
import type { Instrument, Measurable } from '@/core/record/instrument'
import { isRead } from '@/core/steps/step'
import { say, sayCode } from '@/words/say'
import { remedyKey } from '@/standin/remedyKey'
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

type Store = Pick<JobStore, 'jobId' | 'officeTime'>

/** Presses the simulated tester for one figure: on the server, or in the page without reception, through the same schema. */
export async function pressSimulated(
  store: Store,
  facts: Facts,
  evaluation: Evaluation,
  one: StepEvaluation,
  wanted: Wanted,
): Promise<LiveSample | string> {
  const samples = await pressForAll(store, facts, evaluation, one, wanted)
  return typeof samples === 'string' ? samples : samples.at(-1)!
}

/** The same where one press gives more than a figure: the parts of a sweep, in their order. */
export async function pressForAll(
  { jobId, officeTime }: Store,
  facts: Facts,
  evaluation: Evaluation,
  one: StepEvaluation,
  { measures, setting, instrumentId }: Wanted,
): Promise<LiveSample[] | string> {
  const instrument = facts.instruments.find((tool) => tool.id === instrumentId)
  const loaded = one.step.tag === 'live'
  // Leads that wait to be nulled show their own resistance, also where somebody went on anyway.
  const nulled =
    !isRead(one.step) || !one.step.nulled || one.gates.every((gate) => gate.met && gate.overridden === null)
  if (!instrument) return say('door.standin-only')
  try {
    const { samples } = await ask<{ samples: unknown[] }>(`/api/jobs/${jobId}/standin`, {
      instrumentId,
      partId: one.part.id,
      key: measures,
      loaded,
      nulled,
      setting,
    })
    return heard(instrument, samples)
  } catch (error) {
    // A part that waits in the queue is not known to the server yet: the page measures it itself.
    if (error instanceof Answered && error.status !== 404) return error.message
  }
  const [{ pressStandIn }, { skyOver }] = await Promise.all([import('@/standin/press'), import('@/standin/sky')])
  const pressed = pressStandIn(instrument, measures, one.part, skyOver(jobId), officeTime(), {
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
  return heard(instrument, pressed.state === 'swept' ? pressed.samples : [pressed.sample])
}

/** Samples as the pages see them, or why the first that cannot be taken is none. */
function heard(instrument: Instrument, samples: readonly unknown[]): LiveSample[] | string {
  const all: LiveSample[] = []
  for (const sample of samples) {
    const live = liveSample(instrument, feedSampleSchema.parse(sample))
    if ('code' in live) return sayCode('door', live.code, live)
    all.push(live)
  }
  return all
}
