'use client'
import { Button } from 'antd'
import { lazy, Suspense, useCallback, useEffect, useMemo, useRef, useState } from 'react'
import type { Evaluation, StepEvaluation } from '@/core/evaluation/types'
import { type Way, walkOf } from '@/core/evaluation/walk'
import type { Facts } from '@/core/record/facts'
import { say, stepShort } from '@/words/say'
import type { JobStore, Snapshot } from '../device/jobStore'
import type { Live, LiveFeed } from '../live/liveFeed'
import { ShownAround } from '../help/ShownAround'
import { Mark } from '../mark/Mark'
import { useKeys } from '../shell/keys'
import { useNarrow } from '../shell/narrow'
import { addressOf, type JobRoute } from '../shell/route'
import { draftShelf } from '../bench/heldDrafts'
import { RunSheet } from './RunSheet'
import { RunStep } from './RunStep'
import { VisitBanner } from './VisitBanner'

const SheetDrawer = lazy(() => import('./SheetDrawer').then((module) => ({ default: module.SheetDrawer })))

type Props = {
  store: JobStore
  snapshot: Snapshot
  facts: Facts
  evaluation: Evaluation
  route: JobRoute
  go(route: JobRoute): void
  live: Live
  feed: LiveFeed
  now: number
}

/** The step that the address names, else the next to do, else the first. */
function currentStep(evaluation: Evaluation, route: JobRoute): StepEvaluation | null {
  const named = route.step && route.partId ? evaluation.byKey.get(`${route.step}:${route.partId}`) : undefined
  return named ?? (evaluation.next ? evaluation.byKey.get(evaluation.next) : undefined) ?? evaluation.steps[0] ?? null
}

export function RunScreen(props: Props) {
  const { evaluation, route, go } = props
  const one = currentStep(evaluation, route)
  // The address names the step that is shown: a kept reading must not move the screen away from its own verdict.
  useEffect(() => {
    if (one && !route.step)
      window.location.replace(addressOf({ ...route, step: one.step.id, partId: one.part.id }).slice('/job'.length))
  }, [one, route])
  if (!one) {
    return (
      <div className="pane">
        <h1>{say('run.empty')}</h1>
        <p>{say('run.empty-why')}</p>
        <p style={{ paddingTop: 12 }}>
          <Button className="small" onClick={() => go({ ...route, view: 'plant', step: null, partId: null })}>
            {say('run.add-first')}
          </Button>
        </p>
      </div>
    )
  }
  return <Walked {...props} one={one} />
}

const WAY = 'upstand.walk'
const wayKept = (): Way => (localStorage.getItem(WAY) === 'by-place' ? 'by-place' : 'by-test')

/** The sheet stays as it is while the steps beside it change. */
function Walked({ evaluation, route, go, one, ...rest }: Props & { one: StepEvaluation }) {
  const narrow = useNarrow()
  const [sheetOpen, setSheetOpen] = useState(false)
  const [way, setWayNow] = useState<Way>(wayKept)
  const walks = useMemo(
    () => ({ 'by-test': walkOf(evaluation, 'by-test'), 'by-place': walkOf(evaluation, 'by-place') }),
    [evaluation],
  )
  const setWay = useCallback((next: Way): void => {
    localStorage.setItem(WAY, next)
    setWayNow(next)
  }, [])
  useKeys({ w: () => setWay(way === 'by-test' ? 'by-place' : 'by-test') })
  const goNow = useRef({ go, route })
  goNow.current = { go, route }
  const open = useCallback((other: StepEvaluation | null): void => {
    setSheetOpen(false)
    const { go, route } = goNow.current
    if (other) go({ ...route, view: 'run', step: other.step.id, partId: other.part.id })
  }, [])
  const { store, facts } = rest
  const visitId = facts.visits.at(-1)?.id
  const drafts = useMemo(() => draftShelf(store.me.id, store.jobId, visitId), [store, visitId])
  // What is begun on the step that is open is marked once somebody goes on.
  // biome-ignore lint/correctness/useExhaustiveDependencies: the device is asked whenever another step is opened
  const begun = useMemo(() => drafts.begun(), [drafts, one.key])
  const walked = walks[way].steps
  const at = walked.indexOf(one)
  const sheet = { evaluation, walks, way, setWay, nowKey: one.key, begun, onOpen: open }
  return (
    <>
      <VisitBanner
        store={rest.store}
        facts={rest.facts}
        now={rest.now}
        canWrite={rest.snapshot.right !== 'viewer' && !rest.snapshot.notSaved}
      />
      <StepLine
        before={walked[at - 1]}
        one={one}
        after={walked[at + 1]}
        progress={evaluation.progress}
        open={open}
        openSheet={() => setSheetOpen(true)}
      />
      <div className="cols">
        {!narrow && (
          <aside className="rail desk" aria-label={say('runsheet.title')}>
            <RunSheet {...sheet} />
          </aside>
        )}
        <RunStep
          key={one.key}
          {...rest}
          evaluation={evaluation}
          one={one}
          walked={walked}
          drafts={drafts}
          narrow={narrow}
          open={open}
        />
      </div>
      <ShownAround />
      <Suspense>{sheetOpen && <SheetDrawer {...sheet} onClose={() => setSheetOpen(false)} />}</Suspense>
    </>
  )
}

type LineProps = {
  before: StepEvaluation | undefined
  one: StepEvaluation
  after: StepEvaluation | undefined
  progress: Evaluation['progress']
  open(one: StepEvaluation): void
  openSheet(): void
}

/** On a narrow screen: the step before, this one, the next, and the way to the whole sheet. */
function StepLine({ before, one, after, progress, open, openSheet }: LineProps) {
  const beside = (other: StepEvaluation | undefined, className: string) =>
    other ? (
      <button type="button" className={className} onClick={() => open(other)} aria-label={stepShort(other)}>
        <Mark verdict={other.verdict} size={20} />
        <span>{stepShort(other)}</span>
      </button>
    ) : (
      <span />
    )
  return (
    <div className="pstep narrow">
      {beside(before, 'prev')}
      <span className="now">
        <span>{stepShort(one)}</span>
      </span>
      {beside(after, 'nextstep')}
      <button type="button" className="all" onClick={openSheet}>
        {say('runsheet.title')}
        <small data-testid="progress">
          {progress.done}/{progress.total}
        </small>
      </button>
    </div>
  )
}
