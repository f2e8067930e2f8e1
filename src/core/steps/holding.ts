/** Holds a figure against a band: verdict, sentence, line of the working, scale and limit at once. */
import { exactly, type Span } from '../quantity/span'
import type { Unit } from '../quantity/unit'
import type { SourceId } from '../regime/sources'
import { atMost, type Band, type Compared, compare } from '../verdict/compare'
import { decide, type JudgedLimit, type Judgement, type RuleData, type Ruling } from '../verdict/judgement'
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
  line: { code: string; figures?: Figures | (() => Figures); decimals: number }
  figures?: Figures | (() => Figures)
  /** The slots whose figures it is. */
  slots?: readonly string[]
}

/** Figures of a sentence, put together where somebody reads it. */
const putTogether = (figures: Figures | (() => Figures) = {}): Figures =>
  typeof figures === 'function' ? figures() : figures

/** What makes it close, where that is not the sentence's own matter. */
export function closeness({ closeBy }: Compared, whisker: number, unit: Unit): Finding['also'] {
  if (closeBy === 'whisker') return [{ code: 'close.whisker', figures: { whisker, unit } }]
  return closeBy === 'limit' ? [{ code: 'close.on-limit', figures: {} }] : undefined
}

const NOTHING_HELD: Held = {
  step: '',
  span: exactly(0),
  text: '',
  unit: 'one',
  band: atMost(0),
  source: 'company',
  limit: { id: '', value: 0 },
  line: { code: '', decimals: 0 },
}

/** One comparison as a ruling. A job holds thousands: what is said of each is put together where somebody looks. */
class HeldRuling implements Ruling {
  /** One stays: of a shape of which none is left an engine forgets the code that it made for it (decision 20). */
  static readonly kept = new HeldRuling({ data: { tag: '' } }, NOTHING_HELD)
  readonly compared: Compared
  readonly verdict: Decided

  constructor(
    private readonly part: Tagged['part'],
    private readonly ask: Held,
  ) {
    this.compared = compare(ask.span, ask.band)
    this.verdict = this.compared.verdict
  }

  get isUndecided(): boolean {
    return this.compared.where === 'undecided'
  }

  get finding(): Finding {
    const { step, text, limit, figures, span, unit } = this.ask
    const also = closeness(this.compared, span.whisker, unit)
    return {
      code: `${step}.${this.verdict}`,
      figures: { read: text, limit: limit.value, tag: this.part.data.tag, ...putTogether(figures) },
      ...(also ? { also } : {}),
    }
  }

  get line(): Ruling['line'] {
    const { line, limit, unit, source } = this.ask
    const result = { value: limit.value, unit, decimals: line.decimals }
    return { code: line.code, figures: putTogether(line.figures), result, source }
  }

  get rule(): RuleData {
    const { unit, scale = 'linear', span, text, expected = null, band, source } = this.ask
    return { unit, scale, measured: measuredOf(span, text), expected, band, source }
  }

  get slots(): readonly string[] {
    return this.ask.slots ?? NO_SLOTS
  }

  get limit(): JudgedLimit {
    const { limit, unit, source } = this.ask
    return { ...limit, unit, source }
  }
}

const NO_SLOTS: readonly string[] = []

export const hold = ({ part }: Tagged, ask: Held): Ruling & { compared: Compared } => new HeldRuling(part, ask)

/** A ruling with something of it otherwise. Nobody spreads one: what is put together when looked at would be lost. */
export const but = (
  { verdict, finding, line, rule, limit, isUndecided, slots }: Ruling,
  over: Partial<Ruling>,
): Ruling => ({
  verdict,
  finding,
  line,
  ...(rule ? { rule } : {}),
  ...(limit ? { limit } : {}),
  ...(isUndecided ? { isUndecided } : {}),
  ...(slots ? { slots } : {}),
  ...over,
})

/** A ruling with another sentence, and another verdict where one is given. */
export const saying = (ruling: Ruling, code: string, figures: Figures = {}, verdict = ruling.verdict): Ruling =>
  but(ruling, { verdict, finding: { code, figures: { ...ruling.finding.figures, ...figures } } })

type RuledLine = { code: string; figures?: Figures; source: SourceId | null; result?: WorkingLine['result'] }

/** A ruling by hand, put together where somebody looks. */
class RuledRuling implements Ruling {
  /** One stays: of a shape of which none is left an engine forgets the code that it made for it (decision 20). */
  static readonly kept = new RuledRuling({ data: { tag: '' } }, 'not-yet', '', { code: '', source: null }, {}, NO_SLOTS)

  constructor(
    private readonly part: Tagged['part'],
    readonly verdict: Decided,
    private readonly code: string,
    private readonly told: RuledLine,
    private readonly figures: Figures,
    readonly slots: readonly string[],
  ) {}

  get finding(): Finding {
    return { code: this.code, figures: { tag: this.part.data.tag, ...this.figures } }
  }

  get line(): Ruling['line'] {
    const { code, figures = {}, result = null, source } = this.told
    return { code, figures, result, source }
  }
}

/** A ruling without a scale: an answer, a rule of the plant, something that is missing. */
export const ruled = (
  { part }: Tagged,
  verdict: Decided,
  code: string,
  line: RuledLine,
  figures: Figures = {},
  slots: readonly string[] = NO_SLOTS,
): Ruling => new RuledRuling(part, verdict, code, line, figures, slots)

/** Nothing that can be judged yet: what is wanted stands in the sentence, and what it should come to before it. */
export const notYet = (
  context: Tagged,
  code: string,
  figures: Figures = {},
  before: () => readonly WorkingLine[] = () => [],
): Judgement => decide([ruled(context, 'not-yet', code, { code: 'not-judged', source: null }, figures)], { before })
