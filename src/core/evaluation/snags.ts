import type { Entry } from '../record/entry'
import { correctedTime } from '../record/order'
import { neededFor } from '../steps/step'
import { type EntryIndex, ofKind } from './entryIndex'
import { ByKey, type OnParts } from '../plant/onParts'
import { type ReadingEvaluation, type Snag, type StepEvaluation, stepKey } from './types'

/** Every snag of a job: those that people wrote down, and those which readings outside opened by themselves. */
export function snagsOf(index: EntryIndex, settled: OnParts<StepEvaluation>): Snag[] {
  const byKey = new ByKey(settled)
  const remedies = new Map<string, Entry<'remedy'>>()
  for (const entry of ofKind(index, 'remedy')) if (!index.voids.has(entry.id)) remedies.set(entry.body.snag, entry)
  const written: Snag[] = []
  for (const entry of ofKind(index, 'snag'))
    if (!index.voids.has(entry.id)) written.push(snagOf(entry, byKey, remedies))
  const spokenFor = new Set(written.filter((one) => one.state !== 'closed').map(keyOf))
  const opened: Snag[] = []
  for (const evaluation of settled.all()) {
    if (remedies.size === 0 && evaluation.verdict !== 'outside') continue
    for (const reading of evaluation.readings) {
      const remedy = remedies.get(reading.entry.id)
      const speaks =
        reading === evaluation.counting && evaluation.verdict === 'outside' && !spokenFor.has(evaluation.key)
      if (remedy || speaks) opened.push(openedBy(evaluation, reading, remedy, byKey))
    }
  }
  return [...written, ...opened].sort((a, b) => a.at - b.at)
}

const keyOf = (snag: Snag): string => stepKey(snag.step ?? '', snag.partId ?? '')

function snagOf(
  entry: Entry<'snag'>,
  byKey: ByKey<StepEvaluation>,
  remedies: ReadonlyMap<string, Entry<'remedy'>>,
): Snag {
  const remedy = remedies.get(entry.id)
  const about = entry.step && entry.partId ? byKey.get(stepKey(entry.step, entry.partId)) : undefined
  return {
    entryId: entry.id,
    step: entry.step,
    partId: entry.partId,
    text: entry.body.text,
    finding: null,
    personId: entry.personId,
    at: correctedTime(entry),
    ...mended(remedy, about, byKey),
  }
}

function openedBy(
  evaluation: StepEvaluation,
  reading: ReadingEvaluation,
  remedy: Entry<'remedy'> | undefined,
  byKey: ByKey<StepEvaluation>,
): Snag {
  const speaks = reading === evaluation.counting ? evaluation.finding : reading.judgement.finding
  return {
    entryId: reading.entry.id,
    step: evaluation.step.id,
    partId: evaluation.part.id,
    text: null,
    finding: speaks,
    personId: reading.entry.personId,
    at: reading.at,
    ...mended(remedy, evaluation, byKey),
  }
}

/**
 * Open until mended; closed once the step was tested again and is no longer outside: what a hunt found by itself, or by
 * the test that it belongs to. A snag of no step closes at once.
 */
function mended(
  remedy: Entry<'remedy'> | undefined,
  about: StepEvaluation | undefined,
  byKey: ByKey<StepEvaluation>,
): Pick<Snag, 'remedy' | 'state'> {
  if (!remedy) return { remedy: null, state: 'open' }
  const { text, repeat } = remedy.body
  const kept = { text, repeat, at: correctedTime(remedy), personId: remedy.personId }
  if (!about) return { remedy: kept, state: 'closed' }
  const { step, part } = about
  const huntedFor = neededFor(step).map((other) => byKey.get(stepKey(other, part.id)))
  const stands = [about, ...huntedFor].some((one) => one?.done && one.counting !== null && one.counting.at > kept.at)
  return { remedy: kept, state: stands ? 'closed' : 'mended' }
}
