/** What a list of jobs shows of each: computed by the same evaluation as everything else. */
import { z } from 'zod'
import { evaluate } from '../evaluate'
import { foundIn } from '../evaluation/found'
import type { Evaluation, StationState } from '../evaluation/types'
import { partsOfKind } from '../plant/projection'
import { isRead, type KitNeed } from '../steps/step'
import { verdicts } from '../verdict/verdict'
import type { Facts } from './facts'
import { abilities, measurableSchema } from './instrument'

/** Raised when a summary computed by older code must be computed again. */
export const SUMMARY_VERSION = 7

const verdict = z.enum(verdicts)
const figures = z.record(z.string(), z.union([z.string(), z.number()]))
export const jobSummarySchema = z.object({
  version: z.literal(SUMMARY_VERSION),
  stations: z.array(
    z.object({ station: z.string(), verdict: verdict.nullable(), done: z.number(), total: z.number() }),
  ),
  done: z.number(),
  total: z.number(),
  worst: verdict,
  strings: z.number(),
  peak_W: z.number(),
  /** What holds the job: the first step that is outside, else the next to do. */
  holds: z
    .object({
      stepId: z.string(),
      tag: z.string(),
      key: z.string(),
      verdict,
      code: z.string(),
      figures,
      simulated: z.boolean(),
    })
    .nullable(),
  signed: z.array(z.string()),
  issue: z.string().nullable(),
  sinceSeal: z.number(),
  openSnags: z.number(),
  /** Tests that were sent back with a question, which nobody answered yet; lists that a device read long ago lack them. */
  asked: z.array(z.object({ stepId: z.string(), partId: z.string(), tag: z.string(), text: z.string() })).optional(),
  /** What a periodic inspection found to be dangerous now; lists that a device read long ago lack it. */
  dangers: z
    .array(
      z.object({ stepId: z.string().nullable(), partId: z.string().nullable(), tag: z.string(), text: z.string() }),
    )
    .optional(),
  /** What the tests that are left need of a kit. */
  kitNeeds: z.array(
    z.union([
      z.enum([...measurableSchema.options, ...abilities]),
      z.object({ measures: measurableSchema, upTo_mA: z.number() }),
    ]),
  ),
})
export type JobSummary = Omit<z.infer<typeof jobSummarySchema>, 'stations'> & { stations: StationState[] }

export function summarise(facts: Facts, now: number): JobSummary {
  const evaluation = evaluate(facts, now)
  const strings = partsOfKind(evaluation.parts, 'string')
  const held =
    evaluation.steps.find((one) => one.verdict === 'outside') ??
    (evaluation.next ? evaluation.byKey.get(evaluation.next) : undefined) ??
    evaluation.steps.find((one) => !one.done && one.verdict === 'held-back') ??
    evaluation.steps.find((one) => !one.done)
  return {
    version: SUMMARY_VERSION,
    stations: evaluation.stations,
    ...evaluation.progress,
    strings: strings.length,
    peak_W: strings.reduce((sum, one) => sum + one.data.modulesInSeries * one.data.moduleType.data.pmax_W, 0),
    holds: held
      ? {
          stepId: held.step.id,
          tag: held.part.data.tag,
          key: held.key,
          verdict: held.verdict,
          code: held.finding.code,
          figures: held.finding.figures,
          simulated: held.flags.includes('stand-in'),
        }
      : null,
    signed: evaluation.signatures.filter((one) => one.fresh).map((one) => one.role),
    issue: facts.seals.at(-1)?.issue ?? null,
    sinceSeal: evaluation.sinceSeal,
    openSnags: evaluation.snags.filter((one) => one.state !== 'closed').length,
    asked: evaluation.questions
      .filter(({ answer }) => answer === null)
      .map(({ step, partId, text }) => ({
        stepId: step,
        partId,
        tag: evaluation.parts.get(partId)?.data.tag ?? '',
        text,
      })),
    dangers: foundIn(evaluation)
      .filter(({ as }) => as === 'danger')
      .map(({ step, partId, text }) => ({
        stepId: step,
        partId,
        tag: (partId && evaluation.parts.get(partId)?.data.tag) || '',
        text: text ?? '',
      })),
    kitNeeds: kitNeeds(evaluation),
  }
}

/** What the tests that are left need of a kit; whether it is there is asked when the list is. */
function kitNeeds({ steps, facts }: Evaluation): KitNeed[] {
  const needs = steps.flatMap(({ step, part, done }) => (!done && isRead(step) && step.kit?.(part, facts.regime)) || [])
  return [...new Map(needs.map((need) => [JSON.stringify(need), need])).values()]
}

/** A job as a list shows it. */
export type JobLine = {
  id: string
  number: string
  name: string
  place: string
  /** Who works on it, by name. */
  people: string[]
  visitAt: string | null
  /** The day by which it is wanted, as 2026-03-07. */
  dueOn: string | null
  /** When somebody took it out of the lists; it is lost nowhere. */
  putAwayAt: string | null
  /** Under which version of which regime it is tested, and the newest there is of it; lists read long ago lack it. */
  regime?: { id: string; version: number; newest: number }
  summary: JobSummary
  /** What it needs that nothing in the kit has. */
  kitLacks: KitNeed[]
}
