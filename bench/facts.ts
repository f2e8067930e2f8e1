import { moduleModel } from '@/core/pv/stringModel'
import type { Facts } from '@/core/record/facts'
import { exampleModule } from '@/core/steps/worked'
import { exampleBoard, exampleCircuit, exampleRcd, exampleSupply } from '@/core/steps/worked'
import { readValueOf } from '@/core/quantity/readValue'
import { FactsBuilder } from '@/core/testing/factsBuilder'

/** A bundle of so many strings with six readings each: polarity twice, voltage twice, current twice. */
export function manyStrings(count: number): Facts {
  const model = moduleModel(exampleModule)
  const volts = 11 * model.voc_V(742, 43.6)
  const amperes = model.isc_A(742, 43.6)
  const build = new FactsBuilder()
  for (let n = 1; n <= count; n++) {
    const string = build.string(String(n))
    const off = 1 + 0.01 * Math.sin(n)
    for (let k = 0; k < 2; k++) {
      build.polarity(string)
      build.voltage(string, volts * off)
      build.current(string, amperes * off)
    }
  }
  return build.facts()
}

/** So many circuits, twenty to a board and a device, with R1+R2, polarity and loop read on each. */
export function manyCircuits(count: number): Facts {
  const build = new FactsBuilder()
  build.part(exampleSupply)
  const circuits: string[] = []
  for (let b = 0; b < count / 20; b++) {
    const board = build.part({ ...exampleBoard, tag: `DB${b}` })
    const rcd = build.part({ ...exampleRcd, tag: `RCD${b}`, boardId: board })
    for (let n = 1; n <= 20; n++)
      circuits.push(build.part({ ...exampleCircuit, tag: `${b}.${n}`, boardId: board, rcdId: rcd }))
  }
  for (const id of circuits) {
    build.reading('r1r2', id, { slots: { r1r2: readValueOf(0.4, 'ohm', 2), 'lead-set': { choice: 'set-a' } } })
    build.reading('ac-polarity', id, { slots: { polarity: { choice: 'correct' } } })
    build.reading('zs', id, { slots: { 'loop-method': { choice: 'non-trip' }, zs: readValueOf(0.7, 'ohm', 2) } })
  }
  return build.facts()
}
