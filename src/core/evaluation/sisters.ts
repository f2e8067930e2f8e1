import type { LimitId, Regime } from '../regime/regime'
import { isRead } from '../steps/step'
import { type Finding, type Flag, isGraver, type Verdict } from '../verdict/verdict'
import type { WorkingLine } from '../verdict/working'
import type { Own } from './runOf'
import type { Sisters } from './types'

/** Sisters that must be there before the odd one out can be named: with one other, nobody knows which is odd. */
const LEAST_OTHERS = 2

type Member = { own: Own; comparable: number; irradiance_Wm2: number | null }
type Group = {
  members: readonly Member[]
  /** Those that are a measure for the others, sorted. */
  sound: readonly Member[]
  places: ReadonlyMap<string, number>
  lightMoved: boolean
  allowed_pct: number
  limit: LimitId
}

/** What being compared with its sisters adds to a step. */
export type BySisters = { verdict: Verdict; finding: Finding; flag: Flag | null }

/**
 * Compares strings alike, referred to the same conditions first: each against the median of the others. Sorting once a
 * group keeps it n log n. Source: IEC 62446-1 6.4, 6.5 (from memory).
 */
export class SisterGroups {
  private constructor(
    private readonly groups: ReadonlyMap<string, Group>,
    private readonly groupOf: ReadonlyMap<string, string>,
  ) {}

  static of(all: readonly Own[], regime: Regime): SisterGroups {
    return new SisterGroups(new Map(), new Map()).with(all, regime)
  }

  /** The same with the members of one step as they are now. @param all every member of the steps concerned. */
  with(all: readonly Own[], regime: Regime): SisterGroups {
    const members = new Map<string, Member[]>()
    const groupOf = new Map(this.groupOf)
    const steps = new Set(all.map((own) => own.step.id))
    for (const own of all) {
      const group = groupKey(own)
      groupOf.delete(own.key)
      if (group === null) continue
      groupOf.set(own.key, group)
      const { counting } = own
      const irradiance_Wm2 = counting?.entry.body.conditions?.irradiance.read.value ?? null
      const member = { own, comparable: counting!.judgement.comparable!, irradiance_Wm2 }
      const list = members.get(group)
      if (list) list.push(member)
      else members.set(group, [member])
    }
    const groups = new Map([...this.groups].filter(([key]) => !steps.has(key.slice(0, key.indexOf('|')))))
    for (const [key, list] of members) {
      const group = groupFrom(list, regime)
      if (group) groups.set(key, group)
    }
    return new SisterGroups(groups, groupOf)
  }

  /** Where a step stands among its sisters; null where it has none. */
  of(key: string): Sisters | null {
    const group = this.groups.get(this.groupOf.get(key) ?? '')
    const member = group?.members.find((one) => one.own.key === key)
    return group && member ? standingOf(member, group) : null
  }

  /** What each step comes to beside its sisters, by key; those that they add nothing to are not among them. */
  outcomes(): Map<string, BySisters> {
    const found = new Map<string, BySisters>()
    for (const group of this.groups.values()) {
      for (const member of group.members) {
        const outcome = outcomeOf(member, group)
        if (outcome) found.set(member.own.key, outcome)
      }
    }
    return found
  }

  /** The line of the working that tells it, where there are sisters. */
  line(key: string, regime: Regime): WorkingLine | null {
    const sisters = this.of(key)
    const group = this.groups.get(this.groupOf.get(key) ?? '')
    if (!sisters || !group) return null
    return {
      code: 'sisters.gap',
      figures: { count: sisters.count, allowed_pct: sisters.allowed_pct },
      result: { value: sisters.deviation_pct, unit: 'pct', decimals: 1, signed: true },
      source: regime.limits[group.limit]?.source ?? null,
    }
  }
}

function groupKey({ step, part, counting }: Own): string | null {
  if (!isRead(step) || !step.sisterGroup || counting?.judgement.comparable == null) return null
  const group = step.sisterGroup(part)
  return group === null ? null : `${step.id}|${group}`
}

function groupFrom(members: readonly Member[], regime: Regime): Group | null {
  const step = members[0]!.own.step
  const limit = (isRead(step) && step.sisterLimit) || 'pv.sisters'
  const allowed_pct = regime.limits[limit]?.value
  if (members.length < 2 || allowed_pct === undefined) return null
  // A string that is outside by its own expectation is no measure for the others.
  const sound = members.filter((one) => one.own.verdict !== 'outside').sort((a, b) => a.comparable - b.comparable)
  return {
    members,
    sound,
    places: new Map(sound.map((one, place) => [one.own.key, place])),
    lightMoved: lightMovedBetween(members, regime.limits['pv.light-moved']?.value ?? 0),
    allowed_pct,
    limit,
  }
}

function standingOf(member: Member, { sound, places, allowed_pct, lightMoved }: Group): Sisters | null {
  const place = places.get(member.own.key)
  const count = sound.length - (place === undefined ? 0 : 1)
  if (count === 0) return null
  const median = medianWithout(sound, place ?? sound.length)
  return { count, median, deviation_pct: 100 * (member.comparable / median - 1), allowed_pct, lightMoved }
}

function outcomeOf(member: Member, group: Group): BySisters | null {
  const { own } = member
  const sisters = standingOf(member, group)
  if (!sisters) return null
  const { deviation_pct, allowed_pct, lightMoved, count: others } = sisters
  const reads = isRead(own.step) && own.step.slots.some((slot) => slot.measures === 'dc-current')
  const flag = lightMoved && reads ? 'light-moved' : null
  const odd: Verdict = others >= LEAST_OTHERS && !lightMoved ? 'outside' : 'close'
  const says = Math.abs(deviation_pct) > allowed_pct && own.verdict !== 'not-yet' && isGraver(odd, own.verdict)
  if (!says) return flag && { verdict: own.verdict, finding: own.finding, flag }
  const figures = { ...own.finding.figures, deviation_pct: Math.abs(deviation_pct), allowed_pct, others }
  return { verdict: odd, finding: { code: `sisters.${deviation_pct < 0 ? 'below' : 'above'}`, figures }, flag }
}

/** Median of a sorted list without the element at one place; a place past its end leaves nothing out. */
function medianWithout(sorted: readonly Member[], place: number): number {
  const at = (k: number): number => sorted[k < place ? k : k + 1]!.comparable
  const count = sorted.length - (place < sorted.length ? 1 : 0)
  const middle = count >> 1
  return count % 2 === 1 ? at(middle) : (at(middle - 1) + at(middle)) / 2
}

function lightMovedBetween(members: readonly Member[], allowed_pct: number): boolean {
  let least = Number.POSITIVE_INFINITY
  let most = 0
  for (const { irradiance_Wm2 } of members) {
    if (irradiance_Wm2 === null) continue
    least = Math.min(least, irradiance_Wm2)
    most = Math.max(most, irradiance_Wm2)
  }
  return most > 0 && most > least * (1 + allowed_pct / 100)
}
