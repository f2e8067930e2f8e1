/**
 * Readings that were taken without a light meter, by place and time: alike strings are held against each other as they
 * were read, and the light is worked back from their currents. Source of the minutes: house rule 22.
 */
import type { Part } from '../plant/part'
import { type CurrentRead, lightWorkedBack } from '../pv/workedBack'
import type { Regime } from '../regime/regime'
import { type Alike, type Beside, LIGHT_HOLDS_MIN, TOGETHER_MIN } from '../steps/beside'
import { airOf, type ReadWithoutLight } from '../steps/reading'
import { type AnyReadStep, isRead } from '../steps/step'
import type { Own } from './runOf'

const MINUTE_ms = 60_000
const apart_min = (a: number, b: number): number => Math.abs(a - b) / MINUTE_ms

type Told = { partId: string; at: number; value: number; counts: boolean }
type Current = { partId: string; at: number; read: CurrentRead }

/** What a reading without light may be compared with; nothing of it where nobody read without. */
export class Together {
  private constructor(
    private readonly groups: ReadonlyMap<string, readonly Told[]>,
    private readonly currents: ReadonlyMap<string, readonly Current[]>,
    private readonly moved_pct: number,
  ) {}

  /** Null where every reading has its light, or wants none. */
  static of(owns: Iterable<Own>, regime: Regime): Together | null {
    const groups = new Map<string, Told[]>()
    const currents = new Map<string, Current[]>()
    for (const { step, part, readings, counting } of owns) {
      if (!isRead(step) || !step.asRead) continue
      for (const one of readings) {
        const { body } = one.entry
        if (one.ended) continue
        const told = step.asRead(part, body)
        if (!told) continue
        const group = `${step.id}|${told.group}`
        append(groups, group, { partId: part.id, at: one.at, value: told.value, counts: one === counting })
        const light = one === counting ? step.tellsLight?.(part, body) : null
        if (light && part.data.kind === 'string') {
          const read = { ...light, module: part.data.moduleType.data }
          append(currents, light.plane, { partId: part.id, at: one.at, read })
        }
      }
    }
    if (groups.size === 0) return null
    return new Together(groups, currents, regime.limits['pv.light-moved']?.value ?? 0)
  }

  /** What stands beside a reading of a part at a time, ms; null where it is judged by its own light. */
  beside(step: AnyReadStep, part: Part, body: ReadWithoutLight, at: number): Beside | null {
    const told = step.asRead?.(part, body)
    if (!told) return null
    const near = (this.groups.get(`${step.id}|${told.group}`) ?? []).filter(
      (one) => apart_min(one.at, at) <= TOGETHER_MIN,
    )
    return { alike: this.alikeIn(near, part.id), light: this.lightAt(part, body, at) }
  }

  private alikeIn(near: readonly Told[], partId: string): Alike | null {
    const others = near.filter((one) => one.counts && one.partId !== partId).map(({ value }) => value)
    if (others.length === 0) return null
    return { others, moved: this.isMoved(near) }
  }

  /** Whether any part that was read more than once came to another figure. */
  private isMoved(near: readonly Told[]): boolean {
    const least = new Map<string, number>()
    const most = new Map<string, number>()
    for (const { partId, value } of near) {
      least.set(partId, Math.min(value, least.get(partId) ?? value))
      most.set(partId, Math.max(value, most.get(partId) ?? value))
    }
    return [...most].some(([part, value]) => value > least.get(part)! * (1 + this.moved_pct / 100))
  }

  private lightAt(part: Part, body: ReadWithoutLight, at: number): Beside['light'] {
    const plane = part.data.kind === 'string' ? part.data.arrayId : null
    const near = (plane ? (this.currents.get(plane) ?? []) : []).filter(
      (one) => apart_min(one.at, at) <= LIGHT_HOLDS_MIN,
    )
    if (near.length === 0) return null
    const apart = Math.max(...near.map((one) => apart_min(one.at, at)))
    return lightWorkedBack(
      near.map(({ read }) => read),
      airOf(body),
      apart,
    )
  }
}

function append<T>(lists: Map<string, T[]>, key: string, one: T): void {
  const list = lists.get(key)
  if (list) list.push(one)
  else lists.set(key, [one])
}
