/** Plants to begin with: the usual parts, their figures open; and the plant of another job, without its readings. */
import type { NewPart } from './additions'
import { kindOf, kinds, nameOf } from './kinds'
import type { Part, PartData, PartKind } from './part'

type Make = () => string

const blank = (kind: Exclude<PartKind, 'string'>, tag: string, links: Record<string, unknown> = {}): PartData =>
  ({ ...kindOf(kind).blank(tag, { arrayId: null, boardId: null }), ...links }) as PartData

const WAYS = 8

/** A supply, a board with eight ways, an electrode: every figure is to be entered. */
export function houseWith(newId: Make): NewPart[] {
  const [supplyId, boardId] = [newId(), newId()]
  return [
    { id: supplyId, data: blank('supply', 'S1') },
    { id: boardId, data: blank('board', 'DB1') },
    ...Array.from({ length: WAYS }, (_, k) => ({ id: newId(), data: blank('circuit', `${k + 1}`, { boardId }) })),
    { id: newId(), data: blank('electrode', 'E1', { rods: null }) },
  ]
}

/** A charge point on a circuit of its own. */
export function pointWith(newId: Make): NewPart[] {
  const [boardId, circuitId] = [newId(), newId()]
  return [
    { id: newId(), data: blank('supply', 'S1') },
    { id: boardId, data: blank('board', 'DB1') },
    { id: circuitId, data: blank('circuit', '1', { boardId }) },
    { id: newId(), data: blank('charge-point', 'CP1', { circuitId }) },
  ]
}

/** What comes with the strings of a roof. */
export const roofWith = (newId: Make): NewPart[] => [
  { id: newId(), data: blank('dc-switch', 'DC1') },
  { id: newId(), data: blank('inverter', 'INV1') },
]

/** Fields of a kind that name other parts. */
const links = new Map<string, readonly string[]>(
  kinds.map((kind) => [nameOf(kind), kind.fields.filter((field) => 'names' in field).map((field) => field.id)]),
)

/**
 * The plant of another job as parts of a new one, each under a new id and hanging as before. What only one part can have,
 * its serial number, stays open.
 *
 * @param siteId the part that is the site of the new job already, null where it has none.
 */
export function copyOf(parts: Iterable<Part>, newId: Make, siteId: string | null): NewPart[] {
  const inService = [...parts].filter((one) => !one.retired)
  const ids = new Map(inService.map((one) => [one.id, one.data.kind === 'site' && siteId ? siteId : newId()]))
  return inService.map(({ id, data }) => {
    const hung = (links.get(data.kind) ?? []).flatMap((field) => {
      const named = (data as Record<string, unknown>)[field]
      return typeof named === 'string' ? [[field, ids.get(named) ?? null]] : []
    })
    const own = data.kind === 'charge-point' ? { serial: '' } : {}
    return { id: ids.get(id)!, data: { ...data, ...own, ...Object.fromEntries(hung) } as PartData }
  })
}
