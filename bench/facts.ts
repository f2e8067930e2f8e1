import { PlantIndex } from '@/core/plant/plantIndex'
import { plantFrom } from '@/core/plant/projection'
import { moduleModel } from '@/core/pv/stringModel'
import type { Body, Entry, SlotValue } from '@/core/record/entry'
import type { Facts } from '@/core/record/facts'
import { defaultRegime } from '@/core/regime/shipped'
import { readStepById } from '@/core/steps'
import { exampleModule } from '@/core/steps/worked'
import { exampleBoard, exampleCircuit, exampleRcd, exampleSupply } from '@/core/steps/worked'
import { FactsBuilder } from '@/core/testing/factsBuilder'
import { choose, over, read, withSoundAnswers } from '@/core/testing/installation'

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

/** Figures of a sound circuit, a little other in each; the rest is answered as it should be. */
const circuitReadings = (n: number): [string, Record<string, SlotValue>][] => [
  ['r1r2', { r1r2: read(0.3 + n / 1000) }],
  ['ac-insulation', { 'l-n': over(999, 'Mohm'), 'l-pe': over(999, 'Mohm'), 'n-pe': over(999, 'Mohm') }],
  ['ac-polarity', {}],
]
const loopReadings = (n: number): [string, Record<string, SlotValue>][] => [
  ['zs', { 'loop-method': choose('non-trip'), zs: read(0.5 + n / 1000) }],
]

/**
 * So many circuits, twenty to a board and a device, with every test of theirs read in its order: leads nulled, proved dead,
 * dead tests, earth back on, then live; four a circuit, two a device. One circuit in forty is of the wrong polarity.
 */
export function manyCircuits(count: number): Facts {
  const build = new FactsBuilder()
  const supply = build.part(exampleSupply)
  const perBoard = 20
  const boards = Array.from({ length: Math.max(1, count / perBoard) }, (_, b) => {
    const board = build.part({ ...exampleBoard, tag: `DB${b}` })
    const rcd = build.part({ ...exampleRcd, tag: `RCD${b}`, boardId: board })
    const circuits = Array.from({ length: perBoard }, (_, n) =>
      build.part({ ...exampleCircuit, line_mm2: 4, tag: `${b}.${n + 1}`, boardId: board, rcdId: rcd }),
    )
    return { board, rcd, circuits }
  })
  const plant = new PlantIndex(plantFrom(build.entries))
  const take = (id: string, partId: string, slots: Record<string, SlotValue>): void => {
    const asked = { part: plant.parts.get(partId)!, plant, regime: defaultRegime }
    build.reading(id, partId, { slots: withSoundAnswers(readStepById(id)!, asked, slots) })
  }
  build.nulled('A')
  take('prove-dead', supply, {})
  const all = boards.flatMap(({ circuits }) => circuits)
  const takeAll = (readings: typeof circuitReadings): void => {
    for (const [n, id] of all.entries()) for (const [step, slots] of readings(n % 100)) take(step, id, slots)
  }
  takeAll((n) =>
    circuitReadings(n).map(([step, slots]) =>
      step === 'ac-polarity' && n % 40 === 39 ? [step, { polarity: choose('reversed') }] : [step, slots],
    ),
  )
  take('ze', supply, { 'earthing-conductor': choose('earth-off'), ze: read(0.2) })
  take('earth-back', supply, {})
  takeAll(loopReadings)
  for (const { board, rcd } of boards) {
    build.reading('rcd-trips', rcd, exampleOf('rcd-trips'))
    take('rcd-button', rcd, {})
    take('ac-functional', board, {})
  }
  return build.facts()
}

/** What a test reads in its own worked example. */
const exampleOf = (step: string): Pick<Body<'reading'>, 'slots' | 'conditions'> => readStepById(step)!.example.reading!

/** The same with the whole plant entered before anything was read. */
export function plantFirst(facts: Facts): Facts {
  const isPlant = ({ body }: Entry): boolean => body.kind === 'plant-change'
  const start = Date.parse(facts.entries[0]!.deviceTime)
  const entries = [...facts.entries.filter(isPlant), ...facts.entries.filter((entry) => !isPlant(entry))]
  const at = (k: number): string => new Date(start + 1000 * k).toISOString()
  return { ...facts, entries: entries.map((entry, k) => ({ ...entry, deviceTime: at(k) })) }
}
