'use client'
import { useState } from 'react'
import type { Evaluation, StepEvaluation } from '@/core/evaluation/types'
import type { Part } from '@/core/plant/part'
import type { PlantIndex } from '@/core/plant/plantIndex'
import { type Caution, type Hookup, shownFor } from '@/core/steps/step'

/**
 * What somebody ticked before a test. It is asked once for each hook-up and place of a visit: string 2 of the same roof is
 * connected as string 1 was. It lives as long as the page: after a reload, in another visit, on another roof or board, for
 * a string of another voltage, it is asked again.
 */
const kept = new Map<string, ReadonlySet<string>>()

/** Where parts are alike for who connects to them: strings of one array and one voltage, circuits of one board. */
function placeOf({ plant }: Evaluation, part: Part): string {
  if (part.data.kind === 'string') {
    const { modulesInSeries, moduleType } = part.data
    return [plant.arrayOf(part)?.id ?? part.id, modulesInSeries, moduleType.data.voc_V].join(' ')
  }
  if (part.data.kind === 'circuit' || part.data.kind === 'rcd')
    return plant.boardOf({ ...part, data: part.data } as Parameters<typeof plant.boardOf>[0])?.id ?? part.id
  return part.id
}

export type Minded = ReturnType<typeof useMinded>

/** The cautions ticked at a hook-up and place, and what may follow from them. */
export function useMinded(evaluation: Evaluation, part: Part) {
  const { job, visits } = evaluation.facts
  const keyOf = ({ drawing, wiring }: Hookup): string =>
    [job.id, visits.at(-1)?.id, wiring ?? drawing, placeOf(evaluation, part)].join(' ')
  const [before] = useState(() => new Map(kept))
  const [, drawAgain] = useState(0)
  const covers = (
    of: ReadonlyMap<string, ReadonlySet<string>>,
    hookup: Hookup,
    cautions: readonly Caution[],
  ): boolean => cautions.every(({ id, hard }) => !hard || of.get(keyOf(hookup))?.has(id))
  return {
    ticked: (hookup: Hookup): readonly string[] => [...(kept.get(keyOf(hookup)) ?? [])],
    tick(hookup: Hookup, list: readonly string[]): void {
      kept.set(keyOf(hookup), new Set(list))
      drawAgain((n) => n + 1)
    },
    /** Nothing that must be ticked is left open. */
    isReady: (hookup: Hookup, cautions: readonly Caution[]): boolean => covers(kept, hookup, cautions),
    /** It was connected so before this step was opened: the drawing need not stand in the way. */
    isKnown: (hookup: Hookup, cautions: readonly Caution[]): boolean =>
      before.has(keyOf(hookup)) && covers(before, hookup, cautions),
  }
}

/** As after a reload. */
export const forgetMinded = (): void => kept.clear()

/** What must be ticked before any of several tests of these parts, each once. */
export function hardCautions(tests: readonly StepEvaluation[], plant: PlantIndex): Caution[] {
  const all = tests.flatMap(({ step, part }) => shownFor(step, {}, { part, plant }).cautions).filter(({ hard }) => hard)
  return [...new Map(all.map((caution) => [caution.id, caution])).values()]
}
