/** What a test comes to: made of rulings, each of them one comparison and its own line of the working. */
import type { Unit } from '../quantity/unit'
import { orLacking } from '../regime/lacking'
import type { SourceId } from '../regime/sources'
import type { Band } from './compare'
import { type Decided, type Finding, type Flag, isGraver } from './verdict'
import type { WorkingLine } from './working'

/** The scale on which a reading is shown. */
export type RuleData = {
  unit: Unit
  scale: 'linear' | 'log'
  measured: { value: number; bound: 'exact' | 'more-than' | 'less-than'; whisker: number; text: string } | null
  expected: { value: number; uncertainty: number } | null
  band: Band
  source: SourceId
}

export type JudgedLimit = { id: string; value: number; unit: Unit; source: SourceId }

export type Judgement = {
  readonly verdict: Decided
  readonly finding: Finding
  readonly flags: readonly Flag[]
  /** A figure of it may lie beyond its limit: a bound that decides nothing, or figures that a wrong set-up hid. */
  readonly isUndecided: boolean
  readonly rule: RuleData | null
  /** The reading made comparable with its sisters' (referred to STC, per module), null where it is not. */
  readonly comparable: number | null
  /** The reading referred to standard test conditions. */
  readonly referred: { value: number; unit: Unit; difference_pct: number } | null
  readonly limits: readonly JudgedLimit[]
  /** The sum, written out; the line that decides is the comparison which gave the verdict. Worked out when looked at. */
  readonly lines: readonly WorkingLine[]
  /** What one figure of it comes to by itself; null where nothing was held by that figure alone. */
  ofSlot(slot: string): OfSlot | null
}

/** A figure's own comparison, and the scale that it was made on. */
export type OfSlot = { readonly verdict: Decided; readonly rule: RuleData | null }

/** One thing that a test was held against, and how it came out. */
export type Ruling = {
  readonly verdict: Decided
  readonly finding: Finding
  readonly line: Omit<WorkingLine, 'verdict' | 'decides'>
  readonly rule?: RuleData | null
  readonly limit?: JudgedLimit | null
  /** What was read lies on neither side of its limit for sure. */
  readonly isUndecided?: boolean
  /** The slots whose figures it holds, where it holds some of them only. */
  readonly slots?: readonly string[]
}

type Rest = {
  flags?: readonly Flag[]
  /** Shown where the ruling that decides has no scale of its own. */
  rule?: RuleData | null
  comparable?: Judgement['comparable']
  referred?: Judgement['referred']
  /** Lines before and after those of the rulings. */
  before?: () => readonly WorkingLine[]
  after?: () => readonly WorkingLine[]
}

/** The ruling that decides: the gravest, and of those alike the first. */
export function decidingOf(rulings: readonly Ruling[]): Ruling | null {
  let deciding: Ruling | null = null
  for (const one of rulings) if (!deciding || isGraver(one.verdict, deciding.verdict)) deciding = one
  return deciding
}

const NOTHING: Ruling = {
  verdict: 'not-yet',
  finding: { code: 'not-yet.nothing-to-compare', figures: {} },
  line: { code: 'nothing-to-compare', figures: {}, result: null, source: null },
}

const NO_FLAGS: readonly Flag[] = []

/** Puts rulings together. What was held against nothing is not judged. */
export const decide = (rulings: readonly Ruling[], rest: Rest = {}): Judgement =>
  new DecidedJudgement(rulings.length > 0 ? rulings : [NOTHING], rest)

class DecidedJudgement implements Judgement {
  /** One stays: of a shape of which none is left an engine forgets the code that it made for it (decision 20). */
  static readonly kept = new DecidedJudgement([NOTHING], {})
  readonly verdict: Decided
  readonly flags: readonly Flag[]
  private readonly deciding: Ruling
  private written: readonly WorkingLine[] | null = null

  constructor(
    private readonly all: readonly Ruling[],
    private readonly rest: Rest,
  ) {
    this.deciding = decidingOf(all)!
    this.verdict = this.deciding.verdict
    this.flags = rest.flags ?? NO_FLAGS
  }

  get isUndecided(): boolean {
    return this.all.some((one) => one.isUndecided)
  }
  get finding(): Finding {
    return withOthers(this.deciding, this.all)
  }
  get rule(): RuleData | null {
    return this.deciding.rule ?? this.rest.rule ?? this.all.find((one) => one.rule)?.rule ?? null
  }
  get comparable(): number | null {
    return this.rest.comparable ?? null
  }
  get referred(): Judgement['referred'] {
    return this.rest.referred ?? null
  }
  get limits(): readonly JudgedLimit[] {
    return this.all.flatMap((one) => one.limit ?? [])
  }
  get lines(): readonly WorkingLine[] {
    const { before, after } = this.rest
    this.written ??= [...written(before), ...lined(this.all, this.deciding), ...written(after)]
    return this.written
  }
  ofSlot(slot: string): OfSlot | null {
    const own = this.all.filter((one) => one.slots?.includes(slot))
    const gravest = decidingOf(own)
    return gravest && { verdict: gravest.verdict, rule: gravest.rule ?? own.find((one) => one.rule)?.rule ?? null }
  }
}
/** Lines beside those of the rulings; where the regime lacks a figure for them, that it does. */
const written = (lines: Rest['before']): readonly WorkingLine[] =>
  lines ? orLacking(lines, (limitId) => [lackingLine(limitId)]) : []

/** The line that is written where a regime lacks a figure. */
export const lackingLine = (limitId: string): Ruling['line'] => ({
  code: 'regime-lacks',
  figures: { limit: limitId },
  result: null,
  source: null,
})

/** What else is outside is said as well: a broken conductor is not lost behind a limit that is passed. */
function withOthers({ verdict, finding }: Ruling, all: readonly Ruling[]): Finding {
  if (verdict !== 'outside') return finding
  if (all.length === 1) return finding
  const codes = new Set([finding.code])
  const others = all.flatMap((one) => {
    if (one.verdict !== 'outside' || codes.has(one.finding.code)) return []
    codes.add(one.finding.code)
    return [{ code: one.finding.code, figures: one.finding.figures }]
  })
  return others.length === 0 ? finding : { ...finding, also: [...(finding.also ?? []), ...others] }
}

/** The lines of rulings, each with how it came out; one line that stands for several is written once. */
function lined(rulings: readonly Ruling[], deciding: Ruling): WorkingLine[] {
  const written = new Map<string, WorkingLine>()
  for (const one of [deciding, ...rulings]) {
    const key = JSON.stringify([one.line.code, one.line.figures, one.line.result])
    if (!written.has(key))
      written.set(key, { ...one.line, verdict: one.verdict, ...(one === deciding ? { decides: true } : {}) })
  }
  const first = new Map(
    rulings.map((one, k) => [JSON.stringify([one.line.code, one.line.figures, one.line.result]), k]),
  )
  return [...written].sort(([a], [b]) => first.get(a)! - first.get(b)!).map(([, line]) => line)
}

/** The same figures with another word on them: what is wrong with the set-up, what is missing. Its own line decides. */
export const overruled = (
  judgement: Judgement,
  verdict: Decided,
  finding: Finding,
  flags: readonly Flag[] = [],
): Judgement => new OverruledJudgement(judgement, verdict, finding, flags)

class OverruledJudgement implements Judgement {
  /** One stays: of a shape of which none is left an engine forgets the code that it made for it (decision 20). */
  static readonly kept = new OverruledJudgement(DecidedJudgement.kept, 'not-yet', NOTHING.finding, [])
  readonly flags: readonly Flag[]

  constructor(
    private readonly own: Judgement,
    readonly verdict: Decided,
    readonly finding: Finding,
    flags: readonly Flag[],
  ) {
    this.flags = flags.length === 0 ? own.flags : [...own.flags, ...flags]
  }

  get isUndecided(): boolean {
    return this.own.isUndecided || this.own.verdict === 'outside'
  }
  get rule(): RuleData | null {
    return this.own.rule
  }
  get comparable(): number | null {
    return this.verdict === 'not-yet' ? null : this.own.comparable
  }
  get referred(): Judgement['referred'] {
    return this.own.referred
  }
  get limits(): readonly JudgedLimit[] {
    return this.own.limits
  }
  get lines(): readonly WorkingLine[] {
    return [...undecidedLines(this.own.lines), overrulingLine(this.verdict, this.finding)]
  }
  /** The word over the figures is each figure's; where it lies on its scale stays. */
  ofSlot(slot: string): OfSlot | null {
    const own = this.own.ofSlot(slot)
    return own && { verdict: this.verdict, rule: own.rule }
  }
}

/** Lines of which none decides. */
export const undecidedLines = (lines: readonly WorkingLine[]): WorkingLine[] =>
  lines.map(({ decides: _, ...line }) => line)

/** The line that a word over the figures stands in. */
export const overrulingLine = (verdict: Decided, finding: Finding): WorkingLine => ({
  code: 'overruled',
  figures: { because: finding.code, ...finding.figures },
  result: null,
  source: null,
  verdict,
  decides: true,
})
