/** What can be entered of each kind of part, as text in fields, and how it becomes the part's data. */
import '@/words/ac'
import '@/words/plant'
import {
  arrangements,
  type CircuitData,
  circuitLayouts,
  electrodeForms,
  electrodeTests,
  type ModuleType,
  type Part,
  type PartData,
  type PartKind,
  partDataSchema,
  rcdForms,
  serviceKinds,
  serviceMaterials,
  tagSchema,
} from '@/core/plant/part'
import { circuitRoles, deviceTypes } from '@/core/loop/maxZs'
import { rcdKinds, rcdStandards, rcdTypes } from '@/core/rcd/limits'
import { usualSite } from '@/core/plant/projection'
import { say, type WordKey } from '@/words/say'

/** Kinds of part that another part can name. */
export const references = [
  'array',
  'inverter',
  'combiner',
  'dc-switch',
  'supply',
  'board',
  'rcd',
  'circuit',
  'electrode',
] as const
export type Reference = (typeof references)[number]

export type FieldSpec = {
  id: string
  label: WordKey
  /** Text is kept as it is; numbers are read; the others name one of several. */
  kind: 'tag' | 'text' | 'number' | 'mounting' | 'module-type' | 'choice' | Reference
  /** What a choice offers, as the part's data has it. */
  options?: readonly (string | number)[]
  from?: number
  to?: number
  whole?: boolean
  optional?: boolean
}

const number = (id: string, label: WordKey, from: number, to: number, more: Partial<FieldSpec> = {}): FieldSpec => ({
  id,
  label,
  kind: 'number',
  from,
  to,
  ...more,
})
const tag: FieldSpec = { id: 'tag', label: 'plant.tag', kind: 'tag' }
const maybe = { optional: true } as const
const choice = (
  id: string,
  label: WordKey,
  options: readonly (string | number)[],
  more: Partial<FieldSpec> = {},
): FieldSpec => ({ id, label, kind: 'choice', options, ...more })
const boardOf: FieldSpec = { id: 'boardId', label: 'plant.board-of', kind: 'board', ...maybe }

export const fieldsOf: Record<PartKind, readonly FieldSpec[]> = {
  site: [
    number('lowestTemperature_C', 'plant.lowest', -60, 40),
    number('highestCellTemperature_C', 'plant.hottest', 20, 110),
  ],
  array: [
    { ...tag, label: 'plant.name' },
    number('tilt_deg', 'plant.tilt', 0, 90),
    number('azimuth_deg', 'plant.azimuth', 0, 359.9),
    { id: 'mounting', label: 'plant.mounting', kind: 'mounting' },
  ],
  row: [
    tag,
    { id: 'arrayId', label: 'plant.array-of', kind: 'array', ...maybe },
    number('length_m', 'plant.conductor-length', 0.1, 2000, maybe),
    number('area_mm2', 'plant.conductor-area', 0.5, 400, maybe),
    number('joints', 'plant.joints', 0, 200, { ...maybe, whole: true }),
  ],
  string: [
    tag,
    number('modulesInSeries', 'plant.modules', 1, 60, { whole: true }),
    { id: 'moduleType', label: 'plant.type', kind: 'module-type' },
    { id: 'arrayId', label: 'plant.array-of', kind: 'array', ...maybe },
    { id: 'combinerId', label: 'plant.combiner-of', kind: 'combiner', ...maybe },
    { id: 'inverterId', label: 'plant.inverter-of', kind: 'inverter', ...maybe },
    { id: 'switchId', label: 'plant.switch-of', kind: 'dc-switch', ...maybe },
    { id: 'input', label: 'plant.input', kind: 'text', ...maybe },
    number('fuse_A', 'plant.fuse-rating', 0.5, 2000, maybe),
    number('fuse_V', 'plant.fuse-voltage', 1, 3000, maybe),
  ],
  combiner: [tag, { id: 'inverterId', label: 'plant.inverter-of', kind: 'inverter', ...maybe }],
  'surge-protection': [tag, number('ratedVoltage_V', 'plant.surge-voltage', 1, 3000, maybe)],
  'dc-switch': [
    tag,
    number('ratedVoltage_V', 'plant.switch-voltage', 1, 3000, maybe),
    number('rating_A', 'plant.switch-rating', 0.5, 2000, maybe),
  ],
  inverter: [
    tag,
    number('maxInput_V', 'plant.inverter-voltage', 1, 3000, maybe),
    number('trackerMin_V', 'plant.tracker-from', 1, 3000, maybe),
    number('trackerMax_V', 'plant.tracker-to', 1, 3000, maybe),
    number('maxShortCircuit_A', 'plant.inverter-current', 0.5, 2000, maybe),
    { id: 'circuitId', label: 'plant.inverter-circuit', kind: 'circuit', ...maybe },
  ],
  supply: [
    choice('arrangement', 'plant.arrangement', arrangements),
    choice('phases', 'plant.phases', [1, 3]),
    number('nominal_V', 'plant.nominal', 50, 690),
    number('declaredZe_ohm', 'plant.declared-ze', 0.01, 10_000, maybe),
    number('faultLevel_kA', 'plant.fault-level', 0.1, 200, maybe),
  ],
  board: [
    tag,
    { id: 'name', label: 'plant.board-name', kind: 'text', ...maybe },
    { ...boardOf, label: 'plant.fed-from' },
    { id: 'supplyId', label: 'plant.supply-of', kind: 'supply', ...maybe },
    choice('phases', 'plant.phases', [1, 3], maybe),
  ],
  rcd: [
    tag,
    boardOf,
    choice('form', 'plant.rcd-form', rcdForms),
    choice('type', 'plant.rcd-type', rcdTypes),
    number('rated_mA', 'plant.rcd-rated', 1, 10_000),
    choice('delay', 'plant.rcd-delay', rcdKinds),
    choice('standard', 'plant.rcd-standard', rcdStandards),
    { id: 'upstreamId', label: 'plant.rcd-upstream', kind: 'rcd', ...maybe },
  ],
  circuit: [
    tag,
    { id: 'feeds', label: 'plant.feeds', kind: 'text', ...maybe },
    choice('role', 'plant.circuit-role', circuitRoles),
    choice('layout', 'plant.circuit-layout', circuitLayouts),
    choice('sockets', 'plant.circuit-sockets', ['sockets', 'fixed-only'], maybe),
    boardOf,
    { id: 'rcdId', label: 'plant.rcd-of', kind: 'rcd', ...maybe },
    choice('phases', 'plant.phases', [1, 3]),
    choice('device', 'plant.device', deviceTypes, maybe),
    number('rating_A', 'plant.device-rating', 0.5, 2000, maybe),
    number('breaking_kA', 'plant.breaking', 0.1, 200, maybe),
    number('line_mm2', 'plant.line-area', 0.5, 400, maybe),
    number('protective_mm2', 'plant.protective-area', 0.5, 400, maybe),
    number('length_m', 'plant.circuit-length', 0.1, 5000, maybe),
  ],
  electrode: [
    tag,
    choice('form', 'plant.electrode-form', electrodeForms),
    choice('testedBy', 'plant.electrode-tested', electrodeTests),
    number('rods', 'plant.rods', 1, 20, { ...maybe, whole: true }),
    number('length_m', 'plant.rod-length', 0.1, 100, maybe),
    number('diameter_mm', 'plant.rod-diameter', 3, 3000, maybe),
    number('spacing_m', 'plant.rod-spacing', 0.1, 200, maybe),
    number('depth_m', 'plant.electrode-depth', 0.1, 20, maybe),
  ],
  'buried-service': [
    tag,
    choice('what', 'plant.service-what', serviceKinds),
    choice('material', 'plant.service-material', serviceMaterials),
    number('bearing_deg', 'plant.service-bearing', 0, 359.9),
    number('away_m', 'plant.service-away', 0, 200),
    { id: 'electrodeId', label: 'plant.service-from', kind: 'electrode', ...maybe },
  ],
}

export type Texts = Record<string, string>
const text = (value: unknown): string => (value === null || value === undefined ? '' : String(value))

/** The part's data as its fields show it. */
export function textsOf(data: PartData): Texts {
  const flat: Record<string, unknown> = { ...data }
  if (data.kind === 'row') Object.assign(flat, data.conductor ?? {})
  if (data.kind === 'electrode') Object.assign(flat, { form: data.form ?? 'rods', testedBy: data.testedBy ?? 'spikes' })
  if (data.kind === 'rcd') flat.form = data.form ?? 'rccb'
  if (data.kind === 'circuit')
    Object.assign(flat, {
      role: data.role ?? 'final',
      layout: data.layout ?? 'radial',
      sockets: data.sockets == null ? '' : data.sockets ? 'sockets' : 'fixed-only',
    })
  if (data.kind === 'string') {
    flat.moduleType = data.moduleType.id
    flat.fuse_A = data.fuse?.rating_A
    flat.fuse_V = data.fuse?.ratedVoltage_V
  }
  return Object.fromEntries(fieldsOf[data.kind].map(({ id }) => [id, text(flat[id])]))
}

const newRcd = { upstreamId: null, type: 'A', delay: 'general', rated_mA: 30, standard: 'iec-61008' } as const
const newCircuit = {
  feeds: '',
  rcdId: null,
  phases: 1,
  device: null,
  rating_A: null,
  breaking_kA: null,
  line_mm2: null,
  protective_mm2: null,
  length_m: null,
} as const

/** Where a new part belongs before anybody says so. */
type Near = { arrayId: string | null; boardId: string | null; phases?: 1 | 3; like?: CircuitData | null }
export type AddedKind = Exclude<PartKind, 'string' | 'site'>

export function newPart(kind: AddedKind, tag: string, near: Near = { arrayId: null, boardId: null }): PartData {
  const { arrayId, boardId } = near
  switch (kind) {
    case 'array':
      return { kind, tag, tilt_deg: 35, azimuth_deg: 180, mounting: 'open-rack' }
    case 'row':
      return { kind, tag, arrayId, conductor: null }
    case 'combiner':
      return { kind, tag, inverterId: null }
    case 'surge-protection':
      return { kind, tag, ratedVoltage_V: null }
    case 'dc-switch':
      return { kind, tag, ratedVoltage_V: null, rating_A: null }
    case 'inverter':
      return { kind, tag, maxInput_V: null }
    case 'supply':
      return { kind, tag, arrangement: 'TN-C-S', phases: 1, nominal_V: 230, declaredZe_ohm: null, faultLevel_kA: null }
    case 'board':
      return { kind, tag, name: '', boardId, phases: near.phases ?? 1 }
    case 'rcd':
      return { kind, tag, boardId, ...newRcd }
    case 'circuit':
      // Circuits of a board are mostly alike: the next one begins as the last one is.
      return near.like ? { ...near.like, tag, feeds: '' } : { kind, tag, boardId, ...newCircuit }
    case 'electrode':
      return { kind, tag, form: 'rods', rods: 1, length_m: null, diameter_mm: null, spacing_m: null }
    case 'buried-service':
      return { kind, tag, what: 'water', material: 'metal', bearing_deg: 0, away_m: 5, electrodeId: null }
  }
}

export const newSite: PartData = usualSite

export type ReadPart = { data: PartData } | { message: string }

/** Reads the fields of a part: its data, or one sentence on the first that cannot be read. */
export function readPart(before: PartData, texts: Texts, types: readonly ModuleType[]): ReadPart {
  const values: Record<string, unknown> = {}
  for (const field of fieldsOf[before.kind]) {
    const read = readField(field, (texts[field.id] ?? '').trim())
    if (typeof read === 'object' && read !== null) return read
    values[field.id] = read
  }
  const parsed = partDataSchema.safeParse({ ...before, ...shaped(before, values, types) })
  if (parsed.success) return { data: parsed.data }
  return { message: say('plant.cannot-be', { what: String(parsed.error.issues[0]?.path.at(-1) ?? '') }) }
}

function readField(field: FieldSpec, typed: string): string | number | null | { message: string } {
  if (typed === '') return field.optional ? null : { message: say('plant.missing', { what: say(field.label) }) }
  if (field.kind === 'tag' && !tagSchema.safeParse(typed).success)
    return { message: say('plant.tag-bad', { tag: typed }) }
  if (field.kind === 'choice') return field.options!.find((one) => String(one) === typed) ?? null
  if (field.kind !== 'number') return typed
  const value = Number(typed.replace(',', '.'))
  const fits = value >= field.from! && value <= field.to! && (!field.whole || Number.isInteger(value))
  if (fits) return value
  const range = { typed, what: say(field.label), from: field.from!, to: field.to! }
  return { message: say(field.whole ? 'plant.not-whole' : 'plant.not-between', range) }
}

/** Flat fields as the part holds them. */
function shaped(before: PartData, values: Record<string, unknown>, types: readonly ModuleType[]): object {
  if (before.kind === 'row') {
    const { length_m, area_mm2, joints, ...rest } = values
    const known = length_m !== null && area_mm2 !== null
    return { ...rest, conductor: known ? { length_m, area_mm2, joints: joints ?? 0 } : null }
  }
  if (before.kind === 'string') {
    const { fuse_A, fuse_V, moduleType, ...rest } = values
    const fuse = fuse_A === null && fuse_V === null ? null : { rating_A: fuse_A, ratedVoltage_V: fuse_V }
    return { ...rest, fuse, moduleType: types.find((one) => one.id === moduleType) ?? before.moduleType }
  }
  // Words may be left away: they are empty then, and not unknown.
  if (before.kind === 'board') return { ...values, name: values.name ?? '' }
  if (before.kind === 'circuit') {
    const { sockets } = values
    return { ...values, feeds: values.feeds ?? '', sockets: sockets === null ? null : sockets === 'sockets' }
  }
  return values
}

/** A part of the same kind in service that carries a tag already, null where none does. */
export function tagTaken(parts: Iterable<Part>, kind: PartKind, wanted: string, exceptId: string | null): Part | null {
  for (const part of parts) {
    if (part.id === exceptId || part.retired || part.data.kind !== kind) continue
    if (part.data.tag.toLowerCase() === wanted.trim().toLowerCase()) return part
  }
  return null
}

/** The next free tag of a kind: a prefix and the first number that nobody has. */
export function nextTag(parts: readonly Part[], kind: PartKind, prefix: string): string {
  for (let n = 1; ; n++) if (!tagTaken(parts, kind, `${prefix}${n}`, null)) return `${prefix}${n}`
}
