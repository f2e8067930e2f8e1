/** What a step comes to in the end. How its gates stand is put into sentences only where somebody looks. */
import type { Part } from '../plant/part'
import type { AnyStep } from '../steps/step'
import type { Judgement } from '../verdict/judgement'
import { type Finding, type Flag, isDone, type Verdict } from '../verdict/verdict'
import { type GateView, gateStates } from './gates'
import { findingOf, type Own } from './runOf'
import type { GateState, ReadingEvaluation, StepEvaluation } from './types'

/** What gates are looked at with: how everything stands, in which visit. */
type Looked = { view: GateView; visitId: string | undefined }

export class Settled implements StepEvaluation {
  private known: readonly GateState[] | null = null

  constructor(
    private readonly own: Own,
    private looked: Looked | null,
    readonly verdict: Verdict,
    /** Null where its own speaks, or the gate that holds it back. */
    private readonly said: Finding | null,
    readonly flags: readonly Flag[],
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
    const other = new Settled(this.own, this.looked, verdict, finding, this.flags, this.leftOut)
    other.known = this.known
    return other
  }

  get finding(): Finding {
    return this.said ?? (this.verdict === 'held-back' ? this.shut!.finding : findingOf(this.own))
  }
  get gates(): readonly GateState[] {
    if (!this.known) {
      const { view, visitId } = this.looked!
      this.known = gateStates(view, this.step, this.part, visitId)
      // What they were looked at with is not held any longer than it is needed.
      this.looked = null
    }
    return this.known
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
