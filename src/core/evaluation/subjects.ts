/** Which parts a gate or a state speaks of, seen from the part of a step. A subject may be missing, or nobody said which. */
import type { Part, StringPart } from '../plant/part'
import type { PartOf, PlantIndex } from '../plant/plantIndex'
import type { On } from '../steps/step'

export type Subjects = { parts: readonly Part[]; lacks: 'missing' | 'ambiguous' | null }

const found = (parts: readonly Part[]): Subjects => ({ parts, lacks: parts.length === 0 ? 'missing' : null })
const alone = new WeakMap<Part, Subjects>()
/** One part by itself: thousands of circuits have the same supply. */
function only(part: Part): Subjects {
  const known = alone.get(part) ?? { parts: [part], lacks: null }
  alone.set(part, known)
  return known
}
const one = (part: Part | null, several: boolean): Subjects =>
  part ? only(part) : { parts: [], lacks: several ? 'ambiguous' : 'missing' }

export const subjectsOf = (on: On, part: Part, plant: PlantIndex): Subjects =>
  on === 'part' ? { parts: [part], lacks: null } : plant.once(on, part, lookUp)

function lookUp(on: Exclude<On, 'part'>, part: Part, plant: PlantIndex): Subjects {
  switch (on) {
    case 'site':
      return one(plant.site, false)
    case 'array':
      return one(plant.arrayOf(part), false)
    case 'inverter':
      return one(
        part.data.kind === 'string' ? plant.inverterOf(part as StringPart) : null,
        plant.ofKind('inverter').length > 1,
      )
    case 'strings':
      return found(stringsOn(part, plant))
    case 'strings-array':
      return found(
        [...new Set(stringsOn(part, plant).map((string) => plant.arrayOf(string)))].filter((array) => array !== null),
      )
    case 'surge-protection':
      return found(plant.surgeProtection)
    case 'supply':
      return one(plant.supplyOf(part), plant.ofKind('supply').length > 1)
    case 'electrodes':
      return found(plant.ofKind('electrode'))
    case 'electrodes-by-spikes':
      return found(plant.ofKind('electrode').filter((electrode) => electrode.data.testedBy !== 'loop'))
    case 'electrodes-by-loop':
      return found(plant.ofKind('electrode').filter((electrode) => electrode.data.testedBy === 'loop'))
    case 'rings':
      return found(circuitsOn(part, plant).filter(({ data }) => data.kind === 'circuit' && data.layout === 'ring'))
    case 'circuits':
      return found(circuitsOn(part, plant))
    case 'inverter-circuit':
      return one(circuitOf(part, plant), false)
    case 'supply-of-inverter': {
      const circuit = circuitOf(part, plant)
      return one(circuit && plant.supplyOf(circuit), plant.ofKind('supply').length > 1)
    }
  }
}

/** Where a state ends: where nobody said on which supply something was switched on, it is dead on none. */
export function endedOn(on: On, part: Part, plant: PlantIndex): readonly Part[] {
  const { parts, lacks } = subjectsOf(on, part, plant)
  return lacks && (on === 'supply' || on === 'supply-of-inverter') ? plant.ofKind('supply') : parts
}

/** Strings of an inverter, combiner or surge protection; one of which nobody said where it goes may go there as well. */
function stringsOn(part: Part, plant: PlantIndex): readonly StringPart[] {
  // It hangs at no string by name: it protects what all of them go to.
  if (part.data.kind === 'surge-protection') return plant.ofKind('string')
  const own = plant.stringsOf(part)
  if (part.data.kind !== 'inverter' || plant.ofKind('inverter').length < 2) return own
  return [...own, ...plant.stringsOfNoInverter]
}

/** Circuits of a board or device; one of which nobody said on which board it is may be on this one. */
function circuitsOn(part: Part, plant: PlantIndex): readonly Part[] {
  const own = plant.circuitsOf(part)
  if (part.data.kind !== 'board' || plant.ofKind('board').length < 2) return own
  return [...own, ...plant.circuitsOfNoBoard]
}

const circuitOf = (part: Part, plant: PlantIndex): PartOf<'circuit'> | null =>
  part.data.kind === 'inverter' ? plant.circuitOfInverter(part as PartOf<'inverter'>) : null
