'use client'
import { useEffect, useMemo, useRef, useState } from 'react'
import { judgeDraft, trapIn } from '@/core/evaluate'
import type { Body } from '@/core/record/entry'
import type { LiveSample } from '@/core/record/feed'
import type { Measurable } from '@/core/record/instrument'
import { type Slot, slotsShown } from '@/core/steps/step'
import { say, sayCode } from '@/words/say'
import type { BenchProps, PressSetting } from './types'
import {
  carriedInto,
  type Draft,
  type DraftState,
  emptyDraft,
  isCheck,
  isStarted,
  optionsOf,
  readDraft,
  withSample,
} from './draft'

const focusSlot = (id: string): void => document.getElementById(`slot-${id}`)?.focus()

/** Taking one reading: what was typed so far, what is still open, and how it is kept. */
export function useTaking(props: BenchProps, ready: boolean) {
  const { facts, evaluation, one, actions, canWrite, conditions } = props
  const carried = useMemo(
    () => carriedInto(one, evaluation.steps, facts.visits.at(-1)?.id),
    [one, evaluation.steps, facts.visits],
  )
  const isReading = !one.step.compute
  const [taking, setTaking] = useState(isReading && one.counting === null && one.verdict !== 'left-out')
  const [draft, setDraft] = useState<Draft>(() => emptyDraft(props.instrumentId, carried))
  const [active, setActive] = useState<string | null>(null)
  const [saidPress, setSaidPress] = useState<string | null>(null)
  const [busy, setBusy] = useState(false)
  const [confirming, setConfirming] = useState(false)

  const at = draft.conditions ?? conditions
  const state = useMemo(() => readDraft(draft, one, facts, at), [draft, one, facts, at])
  const live =
    state.body && isStarted(draft) && state.check?.state !== 'refused'
      ? judgeDraft(facts, evaluation, one, state.body)
      : null
  const trap = taking ? trapIn(facts, evaluation, one, { slots: slotsSoFar(draft, state) }) : null
  const next = state.open[0] ?? null
  const canKeep =
    taking &&
    trap === null &&
    isStarted(draft) &&
    state.body !== null &&
    state.open.length === 0 &&
    state.check?.state !== 'refused' &&
    canWrite

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
  const { onLook } = props
  useEffect(() => onLook({ body: taking && isStarted(draft) ? state.body : null }), [state.body, draft, taking, onLook])

  // A sample from the feed fills the slot that waits for its quantity; it becomes a reading only when it is kept.
  const { latest } = props
  const seen = useRef<Partial<Record<Measurable, string>>>(timesOf(latest))
  const openNow = useRef(state.open)
  openNow.current = state.open
  useEffect(() => {
    const fresh = one.step.slots
      .filter((slot: Slot) => slot.measures && latest[slot.measures]?.at !== seen.current[slot.measures])
      .filter((slot: Slot) => latest[slot.measures!] !== undefined && !latest[slot.measures!]!.old) as Slot[]
    seen.current = timesOf(latest)
    if (!canWrite) return
    const taken = new Set<Measurable>()
    for (const own of fresh) {
      if (taken.has(own.measures!)) continue
      taken.add(own.measures!)
      const slot = openNow.current.find((open) => open.measures === own.measures) ?? own
      const sample = latest[own.measures!]!
      const standIn = facts.instruments.find((tool) => tool.id === sample.instrumentId)?.standIn ?? false
      setTaking(true)
      setConfirming(false)
      setDraft((before) => ({ ...withSample(before, slot, sample, standIn), conditions }))
    }
  }, [latest, conditions, one.step, facts.instruments, canWrite])

  const change = (next: Partial<Draft>): void => {
    setConfirming(false)
    setTaking(true)
    setDraft((before) => ({
      ...before,
      ...next,
      how: 'typed',
      confirmed: [],
      started: true,
      instrumentId: before.instrumentId ?? props.instrumentId,
      // The light of the moment at which the first figure was typed.
      conditions: isStarted(before) ? (before.conditions ?? conditions) : conditions,
    }))
  }
  const goTo = (slot: Slot | null): void => {
    if (!slot) return
    const choice = draft.choices[slot.id]
    if (slot.kind === 'number') focusSlot(slot.id)
    else if (choice) focusSlot(`${slot.id}-note`)
    else if (document.activeElement instanceof HTMLElement) document.activeElement.blur()
  }
  const again = (): void => {
    if (!isReading) return
    const start = emptyDraft(props.instrumentId, carried)
    // A list of checks that was whole is whole again: it may be kept as it stands once one line is changed.
    setDraft(start)
    setConfirming(false)
    setSaidPress(null)
    setTaking(true)
    const first = one.step.slots.find((slot: Slot) => slot.kind === 'number')
    if (first) requestAnimationFrame(() => focusSlot(first.id))
  }
  const keepNow = async (confirmed: string[] = [], note: string | null = null): Promise<void> => {
    if (!canKeep || !state.body || !ready) return
    if (state.check?.state === 'ask' && confirmed.length === 0) return setConfirming(true)
    const body: Body<'reading'> = { ...state.body, confirmed, note }
    if (!(await actions.keep(body))) return
    setTaking(false)
    setConfirming(false)
    setDraft(emptyDraft(props.instrumentId, carried))
    if (document.activeElement instanceof HTMLElement) document.activeElement.blur()
  }
  /** What the simulated instrument is pressed for: the first open slot that an instrument fills, else the first of all. */
  const asked = slotsShown(one.step, draft.choices, { part: one.part, regime: facts.regime })
  const wantedSlot = [...state.open, ...asked].find((slot) => slot.measures !== null) ?? null
  const wanted = wantedSlot?.measures ?? null
  const press = async (): Promise<void> => {
    if (!props.instrumentId || !wanted || !ready || !canWrite || busy || trap) return
    setBusy(true)
    setSaidPress(null)
    setSaidPress(await actions.press(props.instrumentId, wanted, settingOf(wantedSlot!, draft, state)))
    setBusy(false)
  }
  /** A figure key answers the choice that is open, or goes to the number that is. */
  const digit = (place: number): void => {
    if (!taking || !canWrite || !next) return
    if (next.kind === 'number' || draft.choices[next.id]) return goTo(next)
    const option = optionsOf(next, facts)[place - 1]
    if (!option) return
    change({ choices: { ...draft.choices, [next.id]: option.id } })
    // An answer that wants words is followed by them.
    if (isCheck(next) && !option.sound) requestAnimationFrame(() => focusSlot(`${next.id}-note`))
  }

  return {
    taking,
    draft,
    at,
    state,
    live,
    trap,
    next,
    canKeep,
    active,
    setActive,
    saidPress,
    busy,
    confirming,
    wanted,
    change,
    goTo,
    again,
    keepNow,
    press,
    digit,
  }
}

/** What stands in a draft so far, whether or not it is whole. */
function slotsSoFar(draft: Draft, { parsed }: DraftState): Body<'reading'>['slots'] {
  const slots: Body<'reading'>['slots'] = {}
  for (const [id, choice] of Object.entries(draft.choices)) slots[id] = { choice }
  for (const [id, found] of Object.entries(parsed)) if (found?.state === 'read') slots[id] = found.reading
  return slots
}

/** How a test is set up when its instrument is pressed. */
function settingOf(slot: Slot, draft: Draft, { parsed }: DraftState): PressSetting {
  const figures = Object.fromEntries(
    Object.entries(parsed).flatMap(([id, found]) => (found?.state === 'read' ? [[id, found.reading.value]] : [])),
  )
  return { slot: slot.id, choices: draft.choices, figures }
}

export type Taking = ReturnType<typeof useTaking>

function timesOf(latest: Partial<Record<Measurable, LiveSample>>): Partial<Record<Measurable, string>> {
  return Object.fromEntries(Object.entries(latest).map(([measures, sample]) => [measures, sample.at]))
}

/** What stands on the key that keeps: the one figure or answer, or that all of it is kept. */
export function keepLabel(body: Body<'reading'>, slots: readonly Slot[]): string {
  const [slot, second] = slots
  const value = slot && !second ? body.slots[slot.id] : undefined
  if (value && 'choice' in value && slot?.kind === 'choice')
    return say('action.keep', { what: sayCode('choice', value.choice) })
  if (value && 'text' in value && slot?.kind === 'number')
    return say('action.keep-value', { value: value.text, unit: slot.unit })
  return say('action.keep-all')
}
