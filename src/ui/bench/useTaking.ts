'use client'
import { useEffect, useMemo, useRef, useState } from 'react'
import type { CurveValue } from '@/core/curve/curveValue'
import { askedFor, knownOf } from '@/core/evaluate'
import { isOffered } from '@/core/evaluation/hunts'
import type { Body, Conditions, How } from '@/core/record/entry'
import type { Measurable } from '@/core/record/instrument'
import { isOnePress, watchedUntil } from '@/core/record/watch'
import { isBesides, type Slot, slotsShown } from '@/core/steps/slot'
import { isRead, shownFor, slotsOf } from '@/core/steps/step'
import { say, sayCode } from '@/words/say'
import { airBeside } from '../live/conditions'
import { cameBefore, freshIn, type Heard, isPairOf, timesOf } from '../live/liveFeed'
import { TYPED } from '../shell/keys'
import type { Minded } from './minded'
import type { BenchProps, PressSetting } from './types'
import {
  answered,
  carriedInto,
  type Draft,
  type DraftState,
  emptyDraft,
  isStarted,
  optionsOf,
  readDraft,
  withCurve,
  withKnown,
  withSample,
  withTool,
} from './draft'

const focusSlot = (id: string): void => document.getElementById(`slot-${id}`)?.focus()

/** Taking one reading: what was typed so far, what is still open, and how it is kept. */
export function useTaking(props: BenchProps, minded: Minded) {
  const { facts, evaluation, one, actions, canWrite, conditions } = props
  const carried = useMemo(
    () => withKnown(carriedInto(one, evaluation.steps, facts.visits.at(-1)?.id), one, evaluation),
    [one, evaluation, facts.visits],
  )
  const isReading = isRead(one.step)
  const isLeftOut = one.verdict === 'left-out' && !isOffered(one)
  const { drafts } = props
  const [held, setHeld] = useState(() => (isReading && canWrite ? drafts.of(one) : null))
  const [taking, setTaking] = useState(isReading && (held !== null || (one.counting === null && !isLeftOut)))
  const [draft, setDraft] = useState<Draft>(() => held?.draft ?? emptyDraft(props.instrumentId, carried))
  const [active, setActive] = useState<string | null>(null)
  const [saidPress, setSaidPress] = useState<string | null>(null)
  const [busy, setBusy] = useState(false)
  const [late, setLate] = useState<readonly Late[] | null>(null)
  const [confirming, setConfirming] = useState(false)

  const at = draft.conditions ?? conditions
  const { cautions, hookup } = shownFor(one.step, draft.choices, { part: one.part, plant: evaluation.plant })
  const ready = minded.isReady(hookup, cautions)
  const { without } = props
  const state = useMemo(() => {
    const now = Date.now()
    const air = airBeside(props.latest, at, facts.instruments, now)
    return readDraft(draft, one, evaluation, at, { air: (at ? air : without?.air) ?? null, now })
  }, [draft, one, evaluation, at, without, props.latest, facts.instruments])
  const askedSettings = useMemo(() => askedFor(evaluation, one, state.read), [evaluation, one, state.read])
  const live = state.body && isStarted(draft) && state.check?.state !== 'refused' ? state.judged : null
  const trap = taking ? (state.judged?.trap ?? null) : null
  // Where questions are answered group by group: the group that somebody went to as long as it waits, else the next.
  const groupOf = isReading && isRead(one.step) ? one.step.groupOf : undefined
  const [chosen, setGroup] = useState<string | null>(null)
  const inChosen = chosen !== null && groupOf ? state.open.filter((slot) => groupOf(slot) === chosen) : []
  const next = inChosen[0] ?? state.open[0] ?? null
  const group = groupOf ? (chosen ?? (next && groupOf(next))) : null
  const canKeep = taking && isStarted(draft) && state.body !== null && state.judged?.mayKeep === true && canWrite

  // Whoever goes elsewhere finds it as it was left, until it is kept or taken again.
  const latestOne = useRef(one)
  latestOne.current = one
  useEffect(() => {
    if (isStarted(draft) && canWrite) drafts.put(latestOne.current, draft)
  }, [draft, drafts, canWrite])
  const clear = (): void => {
    drafts.put(one, null)
    setHeld(null)
    setDraft(emptyDraft(props.instrumentId, carried))
  }

  // A remedy asks for the step to be done again: the bench is ready for it at once.
  useEffect(() => {
    if (one.repeatAsked) setTaking(true)
  }, [one.repeatAsked])
  // A reading kept elsewhere, by a sequence or on another device, is shown; one that is being taken here goes on.
  const started = useRef(isStarted(draft))
  started.current = isStarted(draft)
  const countingId = one.counting?.entry.id
  const known = useRef(countingId)
  useEffect(() => {
    if (countingId && countingId !== known.current && !started.current) setTaking(false)
    known.current = countingId
  }, [countingId])
  // What was left out is shown so; whoever reads it after all takes it again.
  useEffect(() => {
    if (isLeftOut && !started.current) setTaking(false)
  }, [isLeftOut])
  const { onLook } = props
  const judgement = taking ? (state.judged?.judgement ?? null) : null
  const body = taking && isStarted(draft) ? state.body : null
  useEffect(() => onLook({ body, judgement }), [body, judgement, onLook])

  // A sample from the feed fills the slot that waits for its quantity; it becomes a reading only when it is kept.
  const { latest, watched, opened } = props
  const filled = useRef<Filled | null>(null)
  const seen = useRef(timesOf(latest))
  const shownNow = useRef<readonly Slot[]>([])
  // What is answered together is filled first: the level of this state, not of the one before.
  const openNow = useRef<readonly Slot[]>(state.open)
  const pressed = useRef(new Map<Measurable, Slot>())
  const optional = groupOf && group !== null ? slotsOf(one.step).filter((slot) => groupOf(slot) === group) : []
  openNow.current =
    groupOf && group !== null ? [...optional.filter((slot) => !draft.choices[slot.id]), ...state.open] : state.open
  const asked = isRead(one.step)
    ? slotsShown(one.step, draft.choices, { part: one.part, regime: facts.regime, plant: evaluation.plant })
    : []
  shownNow.current = asked
  useEffect(() => {
    const heard = freshIn(latest, seen.current)
    seen.current = timesOf(latest)
    if (!canWrite) return
    const came: Late[] = []
    for (const sample of heard) {
      const own = slotOf(sample, shownNow.current, slotsOf(one.step))
      if (!own) continue
      const isNamed = isPairOf(own, sample)
      // What was pressed for keeps its place, however far somebody has come since; of groups no other one is filled.
      const pressedFor = isNamed ? own : pressed.current.get(sample.quantity)
      if (!isNamed) pressed.current.delete(sample.quantity)
      // What still comes of one press belongs to its figure, and to no slot that waits besides.
      const last = filled.current
      const goesOn = sample.quantity === 'insulation' && last !== null && isOnePress(watched, last.sample, sample)
      const going = goesOn ? last.slot : undefined
      const waiting = pressedFor ?? going ?? openNow.current.find((open) => open.measures === own.measures)
      if (!waiting && groupOf) continue
      const slot = waiting ?? own
      if (cameBefore(sample, opened)) {
        came.push({ slot, sample })
        continue
      }
      setLate(null)
      const after = last === null ? null : goesOn && !pressedFor ? last.after : last.sample.at
      if (!isBesides(slot)) filled.current = { slot, sample, after }
      const points = watchedUntil(watched, sample, after)
      const standIn = facts.instruments.find((tool) => tool.id === sample.instrumentId)?.standIn ?? false
      setTaking(true)
      setConfirming(false)
      setDraft((before) => ({ ...withSample(before, slot, sample, standIn, points), conditions }))
    }
    if (came.length > 0) setLate(came)
  }, [latest, watched, opened, conditions, one.step, facts.instruments, canWrite, groupOf])

  const change = (next: Partial<Draft>): void => {
    // Once a group is answered the next one that waits comes.
    if (inChosen.length <= 1) setGroup(null)
    setConfirming(false)
    setTaking(true)
    setDraft((before) => ({
      ...before,
      ...next,
      hows: typedSince(before, next),
      confirmed: [],
      started: true,
      instrumentId: before.instrumentId ?? props.instrumentId,
      // The light of the moment at which the first figure was typed.
      conditions: isStarted(before) ? (before.conditions ?? conditions) : conditions,
    }))
  }
  /** A curve from a file: it stands on the bench until it is kept. */
  const takeCurve = (slot: Slot, curve: CurveValue, how: How, at: Conditions | null): void => {
    change({})
    setDraft((before) => ({
      ...withCurve(before, slot, curve),
      hows: { ...before.hows, [slot.id]: how },
      conditions: at,
    }))
  }
  /** What was shown before this step was open belongs here after all: somebody says so. */
  const takeLate = (): void => {
    if (!late) return
    change({})
    setDraft((before) =>
      late.reduce((draft, { slot, sample }) => {
        const standIn = facts.instruments.find((tool) => tool.id === sample.instrumentId)?.standIn ?? false
        return withSample(draft, slot, sample, standIn)
      }, before),
    )
    setLate(null)
  }
  /** Where it is read belongs to the leads, not to the figure: it begins nothing. */
  const setPlace = (place: Draft['place']): void => setDraft((before) => ({ ...before, place }))
  const setTool = (instrumentId: string): void => setDraft((before) => withTool(before, instrumentId))
  const goTo = (slot: Slot | null): void => {
    if (!slot) return
    const choice = draft.choices[slot.id]
    if (slot.kind === 'number') focusSlot(slot.id)
    else if (choice) focusSlot(`${slot.id}-note`)
    else if (document.activeElement instanceof HTMLElement) document.activeElement.blur()
  }
  const again = (): void => {
    if (!isReading) return
    clear()
    setGroup(null)
    setConfirming(false)
    setSaidPress(null)
    setLate(null)
    setTaking(true)
    const first = slotsOf(one.step).find((slot) => slot.kind === 'number')
    if (first) requestAnimationFrame(() => focusSlot(first.id))
  }
  const keepNow = async (confirmed: string[] = [], note: string | null = null): Promise<void> => {
    if (!canKeep || !state.body || !ready) return
    if (state.check?.state === 'ask' && confirmed.length === 0) return setConfirming(true)
    const body: Body<'reading'> = { ...state.body, confirmed, note }
    if (!(await actions.keep(body))) return
    setTaking(false)
    setGroup(null)
    setConfirming(false)
    setLate(null)
    clear()
    if (document.activeElement instanceof HTMLElement) document.activeElement.blur()
  }
  /**
   * What the simulated instrument is pressed for: the first open slot that an instrument fills; then what may be read
   * besides in the same way, place by place; else the first figure once more.
   */
  const together = groupOf && group !== null ? asked.filter((slot) => groupOf(slot) === group) : []
  const ownFigures = asked.filter((slot) => slot.measures !== null && !isBesides(slot))
  const firstFigure = ownFigures.find(({ optional }) => !optional) ?? ownFigures[0] ?? null
  const more =
    ownFigures.find(
      (slot) => slot.kind === 'number' && slot.measures === firstFigure?.measures && !draft.texts[slot.id],
    ) ?? null
  const wantedSlot =
    [...together, ...state.open].find((slot) => slot.measures !== null && !isBesides(slot)) ?? more ?? firstFigure
  const wanted = wantedSlot?.measures ?? null
  const press = async (): Promise<void> => {
    // No key goes round a hard gate: what was read elsewhere all the same may be typed.
    if (!props.instrumentId || !wanted || !ready || !canWrite || busy || trap || one.shut?.hard) return
    setBusy(true)
    setSaidPress(null)
    const id = props.instrumentId
    const pressFor = async (slot: Slot): Promise<string | null> => {
      pressed.current.set(slot.measures!, slot)
      const refused = await actions.press(id, slot.measures!, settingOf(one.step.id, slot, draft, state))
      if (refused !== null) pressed.current.delete(slot.measures!)
      return refused
    }
    let said = await pressFor(wantedSlot!)
    // One press shows all that is asked together.
    for (const slot of together.filter((other) => other.measures !== null && other !== wantedSlot))
      said ??= await pressFor(slot)
    setSaidPress(said)
    setBusy(false)
  }
  /** A figure key answers the choice that is open, or begins the number that is. */
  const digit = (key: string): unknown => {
    if (!taking || !canWrite || !next || next.kind === 'curve') return
    if (next.kind === 'number') {
      goTo(next)
      return TYPED
    }
    const place = Number(key)
    if (!(place >= 1)) return
    if (draft.choices[next.id]) return goTo(next)
    const option = optionsOf(next, facts)[place - 1]
    if (!option) return
    change(answered(draft, next.id, option.id))
    // An answer that wants words is followed by them.
    if (next.kind === 'check' && !option.sound) requestAnimationFrame(() => focusSlot(`${next.id}-note`))
  }

  return {
    part: one.part.data,
    /** What the instrument must be set to, by slot. */
    asked: askedSettings,
    taking,
    /** When what is taken was begun, where somebody came back to it. */
    begun: taking && isStarted(draft) ? (held?.since ?? null) : null,
    /** What the tool knows of a line that is open. */
    known: (slot: Slot) => knownOf(evaluation, slot),
    ready,
    draft,
    at,
    state,
    live,
    trap,
    next,
    group,
    setGroup,
    canKeep,
    active,
    setActive,
    saidPress,
    late,
    takeLate,
    busy,
    confirming,
    wanted,
    change,
    takeCurve,
    setPlace,
    setTool,
    goTo,
    again,
    keepNow,
    press,
    /** There are places left to read in the same way. */
    hasMore: more !== null,
    digit,
  }
}

/** The slot that an instrument filled last, with what, and when the figure before that one was shown. */
type Filled = { slot: Slot; sample: Heard; after: string | null }

/** A figure that was shown before its step was open, and the slot that would take it. */
type Late = { slot: Slot; sample: Heard }

/** A figure that is typed over came by hand, whatever an instrument had shown there. */
function typedSince(before: Draft, next: Partial<Draft>): Draft['hows'] {
  const hows = { ...before.hows }
  for (const [id, text] of Object.entries(next.texts ?? {})) if (text !== before.texts[id]) delete hows[id]
  for (const [id, choice] of Object.entries(next.choices ?? {})) if (choice !== before.choices[id]) delete hows[id]
  return hows
}

/** How a test is set up when its instrument is pressed. */
function settingOf(step: string, slot: Slot, draft: Draft, { parsed }: DraftState): PressSetting {
  const figures = Object.fromEntries(
    Object.entries(parsed).flatMap(([id, found]) => (found?.state === 'read' ? [[id, found.reading.value]] : [])),
  )
  return { step, slot: slot.id, choices: draft.choices, figures }
}

export type Taking = ReturnType<typeof useTaking>

/** Where a figure that is heard belongs: where its conductors are asked for, else to the test's own figures. */
function slotOf(sample: Heard, shown: readonly Slot[], all: readonly Slot[]): Slot | null {
  const named = shown.find((slot) => isPairOf(slot, sample))
  if (named) return named
  const own = all.find((slot) => slot.measures === sample.quantity && !isBesides(slot)) ?? null
  // A loop of two other conductors is none of a test that asks for the loop of line and earth.
  return sample.pair === undefined || LINE_EARTH.test(sample.pair) ? own : null
}
const LINE_EARTH = /^L\d?-PE$/

/** What stands on the key that keeps: the one figure or answer, or that all of it is kept. */
export function keepLabel(body: Body<'reading'>, slots: readonly Slot[]): string {
  const [slot, second] = slots
  const value = slot && !second ? body.slots[slot.id] : undefined
  if (value && 'choice' in value && slot?.kind !== 'number')
    return say('action.keep', { what: sayCode('choice', value.choice) })
  if (value && 'curve' in value) return say('action.keep-curve', { count: value.curve.voltages_V.length })
  if (value && 'text' in value && slot?.kind === 'number')
    return say('action.keep-value', { value: value.text, unit: slot.unit })
  return say('action.keep-all')
}
