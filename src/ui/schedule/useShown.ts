'use client'
import { useEffect, useRef, useState } from 'react'
import type { Evaluation, StepEvaluation } from '@/core/evaluation/types'
import { isOnePress, watchedUntil } from '@/core/record/watch'
import { type Slot, slotsShown } from '@/core/steps/slot'
import type { AnyReadStep } from '@/core/steps/step'
import { besidesFor, cameBefore, freshIn, type Heard, isFresh, type Live, timesOf } from '../live/liveFeed'
import { cellsOf, underOf } from './model'
import type { Schedule } from './useSchedule'

type Asked = {
  live: Live
  evaluation: Evaluation
  schedule: Schedule
  /** The figure that somebody is in, null where none is or it cannot be read now. */
  here: { one: StepEvaluation; slot: Slot } | null
  officeTime(): number
  toSlot(slot: Slot): void
}
/** A figure that was shown and stands nowhere: somebody says whether it belongs where the pen is. */
export type Offered = { sample: Heard; slot: Slot; isLate: boolean }
/** The slot that an instrument filled last, with what, and when the figure before that one was shown. */
type Filled = { key: string; slot: Slot; sample: Heard; after: string | null }

/**
 * What a paired instrument shows stands where the pen is, as if it had been typed, or in the next blank figure of the
 * same test. It never takes the place of a figure that stands, and what came before the pen was there is only offered.
 */
export function useShown({ live, evaluation, schedule, here, officeTime, toSlot }: Asked) {
  const [offered, setOffered] = useState<Offered | null>(null)
  const place = here && `${here.one.key} ${here.slot.id}`
  const opened = useRef({ place, at: officeTime() })
  if (opened.current.place !== place) opened.current = { place, at: officeTime() }
  const seen = useRef(timesOf(live.latest))
  const filled = useRef<Filled | null>(null)

  const put = (one: StepEvaluation, slot: Slot, sample: Heard): void => {
    const last = filled.current?.key === one.key ? filled.current : null
    const goesOn = last !== null && last.slot === slot && isOnePress(live.watched, last.sample, sample)
    const after = goesOn ? last.after : (filled.current?.sample.at ?? null)
    filled.current = { key: one.key, slot, sample, after }
    schedule.take(one, slot, sample, watchedUntil(live.watched, sample, after))
    setOffered(null)
  }
  /** Where a figure belongs by itself: the one of whose press it is, else where the pen is, else the next that is blank. */
  const placeOf = (one: StepEvaluation, pen: Slot, sample: Heard): Slot | null => {
    const last = filled.current?.key === one.key ? filled.current : null
    if (last && sample.quantity === 'insulation' && isOnePress(live.watched, last.sample, sample)) return last.slot
    if (cameBefore(sample, opened.current.at)) return null
    const cells = cellsOf(one.step as AnyReadStep, one.part, underOf(evaluation), schedule.setUp)
    const from = cells.indexOf(pen)
    const inTurn = [...cells.slice(from), ...cells.slice(0, Math.max(from, 0))]
    const typed = schedule.drafts[one.key]
    const isBlank = (slot: Slot): boolean => !(slot.kind === 'number' ? typed?.texts : typed?.choices)?.[slot.id]
    return inTurn.find((slot) => slot.measures === sample.quantity && isBlank(slot)) ?? null
  }
  /** What a press gave besides stands with its test, wherever the pen is in it. */
  const besides = (heard: readonly Heard[]): void => {
    if (!here) return
    const { step, part } = here.one
    const shown = slotsShown(step as AnyReadStep, schedule.setUp[step.id] ?? {}, { ...underOf(evaluation), part })
    for (const sample of heard) {
      const slot = besidesFor(shown, sample)
      if (slot && !schedule.isOwn(sample) && !cameBefore(sample, opened.current.at))
        schedule.take(here.one, slot, sample, null)
    }
  }
  const hear = (): void => {
    const before = seen.current
    seen.current = timesOf(live.latest)
    besides(freshIn(live.latest, before))
    const quantity = here?.slot.measures
    const sample = quantity ? live.latest[quantity] : undefined
    if (!here || !sample || sample.at === before[sample.quantity] || sample.old || schedule.isOwn(sample)) return
    const slot = placeOf(here.one, here.slot, sample)
    if (!slot) return setOffered({ sample, slot: here.slot, isLate: cameBefore(sample, opened.current.at) })
    put(here.one, slot, sample)
    if (slot !== here.slot) toSlot(slot)
  }
  const heard = useRef(hear)
  heard.current = hear
  // biome-ignore lint/correctness/useExhaustiveDependencies: what is heard is taken once, as things stand then
  useEffect(() => heard.current(), [live.latest])

  const quantity = here?.slot.measures
  const isHere = offered !== null && offered.sample.quantity === quantity && isFresh(offered.sample, officeTime())
  const listening =
    quantity &&
    evaluation.facts.instruments.find(
      ({ id, ranges }) => live.paired.includes(id) && ranges.some((one) => one.measures === quantity),
    )
  return {
    offered: here && isHere ? { ...offered, slot: here.slot } : null,
    /** The paired instrument that reads what is asked here. */
    listening: listening ? listening.tag : null,
    takeOffered: (): void => {
      if (here && offered) put(here.one, here.slot, offered.sample)
    },
  }
}
