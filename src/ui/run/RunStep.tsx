'use client'
import { Radio } from 'antd'
import { lazy, Suspense, useCallback, useMemo, useRef, useState } from 'react'
import { stepKey, type WithoutMeter, withoutMeter } from '@/core/evaluate'
import { foundIn } from '@/core/evaluation/found'
import type { Evaluation, ReadingEvaluation, StepEvaluation } from '@/core/evaluation/types'
import { acKinds } from '@/core/plant/part'
import type { Conditions } from '@/core/record/entry'
import type { Facts } from '@/core/record/facts'
import { citesNational } from '@/core/regime/documents'
import { measuredBy } from '@/core/steps/measuredBy'
import { isRead } from '@/core/steps/step'
import { say, sayCode } from '@/words/say'
import { Bench } from '../bench/Bench'
import { kitFor } from '../bench/draft'
import type { DraftShelf } from '../bench/heldDrafts'
import type { BenchActions, Look } from '../bench/types'
import { intoSight } from '../bench/useDock'
import type { JobStore, Snapshot } from '../device/jobStore'
import { sharedEntries } from '../device/sharedEntries'
import { conditionsNow } from '../live/conditions'
import type { Live, LiveFeed } from '../live/liveFeed'
import { useKeys } from '../shell/keys'
import { Photos } from './Photos'
import { pressForAll } from './pressSimulated'
import { type Dialog, RunDialogs } from './RunDialogs'
import { Side } from './Side'

type Props = {
  store: JobStore
  snapshot: Snapshot
  facts: Facts
  evaluation: Evaluation
  live: Live
  feed: LiveFeed
  now: number
  one: StepEvaluation
  /** The steps in the order in which they are walked. */
  walked: readonly StepEvaluation[]
  drafts: DraftShelf
  narrow: boolean
  open(one: StepEvaluation | null): void
}

/** The next step of the walk that is neither done nor held back, after this one; it begins again from the start. */
function following(steps: readonly StepEvaluation[], one: StepEvaluation): StepEvaluation | null {
  const at = steps.indexOf(one)
  const round = [...steps.slice(at + 1), ...steps.slice(0, at)]
  return round.find((other) => !other.done && other.verdict !== 'held-back') ?? steps[at + 1] ?? null
}

/** Where the first matter is answered that has no class yet, else the first. */
function lookAtFound(): void {
  const matter = document.querySelector('.matter[data-as=""]') ?? document.querySelector('.matter')
  matter?.querySelector<HTMLElement>('input')?.focus({ preventScroll: true })
  intoSight(matter)
}

// Only where somebody compares, asks back, or looks at what stood before.
const FoundHere = lazy(() => import('./FoundHere').then((module) => ({ default: module.FoundHere })))
const AskedBack = lazy(() => import('./AskedBack').then((module) => ({ default: module.AskedBack })))
const Compare = lazy(() => import('../compare/Compare').then((module) => ({ default: module.Compare })))

/** Parts of a sweep come one after another, as a tracer sends them. */
const BETWEEN_PARTS_ms = 60
const TOOL = 'upstand.instrument.'
const toolKey = (one: StepEvaluation): string =>
  `${TOOL}${acKinds.has(one.part.data.kind) ? 'ac.' : ''}${measuredBy(one.step)}`
/** Conditions typed by hand hold for the steps that follow, until live ones are asked for again. */
const typedConditions = new Map<string, Conditions | WithoutMeter>()
const isWithout = (typed: Conditions | WithoutMeter | null): typed is WithoutMeter =>
  typed !== null && !('irradiance' in typed)

/** One step: the bench, what stands beside it, and its dialogs. */
export function RunStep(props: Props) {
  const { store, snapshot, facts, evaluation, live, feed, now, one, walked, narrow, open } = props
  const measures = measuredBy(one.step)
  const canWrite = snapshot.right !== 'viewer' && !snapshot.notSaved
  const kit = kitFor(evaluation, one, measures, now)
  const [tool, setTool] = useState<string | null>(() => {
    const kept = localStorage.getItem(toolKey(one))
    return kit.find((one) => one.id === kept)?.id ?? kit[0]?.id ?? null
  })
  const [dialog, setDialog] = useState<Dialog>(null)
  const [opened] = useState(() => store.officeTime())
  const [view, setView] = useState<'step' | 'compare'>('step')
  const mayCompare = isRead(one.step) && one.step.compared !== undefined && evaluation.plant.ofKind('string').length > 1
  useKeys({ v: () => mayCompare && setView(view === 'step' ? 'compare' : 'step') })
  const [typed, setTyped] = useState<Conditions | WithoutMeter | null>(() => typedConditions.get(store.jobId) ?? null)
  const [look, setLook] = useState<Look>({ body: null, judgement: null })
  const onLook = useCallback((next: Look) => setLook(next), [])
  const mounting = evaluation.plant.arrayOf(one.part)?.data.mounting ?? 'open-rack'
  const fromFeed = useMemo(
    () => conditionsNow(live, facts.instruments, mounting, now),
    [live, facts.instruments, mounting, now],
  )
  const known = useMemo(() => withoutMeter(evaluation, one), [evaluation, one])
  const without = isWithout(typed) ? typed : typed || fromFeed ? null : known
  const conditions = isWithout(typed) ? null : (typed ?? fromFeed)
  const conditionsRef = useRef(conditions)
  conditionsRef.current = conditions

  const about = { partId: one.part.id, step: one.step.id }
  const at = walked.indexOf(one)
  const after = following(walked, one)
  const nulling = evaluation.steps.find(({ step }) => isRead(step) && step.nulls)

  const here = useMemo(() => foundIn(evaluation), [evaluation]).filter(
    ({ step, partId }) => step === one.step.id && partId === one.part.id,
  )
  const actions: BenchActions = {
    keep: async (body) => {
      // One reading of a group is kept on each part of it, and says so there by its set-up.
      return store.addAll([{ body, about }, ...sharedEntries(evaluation, one, body)])
    },
    next: () => (after ? open(after) : window.location.assign(`#${store.jobId}/record`)),
    isLast: after === null,
    back: () => open(walked[at - 1] ?? null),
    leaveOut: () => setDialog({ kind: 'left-out' }),
    override: (gate) => setDialog({ kind: 'override', gate }),
    confirmPlant: () => void store.add({ kind: 'confirmation', v: 1, of: 'plant-changed', note: null }, about),
    typeConditions: () => setDialog({ kind: 'conditions' }),
    noteThen: (keep) => setDialog({ kind: 'note', keep }),
    guide: () => window.location.assign(`#${[store.jobId, 'trips', one.step.id, one.part.id].join('/')}`),
    sequence: () => {
      const found = facts.instruments.find((one) => one.id === tool)
      if (found?.standIn) setDialog({ kind: 'sequence', tool: found })
    },
    mend: () => {
      const open = evaluation.snags.find(
        (snag) => snag.step === one.step.id && snag.partId === one.part.id && snag.state === 'open',
      )
      setDialog(open ? { kind: 'remedy', snag: open.entryId } : { kind: 'snag' })
    },
    found: here.length > 0 ? { isClassed: here.every((matter) => matter.as !== null), look: lookAtFound } : null,
    nullLeads: nulling ? () => open(nulling) : null,
    press: async (instrumentId, pressedFor, setting) => {
      const wanted = { measures: pressedFor, setting, instrumentId }
      // Whoever opens another step meanwhile does not find it there.
      const receivedAt = new Date(store.officeTime()).toISOString()
      const samples = await pressForAll(store, facts, evaluation, one, wanted)
      if (typeof samples === 'string') return samples
      for (const [k, sample] of samples.entries()) {
        if (k > 0) await new Promise((resolve) => setTimeout(resolve, BETWEEN_PARTS_ms))
        feed.take([{ ...sample, receivedAt }])
      }
      return null
    },
    keepCurves: (bodies) =>
      store.addAll(bodies.map(({ partId, body }) => ({ body, about: { partId, step: one.step.id } }))),
    remark: (text) => void store.add({ kind: 'remark', v: 1, text }, about),
  }
  const signed = evaluation.signatures.length > 0
  const canVoid = (reading: ReadingEvaluation): boolean =>
    canWrite && (snapshot.right === 'supervisor' || (reading.entry.personId === store.me.id && !signed))
  const photos = <Photos store={store} facts={facts} evaluation={evaluation} one={one} canWrite={canWrite} />
  const side = {
    photos,
    facts,
    evaluation,
    one,
    look,
    meId: store.me.id,
    canVoid,
    onVoid: (reading: ReadingEvaluation) => setDialog({ kind: 'void', target: reading.entry.id }),
    onChoose: (reading: ReadingEvaluation) =>
      void store.add({ kind: 'choice', v: 1, target: reading.entry.id, reason: null }, about),
    onOpen: open,
  }
  const snagOn = (other: StepEvaluation, text: string): void =>
    void store.add({ kind: 'snag', v: 1, text }, { partId: other.part.id, step: other.step.id })
  const setTypedOf = (next: Conditions | WithoutMeter | null): void => {
    if (next) typedConditions.set(store.jobId, next)
    else typedConditions.delete(store.jobId)
    setTyped(next)
  }

  const questions = evaluation.questions.filter((asked) => stepKey(asked.step, asked.partId) === one.key)
  // Whoever checks asks about what another read, one question after the other.
  const mayAsk =
    snapshot.right === 'supervisor' &&
    one.counting !== null &&
    one.counting.entry.personId !== store.me.id &&
    questions.every(({ answer }) => answer !== null)
  const asked = (questions.length > 0 || mayAsk) && (
    <Suspense>
      <AskedBack
        questions={questions}
        facts={facts}
        store={store}
        canWrite={canWrite}
        about={about}
        mayAsk={mayAsk ? sayCode('step', `${one.step.id}.short`) : null}
      />
    </Suspense>
  )

  const found = here.length > 0 && (
    <Suspense>
      <FoundHere found={here} store={store} canWrite={canWrite} marked={citesNational(facts.regime)} whereOf={null} />
    </Suspense>
  )

  const views = mayCompare && (
    <Radio.Group
      optionType="button"
      className="views"
      aria-label={say('view.name')}
      value={view}
      onChange={({ target }) => setView(target.value as 'step' | 'compare')}
      options={(['step', 'compare'] as const).map((value) => ({
        value,
        label: <span data-testid={`view-${value}`}>{say(`view.${value}`)}</span>,
      }))}
    />
  )
  if (view === 'compare')
    return (
      <>
        <Suspense fallback={<section className="bench" />}>
          <Compare
            evaluation={evaluation}
            one={one}
            views={views}
            open={(other) => (other.key === one.key ? setView('step') : open(other))}
            onSnag={canWrite ? snagOn : null}
          />
        </Suspense>
        {/* biome-ignore lint/a11y/noNoninteractiveTabindex: it scrolls, also by keyboard */}
        <aside className="margin desk" aria-label={say('side.name')} tabIndex={0}>
          {!narrow && <Side {...side} />}
        </aside>
      </>
    )

  return (
    <>
      <Bench
        views={views}
        // With nothing asked yet there is only the button: beside the title, where it takes no room from the reading.
        askBack={questions.length === 0 && !narrow ? asked : null}
        asked={questions.length > 0 || narrow ? asked : null}
        found={found}
        facts={facts}
        evaluation={evaluation}
        one={one}
        stepNumber={say('bench.step', { order: one.step.order, at: at + 1, total: walked.length })}
        canWrite={canWrite}
        conditions={conditions}
        without={without}
        latest={live.latest}
        watched={live.watched}
        opened={opened}
        instrumentId={tool}
        setInstrument={(id) => {
          localStorage.setItem(toolKey(one), id)
          setTool(id)
        }}
        actions={actions}
        drafts={props.drafts}
        onLook={onLook}
        side={narrow ? <Side {...side} tabs /> : null}
      />
      {/* biome-ignore lint/a11y/noNoninteractiveTabindex: it scrolls, also by keyboard */}
      <aside className="margin desk" aria-label={say('side.name')} tabIndex={0}>
        {!narrow && <Side {...side} />}
      </aside>
      <RunDialogs
        dialog={dialog}
        setDialog={setDialog}
        store={store}
        facts={facts}
        evaluation={evaluation}
        one={one}
        about={about}
        mounting={mounting}
        hasLive={fromFeed !== null}
        setTyped={setTypedOf}
        open={open}
        conditionsNow={() => conditionsRef.current}
        onHeard={(sample) => feed.take([{ ...sample, old: true }])}
      />
    </>
  )
}
