/**
 * What a step comes to in the end. How its gates stand, and whether one was shut when it was read, is found out only where
 * somebody looks: neither says what it comes to.
 */
import type { Part } from '../plant/part'
import type { AnyStep } from '../steps/step'
import type { Judgement } from '../verdict/judgement'
import { type Finding, type Flag, isDone, type Verdict } from '../verdict/verdict'
import { type GateView, gateStates, isHeldBack } from './gates'
import { findingOf, type Own } from './runOf'
import type { GateState, ReadingEvaluation, StepEvaluation } from './types'

/** What gates are looked at with: how everything stands, in which visit. */
type Looked = { view: GateView; visitId: string | undefined }

export class Settled implements StepEvaluation {
  private known: readonly GateState[] | null = null
  private flagged: readonly Flag[] | null = null

  constructor(
    private readonly own: Own,
    private looked: Looked | null,
    readonly verdict: Verdict,
    /** Null where its own speaks, or the gate that holds it back. */
    private readonly said: Finding | null,
    private readonly ownFlags: readonly Flag[],
    readonly leftOut: StepEvaluation['leftOut'],
  ) {}

  get key(): string {
    return this.own.key
  }
  get step(): AnyStep {
    return this.own.step
  }
  get part(): Part {
    return this.own.part
  }
  get done(): boolean {
    return isDone(this.verdict)
  }

  /** The same with another verdict. */
  as(verdict: Verdict, finding: Finding): Settled {
    const other = new Settled(this.own, this.looked, verdict, finding, this.ownFlags, this.leftOut)
    other.known = this.known
    other.flagged = this.flagged
    return other
  }

  get finding(): Finding {
    return this.said ?? (this.verdict === 'held-back' ? this.shut!.finding : findingOf(this.own))
  }
  get gates(): readonly GateState[] {
    if (!this.known) {
      const { view, visitId } = this.looked!
      this.known = gateStates(view, this.step, this.part, visitId)
      this.letGo()
    }
    return this.known
  }
  get flags(): readonly Flag[] {
    if (!this.flagged) {
      this.flagged = this.wasHeldBack() ? [...this.ownFlags, 'while-held-back'] : this.ownFlags
      this.letGo()
    }
    return this.flagged
  }
  /** Whether what counts was read though a gate before it was shut. */
  private wasHeldBack(): boolean {
    const { counting, step, part } = this
    if (!counting || this.verdict === 'left-out') return false
    const { entry, at } = counting
    return isHeldBack(this.looked!.view, step, part, entry.visitId, { at, entryId: entry.id })
  }
  /** What both were looked at with is not held any longer than it is needed. */
  private letGo(): void {
    if (this.known && this.flagged) this.looked = null
  }
  get shut(): GateState | null {
    return this.gates.find((gate) => !gate.met) ?? null
  }
  get readings(): readonly ReadingEvaluation[] {
    return this.own.readings
  }
  get computed(): Judgement | null {
    return this.own.computed
  }
  get counting(): ReadingEvaluation | null {
    return this.own.counting
  }
  get repeatAsked(): boolean {
    return this.own.repeatAsked
  }
  get judgement(): Judgement | null {
    return this.own.computed ?? this.own.counting?.judgement ?? null
  }
}
