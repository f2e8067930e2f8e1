/**
 * What a periodic inspection found and nobody closed, each with how grave it is, and whether the installation may go on in
 * use. Source: BS 7671 chapter 65 and the report of its appendix 6, IEC 60364-6 6.5 (from memory).
 */
import { isPeriodicWork } from '../plant/work'
import { type Entry, type FoundClass, foundClasses, isKind } from '../record/entry'
import { correctedTime } from '../record/order'
import { CHECK_BAD, CHECK_SOUND } from '../steps/slot'
import { choiceIn } from '../steps/reading'
import { isChecklist } from '../steps/step'
import type { Finding } from '../verdict/verdict'
import { isOnlyOffered } from './hunts'
import { summaryOf } from './summary'
import type { Evaluation, ReadingEvaluation, Snag, StepEvaluation } from './types'

export type Found = {
  /** The same as long as it is the same matter. */
  id: string
  /** The entry that is classed, null for what follows from the plant by itself; and the line of its list. */
  target: string | null
  line: string | null
  step: string | null
  partId: string | null
  /** What was written down, the note beside a line of a list; null where the finding speaks alone. */
  text: string | null
  finding: Finding | null
  /** Put right, and looked at again since. */
  closed: boolean
  /** How grave it is, or was, as it counts; null while nobody said. */
  as: FoundClass | null
  /** What was said of it, by whom, and when; it is never less grave than `least`. */
  said: { as: FoundClass; personId: string; at: number } | null
  least: FoundClass | null
}

const isGraver = (a: FoundClass, b: FoundClass): boolean => foundClasses.indexOf(a) < foundClasses.indexOf(b)

type Matter = Omit<Found, 'as' | 'said'>

/** Where people are protected by what the test proves, a figure outside is no mere matter of improvement. */
const leastOf = (one: StepEvaluation | undefined): FoundClass | null => (one?.step.protects ? 'look-further' : null)

const idOf = (target: string | null, line: string | null, key: string): string =>
  [target ?? key, line].filter(Boolean).join(':')

/** The reading after the mending of a snag; null where nobody looked again. */
const againAfter = ({ remedy }: Snag, one: StepEvaluation | undefined): ReadingEvaluation | null =>
  remedy && one?.counting && one.counting.at > remedy.at ? one.counting : null

/** Each line of a list that is not as it should be is a matter of its own, and a later reading of the list speaks for it. */
function linesOf(one: StepEvaluation, readingId: string, again: ReadingEvaluation | null): Matter[] {
  const body = one.readings.find(({ entry }) => entry.id === readingId)?.entry.body
  if (!body || !isChecklist(one.step)) return []
  return Object.entries(body.slots).flatMap(([line, value]): Matter[] => {
    if (choiceIn(body, line) !== CHECK_BAD) return []
    const now = again ? choiceIn(again.entry.body, line) : null
    // Bad again: the reading that says so has the word.
    if (now === CHECK_BAD) return []
    const matter = {
      target: readingId,
      line,
      step: one.step.id,
      partId: one.part.id,
      finding: null,
      least: leastOf(one),
    }
    const text = 'note' in value ? (value.note ?? null) : null
    return [{ ...matter, id: idOf(readingId, line, one.key), text, closed: now === CHECK_SOUND }]
  })
}

function ofSnag(snag: Snag, one: StepEvaluation | undefined): Matter[] {
  const { entryId, step, partId, text, finding } = snag
  const isWritten = text !== null
  const again = againAfter(snag, one)
  const lines = one ? linesOf(one, isWritten ? (one.counting?.entry.id ?? '') : entryId, isWritten ? null : again) : []
  if (!isWritten && one && isChecklist(one.step)) return lines
  // Outside again: the reading that says so has the word.
  if (!isWritten && again && snag.state !== 'closed') return []
  const matter = { id: entryId, target: entryId, line: null, step, partId, text, finding, least: leastOf(one) }
  // Somebody's own words stand beside the lines of the list that they were written at.
  return [{ ...matter, closed: snag.state === 'closed' }, ...lines]
}

/** Outside by the plant alone: no reading opened a snag. */
function computed(one: StepEvaluation): Matter[] {
  if (one.verdict !== 'outside' || one.counting !== null) return []
  const { step, part, finding, key } = one
  return [
    {
      id: key,
      target: null,
      line: null,
      step: step.id,
      partId: part.id,
      text: null,
      finding,
      least: leastOf(one),
      closed: false,
    },
  ]
}

/** The last that was said of each matter and not taken back. */
function saidOf({ facts }: Evaluation): ReadonlyMap<string, Entry<'class'>> {
  const voids = new Set(facts.entries.flatMap((entry) => (isKind(entry, 'void') ? [entry.body.target] : [])))
  const said = new Map<string, Entry<'class'>>()
  for (const entry of facts.entries) {
    if (!isKind(entry, 'class') || voids.has(entry.id)) continue
    const id = idOf(entry.body.target, entry.body.line, `${entry.step}:${entry.partId}`)
    const before = said.get(id)
    if (!before || isLater(entry, before)) said.set(id, entry)
  }
  return said
}

const isLater = (a: Entry, b: Entry): boolean => {
  const [at, before] = [correctedTime(a), correctedTime(b)]
  return at > before || (at === before && a.id > b.id)
}

/** Everything that was found and is still so; nothing where the work is new. */
export const foundIn = (evaluation: Evaluation): Found[] => allFound(evaluation).filter(({ closed }) => !closed)

/** Everything that was found, what was put right since as well; nothing where the work is new. */
export function allFound(evaluation: Evaluation): Found[] {
  if (!isPeriodicWork(evaluation.plant)) return []
  const said = saidOf(evaluation)
  const matters = new Map<string, Matter>()
  const add = (all: readonly Matter[]): void => {
    for (const one of all) matters.set(one.id, one)
  }
  for (const snag of evaluation.snags) add(ofSnag(snag, evaluation.byKey.get(`${snag.step}:${snag.partId}`)))
  for (const one of evaluation.steps) if (!isOnlyOffered(one)) add(computed(one))
  return [...matters.values()].map((matter): Found => {
    const entry = said.get(matter.id)
    if (!entry) return { ...matter, as: null, said: null }
    const { as } = entry.body
    const counts = matter.least && isGraver(matter.least, as) ? matter.least : as
    return { ...matter, as: counts, said: { as, personId: entry.personId, at: correctedTime(entry) } }
  })
}

export type Fitness = {
  /** Whether it may go on in use: only where everything was looked at and nothing was found but what is to be improved. */
  state: 'fit' | 'not-fit' | 'not-finished'
  /** How many matters of each class. */
  counts: Readonly<Record<FoundClass, number>>
  /** Matters of which nobody said how grave they are. */
  unclassed: number
}

/** What a periodic inspection comes to; null where the work is new. */
export function fitnessOf(evaluation: Evaluation): Fitness | null {
  if (!isPeriodicWork(evaluation.plant)) return null
  const found = foundIn(evaluation)
  const of = (as: FoundClass | null): number => found.filter((one) => one.as === as).length
  const counts = Object.fromEntries(foundClasses.map((as) => [as, of(as)])) as Record<FoundClass, number>
  const unclassed = of(null)
  const { open } = summaryOf(evaluation)
  // Whoever left out every test that protects people has not looked whether they are.
  const isRead = evaluation.steps.some(({ step, counting }) => step.protects && counting !== null)
  const bars = counts.danger + counts['could-be'] + counts['look-further'] + unclassed
  const state = bars > 0 ? 'not-fit' : open > 0 || !isRead ? 'not-finished' : 'fit'
  return { state, counts, unclassed }
}
