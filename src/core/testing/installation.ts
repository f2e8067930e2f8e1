/** An installation with one of each part, for the tests of earth and the AC side. */
import { checkBody, evaluate, evaluateDraft, stepKey } from '../evaluate'
import type { CircuitData, PartData, RcdData } from '../plant/part'
import { PlantIndex } from '../plant/plantIndex'
import { readValueOf } from '../quantity/readValue'
import type { Unit } from '../quantity/unit'
import type { SlotValue } from '../record/entry'
import type { Regime } from '../regime/regime'
import { defaultRegime, shippedRegimes } from '../regime/shipped'
import { exampleBoard, exampleCircuit, exampleRcd, exampleSupply } from '../steps/worked'
import { choicesOf, isAnswered, type Slot, slotsShown } from '../steps/slot'
import type { AnyReadStep } from '../steps/step'
import { readStepById } from '../steps'
import { FactsBuilder, readingBody } from './factsBuilder'

type Of<Kind extends PartData['kind']> = Extract<PartData, { kind: Kind }>
export const read = (value: number, unit: Unit = 'ohm', decimals = 2): SlotValue => readValueOf(value, unit, decimals)
export const over = (value: number, unit: Unit): SlotValue => ({ text: `>${value}`, value, bound: 'more-than', unit })
export const choose = (choice: string): SlotValue => ({ choice })
export const classic: Regime = shippedRegimes.find((one) => one.id === 'bs7671-three-multiple')!
export const iec: Regime = shippedRegimes.find((one) => one.id === 'iec60364-6')!

type Own = {
  supply?: Partial<Of<'supply'>>
  board?: Partial<Of<'board'>>
  rcd?: Partial<RcdData> | null
  circuit?: Partial<CircuitData>
}

/** What is set where nothing speaks for another voltage. */
const usual: Readonly<Record<string, string>> = { 'set-voltage': 'v500' }
const soundAnswer = (slot: Slot): SlotValue | null =>
  slot.kind === 'choice'
    ? choose(usual[slot.id] ?? slot.sound[0]!)
    : slot.kind === 'check'
      ? choose('as-it-should')
      : slot.kind === 'lead-set'
        ? choose('A')
        : null

/** What is asked and has no answer, answered as it should be; what depends on answers is asked after them. */
export function withSoundAnswers(
  step: AnyReadStep,
  asked: Parameters<typeof slotsShown>[2],
  slots: Record<string, SlotValue>,
): Record<string, SlotValue> {
  const open = slotsShown(step, choicesOf({ slots }), asked).find(
    (slot) => !slot.optional && !isAnswered(slot, { slots }) && soundAnswer(slot),
  )
  return open ? withSoundAnswers(step, asked, { ...slots, [open.id]: soundAnswer(open)! }) : slots
}

/** A part that stands alone, and what is asked of it. */
export const bare = (data: PartData, regime: Regime = defaultRegime): Parameters<typeof slotsShown>[2] => ({
  part: { id: '', data },
  regime,
  plant: new PlantIndex(new Map()),
})

/** What a test changes is given; the rest is as in the worked examples. */
export class Installation {
  readonly build = new FactsBuilder()
  readonly supply: string
  readonly board: string
  readonly rcd: string | null
  readonly circuit: string
  regime: Regime = defaultRegime
  private isNulled = false

  constructor(own: Own = {}) {
    this.supply = this.build.part({ ...exampleSupply, ...own.supply } as PartData)
    this.board = this.build.part({ ...exampleBoard, ...own.board })
    this.rcd = own.rcd ? this.build.part({ ...exampleRcd, ...own.rcd } as PartData) : null
    this.circuit = this.build.part({ ...exampleCircuit, rcdId: this.rcd, ...own.circuit } as PartData)
  }

  /** Keeps a reading; questions that the test says nothing of are answered as they should be, figures never. */
  take(step: string, partId: string, slots: Record<string, SlotValue>): this {
    const { one, evaluation } = this.says(step, partId)
    if (readStepById(step).nulled) this.nullLeads()
    const asked = { part: one.part, plant: evaluation.plant, regime: this.regime }
    const answered = withSoundAnswers(readStepById(step), asked, slots)
    this.build.reading(step, partId, { slots: answered, conditions: null })
    return this
  }

  /** Once: the leads that `withSoundAnswers` reads with. */
  private nullLeads(): void {
    if (this.isNulled) return
    this.isNulled = true
    this.build.nulled('A')
  }

  /** What is wrong with the set-up before anything is read. */
  trap(step: string, partId: string, slots: Record<string, SlotValue>) {
    const { evaluation, one } = this.says(step, partId)
    return evaluateDraft(evaluation, one, readingBody({ slots })).trap
  }

  /** What would be refused or asked about before a reading is kept. */
  check(step: string, partId: string, body: Parameters<typeof readingBody>[0]) {
    const { evaluation, one } = this.says(step, partId)
    return checkBody(evaluation, { step: readStepById(step), part: one.part }, readingBody(body)).check
  }

  get facts() {
    return { ...this.build.facts(), regime: this.regime }
  }

  says(step: string, partId: string) {
    const evaluation = evaluate(this.facts, 0)
    const one = evaluation.byKey.get(stepKey(step, partId))!
    return { one, verdict: one.verdict, code: one.finding.code, evaluation }
  }
}
