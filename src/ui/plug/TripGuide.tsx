'use client'
import '@/words/everyTest'
import { Progress } from 'antd'
import { useEffect, useRef } from 'react'
import { unitSpellings } from '@/core/quantity/unit'
import { type Guide, moments } from '@/core/steps/charge-point/tripGuide'
import { say, sayFinding } from '@/words/say'
import { Keypad } from '../bench/Keypad'
import { Mark } from '../mark/Mark'
import { useTheme } from '../theme/Theme'
import { bandOf, detailOf, halfOf, instructionOf, limitOf } from './guideWords'
import { HalfWave } from './HalfWave'
import { tripName, TripRules } from './TripRules'
import { useAwake } from './useGuide'
import { type Point, type Trips, type TripsProps, useTrips } from './useTrips'

type Props = Omit<TripsProps, 'point'> & { partId: string | null; canWrite: boolean }

/** The trips at one plug, one thing at a time, very large: a person has one hand on an adapter. */
export function TripGuide(props: Props) {
  const { evaluation, partId, canWrite, onLeave } = props
  const part = partId ? evaluation.parts.get(partId) : undefined
  if (part?.data.kind !== 'charge-point') return <Nothing said={say('guide.no-point')} onLeave={onLeave} />
  if (!canWrite) return <Nothing said={say('guide.only-look')} onLeave={onLeave} />
  return <Led {...props} point={part as Point} />
}

/** Why nobody is led here, and the way back. */
function Nothing({ said, onLeave }: { said: string; onLeave(): void }) {
  useHeard((event) => {
    if (event.key !== 'Escape' && event.key !== 'Enter') return false
    onLeave()
    return true
  })
  return (
    <div className="trips">
      <main className="trip-say">
        <h1>{said}</h1>
      </main>
      <div className="trip-foot">
        <button type="button" className="trip-band" onClick={onLeave} data-testid="band">
          <b>{say('guide.to-sheet')}</b>
        </button>
      </div>
    </div>
  )
}

/** Keys of the whole screen: nobody looks where the focus is. A button that has it hears its own Enter. */
function useHeard(hear: (event: KeyboardEvent) => boolean): void {
  const heard = useRef(hear)
  heard.current = hear
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      const isOwn = event.target instanceof HTMLButtonElement && (event.key === 'Enter' || event.key === ' ')
      if (!isOwn && heard.current(event)) event.preventDefault()
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [])
}

function Led(props: TripsProps) {
  const trips = useTrips(props)
  useAwake()
  if (!trips) return <Nothing said={say('loading.job')} onLeave={props.onLeave} />
  if (trips.shut) return <Nothing said={sayFinding(trips.shut)} onLeave={props.onLeave} />
  if (trips.plan.trips.length === 0) return <Nothing said={say('guide.no-trips')} onLeave={props.onLeave} />
  return <Screen trips={trips} point={props.point} onLeave={props.onLeave} />
}

function Screen({ trips, point, onLeave }: { trips: Trips; point: Point; onLeave(): void }) {
  const { guide, trip, plan } = trips
  const { moment } = guide
  useHeard((event) => {
    const isTyping = event.target instanceof HTMLInputElement
    if (event.key === 'Enter' || (event.key === ' ' && !isTyping)) trips.band()
    else if (event.key === 'Escape') onLeave()
    else if (event.key === 'Backspace' && !isTyping) trips.back()
    else if (event.key === 'h' && moment === 'trip') void trips.held()
    else if (event.key === 'o' && moment === 'stopped') trips.goOn()
    else return false
    return true
  })
  // No moment of a trip where it has stopped, begins, or is over.
  const at = (moments as readonly string[]).indexOf(moment)
  const isTapped = moment !== 'read' && moment !== 'stopped'
  return (
    <div className="trips" data-testid="trips" data-moment={moment} data-trip={guide.trip + 1}>
      <Head trips={trips} point={point} onLeave={onLeave} />
      {trip && moment !== 'done' ? (
        <p className="trip-due">
          <b>{tripName(trip)}</b>
          <HalfWave angle_deg={trip.angle_deg} isDirect={trip.isDirect} />
          <b>{halfOf(trip)}</b>
          <span>{limitOf(trip)}</span>
        </p>
      ) : (
        <p className="trip-due" />
      )}
      <ol className="trip-moments" aria-label={say('guide.moments')}>
        {moments.map((one, k) => (
          <li
            key={one}
            className={one === moment ? 'now' : k < at ? 'done' : ''}
            aria-current={one === moment ? 'step' : undefined}
          >
            {say(`guide.moment.${one}`)}
          </li>
        ))}
      </ol>
      {/* biome-ignore lint/a11y/useKeyWithClickEvents: keys are heard by the whole screen */}
      <main className="trip-say" onClick={() => isTapped && trips.band()} aria-live="polite">
        {moment === 'ready' ? (
          <Waiting trips={trips} point={point} />
        ) : moment === 'read' && trip ? (
          <Reading trips={trips} />
        ) : (
          <>
            {moment === 'stopped' && <Mark verdict="outside" size={46} named={false} />}
            <h1 data-testid="instruction">{instructionOf(moment, guide.line, trip, trips.reset)}</h1>
            <p>{detailOf(moment, trip, guide.texts, plan.waveform, trips.resetIsKnown)}</p>
          </>
        )}
        {trips.said && (
          <p className="said bad" role="alert">
            {trips.said}
          </p>
        )}
      </main>
      <TripRules trips={plan.trips} figures={trips.figures} now={moment === 'done' ? null : (trip?.slot.id ?? null)} />
      <Foot trips={trips} />
    </div>
  )
}

function Head({ trips, point, onLeave }: { trips: Trips; point: Point; onLeave(): void }) {
  const { set, name } = useTheme()
  const isSun = name === 'sun'
  const { guide, plan } = trips
  const { model, tag } = point.data
  const count = plan.trips.length
  return (
    <header className="trip-head">
      <button type="button" onClick={trips.back}>
        {say('guide.back')}
      </button>
      <div>
        <b>{guide.moment === 'done' ? say('guide.all', { count }) : say('guide.trip', { n: guide.trip + 1, count })}</b>
        <span>{model ? `${tag}, ${model.make} ${model.name}` : tag}</span>
      </div>
      <button type="button" aria-pressed={isSun} onClick={() => set(isSun ? 'day' : 'sun')}>
        {say('guide.sun')}
      </button>
      <button type="button" onClick={onLeave}>
        {say('guide.leave')}
      </button>
    </header>
  )
}

/** Whole seconds until it is ready; at 0 it goes on by itself. */
function Waiting({ trips: { left_s, ready_s }, point }: { trips: Trips; point: Point }) {
  const shows = point.data.model?.data.shows.ready
  return (
    <>
      <h1>{say('guide.starts-again')}</h1>
      <p className="seconds" data-testid="seconds">
        {left_s}
        <small> s</small>
      </p>
      <Progress
        aria-label={say('guide.starts-again')}
        percent={(100 * (ready_s - left_s)) / Math.max(1, ready_s)}
        showInfo={false}
        strokeLinecap="butt"
      />
      <p>{shows ? say('guide.ready-when', { shows }) : ''}</p>
    </>
  )
}

/** What the display shows: typed, tapped, or come through the feed; what it comes to stands beside it. */
function Reading({ trips: { text, type, typed, trip, time, setTime } }: { trips: Trips }) {
  const field = useRef<HTMLInputElement>(null)
  useEffect(() => field.current?.focus(), [])
  return (
    <>
      <label className="trip-read">
        <span className="hidden">{say('guide.what-does-it-show')}</span>
        <input
          ref={field}
          value={text}
          inputMode="none"
          autoComplete="off"
          onChange={(event) => type(event.target.value)}
          data-testid="trip-figure"
        />
        <span>{trip ? unitSpellings[trip.slot.unit].written : ''}</span>
      </label>
      {trip?.timeSlot && (
        <label className="trip-time">
          {say('guide.ran-for')}
          <input
            value={time}
            inputMode="decimal"
            autoComplete="off"
            placeholder={say('slot.optional')}
            onChange={(event) => setTime(event.target.value)}
            data-testid="trip-time"
          />
          <span>{unitSpellings.ms.written}</span>
        </label>
      )}
      {typed && (
        <p className="trip-verdict">
          <Mark verdict={typed.verdict} size={24} named={false} /> {say(`verdict.${typed.verdict}`)}
        </p>
      )}
      <Keypad text={text} onText={type} />
    </>
  )
}

function Foot({ trips }: { trips: Trips }) {
  const { guide, trip, text, reset, toldBy } = trips
  const { moment } = guide
  return (
    <div className="trip-foot">
      {moment === 'trip' && (
        <button type="button" className="trip-other" onClick={() => void trips.held()} data-testid="held">
          {say('guide.held')} <kbd>H</kbd>
        </button>
      )}
      {moment === 'stopped' && (
        <button type="button" className="trip-other" onClick={trips.goOn} data-testid="go-on">
          {say('guide.go-on')} <kbd>O</kbd>
        </button>
      )}
      <button
        type="button"
        className={moment === 'ready' ? 'trip-band waiting' : 'trip-band'}
        onClick={trips.band}
        disabled={trips.busy}
        data-testid="band"
      >
        <b>{bandOf(moment, guide.line, reset.length, trip, text, trips.simulatedBy)}</b>
        <small>{hintOf(moment, toldBy)}</small>
      </button>
    </div>
  )
}

/** What means the band besides a press on it. */
function hintOf(moment: Guide['moment'], toldBy: string | null): string {
  if (moment === 'ready') return say('guide.by-itself')
  if (moment === 'read' || moment === 'stopped') return say('guide.enter')
  const isTold = moment === 'to-a' || moment === 'to-c'
  return toldBy && isTold ? say('guide.by-adapter', { tag: toldBy }) : say('guide.tap-anywhere')
}
