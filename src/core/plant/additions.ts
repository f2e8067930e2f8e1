/**
 * What may come where: a part beside which another is added, and the fields by which the new one hangs there. The
 * interface draws a place for each and offers nothing else.
 */
import { kindOf, kinds, namedBy, nameOf } from './kinds'
import type { PartField } from './kinds/descriptor'
import { valueAt } from './missing'
import type { Part, PartData, PartKind, StringData } from './part'
import type { PartOf, PlantIndex } from './plantIndex'

/** A string is made of a module type, and comes as a copy of one that is there; the site is there. */
export type AddedKind = Exclude<PartKind, 'site'>
export type NewPart = { id: string; data: PartData }

/** What may come at a part: beside it, behind it, or on it. */
const beside: Partial<Record<PartKind, readonly AddedKind[]>> = {
  array: ['string', 'row'],
  string: ['string', 'dc-switch', 'combiner', 'surge-protection', 'inverter'],
  row: ['row'],
  combiner: ['combiner', 'inverter'],
  'dc-switch': ['dc-switch', 'surge-protection'],
  'surge-protection': ['surge-protection'],
  inverter: ['inverter', 'circuit', 'surge-protection'],
  supply: ['board', 'electrode', 'supply'],
  board: ['circuit', 'rcd', 'charge-point', 'board'],
  rcd: ['circuit', 'rcd'],
  circuit: ['circuit', 'rcd', 'charge-point'],
  'charge-point': ['charge-point'],
  electrode: ['buried-service', 'electrode'],
  'buried-service': ['buried-service'],
}

/** Kinds that may come at a part, the likeliest first; a string only where one of its array can be copied. */
export function mayComeAt(part: Part, plant: PlantIndex): readonly AddedKind[] {
  const offered = beside[part.data.kind] ?? []
  return offered.filter((kind) => kind !== 'string' || modelString(part, plant) !== null)
}

/** The string that a new one beside a part is a copy of: itself, or the last of its array. */
export function modelString(part: Part, plant: PlantIndex): PartOf<'string'> | null {
  if (part.data.kind === 'string') return part as PartOf<'string'>
  return part.data.kind === 'array' ? (plant.stringsOf(part).at(-1) ?? null) : null
}

/**
 * A new part beside another, or by itself where none is named, with what changes so that it hangs there; a charge point on
 * a board brings its circuit. The new part that is meant stands first.
 *
 * @throws Error for a string with nothing to copy.
 */
export function partsAt(kind: AddedKind, at: Part | null, plant: PlantIndex, newId: () => string): NewPart[] {
  const id = newId()
  if (kind === 'charge-point' && at?.data.kind === 'board') {
    const [way, ...changed] = partsAt('circuit', at, plant, newId)
    return [{ id, data: dataAt(kind, { ...at, id: way!.id, data: way!.data }, plant) }, way!, ...changed]
  }
  const pinned = pinnedBefore(kind, plant)
  const hung = at && !isTheOnly(kind, at, plant) ? hungOn(kind, at, id) : []
  const hungIds = new Set(hung.map((one) => one.id))
  return [{ id, data: dataAt(kind, at, plant) }, ...pinned.filter((one) => !hungIds.has(one.id)), ...hung]
}

/** Where a new part will be the only one of its kind nobody need name it, if that is enough for what hangs on it. */
const isTheOnly = (kind: AddedKind, at: Part, plant: PlantIndex): boolean => {
  const field = hanging[at.data.kind]?.[kind]
  return field !== undefined && plant.ofKind(kind).length === 0 && namedBy(at.data.kind, field).else === 'only'
}

/** So many parts are given the name of what was the only one of its kind; of more it is asked by the design check. */
const MOST_PINNED = 60

/** A second of a kind makes it unclear which is meant: what went by the only one goes on by it, and says so. */
function pinnedBefore(kind: AddedKind, plant: PlantIndex): NewPart[] {
  const only = plant.only(kind)
  if (!only) return []
  const pinned = kinds.flatMap((holder) =>
    holder.fields
      .filter((field) => 'names' in field && field.names?.kind === kind && field.names.else === 'only')
      .flatMap((field) =>
        plant
          .ofKind(nameOf(holder))
          .filter((part) => valueAt(part.data, field.id) === null)
          .map((part) => ({ id: part.id, data: { ...part.data, [field.id]: only.id } as PartData })),
      ),
  )
  return pinned.length > MOST_PINNED ? [] : pinned
}

function dataAt(kind: AddedKind, at: Part | null, plant: PlantIndex): PartData {
  if (kind === 'string') {
    const model = at && modelString(at, plant)
    if (!model) throw new Error('additionAt: expected a string to copy')
    return { ...model.data, tag: tagsAfter(model.data.tag, 'string', 1, plant)[0]! }
  }
  const tag = nextTag(kind, plant)
  const blank = kindOf(kind).blank(tag, nearOf(kind, at, plant))
  return { ...blank, ...linksAt(kind, at, plant) } as PartData
}

function nearOf(kind: AddedKind, at: Part | null, plant: PlantIndex) {
  const phases = plant.only('supply')?.data.phases ?? 1
  // The next of a board is like the last of it.
  const like = kind === 'circuit' && at?.data.kind === 'circuit' ? at.data : null
  return { arrayId: null, boardId: null, phases, like } as const
}

const idOf = (at: Part | null, kind: PartKind): string | null => (at?.data.kind === kind ? at.id : null)
const fieldOf = (at: Part | null, field: string): string | null =>
  ((at?.data as Record<string, unknown> | undefined)?.[field] as string | null | undefined) ?? null

/** The fields by which the new part names what it hangs on. */
function linksAt(kind: AddedKind, at: Part | null, plant: PlantIndex): Record<string, unknown> {
  const boardId = idOf(at, 'board') ?? fieldOf(at, 'boardId')
  switch (kind) {
    case 'row':
      return { arrayId: idOf(at, 'array') ?? fieldOf(at, 'arrayId') ?? plant.only('array')?.id ?? null }
    case 'combiner':
      return { inverterId: fieldOf(at, 'inverterId') }
    case 'board':
      return { boardId: idOf(at, 'board'), ...(idOf(at, 'supply') ? { supplyId: at!.id } : {}) }
    case 'circuit':
      return {
        boardId: boardId ?? plant.only('board')?.id ?? null,
        rcdId: idOf(at, 'rcd') ?? fieldOf(at, 'rcdId'),
      }
    case 'rcd':
      return { boardId: boardId ?? plant.only('board')?.id ?? null, upstreamId: idOf(at, 'rcd') }
    case 'charge-point':
      return { circuitId: idOf(at, 'circuit') }
    case 'buried-service':
      return { electrodeId: idOf(at, 'electrode') ?? fieldOf(at, 'electrodeId') }
    default:
      return {}
  }
}

/** What of the part beside it must change so that it goes through the new one. */
function hungOn(kind: AddedKind, at: Part, id: string): NewPart[] {
  const field = hanging[at.data.kind]?.[kind]
  return field ? [{ id: at.id, data: { ...at.data, [field]: id } as PartData }] : []
}

const hanging: Partial<Record<PartKind, Partial<Record<AddedKind, string>>>> = {
  string: { 'dc-switch': 'switchId', combiner: 'combinerId', inverter: 'inverterId' },
  combiner: { inverter: 'inverterId' },
  inverter: { circuit: 'circuitId' },
  circuit: { rcd: 'rcdId' },
}
/** The first free tag of a kind: its prefix and a number. */
export function nextTag(kind: AddedKind, plant: PlantIndex): string {
  const taken = tagsOf(kind, plant)
  const prefix = kindOf(kind).prefix ?? ''
  for (let n = 1; ; n++) if (!taken.has(`${prefix}${n}`.toLowerCase())) return `${prefix}${n}`
}

const tagsOf = (kind: PartKind, plant: PlantIndex): Set<string> =>
  new Set(plant.ofKind(kind).map((one) => one.data.tag.toLowerCase()))

/** A tag has twelve places, and the number its own. */
const LONGEST_STEM = 8

/** The next free tags after one, counted on at its last number: `E7` is followed by `E8`, `3` by `4`, `Cooker` by `Cooker 2`. */
export function tagsAfter(tag: string, kind: PartKind, count: number, plant: PlantIndex): string[] {
  const taken = tagsOf(kind, plant)
  const [, head = '', digits = ''] = /^(.*?)(\d*)$/.exec(tag) ?? []
  const stem = digits === '' ? `${head.slice(0, LONGEST_STEM).trimEnd()} ` : head.slice(0, LONGEST_STEM)
  const tags: string[] = []
  for (let n = digits === '' ? 2 : Number(digits) + 1; tags.length < count; n++) {
    const next = `${stem}${String(n).padStart(digits.startsWith('0') ? digits.length : 0, '0')}`
    if (!taken.has(next.toLowerCase())) tags.push(next)
  }
  return tags
}

/** Copies of a part, tags counted on. What only one can have, a serial number, a circuit of its own, stays open. */
export function copiesOf(part: Part, count: number, plant: PlantIndex): PartData[] {
  const tags = tagsAfter(part.data.tag, part.data.kind, count, plant)
  const own = part.data.kind === 'charge-point' ? { serial: '', circuitId: null } : {}
  const fed = part.data.kind === 'inverter' ? { circuitId: null } : {}
  return tags.map((tag) => ({ ...part.data, ...own, ...fed, tag }) as PartData)
}

/** Whether strings stay alike when only their tags differ: they may be drawn as one. */
export const isAlike = (a: StringData, b: StringData): boolean =>
  a.modulesInSeries === b.modulesInSeries &&
  a.moduleType.id === b.moduleType.id &&
  (a.arrayId ?? null) === (b.arrayId ?? null) &&
  (a.combinerId ?? null) === (b.combinerId ?? null) &&
  (a.inverterId ?? null) === (b.inverterId ?? null) &&
  (a.switchId ?? null) === (b.switchId ?? null)

const withoutTag = ({ data }: Part): string => JSON.stringify({ ...data, tag: '' })

/** Other parts that differ from one in nothing but their tags: what is wrong with it is wrong with them. */
export function alikeTo(part: Part, plant: PlantIndex): readonly Part[] {
  const own = withoutTag(part)
  return plant.ofKind(part.data.kind).filter((one) => one.id !== part.id && withoutTag(one) === own)
}

/** Parts that a field of another may name: of its kind, and none that hangs on that one already: no board feeds itself. */
export function nameable(part: Part | null, field: PartField, plant: PlantIndex): readonly Part[] {
  const all: readonly Part[] = field.names ? plant.ofKind(field.names.kind as PartKind) : []
  return part && field.names?.kind === part.data.kind ? all.filter((one) => !leadsTo(one, part, field.id, plant)) : all
}

function leadsTo(from: Part, to: Part, field: string, plant: PlantIndex): boolean {
  const seen = new Set<string>()
  for (let one: Part | undefined = from; one && !seen.has(one.id); ) {
    if (one.id === to.id) return true
    seen.add(one.id)
    const next: unknown = valueAt(one.data, field)
    one = typeof next === 'string' ? plant.parts.get(next) : undefined
  }
  return false
}
