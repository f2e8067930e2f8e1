/** Which strings are drawn each by itself, and which as one because they are alike. */
import { isAlike } from '@/core/plant/additions'
import type { StringPart } from '@/core/plant/part'
import { compareTags } from '@/core/plant/projection'
import type { PlantIndex } from '@/core/plant/plantIndex'

/** One lane of the drawing: a string, several alike on one way, or many such ways. */
export type Lane = {
  /** Of the fold that it is, null where it is one string. */
  fold: string | null
  strings: readonly StringPart[]
  /** Several ways in one: combiners, switches and inverters of their own. */
  isMore: boolean
}

/** Over so many lanes an array folds by itself. */
const MOST_LANES = 8
/** So many stacks alike are shown before the rest is one lane. */
const SHOWN_STACKS = 2

/** In the order of the inverters they go to, so that each inverter stands once where it can. */
function inOrder(strings: readonly StringPart[], plant: PlantIndex): StringPart[] {
  const place = (one: StringPart): string[] => [
    plant.inverterOf(one)?.data.tag ?? '\uffff',
    plant.combinerOf(one)?.data.tag ?? '',
    one.data.tag,
  ]
  const places = new Map(strings.map((one) => [one.id, place(one)]))
  return [...strings].sort((a, b) => {
    const [first, second] = [places.get(a.id)!, places.get(b.id)!]
    for (const [k, text] of first.entries()) {
      const order = compareTags(text, second[k]!)
      if (order !== 0) return order
    }
    return 0
  })
}

export function lanesOf(strings: readonly StringPart[], plant: PlantIndex, opened: ReadonlySet<string>): Lane[] {
  const ordered = inOrder(strings, plant)
  const single = (one: StringPart): Lane => ({ fold: null, strings: [one], isMore: false })
  if (ordered.length <= MOST_LANES) return ordered.map(single)
  const stacks = neighbours(ordered, isAlikeIn)
  const lanes = stacks.flatMap((list): Lane[] => {
    const fold = `stack ${list[0]!.id}`
    return list.length === 1 || opened.has(fold) ? list.map(single) : [{ fold, strings: list, isMore: false }]
  })
  return lanes.length <= MOST_LANES ? lanes : foldedAgain(lanes, opened)
}

const isAlikeIn = (a: StringPart, b: StringPart): boolean => isAlike(a.data, b.data)

/** Lists of neighbours that go together. */
function neighbours<T>(list: readonly T[], goTogether: (a: T, b: T) => boolean): T[][] {
  const groups: T[][] = []
  for (const one of list) {
    const last = groups.at(-1)
    if (last && goTogether(last[0]!, one)) last.push(one)
    else groups.push([one])
  }
  return groups
}

/** Stacks that differ only by the way they go are one lane after the first two. */
function foldedAgain(lanes: readonly Lane[], opened: ReadonlySet<string>): Lane[] {
  const looksAlike = (a: Lane, b: Lane): boolean => {
    const [first, second] = [a.strings[0]!.data, b.strings[0]!.data]
    return (
      a.fold !== null &&
      a.strings.length === b.strings.length &&
      first.modulesInSeries === second.modulesInSeries &&
      first.moduleType.id === second.moduleType.id
    )
  }
  return neighbours(lanes, looksAlike).flatMap((list): Lane[] => {
    const rest = list.slice(SHOWN_STACKS)
    const fold = `more ${list[0]!.strings[0]!.id}`
    if (rest.length < 2 || opened.has(fold)) return list
    return [...list.slice(0, SHOWN_STACKS), { fold, strings: rest.flatMap((one) => [...one.strings]), isMore: true }]
  })
}
