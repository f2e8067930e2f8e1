/** What was found: snags and what was done about them, in a periodic inspection each with how grave it is. */
import { allFound, type Found } from '@/core/evaluation/found'
import type { Evaluation, Snag } from '@/core/evaluation/types'
import { isPeriodicWork } from '@/core/plant/work'
import { type FoundClass, foundClasses } from '@/core/record/entry'
import type { Facts } from '@/core/record/facts'
import { citesNational } from '@/core/regime/documents'
import type { Verdict } from '@/core/verdict/verdict'
import { classText, foundText } from '@/words/found'
import { say, sayFinding, stepShort } from '@/words/say'
import { type Cell, left, type Table } from './stepTable'

const SNAG_VERDICTS = { open: 'outside', mended: 'not-yet', closed: 'within' } as const
const CLASS_VERDICTS: Readonly<Record<FoundClass, Verdict>> = {
  danger: 'outside',
  'could-be': 'outside',
  'look-further': 'outside',
  improve: 'close',
}

type Said = {
  who(id: string): string
  at(ms: number): string
  where(step: string | null, partId: string | null): string
}

const doneOf = (snag: Snag | undefined, { who, at }: Said): string =>
  snag?.remedy ? `${snag.remedy.text} (${who(snag.remedy.personId)}, ${at(snag.remedy.at)})` : '–'

/** How grave it is, or was before it was put right. */
function classCell({ as, closed }: Found, marked: boolean): Cell {
  const own = classText(as, marked)
  if (closed) return { ...left(say('found.closed', { as: own })), verdict: SNAG_VERDICTS.closed }
  return { ...left(own), verdict: as === null ? 'not-yet' : CLASS_VERDICTS[as] }
}

/** What is still so first, the gravest of it at the head. */
function foundRows(evaluation: Evaluation, facts: Facts, said: Said): Cell[][] {
  const rank = ({ as, closed }: Found): number =>
    (closed ? foundClasses.length : 0) + (as === null ? -1 : foundClasses.indexOf(as))
  const marked = citesNational(facts.regime)
  return [...allFound(evaluation)]
    .sort((a, b) => rank(a) - rank(b))
    .map((one) => {
      const snag = evaluation.snags.find(({ entryId }) => entryId === one.target)
      return [
        left(said.where(one.step, one.partId)),
        left(foundText(one)),
        classCell(one, marked),
        left(doneOf(snag, said)),
      ]
    })
}

function snagRows(evaluation: Evaluation, said: Said): Cell[][] {
  return evaluation.snags.map((snag) => [
    left(said.where(snag.step, snag.partId)),
    left(`${snag.text ?? sayFinding(snag.finding!)} (${said.who(snag.personId)}, ${said.at(snag.at)})`),
    left(doneOf(snag, said)),
    { ...left(say(`snag.${snag.state}`)), verdict: SNAG_VERDICTS[snag.state] },
  ])
}

/** Null where nothing was found. @param instant a moment as it is printed */
export function snagTable(evaluation: Evaluation, facts: Facts, instant: (at_ms: number) => string): Table | null {
  const isPeriodic = isPeriodicWork(evaluation.plant)
  const said: Said = {
    who: (id) => facts.people.find((person) => person.id === id)?.name ?? '',
    at: instant,
    where(step, partId) {
      const one = step && partId ? evaluation.byKey.get(`${step}:${partId}`) : undefined
      return one ? stepShort(one) : '–'
    },
  }
  const rows = isPeriodic ? foundRows(evaluation, facts, said) : snagRows(evaluation, said)
  if (rows.length === 0) return null
  const columns = isPeriodic
    ? [say('found.of'), say('found.what'), say('found.as'), say('found.done')]
    : [
        say('certificate.snag-of'),
        say('certificate.snag-found'),
        say('certificate.snag-mended'),
        say('certificate.snag-state'),
      ]
  return {
    id: 'snags',
    ...(isPeriodic ? { head: true as const, stretch: 1 } : {}),
    title: say(isPeriodic ? 'found.title' : 'certificate.snags'),
    columns: columns.map((label) => ({ label, align: 'left' })),
    rows,
  }
}
