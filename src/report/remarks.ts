/** What a reader of a record must know besides its tables, as sentences. */
import { allCauses } from '@/core/evaluation/allCauses'
import { isOnlyOffered } from '@/core/evaluation/hunts'
import { reviewOf } from '@/core/evaluation/review'
import type { Evaluation, StepEvaluation } from '@/core/evaluation/types'
import { isKind } from '@/core/record/entry'
import type { Facts } from '@/core/record/facts'
import { isRemarkable } from '@/core/verdict/verdict'
import { reviewTitle } from '@/words/review'
import { meaningOf, say, sayCode, sayFinding, stepShort } from '@/words/say'
import { dayIn } from './dayWords'

type NameOf = (personId: string) => string
const titleOf = ({ step, part }: StepEvaluation): string => sayCode('step', `${step.id}.title`, { tag: part.data.tag })

/** Everything that is not plainly within, what was gone round, taken back, said before signing and asked back. */
export function remarksOf(facts: Facts, evaluation: Evaluation): string[] {
  const nameOf: NameOf = (id) => facts.people.find((person) => person.id === id)?.name ?? ''
  return [
    ...notWithin(evaluation),
    ...evaluation.steps.flatMap((one) => [...overridden(one, nameOf), ...voided(one, nameOf)]),
    ...saidBeforeSigning(facts, evaluation),
    ...askedBack(evaluation, nameOf),
    ...moved(facts, nameOf),
  ]
}

function notWithin(evaluation: Evaluation): string[] {
  return evaluation.steps
    .filter((one) => isRemarkable(one) && !isOnlyOffered(one))
    .map((one) => {
      const meaning = one.verdict === 'outside' ? meaningOf(allCauses(evaluation, one)[0]) : ''
      return `${titleOf(one)}: ${sayFinding(one.finding)} ${meaning}`.trim()
    })
}

function overridden(one: StepEvaluation, nameOf: NameOf): string[] {
  return one.gates.flatMap(({ id, finding, overridden: by }) =>
    by && one.counting
      ? say('certificate.overridden', {
          title: titleOf(one),
          gate: sayCode('gate', id, finding.figures),
          reason: by.reason,
          who: nameOf(by.personId),
        })
      : [],
  )
}

function voided(one: StepEvaluation, nameOf: NameOf): string[] {
  return one.readings.flatMap(({ ended }) =>
    ended?.by === 'void'
      ? say('certificate.voided', { title: titleOf(one), reason: ended.reason, who: nameOf(ended.personId) })
      : [],
  )
}

/** What is no matter any more was said of something that has been put right since. */
function saidBeforeSigning(facts: Facts, evaluation: Evaluation): string[] {
  const names = new Map(
    reviewOf(evaluation, (at) => dayIn(at, facts.job.timeZone)).map((item) => [item.id, reviewTitle(item)]),
  )
  return evaluation.signatures.flatMap(({ printedName: who, review }) =>
    review.flatMap(({ of, text }) =>
      text && names.has(of) ? say('certificate.said', { what: names.get(of)!, text, who }) : [],
    ),
  )
}

function askedBack({ questions, byKey }: Evaluation, nameOf: NameOf): string[] {
  return questions.map(({ step, partId, text, personId, answer }) => {
    const one = byKey.get(`${step}:${partId}`)
    const said = { what: one ? stepShort(one) : '–', text, who: nameOf(personId) }
    return answer
      ? say('certificate.asked-answered', { ...said, answer: answer.text, by: nameOf(answer.personId) })
      : say('certificate.asked', said)
  })
}

function moved(facts: Facts, nameOf: NameOf): string[] {
  return facts.entries.flatMap((entry) => {
    if (!isKind(entry, 'regime-move')) return []
    const { from, to, reason } = entry.body
    return say('certificate.regime-moved', { name: facts.regime.name, from, to, reason, who: nameOf(entry.personId) })
  })
}
