import type { Part, PartData, PartKind, StringPart } from './part'
import { partsOfKind } from './projection'

export type PartOf<Kind extends PartKind> = Part<Extract<PartData, { kind: Kind }>>

/** How the parts of a plant hang together, looked up once an evaluation. */
export class PlantIndex {
  private readonly kinds = new Map<PartKind, Part[]>()
  private strings: { byArray: Map<string, StringPart[]>; byInput: Map<string, StringPart[]> } | null = null

  constructor(readonly parts: ReadonlyMap<string, Part>) {}

  /** Parts of a kind in service, by tag as people count. */
  ofKind<Kind extends PartKind>(kind: Kind): PartOf<Kind>[] {
    const known = this.kinds.get(kind) ?? partsOfKind(this.parts, kind)
    this.kinds.set(kind, known)
    return known as PartOf<Kind>[]
  }

  /** The one part of a kind that a string belongs to by default: a plant with one inverter need not say so each time. */
  private only<Kind extends PartKind>(kind: Kind): PartOf<Kind> | null {
    const [first, second] = this.ofKind(kind)
    return first && !second ? first : null
  }

  private inService<Kind extends PartKind>(kind: Kind, id: string | null | undefined): PartOf<Kind> | null {
    const found = id ? this.parts.get(id) : undefined
    return found && !found.retired && found.data.kind === kind ? (found as PartOf<Kind>) : null
  }

  get site(): PartOf<'site'> | null {
    return this.ofKind('site')[0] ?? null
  }

  arrayOf(part: Part): PartOf<'array'> | null {
    if (part.data.kind === 'array') return part as PartOf<'array'>
    return part.data.kind === 'string' || part.data.kind === 'row' ? this.inService('array', part.data.arrayId) : null
  }

  inverterOf(string: StringPart): PartOf<'inverter'> | null {
    const combiner = this.inService('combiner', string.data.combinerId)
    const named = string.data.inverterId ?? combiner?.data.inverterId
    return this.inService('inverter', named) ?? this.only('inverter')
  }

  /** The switch through which a string goes: named by nobody, so the only one there is. */
  get switch(): PartOf<'dc-switch'> | null {
    return this.only('dc-switch')
  }

  get surgeProtection(): readonly PartOf<'surge-protection'>[] {
    return this.ofKind('surge-protection')
  }

  /** The supply at the origin. */
  get supply(): PartOf<'supply'> | null {
    return this.only('supply')
  }

  /** The board of a circuit or device: named, or the only one. */
  boardOf(part: PartOf<'circuit'> | PartOf<'rcd'>): PartOf<'board'> | null {
    return this.inService('board', part.data.boardId) ?? this.only('board')
  }

  /** The device nearest to a circuit first, then those above it. */
  rcdsOf(circuit: PartOf<'circuit'>): PartOf<'rcd'>[] {
    return this.rcdsFrom(this.inService('rcd', circuit.data.rcdId))
  }

  private rcdsFrom(first: PartOf<'rcd'> | null): PartOf<'rcd'>[] {
    const chain: PartOf<'rcd'>[] = []
    for (let one = first; one && !chain.includes(one); one = this.inService('rcd', one.data.upstreamId)) chain.push(one)
    return chain
  }

  /** The device above another in series. */
  upstreamOf(rcd: PartOf<'rcd'>): PartOf<'rcd'> | null {
    return this.rcdsFrom(rcd)[1] ?? null
  }

  /** What runs in the ground near an electrode. */
  servicesOf(electrode: PartOf<'electrode'>): PartOf<'buried-service'>[] {
    return this.ofKind('buried-service').filter(
      ({ data }) => (this.inService('electrode', data.electrodeId) ?? this.only('electrode'))?.id === electrode.id,
    )
  }

  /** Circuits of a board, of a residual current device and those below it, or of the whole plant. */
  circuitsOf(part: Part): readonly PartOf<'circuit'>[] {
    if (part.data.kind === 'circuit') return [part as PartOf<'circuit'>]
    const all = this.ofKind('circuit')
    if (part.data.kind === 'board') return all.filter((one) => this.boardOf(one)?.id === part.id)
    if (part.data.kind === 'rcd') return all.filter((one) => this.rcdsOf(one).some((rcd) => rcd.id === part.id))
    return all
  }

  private indexed() {
    if (this.strings) return this.strings
    const byArray = new Map<string, StringPart[]>()
    const byInput = new Map<string, StringPart[]>()
    const push = (map: Map<string, StringPart[]>, key: string, one: StringPart): void => {
      const list = map.get(key)
      if (list) list.push(one)
      else map.set(key, [one])
    }
    for (const one of this.ofKind('string')) {
      if (one.data.arrayId) push(byArray, one.data.arrayId, one)
      const input = this.inputKey(one)
      if (input) push(byInput, input, one)
    }
    this.strings = { byArray, byInput }
    return this.strings
  }

  /** What strings share when they are in parallel: a combiner, or one tracker input. */
  private inputKey(string: StringPart): string | null {
    if (string.data.combinerId) return `combiner ${string.data.combinerId}`
    return string.data.input ? `input ${this.inverterOf(string)?.id ?? ''} ${string.data.input}` : null
  }

  /** Strings of an array, of a combiner, of an inverter, or of the whole plant. */
  stringsOf(part: Part): readonly StringPart[] {
    if (part.data.kind === 'array') return this.indexed().byArray.get(part.id) ?? []
    if (part.data.kind === 'combiner') return this.indexed().byInput.get(`combiner ${part.id}`) ?? []
    if (part.data.kind === 'string') return [part as StringPart]
    const all = this.ofKind('string')
    return part.data.kind === 'inverter' ? all.filter((string) => this.inverterOf(string)?.id === part.id) : all
  }

  /** How many strings meet where this one does, itself included. */
  inParallel(string: StringPart): number {
    const key = this.inputKey(string)
    return key ? (this.indexed().byInput.get(key)?.length ?? 1) : 1
  }
}

export const emptyPlant = new PlantIndex(new Map())
