/**
 * A day's work laid under the sun: what wants a plane's light goes where a clear sky gives enough of it, the rest around
 * it. A plan and no more: gates at each step decide what is done, and no verdict comes of it.
 */
import type { PartOf, PlantIndex } from '../plant/plantIndex'
import { stationsOfLine } from '../plant/stations'
import { clearSky_Wm2, type Place, sunAt } from '../pv/sky'
import { isRead } from '../steps/step'
import { type Line, minutesOf, type Piece, type Unit } from './dayWork'
import { LEAD_CHANGE_min } from './walk'

const MINUTE_ms = 60_000
/** How closely the sun's path is followed. */
const STEP_ms = 5 * MINUTE_ms

export type Span = { from: number; to: number }
export type LightPoint = { at: number; irradiance_Wm2: number; elevation_deg: number }
/** A plane under a clear sky: its light through the day, and from when to when there is enough of it. */
export type PlaneLight = { array: PartOf<'array'>; points: LightPoint[]; windows: Span[]; most: LightPoint }

/** @param day from midnight to midnight at the place, ms since 1970. @param least_Wm2 that readings want. */
export function planesOf(plant: PlantIndex, place: Place, day: Span, least_Wm2: number): PlaneLight[] {
  return plant.ofKind('array').map((array) => {
    const points: LightPoint[] = []
    for (let at = day.from; at <= day.to; at += STEP_ms) {
      const sun = sunAt(at, place)
      points.push({ at, irradiance_Wm2: clearSky_Wm2(array.data, sun), elevation_deg: sun.elevation_deg })
    }
    const most = points.reduce((a, b) => (b.irradiance_Wm2 > a.irradiance_Wm2 ? b : a))
    return { array, points, windows: windowsOf(points, least_Wm2), most }
  })
}

function windowsOf(points: readonly LightPoint[], least_Wm2: number): Span[] {
  const windows: Span[] = []
  let open: Span | null = null
  for (const { at, irradiance_Wm2 } of points) {
    if (irradiance_Wm2 < least_Wm2) open = null
    else if (open) open.to = at
    else {
      open = { from: at, to: at }
      windows.push(open)
    }
  }
  return windows.filter(({ from, to }) => to > from)
}

export type Shift = Span & {
  people: 1 | 2
  /** Dull: nothing that wants light is laid at all. */
  sky: 'clear' | 'dull'
}
/** A go at a piece of work: by whom, from when to when. */
export type Stretch = Span & { piece: Piece; units: readonly Unit[]; person: number }
/** What found no place: no light for it, no time, or it waits for something that found none. */
export type Left = { piece: Piece; units: readonly Unit[]; why: 'light' | 'time' | 'waits' }
export type DayPlan = { stretches: Stretch[]; left: Left[] }

/** Lays the work into a shift. Without planes nobody knows when there is light: it is laid as if there always were. */
export function dayPlan(pieces: readonly Piece[], planes: readonly PlaneLight[], shift: Shift): DayPlan {
  return new Layout(pieces, planes, shift).lay()
}

type Choice = { piece: Piece; from: number; until: number; units: readonly Unit[] }

/** What is used by one at a time: the light meter, the kit of the sun's side, that of the boards. */
const kitOf = ({ units }: Piece): 'dc' | 'ac' => {
  const { one } = units[0]!
  return stationsOfLine.find(({ id }) => id === one.step.station)?.side === 'ac' ? 'ac' : 'dc'
}

class Layout {
  private readonly open: Map<string, readonly Unit[]>
  private readonly ends: (number | undefined)[]
  private readonly barriers = new Map<Line, Barrier>()
  private readonly stretches: Stretch[] = []
  /** Until when a kit is in somebody's hands, or a part. */
  private readonly busy = new Map<string, number>()
  private meterIn: string | null = null

  constructor(
    private readonly pieces: readonly Piece[],
    private readonly planes: readonly PlaneLight[],
    private readonly shift: Shift,
  ) {
    this.open = new Map(pieces.map((piece) => [piece.id, piece.units]))
    this.ends = pieces.map(() => undefined)
  }

  lay(): DayPlan {
    const free = Array.from({ length: this.shift.people }, () => this.shift.from)
    const working = new Set(free.keys())
    while (working.size > 0) {
      const person = [...working].reduce((a, b) => (free[b]! < free[a]! ? b : a))
      const choice = this.choose(free[person]!)
      if (!choice) working.delete(person)
      else {
        const who = this.handOf(choice, free, person)
        free[who] = this.take(choice, who)
      }
    }
    return { stretches: this.stretches.sort((a, b) => a.from - b.from || a.person - b.person), left: this.left() }
  }

  /** Whoever has the kit in hand goes on with it, where they are free by then. */
  private handOf({ piece, from }: Choice, free: readonly number[], person: number): number {
    const kit = kitOf(piece)
    const last = this.stretches.findLast((one) => kitOf(one.piece) === kit)?.person
    return last !== undefined && free[last]! <= from ? last : person
  }

  private take({ piece, from, units }: Choice, person: number): number {
    const to = from + minutesOf(units) * MINUTE_ms
    this.stretches.push({ piece, units, person, from, to })
    for (const held of [kitOf(piece), ...units.map(({ one }) => one.part.id)])
      this.busy.set(held, Math.max(to, this.busy.get(held) ?? 0))
    const rest = begunAgain(this.open.get(piece.id)!.slice(units.length))
    if (rest.length > 0) this.open.set(piece.id, rest)
    else {
      this.open.delete(piece.id)
      this.ends[piece.index] = to
    }
    if (piece.arrayId !== null) this.meterIn = piece.arrayId
    return to
  }

  /** What can begin soonest; of several what wants light, and of that what loses it first. */
  private choose(now: number): Choice | null {
    const choices = this.pieces.flatMap((piece) => (this.open.has(piece.id) ? (this.begin(piece, now) ?? []) : []))
    const inLight = choices.filter(({ piece }) => piece.arrayId !== null)
    const light = inLight.sort((a, b) => a.from - b.from || a.until - b.until)[0]
    const first = choices.filter(({ piece }) => piece.arrayId === null).sort((a, b) => a.from - b.from)[0]
    if (!light || !first) return light ?? first ?? null
    if (light.from <= first.from) return light
    // Other work goes on until the light is needed, and no longer.
    const latest = light.until - this.lightWork(light.piece.arrayId!) * MINUTE_ms
    return fitting(first, Math.max(light.from, latest)) ?? light
  }

  private lightWork(arrayId: string): number {
    const own = this.pieces.filter((piece) => piece.arrayId === arrayId)
    return own.reduce((sum, { id }) => sum + minutesOf(this.open.get(id) ?? []), 0)
  }

  private begin(piece: Piece, now: number): Choice | null {
    const waits = this.waitsUntil(piece)
    if (waits === null) return null
    const from = this.whenFree(piece, Math.max(now, waits))
    if (piece.arrayId === null)
      return fitting({ piece, from, until: this.shift.to, units: [] }, this.shift.to, this.open)
    for (const window of this.windowsOf(piece.arrayId)) {
      const until = Math.min(window.to, this.shift.to)
      const choice = fitting({ piece, from: Math.max(from, window.from), until, units: [] }, until, this.open)
      if (choice && !this.meterIsElsewhere(piece.arrayId, choice.from)) return choice
    }
    return null
  }

  /** When all that a piece waits for is over; null where some of it is not laid yet. The meter is set up when it is needed. */
  private waitsUntil(piece: Piece): number | null {
    const own = this.endOf(piece, null)
    if (own === null || !placesMeter(piece)) return own
    const served = this.pieces.filter(
      ({ id, arrayId, index }) => arrayId === piece.arrayId && index > piece.index && this.open.has(id),
    )
    if (served.length === 0) return own
    const soonest = served.flatMap((one) => this.endOf(one, piece.index) ?? [])
    return soonest.length > 0 ? Math.max(own, Math.min(...soonest)) : null
  }

  private endOf({ index, waitsFor, isShut }: Piece, without: number | null): number | null {
    if (isShut) return null
    let latest = this.shift.from
    for (const line of waitsFor) {
      const end = this.barrier(line).endBefore(index, this.ends, without)
      if (end === null) return null
      latest = Math.max(latest, end)
    }
    return latest
  }

  private barrier(line: Line): Barrier {
    const known = this.barriers.get(line) ?? new Barrier(line)
    this.barriers.set(line, known)
    return known
  }

  /** When nobody else has the kit that it takes, or a hand on the same part. */
  private whenFree(piece: Piece, from: number): number {
    let free = Math.max(from, this.busy.get(kitOf(piece)) ?? 0)
    for (const { one } of this.open.get(piece.id)!) free = Math.max(free, this.busy.get(one.part.id) ?? 0)
    return free
  }

  private windowsOf(arrayId: string): readonly Span[] {
    if (this.shift.sky === 'dull') return []
    const plane = this.planes.find(({ array }) => array.id === arrayId)
    return plane ? plane.windows : [this.shift]
  }

  /** One meter serves one plane after the other: it stays where it is while there is work for it. */
  private meterIsElsewhere(arrayId: string, at: number): boolean {
    const held = this.meterIn
    if (held === null || held === arrayId) return false
    const hasLight = this.windowsOf(held).some(({ to }) => to > at)
    return (
      hasLight &&
      this.pieces.some((one) => one.arrayId === held && this.open.has(one.id) && this.waitsUntil(one) !== null)
    )
  }

  private left(): Left[] {
    return this.pieces.flatMap((piece) => {
      const units = this.open.get(piece.id)
      return units ? [{ piece, units, why: this.whyLeft(piece, units) }] : []
    })
  }

  private whyLeft(piece: Piece, units: readonly Unit[]): Left['why'] {
    const { arrayId } = piece
    if (this.endOf(piece, null) === null) return 'waits'
    if (arrayId === null) return 'time'
    const least = units[0]!.minutes * MINUTE_ms
    const { from, to } = this.shift
    return this.windowsOf(arrayId).some((one) => Math.min(one.to, to) - Math.max(one.from, from) >= least)
      ? 'time'
      : 'light'
  }
}

/** How far a line of pieces is over, and since when: asked again and again while a day is laid. */
class Barrier {
  private over = 0
  private latest = 0

  constructor(private readonly line: Line) {}

  /** When the last of those before a place in the sheet was over, null where one is not; one of them may be left aside. */
  endBefore(index: number, ends: readonly (number | undefined)[], without: number | null): number | null {
    const endAt = (k: number): number | undefined => ends[this.line[k] ?? -1]
    while (endAt(this.over) !== undefined) {
      this.latest = Math.max(this.latest, endAt(this.over)!)
      this.over++
    }
    let latest = this.latest
    // What is over behind one that is open is rare: it is looked at each time.
    for (let k = this.over; k < this.line.length && this.line[k]! < index; k++) {
      if (endAt(k) === undefined && this.line[k] !== without) return null
      latest = Math.max(latest, endAt(k) ?? 0)
    }
    return latest
  }
}

const placesMeter = ({ units }: Piece): boolean => units.some(({ one }) => isRead(one.step) && one.step.placesMeter)

/** What is gone on with later: the leads were elsewhere meanwhile. */
function begunAgain([first, ...others]: readonly Unit[]): readonly Unit[] {
  if (!first) return []
  return first.isLeadChange
    ? [first, ...others]
    : [{ ...first, isLeadChange: true, minutes: first.minutes + LEAD_CHANGE_min }, ...others]
}

/** As much of a piece as is done before a time; null where not one test is. */
function fitting(choice: Choice, until: number, open?: ReadonlyMap<string, readonly Unit[]>): Choice | null {
  const units: Unit[] = []
  let at = choice.from
  for (const unit of open?.get(choice.piece.id) ?? choice.units) {
    at += unit.minutes * MINUTE_ms
    if (at > until) break
    units.push(unit)
  }
  return units.length > 0 ? { ...choice, units } : null
}
