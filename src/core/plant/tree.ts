/** The plant as an outline: what hangs on what, from the sun to earth. Every part in service stands in it once. */
import type { Part, PartKind } from './part'
import type { PlantIndex, PartOf } from './plantIndex'

/** Headings that are no part themselves. */
export type TwigGroup =
  | 'sun'
  | 'earth'
  | 'dc-switch'
  | 'combiner'
  | 'surge-protection'
  | 'inverter'
  | 'unplaced-string'
  | 'unplaced-row'
  | 'unplaced-circuit'
  | 'unplaced-rcd'
  | 'unplaced-charge-point'

export type Twig = { key: string; part: Part | null; group: TwigGroup | null; children: readonly Twig[] }

const leaf = (part: Part, children: readonly Twig[] = []): Twig => ({ key: part.id, part, group: null, children })
const leaves = (parts: readonly Part[]): Twig[] => parts.map((part) => leaf(part))
/** A heading with what is under it; nothing where nothing is. */
const under = (group: TwigGroup, children: readonly Twig[]): Twig[] =>
  children.length > 0 ? [{ key: group, part: null, group, children }] : []

export function treeOf(plant: PlantIndex): readonly Twig[] {
  return [...under('sun', sunSide(plant)), ...under('earth', earthSide(plant))]
}

function sunSide(plant: PlantIndex): Twig[] {
  const rows = plant.ofKind('row')
  const strings = plant.ofKind('string')
  const list = (kind: 'combiner' | 'surge-protection' | 'dc-switch' | 'inverter'): Twig[] =>
    under(kind, leaves(plant.ofKind(kind)))
  return [
    ...leaves(plant.ofKind('site')),
    ...plant
      .ofKind('array')
      .map((array) =>
        leaf(array, [
          ...leaves(plant.stringsOf(array)),
          ...leaves(rows.filter((row) => plant.arrayOf(row)?.id === array.id)),
        ]),
      ),
    ...under('unplaced-string', leaves(strings.filter((one) => plant.arrayOf(one) === null))),
    ...under('unplaced-row', leaves(rows.filter((one) => plant.arrayOf(one) === null))),
    ...list('combiner'),
    ...list('surge-protection'),
    ...list('dc-switch'),
    ...list('inverter'),
  ]
}

function earthSide(plant: PlantIndex): Twig[] {
  const seen = new Set<string>()
  const roots = rootBoards(plant)
  const points = plant.ofKind('charge-point')
  const rcds = plant.ofKind('rcd')
  const services = plant.ofKind('buried-service')
  const electrodes = plant.ofKind('electrode')
  const served = new Map(electrodes.map((one) => [one.id, plant.servicesOf(one)]))
  const placed = new Set([...served.values()].flat().map((one) => one.id))
  return [
    ...leaves(plant.ofKind('supply')),
    ...roots.map((board) => boardTwig(board, plant, seen)),
    ...under('unplaced-circuit', circuitTwigs(plant.circuitsOfNoBoard, plant)),
    ...under('unplaced-rcd', leaves(rcds.filter((one) => plant.boardOf(one) === null))),
    ...under('unplaced-charge-point', leaves(points.filter((one) => plant.circuitOfPoint(one) === null))),
    ...electrodes.map((one) => leaf(one, leaves(served.get(one.id)!))),
    ...leaves(services.filter((one) => !placed.has(one.id))),
  ]
}

/** Boards that no other feeds; of boards that feed each other in a ring, entered by mistake, the first. */
export function rootBoards(plant: PlantIndex): PartOf<'board'>[] {
  const boards = plant.ofKind('board')
  const roots = boards.filter((one) => plant.inService('board', one.data.boardId) === null)
  const reached = new Set<string>()
  const reach = (board: PartOf<'board'>): void => {
    if (reached.has(board.id)) return
    reached.add(board.id)
    for (const below of boardsBelow(board, plant)) reach(below)
  }
  for (const root of roots) reach(root)
  for (const board of boards) {
    if (reached.has(board.id)) continue
    roots.push(board)
    reach(board)
  }
  return roots
}

/** Boards that one feeds. */
export const boardsBelow = (board: Part, plant: PlantIndex): PartOf<'board'>[] =>
  plant.ofKind('board').filter((one) => one.data.boardId === board.id && one.id !== board.id)

function boardTwig(board: PartOf<'board'>, plant: PlantIndex, seen: Set<string>): Twig {
  seen.add(board.id)
  const rcds = plant.ofKind('rcd').filter((one) => plant.boardOf(one)?.id === board.id)
  const below = boardsBelow(board, plant).filter((one) => !seen.has(one.id))
  return leaf(board, [
    ...leaves(rcds),
    ...circuitTwigs(plant.circuitsOf(board), plant),
    ...below.map((one) => boardTwig(one, plant, seen)),
  ])
}

const circuitTwigs = (circuits: readonly PartOf<'circuit'>[], plant: PlantIndex): Twig[] =>
  circuits.map((circuit) => leaf(circuit, leaves(pointsOn(circuit, plant))))

/** Charge points that a circuit feeds. */
export const pointsOn = (circuit: Part, plant: PlantIndex): PartOf<'charge-point'>[] =>
  plant.ofKind('charge-point').filter((one) => plant.circuitOfPoint(one)?.id === circuit.id)

/** All parts of a twig, itself first. */
export const partsIn = (twig: Twig): Part[] => [...(twig.part ? [twig.part] : []), ...twig.children.flatMap(partsIn)]

/** How many parts of a kind stand under a twig. */
export const countIn = (twig: Twig, kind: PartKind): number =>
  partsIn(twig).filter((part) => part.data.kind === kind).length
