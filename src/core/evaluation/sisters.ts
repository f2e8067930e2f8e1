import type { LimitId, Regime } from '../regime/regime'
import { isRead } from '../steps/step'
import { type Finding, type Flag, isGraver, type Verdict } from '../verdict/verdict'
import type { WorkingLine } from '../verdict/working'
import type { Own } from './runOf'
import type { Sisters } from './types'

/** Sisters that must be there before the odd one out can be named: with one other, nobody knows which is odd. */
const LEAST_OTHERS = 2

type Member = {
  own: Own
  comparable: number
  irradiance_Wm2: number | null
  /** Its place among those that are a measure for the others; null where it is none. */
  place: number | null
}
type Group = {
  members: readonly Member[]
  /** Those that are a measure for the others, sorted. */
  sound: readonly Member[]
  lightMoved: boolean
  /** Null where the regime has no figure for it: then nothing is compared. */
  allowed_pct: number | null
  limit: LimitId
  /** What being compared comes to, by key of the step, where it comes to anything. */
  outcomes: ReadonlyMap<string, BySisters>
}

/** What being compared with its sisters adds to a step. */
export type BySisters = { verdict: Verdict; finding: Finding; flag: Flag | null }

/** A step whose reading that counts is another now. */
export type ChangedOwn = { own: Own; before: Own | undefined }

/**
 * Compares strings alike, referred to the same conditions first: each against the median of the others. Sorting once a
 * group keeps it n log n. Source: IEC 62446-1 6.4, 6.5 (from memory).
 */
export class SisterGroups {
  private constructor(private readonly groups: ReadonlyMap<string, Group>) {}

  /** @param all every step that may have sisters. */
  static of(all: readonly Own[], regime: Regime): SisterGroups {
    const members = new Map<string, Member[]>()
    for (const own of all) {
      const key = groupKey(own)
      if (key === null) continue
      const list = members.get(key)
      if (list) list.push(memberOf(own))
      else members.set(key, [memberOf(own)])
    }
    return new SisterGroups(new Map([...members].map(([key, list]) => [key, groupFrom(list, regime)])))
  }

  /** The same with some steps as they are now, and the keys of those for which it comes out otherwise. */
  with(changed: readonly ChangedOwn[], regime: Regime): { groups: SisterGroups; other: string[] } {
    const members = new Map<string, Member[]>()
    const membersIn = (key: string): Member[] => {
      const list = members.get(key) ?? (this.groups.get(key)?.members ?? []).map((one) => ({ ...one, place: null }))
      members.set(key, list)
      return list
    }
    for (const { own, before } of changed) {
      const [was, is] = [before ? groupKey(before) : null, groupKey(own)]
      if (was !== null) {
        const list = membersIn(was)
        list.splice(
          list.findIndex((one) => one.own.key === own.key),
          1,
        )
      }
      if (is !== null) membersIn(is).push(memberOf(own))
    }
    const groups = new Map(this.groups)
    const other: string[] = []
    for (const [key, list] of members) {
      const before = groups.get(key)?.outcomes ?? new Map<string, BySisters>()
      const group = groupFrom(list, regime)
      groups.set(key, group)
      for (const one of new Set([...before.keys(), ...group.outcomes.keys()]))
        if (JSON.stringify(before.get(one)) !== JSON.stringify(group.outcomes.get(one))) other.push(one)
    }
    return { groups: new SisterGroups(groups), other }
  }

  /** Where a step stands among its sisters; null where it has none. */
  of(one: Compared): Sisters | null {
    const group = this.groupOf(one)
    const member = group?.members.find(({ own }) => own.key === one.key)
    return group && member ? standingOf(member, group) : null
  }

  private groupOf(one: Compared): Group | undefined {
    const key = groupKey(one)
    return key === null ? undefined : this.groups.get(key)
  }

  /** What each step comes to beside its sisters, by key; those that they add nothing to are not among them. */
  outcomes(): Map<string, BySisters> {
    const found = new Map<string, BySisters>()
    for (const { outcomes } of this.groups.values()) for (const [key, one] of outcomes) found.set(key, one)
    return found
  }

  /** The line of the working that tells it, where there are sisters. */
  line(one: Compared, regime: Regime): WorkingLine | null {
    const sisters = this.of(one)
    const group = this.groupOf(one)
    if (!sisters || !group) return null
    return {
      code: 'sisters.gap',
      figures: { count: sisters.count, allowed_pct: sisters.allowed_pct },
      result: { value: sisters.deviation_pct, unit: 'pct', decimals: 1, signed: true },
      source: regime.limits[group.limit]?.source ?? null,
    }
  }
}

/** What a step is compared by. */
type Compared = Pick<Own, 'key' | 'step' | 'part' | 'counting'>

function groupKey({ step, part, counting }: Compared): string | null {
  if (!isRead(step) || !step.sisterGroup || counting?.comparable == null) return null
  const group = step.sisterGroup(part)
  return group === null ? null : `${step.id}|${group}`
}

const memberOf = (own: Own): Member => {
  const { entry, comparable } = own.counting!
  const irradiance_Wm2 = entry.body.conditions?.irradiance.read.value ?? null
  return { own, comparable: comparable!, irradiance_Wm2, place: null }
}

function groupFrom(members: readonly Member[], regime: Regime): Group {
  const step = members[0]?.own.step
  const limit = (step && isRead(step) && step.sisterLimit) || 'pv.sisters'
  const allowed_pct = regime.limits[limit]?.value
  // A string that is outside by its own expectation is no measure for the others.
  const sound = members.filter((one) => one.own.verdict !== 'outside').sort((a, b) => a.comparable - b.comparable)
  for (const [place, one] of sound.entries()) one.place = place
  const lightMoved = lightMovedBetween(members, regime.limits['pv.light-moved']?.value ?? 0)
  const outcomes = new Map<string, BySisters>()
  const group = { members, sound, lightMoved, allowed_pct: allowed_pct ?? null, limit, outcomes }
  for (const member of members) {
    const outcome = outcomeOf(member, group)
    if (outcome) outcomes.set(member.own.key, outcome)
  }
  return group
}

/** What is said of a member by its own reading. */
const findingIn = ({ said, counting }: Own): Finding => said ?? counting!.judgement.finding

function standingOf(member: Member, { sound, allowed_pct, lightMoved }: Group): Sisters | null {
  const { place } = member
  const count = sound.length - (place === null ? 0 : 1)
  if (count === 0 || allowed_pct === null) return null
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
  if (!says) return flag && { verdict: own.verdict, finding: findingIn(own), flag }
  const figures = { ...findingIn(own).figures, deviation_pct: Math.abs(deviation_pct), allowed_pct, others }
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
