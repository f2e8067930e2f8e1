/** An installation with one of each part, for the tests of earth and the AC side. */
import { evaluate, stepKey } from '../evaluate'
import type { CircuitData, PartData, RcdData } from '../plant/part'
import { readValueOf } from '../quantity/readValue'
import type { Unit } from '../quantity/unit'
import type { SlotValue } from '../record/entry'
import type { Regime } from '../regime/regime'
import { defaultRegime, shippedRegimes } from '../regime/shipped'
import { exampleBoard, exampleCircuit, exampleRcd, exampleSupply } from '../steps/worked'
import { FactsBuilder } from './factsBuilder'

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

/** What a test changes is given; the rest is as in the worked examples. */
export class Installation {
  readonly build = new FactsBuilder()
  readonly supply: string
  readonly board: string
  readonly rcd: string | null
  readonly circuit: string
  regime: Regime = defaultRegime

  constructor(own: Own = {}) {
    this.supply = this.build.part({ ...exampleSupply, ...own.supply } as PartData)
    this.board = this.build.part({ ...exampleBoard, ...own.board })
    this.rcd = own.rcd ? this.build.part({ ...exampleRcd, ...own.rcd } as PartData) : null
    this.circuit = this.build.part({ ...exampleCircuit, rcdId: this.rcd, ...own.circuit } as PartData)
  }

  take(step: string, partId: string, slots: Record<string, SlotValue>): this {
    this.build.reading(step, partId, { slots, conditions: null })
    return this
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
