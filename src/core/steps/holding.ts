/** Holds a figure against a band: verdict, sentence, line of the working, scale and limit at once. */
import type { Span } from '../quantity/span'
import type { Unit } from '../quantity/unit'
import type { SourceId } from '../regime/sources'
import { type Band, type Compared, compare } from '../verdict/compare'
import { decide, type Judgement, type Ruling } from '../verdict/judgement'
import type { Decided, Figures, Finding } from '../verdict/verdict'
import type { WorkingLine } from '../verdict/working'
import { measuredOf } from './reading'

type Tagged = { part: { data: { tag: string } } }

export type Held = {
  /** First word of the sentences: `zs.within`, `zs.close`. */
  step: string
  span: Span
  /** As it was read, or as it was worked out. */
  text: string
  unit: Unit
  band: Band
  source: SourceId
  scale?: 'linear' | 'log'
  expected?: { value: number; uncertainty: number } | null
  /** The figure that it is held against, as it is printed. */
  limit: { id: string; value: number }
  line: { code: string; figures?: Figures; decimals: number }
  figures?: Figures
}

/** What makes it close, where that is not the sentence's own matter. */
export function closeness({ closeBy }: Compared, whisker: number, unit: Unit): Finding['also'] {
  if (closeBy === 'whisker') return [{ code: 'close.whisker', figures: { whisker, unit } }]
  return closeBy === 'limit' ? [{ code: 'close.on-limit', figures: {} }] : undefined
}

/** One comparison as a ruling. */
export function hold({ part }: Tagged, ask: Held): Ruling & { compared: Compared } {
  const { span, band, unit, source, limit, line } = ask
  const compared = compare(span, band)
  const also = closeness(compared, span.whisker, unit)
  return {
    compared,
    verdict: compared.verdict,
    finding: {
      code: `${ask.step}.${compared.verdict}`,
      figures: { read: ask.text, limit: limit.value, tag: part.data.tag, ...ask.figures },
      ...(also ? { also } : {}),
    },
    line: {
      code: line.code,
      figures: line.figures ?? {},
      result: { value: limit.value, unit, decimals: line.decimals },
      source,
    },
    rule: {
      unit,
      scale: ask.scale ?? 'linear',
      measured: measuredOf(span, ask.text),
      expected: ask.expected ?? null,
      band,
      source,
    },
    limit: { ...limit, unit, source },
  }
}

/** A ruling with another sentence, and another verdict where one is given. */
export const saying = <R extends Ruling>(ruling: R, code: string, figures: Figures = {}, verdict?: Decided): R => ({
  ...ruling,
  verdict: verdict ?? ruling.verdict,
  finding: { code, figures: { ...ruling.finding.figures, ...figures } },
})

/** A ruling without a figure: an answer, a rule of the plant, something that is missing. */
export function ruled(
  { part }: Tagged,
  verdict: Decided,
  code: string,
  line: { code: string; figures?: Figures; source: SourceId | null },
  figures: Figures = {},
): Ruling {
  return {
    verdict,
    finding: { code, figures: { tag: part.data.tag, ...figures } },
    line: { code: line.code, figures: line.figures ?? {}, result: null, source: line.source },
  }
}

/** Nothing that can be judged yet: what is wanted stands in the sentence, and what it should come to before it. */
export const notYet = (
  context: Tagged,
  code: string,
  figures: Figures = {},
  before: () => readonly WorkingLine[] = () => [],
): Judgement => decide([ruled(context, 'not-yet', code, { code: 'not-judged', source: null }, figures)], { before })
