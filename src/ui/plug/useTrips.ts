import { useEffect, useMemo, useRef, useState } from 'react'
import { evaluateDraft, stepKey, tripsOf } from '@/core/evaluate'
import type { Evaluation, StepEvaluation } from '@/core/evaluation/types'
import type { Part, PartData } from '@/core/plant/part'
import { parseReading } from '@/core/quantity/parseReading'
import type { Facts } from '@/core/record/facts'
import type { Measurable } from '@/core/record/instrument'
import { type FigureHow, type Guide, isPassedBy, secondsLeft } from '@/core/steps/charge-point/tripGuide'
import type { PlannedTrip } from '@/core/steps/charge-point/tripPlan'
import { slotsOf } from '@/core/steps/step'
import { say } from '@/words/say'
import { emptyDraft, kitFor, readDraft } from '../bench/draft'
import type { JobStore } from '../device/jobStore'
import { type Live, type LiveFeed, timesOf } from '../live/liveFeed'
import { pressSimulated } from '../run/pressSimulated'
import { figureOf } from './guideWords'
import { pairedAdapter, useAdapter } from './useAdapter'
import { useGuide } from './useGuide'

export type Point = Part<Extract<PartData, { kind: 'charge-point' }>>
export type TripsProps = {
  store: JobStore
  facts: Facts
  evaluation: Evaluation
  live: Live
  feed: LiveFeed
  point: Point
  onLeave(): void
}

/** What an instrument sends for the time of a ramp. */
const timeOf = ({ isDirect }: PlannedTrip): Measurable => (isDirect ? 'dc-residual-time' : 'rcd-time')

/** The waveform of the trips is a question of one of the two tests. */
const WAVE = 'plug-waveform'

/** Being led through the trips at one plug: where somebody is, what was read, and what each key does. */
export function useTrips({ store, facts, evaluation, live, feed, point, onLeave }: TripsProps) {
  const model = point.data.model?.data ?? null
  const plan = useMemo(() => tripsOf(evaluation, point), [evaluation, point])
  const resetIsKnown = model !== null && model.reset.length > 0
  const reset = resetIsKnown ? model.reset : [say('guide.reset-generally')]
  // The ritual is one as long as its trips are: every entry that comes in makes an evaluation anew.
  const slots = plan.trips.map((one) => one.slot.id).join()
  const resetLines = reset.length
  const ready_s = model?.ready_s ?? 0
  const ramps = plan.trips.flatMap(({ slot, timeSlot }) => (timeSlot ? `${slot.id}=${timeSlot}` : [])).join()
  const ritual = useMemo(
    () => ({
      slots: slots.split(',').filter(Boolean),
      resetLines,
      ready_s,
      times: Object.fromEntries(
        ramps
          .split(',')
          .filter(Boolean)
          .map((one) => one.split('=')),
      ) as Record<string, string>,
    }),
    [slots, resetLines, ready_s, ramps],
  )
  const state = useGuide(`trips:${store.me.id}:${store.jobId}:${point.id}`, ritual)
  const [text, setText] = useState('')
  const [time, setTime] = useState('')
  const [how, setHow] = useState<FigureHow>('typed')
  const [said, setSaid] = useState<string | null>(null)
  const [busy, setBusy] = useState(false)
  const guide = state?.guide ?? null
  const trip = guide ? (plan.trips[guide.trip] ?? null) : null

  const oneOf = (step: string): StepEvaluation | null => evaluation.byKey.get(stepKey(step, point.id)) ?? null
  const toolOf = (one: PlannedTrip) => {
    const of = oneOf(one.step)
    return of ? (kitFor(evaluation, of, one.slot.measures, Date.now())[0] ?? null) : null
  }
  const tool = trip ? toolOf(trip) : null
  const type = (next: string): void => {
    setText(next)
    setHow('typed')
  }

  // A new moment begins with what was read there before, if anything was.
  const place = guide ? `${guide.trip} ${guide.moment}` : ''
  const at = useRef(place)
  if (at.current !== place) {
    at.current = place
    const known = guide?.moment === 'read' && trip ? guide.texts[trip.slot.id] : undefined
    if (known !== undefined && text === '') setText(known)
  }

  // What an instrument sends while its trip is due, or its figure is asked for, stands there as if it had been typed.
  const measures = trip?.slot.measures
  const sample = measures ? live.latest[measures] : undefined
  // What was there before, or came while nothing was asked for, belongs to another trip.
  const seen = useRef(new Set(Object.values(timesOf(live.latest))))
  const fresh = sample && !sample.old && !seen.current.has(sample.at) ? sample : null
  useEffect(() => {
    if (!fresh || !state || !guide) return
    seen.current.add(fresh.at)
    if (guide.moment !== 'trip' && guide.moment !== 'read') return
    const standIn = facts.instruments.find((one) => one.id === fresh.instrumentId)?.standIn ?? false
    setText(fresh.read.text)
    setHow(standIn ? 'stand-in' : 'feed')
    if (guide.moment === 'trip') void state.move({ do: fresh.read.bound === 'more-than' ? 'held' : 'done' })
  }, [fresh, state, guide, facts.instruments])

  // How long a ramp ran comes beside what it reached; what was there when the moment began belongs to another trip.
  const ran = trip?.timeSlot ? live.latest[timeOf(trip)] : undefined
  const ranBefore = useRef({ trip: -1, at: '' })
  if (guide && ranBefore.current.trip !== guide.trip) ranBefore.current = { trip: guide.trip, at: ran?.at ?? '' }
  useEffect(() => {
    const isDue = guide?.moment === 'trip' || guide?.moment === 'read'
    if (isDue && ran && !ran.old && ran.at !== ranBefore.current.at) setTime(ran.read.text)
  }, [ran, guide?.moment])

  const adapter = pairedAdapter(live, facts.instruments)
  useAdapter(live, place, (told) => {
    if (guide && isPassedBy(guide, told)) void state?.move({ do: 'done' })
  })

  /** Keeps what was read of one test, whole or, where a trip has to be taken again, as far as it got. */
  const keep = async (step: string, from: Guide): Promise<boolean> => {
    const one = oneOf(step)
    const first = plan.trips.find((each) => each.step === step)
    if (!one || !first) return false
    const own = new Set(slotsOf(one.step).map((slot) => slot.id))
    const ofStep = <T>(all: Readonly<Record<string, T>>): Record<string, T> =>
      Object.fromEntries(Object.entries(all).filter(([slot]) => own.has(slot)))
    const draft = {
      ...emptyDraft(toolOf(first)?.id ?? null),
      choices: ofStep({ [WAVE]: plan.waveform }),
      texts: ofStep(from.texts),
      hows: ofStep(from.hows),
      started: true,
    }
    const { body } = readDraft(draft, one, evaluation, null)
    if (!body || evaluateDraft(evaluation, one, body).check.state === 'refused') return false
    return store.addAll([{ body, about: { partId: point.id, step } }])
  }

  // A test that is whole is kept at once; where the page died in between, as soon as it is back.
  const keeping = useRef(false)
  const whole = guide && wholeTest(plan.trips, guide, trip)
  useEffect(() => {
    if (!whole || !guide || !state || keeping.current) return
    keeping.current = true
    void keep(whole, guide)
      .then((isKept) => (isKept ? state.mark(whole) : undefined))
      .finally(() => {
        keeping.current = false
      })
  })

  if (!state || !guide) return null
  const figures = plan.trips.flatMap((one) => figureOf(evaluation, oneOf(one.step), one, guide.texts[one.slot.id]))
  const typed = trip ? (figureOf(evaluation, oneOf(trip.step), trip, text)[0] ?? null) : null

  const read = async (): Promise<void> => {
    if (!typed || !trip) return setSaid(say('guide.what-does-it-show'))
    if (trip.timeSlot && time !== '' && parseReading(time, 'ms').state !== 'read')
      return setSaid(say('guide.which-time'))
    setSaid(null)
    const isOutside = typed.verdict === 'outside'
    await state.move({ do: 'read', text, how, test: trip.step, isOutside, ...(time === '' ? {} : { time }) })
    type('')
    setTime('')
  }
  const again = async (): Promise<void> => {
    // The figure that was outside counts: it is kept before the trip is taken again.
    if (trip) await keep(trip.step, guide)
    await state.move({ do: 'again' })
  }
  /** Presses the simulated tester: what it shows comes as from any instrument. */
  const press = async (): Promise<void> => {
    const one = trip && oneOf(trip.step)
    if (!trip || !one || !tool || !trip.slot.measures || busy) return
    setBusy(true)
    const setting = { step: trip.step, slot: trip.slot.id, choices: { [WAVE]: plan.waveform } }
    const wanted = { measures: trip.slot.measures, setting, instrumentId: tool.id }
    const pressed = await pressSimulated(store, facts, evaluation, one, wanted)
    // One press of a ramp shows both what it reached and how long it ran.
    const timed = trip.timeSlot && {
      measures: timeOf(trip),
      setting: { ...setting, slot: trip.timeSlot },
      instrumentId: tool.id,
    }
    const ran = timed && typeof pressed !== 'string' ? await pressSimulated(store, facts, evaluation, one, timed) : ''
    setBusy(false)
    setSaid(typeof pressed === 'string' ? pressed : null)
    feed.take([pressed, ran].filter((sample) => typeof sample === 'object' && sample !== null))
  }
  const held = async (): Promise<void> => {
    const most = tool?.ranges.find((range) => range.measures === trip?.slot.measures)?.most
    type(most === undefined ? '>' : `>${most}`)
    await state.move({ do: 'held' })
  }
  const { moment } = guide
  const isSimulated = moment === 'trip' && tool?.standIn === true
  const band = (): void => {
    if (moment === 'read') void read()
    else if (moment === 'stopped') void again()
    else if (moment === 'done') onLeave()
    else if (isSimulated) void press()
    else void state.move({ do: 'done' })
  }
  const shut = [...new Set(plan.trips.map((one) => one.step))].flatMap((step) => oneOf(step)?.shut ?? []).at(0)
  return {
    plan,
    guide,
    trip,
    reset,
    resetIsKnown,
    figures,
    typed,
    text,
    type,
    time,
    setTime,
    said,
    busy,
    simulatedBy: isSimulated ? tool.tag : null,
    toldBy: adapter?.tag ?? null,
    left_s: secondsLeft(guide, ritual, state.now),
    ready_s,
    shut: shut?.finding ?? null,
    band,
    held,
    back: () => void state.move({ do: 'back' }),
    goOn: () => void state.move({ do: 'go-on' }),
  }
}
export type Trips = NonNullable<ReturnType<typeof useTrips>>

/** A test of which every trip is read and that nobody has kept yet; one that stopped waits for what somebody says. */
function wholeTest(trips: readonly PlannedTrip[], guide: Guide, now: PlannedTrip | null): string | null {
  const isRead = (step: string): boolean =>
    trips.filter((one) => one.step === step).every((one) => one.slot.id in guide.texts)
  const waits = guide.moment === 'stopped' ? now?.step : null
  return (
    trips.map((one) => one.step).find((step) => step !== waits && !guide.kept.includes(step) && isRead(step)) ?? null
  )
}
