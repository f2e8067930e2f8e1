/** The first page: what was tested and how it came out in one sentence, and who answers for it. */
import { type Fitness, fitnessOf } from '@/core/evaluation/found'
import { lackingParticulars, particularsOf, sheetsOf, strangeDays } from '@/core/evaluation/particulars'
import { summaryOf } from '@/core/evaluation/summary'
import type { Evaluation } from '@/core/evaluation/types'
import { valueAt } from '@/core/plant/missing'
import type { Part } from '@/core/plant/part'
import { type Verdict, verdicts } from '@/core/verdict/verdict'
import { fitnessText } from '@/words/found'
import { hasWords, partName, say, sayCode, sayFinding, type WordKey } from '@/words/say'
import { dayWords } from './dayWords'
import { left, type Table } from './stepTable'

export type Result = {
  verdict: Verdict
  sentence: string
  /** How many of each verdict there are, the grave ones first; none of which there is none. */
  counts: { verdict: Verdict; count: number }[]
  /** What must be known besides: open snags, what was gone on without, simulated readings. */
  besides: string[]
}

/** The mark of a periodic inspection: what is to be improved is no plain within. @param verdict of all its tests */
function fitnessMark({ state, counts }: Fitness, verdict: Verdict): Verdict {
  if (state === 'fit') return counts.improve > 0 ? 'close' : verdict
  return state === 'not-fit' ? 'outside' : 'not-yet'
}

/** The result of the whole in one sentence with its marks. @param marked classes with the letters of the national report */
export function resultOf(evaluation: Evaluation, marked: boolean): Result {
  const { verdict, counts, asked, open, snags, overridden, simulated } = summaryOf(evaluation)
  const figures = { asked, open, outside: counts.outside, close: counts.close, within: counts.within }
  const fitness = fitnessOf(evaluation)
  const besides: string[] = []
  // The classes of a periodic inspection tell what is open.
  if (snags > 0 && !fitness) besides.push(say('result.snags', { count: snags }))
  if (overridden > 0) besides.push(say('result.overridden', { count: overridden }))
  if (simulated > 0) besides.push(say('result.simulated', { count: simulated }))
  const sentence = say(`result.${verdict}` as WordKey, figures)
  // What it is for comes first: whether it may go on in use. How its tests came out follows.
  const told = fitness
    ? {
        verdict: fitnessMark(fitness, verdict),
        sentence: fitnessText(fitness, marked),
        besides: [sentence, ...besides],
      }
    : { verdict, sentence, besides }
  return {
    ...told,
    counts: verdicts.map((one) => ({ verdict: one, count: counts[one] })).filter(({ count }) => count > 0),
  }
}

const plate = (value: unknown): string =>
  hasWords(`plate-option.${value}`) ? sayCode('plate-option', String(value)) : String(value)

/** Particulars of a part that somebody entered, by their names. */
function enteredOf(part: Part, evaluation: Evaluation): [string, string][] {
  return particularsOf(part, sheetsOf(evaluation.plant)).flatMap(({ id, label, prints, rule }): [string, string][] => {
    const value = valueAt(part.data, id)
    if (prints || value === null || value === '') return []
    const text = rule.takes === 'date' ? dayWords(String(value)) : plate(value)
    return [[say(`plant.${label}` as WordKey), text]]
  })
}

/** Of the site, on the first page; who designed and built it is declared there, and whom to call stands on the owner's. */
export function siteParticulars(evaluation: Evaluation): [string, string][] {
  const site = [...evaluation.plant.parts.values()].find((part) => part.data.kind === 'site' && !part.retired)
  if (!site || site.data.kind !== 'site') return []
  const elsewhere = new Set([say('plant.designer'), say('plant.builder'), say('plant.call-whom')])
  return enteredOf(site, evaluation).filter(([label]) => !elsewhere.has(label))
}

/** What nobody entered: parts of a kind that lack the same are told together. */
function lackingTogether(evaluation: Evaluation): { parts: string; fields: string }[] {
  const alike = new Map<string, Part[]>()
  for (const { part, fields } of lackingParticulars(evaluation)) {
    const key = [part.data.kind, ...fields.map(({ id }) => id)].join()
    alike.set(key, [...(alike.get(key) ?? []), part])
  }
  const all = lackingParticulars(evaluation)
  return [...alike.values()].map((parts) => {
    const { fields } = all.find(({ part }) => part === parts[0])!
    const [first, ...rest] = parts
    const tags = rest.map(({ data }) => data.tag)
    return {
      parts: [partName(first!), ...tags].join(', '),
      fields: fields.map(({ label }) => say(`plant.${label}` as WordKey)).join('; '),
    }
  })
}

/** Of supply, boards and what else is told field by field, and what nobody entered; null where there is nothing to say. */
export function particularsTable(evaluation: Evaluation, dayOf: (at_ms: number) => string): Table | null {
  const rows = [...evaluation.plant.parts.values()]
    .filter((part) => !part.retired && part.data.kind !== 'site')
    .flatMap((part) => enteredOf(part, evaluation).map(([label, value]) => [partName(part), label, value]))
  const lacking = lackingTogether(evaluation).map(({ parts, fields }) => [
    parts,
    say('certificate.not-entered'),
    fields,
  ])
  const strange = strangeDays(evaluation, dayOf).map((finding) => ['', say('certificate.strange'), sayFinding(finding)])
  const all = [...rows, ...lacking, ...strange]
  if (all.length === 0) return null
  return {
    id: 'particulars',
    title: say('certificate.particulars'),
    stretch: 2,
    columns: [say('certificate.part'), say('certificate.what'), say('certificate.entered')].map((label) => ({
      label,
      align: 'left',
    })),
    rows: all.map((cells) => cells.map(left)),
  }
}

export type Declaration = {
  role: string
  name: string
  statement: string
  /** When it was signed here; null where it is to be signed on paper, or was not. */
  at: string | null
  fresh: boolean
}

/** Design and construction as they were entered, to be signed on paper; inspection as it was signed here. */
export function declarationsOf(evaluation: Evaluation, instant: (at: string) => string): Declaration[] {
  const site = evaluation.plant.site?.data
  const paper = (['designer', 'builder'] as const).flatMap((who): Declaration[] => {
    const name = site?.[who]
    return name ? [{ role: say(`plant.${who}`), name, statement: say(`declare.${who}`), at: null, fresh: true }] : []
  })
  const signed = evaluation.signatures.map(
    (one): Declaration => ({
      role: say(`sign.role.${one.role}`),
      name: one.printedName,
      statement: one.statement,
      at: instant(one.at),
      fresh: one.fresh,
    }),
  )
  return [...paper, ...signed]
}
