/** A plant that says what it was asked: cheaper by far than all that a judgement took in. */
import { PlantIndex } from '../plant/plantIndex'
import type { Judgement } from '../verdict/judgement'

export type Listening = { plant: PlantIndex; asked: Set<string> }
const listeners = new WeakMap<PlantIndex, Listening>()

/** Answers as the plant itself does, and writes down the name of each question. */
export function listeningTo(plant: PlantIndex): Listening {
  const known = listeners.get(plant)
  if (known) return known
  const asked = new Set<string>()
  const listens = Object.create(plant) as PlantIndex
  for (const [name, { value, get }] of Object.entries(Object.getOwnPropertyDescriptors(PlantIndex.prototype))) {
    const answer: unknown = value ?? get
    if (name === 'constructor' || typeof answer !== 'function') continue
    const asks = (...args: unknown[]): unknown => {
      asked.add(name)
      return (answer as (...of: unknown[]) => unknown).apply(plant, args)
    }
    Object.defineProperty(listens, name, get ? { get: asks } : { value: asks })
  }
  const made = { plant: listens, asked }
  listeners.set(plant, made)
  return made
}

/** What is worked out only when it is asked for is asked for here: its inputs are inputs too. */
export const lookAt = (judgement: Judgement): void =>
  void [judgement.verdict, judgement.finding, judgement.rule, judgement.limits]
