'use client'
import { lazy, Suspense, useEffect, useMemo, useState, useSyncExternalStore } from 'react'
import { BackArrow } from './shell/BackArrow'
import { stepById } from '@/core/steps'
import { partsOfKind } from '@/core/plant/projection'
import type { Evaluation, StepEvaluation } from '@/core/evaluation/types'
import type { Instrument } from '@/core/record/instrument'
import { type Verdict, worst, worstFirst } from '@/core/verdict/verdict'
import { figure, say } from '@/words/say'
import { useLateParts } from './lateParts'
import { ask } from './device/api'
import { JobStore, type Snapshot } from './device/jobStore'
import { useMe } from './device/me'
import type { Me } from './device/store'
import { askForTour } from './help/tour'
import { Line } from './line/Line'
import { type Live, LiveFeed } from './live/liveFeed'
import { Mark, ZonePatterns } from './mark/Mark'
import { RunScreen } from './run/RunScreen'
import { Rejected } from './shell/Rejected'
import { useKeys } from './shell/keys'
import { LiveCells } from './shell/LiveCells'
import { type JobRoute, useJobRoute } from './shell/route'
import { SavedCell } from './shell/SavedCell'
import { Strip } from './shell/Strip'
import { WhoCell } from './shell/WhoCell'

// What the bench does not need comes when it is opened; without reception from the device's cache.
const TripGuide = lazy(() => import('./plug/TripGuide').then((module) => ({ default: module.TripGuide })))
const PlantScreen = lazy(() => import('./plant/PlantScreen').then((module) => ({ default: module.PlantScreen })))
const RecordScreen = lazy(() => import('./record/RecordScreen').then((module) => ({ default: module.RecordScreen })))
const ScheduleScreen = lazy(() =>
  import('./schedule/ScheduleScreen').then((module) => ({ default: module.ScheduleScreen })),
)
const DayScreen = lazy(() => import('./day/DayScreen').then((module) => ({ default: module.DayScreen })))
const BoardTree = lazy(() => import('./line/BoardTree').then((module) => ({ default: module.BoardTree })))
const KeysDialog = lazy(() => import('./shell/KeysDialog').then((module) => ({ default: module.KeysDialog })))

const Quiet = ({ children }: { children: React.ReactNode }) => <div className="center-page quiet">{children}</div>

/** One job: plant, run and record behind one address, working from the device's own copy of the facts. */
export function JobApp() {
  const who = useMe()
  const [route, go] = useJobRoute()
  if (route === undefined || who.state === 'loading') return <Quiet>{say('loading.job')}</Quiet>
  if (route === null) return <Quiet>{say('job.none')}</Quiet>
  if (who.state !== 'in') return <Quiet>{say('loading.job')}</Quiet>
  return <OpenedJob key={route.jobId} me={who.me} route={route} go={go} />
}

function useStore(jobId: string, me: Me): [JobStore, Snapshot] {
  const store = useMemo(() => new JobStore(jobId, me), [jobId, me])
  useEffect(() => {
    void store.open()
    return () => store.close()
  }, [store])
  return [store, useSyncExternalStore(store.subscribe, store.read, store.read)]
}

function useLive(jobId: string, store: JobStore): [LiveFeed, Live] {
  const feed = useMemo(
    () => new LiveFeed(jobId, () => store.read().facts?.instruments ?? [], store.officeTime),
    [jobId, store],
  )
  useEffect(() => {
    feed.open()
    return () => feed.close()
  }, [feed])
  return [feed, useSyncExternalStore(feed.subscribe, feed.read, feed.read)]
}

/** The office's time, once in a while: what is fresh and what is due goes by it, whatever the device's clock says. */
function useClock({ officeTime }: JobStore, every_ms: number): number {
  const [now, setNow] = useState(officeTime)
  useEffect(() => {
    const timer = setInterval(() => setNow(officeTime()), every_ms)
    return () => clearInterval(timer)
  }, [officeTime, every_ms])
  return now
}

/** The kit's light meter, where none is paired here already. */
function meterToBring(kit: readonly Instrument[], paired: readonly string[]): Instrument | null {
  const meters = kit.filter((one) => one.ranges.some((range) => range.measures === 'irradiance'))
  return meters.some((one) => paired.includes(one.id)) ? null : (meters[0] ?? null)
}

const MOST_LANES = 3

/** Over three strings the lanes carry the three worst. */
function lanesOf(evaluation: Evaluation): Verdict[] {
  const byPart = new Map<string, Verdict[]>()
  for (const one of evaluation.steps) {
    if (one.part.data.kind !== 'string') continue
    byPart.set(one.part.id, [...(byPart.get(one.part.id) ?? []), one.verdict])
  }
  const verdicts = [...byPart.values()].map((list) => worst(list))
  if (verdicts.length <= MOST_LANES) return verdicts
  return verdicts.sort(worstFirst).slice(0, MOST_LANES)
}

function OpenedJob({ me, route, go }: { me: Me; route: JobRoute; go(route: JobRoute): void }) {
  const [store, snapshot] = useStore(route.jobId, me)
  const [feed, live] = useLive(route.jobId, store)
  const now = useClock(store, 1000)
  const [keysOpen, setKeysOpen] = useState(false)
  const { facts, evaluation } = snapshot
  const sideIsHere = useLateParts(evaluation)

  const stationNow = route.view === 'run' && route.step ? (stepById(route.step)?.station ?? null) : null
  const toStation = (step: number): void => {
    if (!evaluation) return
    const names = evaluation.stations.map((one) => one.station)
    const here = stationNow ? names.indexOf(stationNow) : -1
    const next = names[Math.max(0, Math.min(names.length - 1, here + step))]
    if (next) openStation(next)
  }
  const openStation = (station: string): void => {
    const first =
      evaluation?.steps.find((one) => one.step.station === station && !one.done) ??
      evaluation?.steps.find((one) => one.step.station === station)
    if (first) go({ ...route, view: 'run', step: first.step.id, partId: first.part.id })
    else go({ ...route, view: 'plant', step: null, partId: null })
  }
  useKeys(
    // Whoever is led through trips has keys of another screen.
    route.view === 'trips'
      ? {}
      : {
          '?': () => setKeysOpen(true),
          t: () => window.location.assign('/'),
          '[': () => toStation(-1),
          ']': () => toStation(1),
          g: () => go({ ...route, view: 'record', step: null, partId: null }),
        },
  )

  if (snapshot.phase === 'missing') return <Quiet>{snapshot.why ?? say('job.no-reception')}</Quiet>
  // The plant brings these words itself, and must not go away while somebody enters the first board.
  const canShow = sideIsHere || route.view === 'plant'
  if (!facts || !evaluation || !canShow) return <Quiet>{say('loading.job')}</Quiet>
  const strings = partsOfKind(evaluation.parts, 'string')
  const peak_W = strings.reduce((sum, one) => sum + one.data.modulesInSeries * one.data.moduleType.data.pmax_W, 0)
  const points = evaluation.plant.ofKind('charge-point').length
  const lanes = lanesOf(evaluation)
  const openOnBoard = (next: StepEvaluation | null): void =>
    next
      ? go({ ...route, view: 'run', step: next.step.id, partId: next.part.id })
      : go({ ...route, view: 'plant', step: null, partId: null })
  // These fill the page: the line is folded to one row.
  const isTall = route.view === 'plant' || route.view === 'schedule'
  const hasSchedule = evaluation.plant.ofKind('circuit').length + evaluation.plant.ofKind('rcd').length > 0
  const shared = { store, snapshot, facts, evaluation, route, go }
  const isHalf = evaluation.signatures.some((one) => one.fresh)
  const allFresh = evaluation.signatures.length === 2 && evaluation.signatures.every((one) => one.fresh)
  if (route.view === 'trips')
    return (
      <Suspense fallback={<Quiet>{say('loading.job')}</Quiet>}>
        <TripGuide
          store={store}
          facts={facts}
          evaluation={evaluation}
          live={live}
          feed={feed}
          partId={route.partId}
          canWrite={snapshot.right !== 'viewer' && !snapshot.notSaved}
          onLeave={() => go({ ...route, view: 'run' })}
        />
      </Suspense>
    )
  return (
    <div className="app fixed">
      <ZonePatterns />
      <Strip
        title={`${facts.job.number} ${facts.job.name}`}
        about={
          strings.length > 0
            ? say(points > 0 ? 'job.about-both' : 'job.about', {
                kWp: figure(peak_W / 1000, 1),
                strings: strings.length,
                points,
              })
            : facts.job.place
        }
        who={<WhoCell me={me} job={facts.job} onTour={route.view === 'run' ? askForTour : undefined} />}
      >
        {needsLight(evaluation) && (
          <LiveCells
            live={live}
            now={now}
            meter={snapshot.right === 'viewer' ? null : meterToBring(facts.instruments, live.paired)}
            onPair={(meter) => ask(`/api/jobs/${route.jobId}/pair`, { instrumentId: meter.id })}
          />
        )}
        <SavedCell snapshot={snapshot} timeZone={facts.job.timeZone} />
      </Strip>
      {!isTall && (
        <div className="linerow">
          <a className="end back" href="/">
            <BackArrow />
            <b>{say('line.today')}</b>
          </a>
          {evaluation.stations.length > 0 ? (
            <Line
              stations={evaluation.stations}
              now={stationNow}
              lanes={lanes}
              count={strings.length > MOST_LANES ? say('line.count', { count: strings.length }) : ''}
              onOpen={openStation}
              tree={
                evaluation.plant.ofKind('board').length > 1 && (
                  <Suspense fallback={<div className="boards" />}>
                    <BoardTree
                      evaluation={evaluation}
                      partId={route.view === 'run' ? route.partId : null}
                      onOpen={openOnBoard}
                    />
                  </Suspense>
                )
              }
            />
          ) : (
            <div style={{ display: 'grid', placeItems: 'center' }} className="quiet">
              {say('line.empty')}
            </div>
          )}
          <div style={{ display: 'grid' }} className={`ends ${hasSchedule ? 'three' : ''}`}>
            <button
              type="button"
              className={`end rec ${route.view === 'record' ? 'now' : ''}`}
              onClick={() => go({ ...route, view: 'record', step: null, partId: null })}
            >
              <b>{say('line.record')}</b>
              <span>
                <Mark verdict={allFresh ? 'within' : 'held-back'} size={16} named={false} />{' '}
                {say(allFresh ? 'line.signed' : isHalf ? 'line.half-signed' : 'line.not-signed')}
              </span>
            </button>
            <button
              type="button"
              className="end rec"
              style={{ borderTop: 'var(--hl) solid var(--hair)' }}
              onClick={() => go({ ...route, view: 'plant', step: null, partId: null })}
            >
              <b>{say('line.plant')}</b>
            </button>
            {hasSchedule && (
              <button
                type="button"
                className="end rec"
                style={{ borderTop: 'var(--hl) solid var(--hair)' }}
                onClick={() => go({ ...route, view: 'schedule', step: null })}
                data-testid="to-schedule"
              >
                <b>{say('line.schedule')}</b>
              </button>
            )}
          </div>
        </div>
      )}
      {isTall && (
        <div className="tall-frame">
          <Rejected store={store} snapshot={snapshot} />
          <Suspense fallback={<div className="folded" />}>
            {route.view === 'plant' ? (
              <PlantScreen {...shared} hasSchedule={hasSchedule} />
            ) : (
              <ScheduleScreen {...shared} live={live} hasSchedule={hasSchedule} />
            )}
          </Suspense>
        </div>
      )}
      {!isTall && (
        <main className="job-main">
          <Rejected store={store} snapshot={snapshot} />
          <div className="screen">
            {route.view === 'run' && <RunScreen {...shared} live={live} feed={feed} now={now} />}
            <Suspense fallback={<div className="pane quiet">{say('loading.job')}</div>}>
              {route.view === 'record' && (
                <RecordScreen store={store} snapshot={snapshot} facts={facts} evaluation={evaluation} />
              )}
              {route.view === 'day' && <DayScreen evaluation={evaluation} now={now} route={route} go={go} />}
            </Suspense>
          </div>
        </main>
      )}
      <Suspense>{keysOpen && <KeysDialog view={route.view} onClose={() => setKeysOpen(false)} />}</Suspense>
    </div>
  )
}

/** Light and warmth matter where there are modules, or nothing yet. */
const needsLight = ({ plant }: Evaluation): boolean => plant.ofKind('string').length > 0 || !plant.hasAcSide
