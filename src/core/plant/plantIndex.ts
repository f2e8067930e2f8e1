import type { Part, PartData, PartKind, StringPart } from './part'
import { namedBy } from './kinds'
import { OnParts } from './onParts'
import { partsByKind } from './projection'

export type PartOf<Kind extends PartKind> = Part<Extract<PartData, { kind: Kind }>>

/** Lists by a key, made once. */
function grouped<T>(list: readonly T[], keys: (one: T) => readonly (string | null | undefined)[]): Map<string, T[]> {
  const groups = new Map<string, T[]>()
  for (const one of list) {
    for (const key of keys(one)) {
      if (!key) continue
      const known = groups.get(key)
      if (known) known.push(one)
      else groups.set(key, [one])
    }
  }
  return groups
}

/** How the parts of a plant hang together. Whatever is asked often is looked up once a plant. */
export class PlantIndex {
  private kinds: Map<PartKind, Part[]> | null = null
  private readonly answers = OnParts.empty<object | null>()
  private readonly made = new Map<string, Map<string, Part[]>>()
  private lastFed: Part | null = null
  private lastSupply: PartOf<'supply'> | null = null

  constructor(readonly parts: ReadonlyMap<string, Part>) {}

  /** Parts of a kind in service, by tag as people count. */
  ofKind<Kind extends PartKind>(kind: Kind): readonly PartOf<Kind>[] {
    this.kinds ??= partsByKind(this.parts)
    return (this.kinds.get(kind) ?? []) as unknown as PartOf<Kind>[]
  }

  /** A part in service of this kind. */
  inService<Kind extends PartKind>(kind: Kind, id: string | null | undefined): PartOf<Kind> | null {
    const found = id ? this.parts.get(id) : undefined
    return found && !found.retired && found.data.kind === kind ? (found as PartOf<Kind>) : null
  }

  /** The part that a field of another names; where nobody said which, the only one there is, if its kind has it so. */
  named<Kind extends PartKind>(kind: Kind, part: Part, field: string): PartOf<Kind> | null {
    const id = (part.data as Record<string, unknown>)[field] as string | null | undefined
    return this.inService(kind, id) ?? (namedBy(part.data.kind, field).else === 'only' ? this.only(kind) : null)
  }

  /** The one part of a kind that another belongs to by default: a plant with one inverter need not say so each time. */
  only<Kind extends PartKind>(kind: Kind): PartOf<Kind> | null {
    const [first, second] = this.ofKind(kind)
    return first && !second ? first : null
  }

  /** The answer to a question about a part, worked out once a plant: many ask for the same. */
  once<Question extends string, T extends object | null>(
    question: Question,
    part: Part,
    answer: (question: Question, part: Part, plant: PlantIndex) => T,
  ): T {
    const known = this.answers.get(question, part.id) as T | undefined
    if (known !== undefined) return known
    const found = answer(question, part, this)
    this.answers.set(question, part.id, found)
    return found
  }

  private lookUp<T extends Part>(name: string, make: () => Map<string, T[]>): Map<string, T[]> {
    let known = this.made.get(name) as Map<string, T[]> | undefined
    if (!known) {
      known = make()
      this.made.set(name, known as Map<string, Part[]>)
    }
    return known
  }

  get site(): PartOf<'site'> | null {
    return this.ofKind('site')[0] ?? null
  }

  arrayOf(part: Part): PartOf<'array'> | null {
    if (part.data.kind === 'array') return part as PartOf<'array'>
    return part.data.kind === 'string' || part.data.kind === 'row' ? this.named('array', part, 'arrayId') : null
  }

  combinerOf(string: StringPart): PartOf<'combiner'> | null {
    return this.named('combiner', string, 'combinerId')
  }

  /** Named, by its combiner, or the only one; null where there is none, or where nobody said which. */
  inverterOf(string: StringPart): PartOf<'inverter'> | null {
    const combiner = string.data.inverterId ? null : this.combinerOf(string)
    return this.named('inverter', combiner ?? string, 'inverterId')
  }

  /** The switch through which a string goes: named, or the only one there is. */
  switchOf(string: StringPart): PartOf<'dc-switch'> | null {
    return this.named('dc-switch', string, 'switchId')
  }

  get surgeProtection(): readonly PartOf<'surge-protection'>[] {
    return this.ofKind('surge-protection')
  }

  /** The board of a circuit or device: named, or the only one. */
  boardOf(part: PartOf<'circuit'> | PartOf<'rcd'>): PartOf<'board'> | null {
    return this.named('board', part, 'boardId')
  }

  /** The boards above one, from the nearest to the origin; a ring of boards, entered by mistake, ends where it began. */
  boardsAbove(board: PartOf<'board'>): PartOf<'board'>[] {
    const above: PartOf<'board'>[] = []
    const seen = new Set([board.id])
    for (let one = this.inService('board', board.data.boardId); one && !seen.has(one.id); ) {
      seen.add(one.id)
      above.push(one)
      one = this.inService('board', one.data.boardId)
    }
    return above
  }

  /** The supply that feeds a part: named by the board at its origin, or the only one. Null where nobody can say which. */
  supplyOf(part: Part): PartOf<'supply'> | null {
    // One test asks for it again and again.
    if (part !== this.lastFed) {
      this.lastSupply = this.once('#supply', part, PlantIndex.lookUpSupply)
      this.lastFed = part
    }
    return this.lastSupply
  }

  private static lookUpSupply(_: string, part: Part, plant: PlantIndex): PartOf<'supply'> | null {
    if (part.data.kind === 'supply') return part as PartOf<'supply'>
    if (part.data.kind === 'charge-point') {
      const circuit = plant.circuitOfPoint(part as PartOf<'charge-point'>)
      return circuit ? plant.supplyOf(circuit) : plant.only('supply')
    }
    if (part.data.kind === 'board') {
      const board = part as PartOf<'board'>
      return plant.named('supply', plant.boardsAbove(board).at(-1) ?? board, 'supplyId')
    }
    const isOnBoard = part.data.kind === 'circuit' || part.data.kind === 'rcd'
    const board = isOnBoard ? plant.boardOf(part as PartOf<'circuit'>) : null
    return board ? plant.supplyOf(board) : plant.only('supply')
  }

  /** The device nearest to a circuit first, then those above it. */
  rcdsOf(circuit: PartOf<'circuit'>): PartOf<'rcd'>[] {
    return this.once('#rcds', circuit, PlantIndex.lookUpRcds)
  }

  private static lookUpRcds(_: string, circuit: Part, plant: PlantIndex): PartOf<'rcd'>[] {
    return plant.rcdsFrom(plant.named('rcd', circuit, 'rcdId'))
  }

  private above({ data }: PartOf<'rcd'>): PartOf<'rcd'> | null {
    return this.inService('rcd', data.upstreamId)
  }

  private rcdsFrom(first: PartOf<'rcd'> | null): PartOf<'rcd'>[] {
    if (!first) return []
    const chain = [first]
    for (let one = this.above(first); one && !chain.includes(one); one = this.above(one)) chain.push(one)
    return chain
  }

  /** The device above another in series. */
  upstreamOf(rcd: PartOf<'rcd'>): PartOf<'rcd'> | null {
    return this.rcdsFrom(rcd)[1] ?? null
  }

  /** Devices against residual current on one supply. */
  rcdsOn(supply: Part): readonly PartOf<'rcd'>[] {
    const bySupply = this.lookUp('rcds', () => grouped(this.ofKind('rcd'), (one) => [this.supplyOf(one)?.id]))
    return bySupply.get(supply.id) ?? []
  }

  /** What runs in the ground near an electrode. */
  servicesOf(electrode: PartOf<'electrode'>): PartOf<'buried-service'>[] {
    return this.ofKind('buried-service').filter(
      (service) => this.named('electrode', service, 'electrodeId')?.id === electrode.id,
    )
  }

  /** Circuits of a board, of a residual current device and those below it, of a charge point, or of the whole plant. */
  circuitsOf(part: Part): readonly PartOf<'circuit'>[] {
    if (part.data.kind === 'circuit') return [part as PartOf<'circuit'>]
    if (part.data.kind === 'charge-point') {
      const circuit = this.circuitOfPoint(part as PartOf<'charge-point'>)
      return circuit ? [circuit] : []
    }
    const all = this.ofKind('circuit')
    if (part.data.kind === 'board')
      return this.lookUp('by-board', () => grouped(all, (one) => [this.boardOf(one)?.id])).get(part.id) ?? []
    if (part.data.kind === 'rcd')
      return (
        this.lookUp('by-rcd', () => grouped(all, (one) => this.rcdsOf(one).map((rcd) => rcd.id))).get(part.id) ?? []
      )
    return all
  }

  /** Circuits of which nobody said on which board they are. */
  get circuitsOfNoBoard(): readonly PartOf<'circuit'>[] {
    return this.unplaced('no-board', this.ofKind('circuit'), (one) => this.boardOf(one))
  }

  /** Strings of which nobody said to which inverter they go. */
  get stringsOfNoInverter(): readonly StringPart[] {
    return this.unplaced('no-inverter', this.ofKind('string'), (one) => this.inverterOf(one))
  }

  private unplaced<T extends Part>(name: string, all: readonly T[], placeOf: (one: T) => Part | null): readonly T[] {
    return this.lookUp(name, () => new Map([['', all.filter((one) => placeOf(one) === null)]])).get('')!
  }

  /** Whether every circuit that hangs on a device wants it against faults only: then it is no additional protection. */
  isForFaultsOnly(rcdId: string): boolean {
    const rcd = this.inService('rcd', rcdId)
    const circuits = rcd ? this.circuitsOf(rcd) : []
    return circuits.length > 0 && circuits.every(({ data }) => data.rcdFor === 'faults')
  }

  /** The circuit that an inverter feeds: nobody guesses which. */
  circuitOfInverter(inverter: PartOf<'inverter'>): PartOf<'circuit'> | null {
    return this.named('circuit', inverter, 'circuitId')
  }

  /** The circuit that feeds a charge point: nobody guesses which. */
  circuitOfPoint(point: PartOf<'charge-point'>): PartOf<'circuit'> | null {
    return this.named('circuit', point, 'circuitId')
  }

  /** All points behind the same load limit, by the mark they share; only itself where it has none. */
  sharersOf(point: PartOf<'charge-point'>): readonly PartOf<'charge-point'>[] {
    const group = point.data.load?.group
    return group ? this.ofKind('charge-point').filter((one) => one.data.load?.group === group) : [point]
  }

  /** The other points of the same model. */
  twinsOf(point: PartOf<'charge-point'>): readonly PartOf<'charge-point'>[] {
    const model = point.data.model?.id
    const isTwin = (one: PartOf<'charge-point'>): boolean => one.id !== point.id && one.data.model?.id === model
    return model ? this.ofKind('charge-point').filter(isTwin) : []
  }

  /** Whether anything of earth and the AC side is entered. */
  get hasAcSide(): boolean {
    return (['supply', 'board', 'circuit', 'charge-point'] as const).some((kind) => this.ofKind(kind).length > 0)
  }

  /** What strings share when they are in parallel: a combiner, or one tracker input. Null where nobody said. */
  private inputOf(string: StringPart): string | null {
    if (string.data.combinerId) return `combiner ${string.data.combinerId}`
    return string.data.input ? `input ${this.inverterOf(string)?.id ?? ''} ${string.data.input}` : null
  }

  private byInput(): Map<string, StringPart[]> {
    return this.lookUp('by-input', () => grouped(this.ofKind('string'), (one) => [this.inputOf(one)]))
  }

  /** Strings of an array, of a combiner, of an inverter, or of the whole plant. */
  stringsOf(part: Part): readonly StringPart[] {
    const all = this.ofKind('string')
    const under = (name: string, key: (one: StringPart) => string | null | undefined): readonly StringPart[] =>
      this.lookUp(name, () => grouped(all, (one) => [key(one)])).get(part.id) ?? []
    switch (part.data.kind) {
      case 'array':
        return under('by-array', (one) => one.data.arrayId)
      case 'combiner':
        return this.byInput().get(`combiner ${part.id}`) ?? []
      case 'string':
        return [part as StringPart]
      case 'inverter':
        return under('by-inverter', (one) => this.inverterOf(one)?.id)
      default:
        return all
    }
  }

  /** How many strings meet where this one does, itself included; null where its input is not known and it has company. */
  inParallel(string: StringPart): number | null {
    const input = this.inputOf(string)
    if (input) return this.byInput().get(input)?.length ?? 1
    const inverter = this.inverterOf(string)
    const company = inverter ? this.stringsOf(inverter) : this.ofKind('string')
    return company.length > 1 ? null : 1
  }
}

export const emptyPlant = new PlantIndex(new Map())
