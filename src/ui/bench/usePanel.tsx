'use client'
import { lazy, type ReactNode, Suspense, useMemo } from 'react'
import { panelOf } from '@/core/evaluate'
import type { Evaluation, ReadingEvaluation, StepEvaluation } from '@/core/evaluation/types'
import type { Instrument } from '@/core/record/instrument'
import type { Slot } from '@/core/steps/slot'
import { isRead } from '@/core/steps/step'
import type { BenchActions, BenchProps } from './types'
import type { Taking } from './useTaking'

/** Drawn only where a step has one: loaded then. */
const PlugPanel = lazy(() => import('../plug/PlugPanel').then((module) => ({ default: module.PlugPanel })))
const CurvePanel = lazy(() => import('../curve/CurvePanel').then((module) => ({ default: module.CurvePanel })))
const Seen = lazy(() => import('../plug/Seen').then((module) => ({ default: module.Seen })))

type Props = {
  evaluation: Evaluation
  one: StepEvaluation
  taking: Taking
  /** The kept reading which is shown, null while one is taken. */
  shown: ReadingEvaluation | null
  askedSlots: readonly Slot[]
  tool: Instrument | null
  latest: BenchProps['latest']
  canWrite: boolean
  actions: Pick<BenchActions, 'keepCurves' | 'remark'>
}

/**
 * The panel of a step over its questions. Where questions are answered group by group only those of one group stand on the
 * bench: the first that waits, or the one that somebody went to.
 */
export function usePanel({ evaluation, one, taking, shown, askedSlots, tool, latest, canWrite, actions }: Props) {
  const { step } = one
  const groupOf = isRead(step) ? step.groupOf : undefined
  const group = taking.group
  const { choices } = taking.draft
  const body = shown?.entry.body ?? taking.state.body
  const panel = useMemo(() => {
    // While a figure cannot be read yet the answers are there all the same.
    const answered = Object.fromEntries(Object.entries(choices).map(([id, choice]) => [id, { choice }]))
    return panelOf(evaluation, one, body ?? { slots: answered })
  }, [evaluation, one, body, choices])
  const shownSlots = useMemo(
    () =>
      groupOf && group !== null
        ? askedSlots.filter((slot) => groupOf(slot) === group)
        : panel && groupOf
          ? []
          : askedSlots,
    [groupOf, group, askedSlots, panel],
  )
  // In front of a simulated point somebody's own eyes are asked for as well: what they would see is said.
  const isSimulated = tool ? tool.standIn : evaluation.facts.instruments.every((one) => one.standIn)
  const looked =
    taking.taking && isSimulated && one.part.data.kind === 'charge-point'
      ? (shownSlots.find(
          (slot) => !taking.draft.choices[slot.id] && slot.kind !== 'number' && slot.measures === null,
        ) ?? null)
      : null
  const drawn: ReactNode = panel && (
    <Suspense fallback={null}>
      <PlugPanel panel={panel} now={group} onGroup={groupOf ? taking.setGroup : null} />
    </Suspense>
  )
  const curveSlot = askedSlots.find((slot) => slot.kind === 'curve')
  if (curveSlot)
    return {
      shownSlots: askedSlots,
      seen: null,
      panel: (
        <Suspense fallback={<div className="curve" />}>
          <CurvePanel
            evaluation={evaluation}
            one={one}
            slot={curveSlot}
            taking={taking}
            shown={shown}
            heard={latest['iv-curve']}
            canWrite={canWrite}
            actions={actions}
          />
        </Suspense>
      ),
    }
  const seen: ReactNode = looked && (
    <Suspense fallback={null}>
      <Seen evaluation={evaluation} one={one} slot={looked.id} />
    </Suspense>
  )
  return { shownSlots, panel: drawn, seen }
}
