import { moduleModel } from '@/core/pv/stringModel'
import type { Body, Entry } from '@/core/record/entry'
import type { Facts } from '@/core/record/facts'
import { readStepById } from '@/core/steps'
import { exampleModule } from '@/core/steps/worked'
import { exampleBoard, exampleCircuit, exampleRcd, exampleSupply } from '@/core/steps/worked'
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

/** What a test reads in its own worked example. */
const exampleOf = (step: string): Pick<Body<'reading'>, 'slots' | 'conditions'> => readStepById(step)!.example.reading!

/** So many circuits, twenty to a board and a device, with every test of theirs read: four a circuit, two a device. */
export function manyCircuits(count: number): Facts {
  const build = new FactsBuilder()
  build.reading('ze', build.part(exampleSupply), exampleOf('ze'))
  for (let b = 0; b < count / 20; b++) {
    const board = build.part({ ...exampleBoard, tag: `DB${b}` })
    const rcd = build.part({ ...exampleRcd, tag: `RCD${b}`, boardId: board })
    for (let n = 1; n <= 20; n++) {
      const circuit = build.part({ ...exampleCircuit, tag: `${b}.${n}`, boardId: board, rcdId: rcd })
      for (const step of ['r1r2', 'ac-insulation', 'ac-polarity', 'zs']) build.reading(step, circuit, exampleOf(step))
    }
    for (const step of ['rcd-trips', 'rcd-button']) build.reading(step, rcd, exampleOf(step))
    build.reading('ac-functional', board, exampleOf('ac-functional'))
  }
  return build.facts()
}

/** The same with the whole plant entered before anything was read. */
export function plantFirst(facts: Facts): Facts {
  const isPlant = ({ body }: Entry): boolean => body.kind === 'plant-change'
  const start = Date.parse(facts.entries[0]!.deviceTime)
  const entries = [...facts.entries.filter(isPlant), ...facts.entries.filter((entry) => !isPlant(entry))]
  const at = (k: number): string => new Date(start + 1000 * k).toISOString()
  return { ...facts, entries: entries.map((entry, k) => ({ ...entry, deviceTime: at(k) })) }
}
