/**
 * Alike strings side by side, brought to the same conditions: each in per cent of the middle one, or where a test has a
 * scale of its own on that. The odd ones say by how much, in modules where volts tell it.
 */
import type { Part } from '../plant/part'
import { medianOf } from '../quantity/median'
import type { Unit } from '../quantity/unit'
import type { SourceId } from '../regime/sources'
import { type AnyReadStep, isRead } from '../steps/step'
import { type Band, bandAround } from '../verdict/compare'
import type { RuleData } from '../verdict/judgement'
import { type Verdict, worstFirst } from '../verdict/verdict'
import { stepKey } from './stepKey'
import type { Evaluation, StepEvaluation } from './types'

/** Cell groups of a usual module, each with its bypass diode. Common practice, no source. */
const GROUPS_PER_MODULE = 3

/** By how much a string is off, as people say it: whole modules, cell groups, or per cent (negative is low). */
export type Gap = { by: 'modules' | 'groups' | 'pct'; count: number; pct: number }

export type Alike = {
  part: Part
  key: string
  verdict: Verdict
  /** Per cent of the middle, or the figure itself. */
  value: number
  /** What was read, brought to the same conditions where that can be. */
  figure: { value: number; unit: Unit }
  /** Null where it is none, and where its verdict is not outside. */
  gap: Gap | null
}

export type Strip = {
  step: AnyReadStep
  /** Per cent of the middle of all; else the figure's own unit. */
  unit: Unit
  scale: RuleData['scale']
  band: Band
  source: SourceId
  /** The middle of all in its own unit, where all are of one length. */
  middle: { value: number; unit: Unit } | null
  /** Nobody read the light: figures stand as they were read. */
  asRead: boolean
  /** In the order of their values. */
  members: readonly Alike[]
}

/** Tests of alike strings that can be held side by side, in working order; those with two readings at least. */
export function stripsOf(evaluation: Evaluation, part: Part): Strip[] {
  const steps = comparedSteps(evaluation, part)
  const group = groupOf(steps, part)
  if (group === null) return []
  const alike = evaluation.plant.ofKind('string').filter((other) => groupOf(steps, other) === group)
  return stripsOfGroup(evaluation, steps, alike)
}

/** The strips of every group of alike strings, in the order of their tags; each group once. */
export function allStrips(evaluation: Evaluation): Strip[][] {
  const strings = evaluation.plant.ofKind('string')
  if (!strings[0]) return []
  const steps = comparedSteps(evaluation, strings[0])
  const groups = new Map<string, Part[]>()
  for (const one of strings) {
    const group = groupOf(steps, one)
    if (group === null) continue
    const known = groups.get(group)
    if (known) known.push(one)
    else groups.set(group, [one])
  }
  return [...groups.values()].map((alike) => stripsOfGroup(evaluation, steps, alike))
}

const comparedSteps = ({ steps }: Evaluation, part: Part): AnyReadStep[] =>
  [...new Set(steps.map(({ step }) => step))].filter(
    (step): step is AnyReadStep => isRead(step) && step.appliesTo === part.data.kind && step.compared !== undefined,
  )

function stripsOfGroup(evaluation: Evaluation, steps: readonly AnyReadStep[], alike: readonly Part[]): Strip[] {
  return steps.flatMap((step) => {
    const read = alike.flatMap((one) => {
      const own = evaluation.byKey.get(stepKey(step.id, one.id))
      return own?.counting ? [own] : []
    })
    const strip = step.compared === 'percent' ? inPercent(evaluation, step, read) : onItsScale(step, read)
    return strip && strip.members.length > 1 ? [strip] : []
  })
}

/** The group of strings that a string belongs to, as its tests have it. */
function groupOf(steps: readonly AnyReadStep[], part: Part): string | null {
  for (const step of steps) {
    const group = step.sisterGroup?.(part)
    if (group !== undefined) return group
  }
  return null
}

type Told = { one: StepEvaluation; value: number }

function inPercent(evaluation: Evaluation, step: AnyReadStep, read: readonly StepEvaluation[]): Strip | null {
  const referred = read.flatMap((one): Told[] => {
    const value = one.counting!.comparable
    return value === null ? [] : [{ one, value }]
  })
  const asRead = referred.length === 0
  const told = asRead
    ? read.flatMap((one): Told[] => {
        const own = step.asRead?.(one.part, one.counting!.entry.body)
        return own ? [{ one, value: own.value }] : []
      })
    : referred
  const limit = evaluation.facts.regime.limits[step.sisterLimit ?? 'pv.sisters']
  const share = evaluation.facts.regime.limits['close.two-sided']
  if (told.length === 0 || !limit || !share) return null
  // A string that is outside is no measure for the others.
  const sound = told.filter(({ one }) => one.verdict !== 'outside')
  const middle = medianOf((sound.length > 0 ? sound : told).map(({ value }) => value))
  const figures = told.map(({ one }) => figureOf(one))
  // Amperes are the same in strings of whatever length.
  const isOneKind = figures[0]!.unit === 'A' || new Set(told.map(({ one }) => lengthOf(one.part))).size === 1
  return {
    step,
    unit: 'pct',
    scale: 'linear',
    band: bandAround(100, limit.value, share.value),
    source: limit.source,
    middle: isOneKind ? { value: medianOf(figures.map(({ value }) => value)), unit: figures[0]!.unit } : null,
    asRead,
    members: told.map(({ one, value }, k) => memberOf(one, (100 * value) / middle, figures[k]!, true)).sort(byValue),
  }
}

function onItsScale(step: AnyReadStep, read: readonly StepEvaluation[]): Strip | null {
  const told = read.flatMap((one) => {
    const rule = one.judgement?.rule
    return rule?.measured ? [{ one, rule, value: rule.measured.value }] : []
  })
  const first = told[0]
  if (!first) return null
  const { unit, scale, band, source } = first.rule
  return {
    step,
    unit,
    scale,
    band,
    source,
    middle: null,
    asRead: false,
    members: told.map(({ one, value }) => memberOf(one, value, { value, unit }, false)).sort(byValue),
  }
}

const byValue = (a: Alike, b: Alike): number => a.value - b.value

const lengthOf = ({ data }: Part): number => (data.kind === 'string' ? data.modulesInSeries : 1)

function figureOf(one: StepEvaluation): Alike['figure'] {
  const { referred, rule } = one.judgement!
  return referred ?? { value: rule?.measured?.value ?? 0, unit: rule?.unit ?? 'one' }
}

function memberOf(one: StepEvaluation, value: number, figure: Alike['figure'], inPct: boolean): Alike {
  const { part, key, verdict } = one
  const gap = inPct && verdict === 'outside' ? gapOf(value - 100, figure.unit, lengthOf(part)) : null
  return { part, key, verdict, value, figure, gap }
}

/** Volts tell modules and cell groups; anything else a share. */
function gapOf(pct: number, unit: Unit, modules: number): Gap {
  const groups = Math.round((Math.abs(pct) / 100) * modules * GROUPS_PER_MODULE)
  if (unit !== 'V' || groups === 0) return { by: 'pct', count: Math.abs(pct), pct }
  return groups % GROUPS_PER_MODULE === 0
    ? { by: 'modules', count: groups / GROUPS_PER_MODULE, pct }
    : { by: 'groups', count: groups, pct }
}

/** The one that is furthest off of all strips, for the headline; null where all agree. */
export function oddestOf(strips: readonly Strip[]): { strip: Strip; member: Alike } | null {
  const odd = strips.flatMap((strip) =>
    strip.members.filter(({ verdict }) => verdict === 'outside').map((member) => ({ strip, member })),
  )
  const off = ({ strip, member }: { strip: Strip; member: Alike }): number =>
    strip.unit === 'pct' ? Math.abs(member.value - 100) : 0
  return odd.sort((a, b) => worstFirst(a.member.verdict, b.member.verdict) || off(b) - off(a))[0] ?? null
}
