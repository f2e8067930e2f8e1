import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { kindOf } from '../plant/kinds'
import { type Part, type PartData, partDataSchema, type PartKind } from '../plant/part'
import { PlantIndex } from '../plant/plantIndex'
import { plantOfJob } from '../plant/projection'
import { exampleString } from '../steps/worked'
import { FactsBuilder, JOB, testId } from '../testing/factsBuilder'
import { PlantHistory } from './plantHistory'

/** Kinds of part that name others, and the names that they may give. */
const named: Partial<Record<PartKind, readonly (readonly [string, PartKind])[]>> = {
  row: [['arrayId', 'array']],
  string: [
    ['arrayId', 'array'],
    ['combinerId', 'combiner'],
    ['inverterId', 'inverter'],
    ['switchId', 'dc-switch'],
  ],
  combiner: [['inverterId', 'inverter']],
  inverter: [['circuitId', 'circuit']],
  board: [
    ['boardId', 'board'],
    ['supplyId', 'supply'],
  ],
  rcd: [
    ['boardId', 'board'],
    ['upstreamId', 'rcd'],
  ],
  circuit: [
    ['boardId', 'board'],
    ['rcdId', 'rcd'],
  ],
  'charge-point': [['circuitId', 'circuit']],
}
const KINDS: readonly PartKind[] = [
  ...(Object.keys(named) as PartKind[]),
  'array',
  'dc-switch',
  'supply',
  'site',
  'surge-protection',
]
/** Two of each kind at most, so that "the only one" is often so and often not. */
const idOf = (kind: PartKind, n: number): string => testId(0x2000 + 16 * KINDS.indexOf(kind) + n)

type Change = { kind: PartKind; n: number; names: readonly number[]; isRetired: boolean }
const change: fc.Arbitrary<Change> = fc.record({
  kind: fc.constantFrom(...KINDS),
  n: fc.integer({ min: 0, max: 1 }),
  // 0: nobody said which; 1 and 2: the first or the second.
  names: fc.array(fc.integer({ min: 0, max: 2 }), { minLength: 4, maxLength: 4 }),
  isRetired: fc.boolean(),
})

function dataOf({ kind, n, names }: Change): PartData {
  const tag = `${n + 1}`
  const blank =
    kind === 'string' ? { ...exampleString(10), tag } : kindOf(kind).blank(tag, { arrayId: null, boardId: null })
  const said = (named[kind] ?? []).map(([field, of], k) => {
    const which = names[k]!
    return [field, which === 0 ? null : idOf(of, which - 1)] as const
  })
  return partDataSchema.parse({ ...blank, tag, ...Object.fromEntries(said) })
}

/** The answer to a question, by the ids of what it gives. */
function answer(plant: PlantIndex, query: string, part: Part): string {
  const asked = (plant as unknown as Record<string, unknown>)[query]
  const given = typeof asked === 'function' ? (asked as (of: Part) => unknown).call(plant, part) : asked
  return Array.isArray(given) ? given.map((one: Part) => one.id).join() : ((given as Part | null)?.id ?? 'none')
}

/** Questions about a part, with the kinds that they are asked of. */
const asked: readonly (readonly [string, readonly PartKind[]])[] = [
  ['site', ['site']],
  ['surgeProtection', ['surge-protection']],
  ['arrayOf', ['row', 'string', 'array']],
  ['combinerOf', ['string']],
  ['inverterOf', ['string']],
  ['switchOf', ['string']],
  ['boardOf', ['circuit', 'rcd']],
  ['boardsAbove', ['board']],
  ['supplyOf', ['circuit', 'rcd', 'board', 'supply', 'charge-point']],
  ['rcdsOf', ['circuit']],
  ['upstreamOf', ['rcd']],
  ['circuitOfInverter', ['inverter']],
  ['circuitOfPoint', ['charge-point']],
]

describe('what a change of the plant may touch', () => {
  it('holds every question that it gives another answer', () => {
    fc.assert(
      fc.property(fc.array(change, { minLength: 3, maxLength: 24 }), fc.nat(), (changes, cut) => {
        const build = new FactsBuilder(false)
        for (const one of changes) {
          const after = one.isRetired ? null : dataOf(one)
          const before = one.isRetired ? dataOf(one) : null
          build.add({ kind: 'plant-change', v: 1, before, after, base: null }, { partId: idOf(one.kind, one.n) })
        }
        const seen = cut % changes.length
        const history = new PlantHistory(build.entries, JOB)
        const then = history.plantBefore(seen)
        const now = new PlantIndex(plantOfJob(build.entries, JOB))
        for (const [query, kinds] of asked) {
          if (history.mayTouch(query, seen)) continue
          for (const part of then.parts.values()) {
            const is = now.parts.get(part.id)
            // A part that was changed itself is told by its own fields.
            if (!is || part.retired || is.retired || !kinds.includes(part.data.kind)) continue
            if (history.isChanged(part.id, seen)) continue
            expect(answer(now, query, is), `${query} of ${part.data.kind} ${part.data.tag}`).toBe(
              answer(then, query, part),
            )
          }
        }
      }),
      { numRuns: 1500 },
    )
  })
})
