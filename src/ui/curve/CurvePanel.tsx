'use client'
import { Button, Checkbox, Progress, Segmented } from 'antd'
import { useMemo, useState } from 'react'
import { curveOf } from '@/core/curve/curveValue'
import { picturesOf } from '@/core/evaluate'
import type { Evaluation, ReadingEvaluation, StepEvaluation } from '@/core/evaluation/types'
import type { Conditions } from '@/core/record/entry'
import type { CurveSlot } from '@/core/steps/slot'
import { isRead, type Reading } from '@/core/steps/step'
import type { CurvePicture } from '@/core/steps/picture'
import { say } from '@/words/say'
import type { BenchActions } from '../bench/types'
import type { Taking } from '../bench/useTaking'
import { type Heard, isFresh } from '../live/liveFeed'
import { CurveChart } from './CurveChart'
import { CurveImport } from './CurveImport'
import { CurveTable } from './CurveTable'
import type { CurveView, OtherCurve } from './curveShape'
import { NOTHING_ASKED, WhatIf, type WhatIfState } from './WhatIf'
import { whatIfCurve } from './whatIfCurve'

type Props = {
  evaluation: Evaluation
  one: StepEvaluation
  slot: CurveSlot
  taking: Taking
  /** The kept reading which is shown, null while one is taken. */
  shown: ReadingEvaluation | null
  /** What the tracer sends, point by point. */
  heard: Heard | undefined
  canWrite: boolean
  actions: Pick<BenchActions, 'keepCurves' | 'remark'>
}

/** The picture of a curve that is kept or being taken; null where there is none. */
function pictureOf(evaluation: Evaluation, one: StepEvaluation, body: Reading | null): CurvePicture | null {
  const found = body && picturesOf(evaluation, one, body).find((picture) => picture.kind === 'curve')
  return found?.kind === 'curve' ? found : null
}

/** Sisters' kept curves, by their tags. */
function sistersOf(evaluation: Evaluation, one: StepEvaluation, at: CurveView['at']): OtherCurve[] {
  const { step } = one
  if (!isRead(step) || !step.sisterGroup) return []
  const group = step.sisterGroup(one.part)
  return evaluation.steps
    .filter(
      (other) => other.step === step && other !== one && other.counting && step.sisterGroup!(other.part) === group,
    )
    .flatMap((other) => {
      const picture = pictureOf(evaluation, other, other.counting!.entry.body)
      if (!picture) return []
      const points = at === 'stc' ? picture.atStc.measured : picture.measured
      return [{ tag: other.part.data.tag, points, isOdd: other.verdict === 'outside' }]
    })
}

/** Lights that a sound string is shown at, W/m2. */
const LIGHTS_Wm2 = [200, 400, 600, 800, 1000]

/** What a sound string gives by light, its cells as warm as they are. */
const familyOf = (evaluation: Evaluation, one: StepEvaluation, conditions: Conditions | null): OtherCurve[] =>
  LIGHTS_Wm2.flatMap((light) => {
    const points = whatIfCurve(evaluation, one, conditions, NOTHING_ASKED(one), light)
    return points ? [{ tag: `${light} W/m²`, points, isExpected: true as const }] : []
  })

/** A curve on the bench: drawn as it comes, over what it should be; with its sisters, carried, as a table, and asked about. */
export function CurvePanel({ evaluation, one, slot, taking, shown, heard, canWrite, actions }: Props) {
  const [view, setView] = useState<CurveView>({ at: 'swept', zoom: 'whole' })
  const [withSisters, setWithSisters] = useState(false)
  const [asTable, setAsTable] = useState(false)
  const [asked, setAsked] = useState<WhatIfState | null>(null)
  const [importing, setImporting] = useState<'file' | 'paste' | null>(null)
  const body = shown?.entry.body ?? taking.state.body
  const picture = useMemo(() => pictureOf(evaluation, one, body), [evaluation, one, body])
  const isComing = heard?.sweep !== undefined && !heard.sweep.done && !heard.old && isFresh(heard, Date.now())
  const sweeping = taking.taking && isComing ? heard.sweep!.points : null
  const live = useMemo(() => {
    if (!sweeping || sweeping.length < 3) return null
    const body = { ...taking.state.judged, slots: { [slot.id]: { curve: curveOf(sweeping) } }, conditions: taking.at }
    return { points: sweeping, body }
  }, [sweeping, slot.id, taking.at, taking.state.judged])
  const conditions = body?.conditions ?? taking.at
  const others = useMemo((): OtherCurve[] => {
    const { at } = view
    const sisters = withSisters ? sistersOf(evaluation, one, at) : []
    const family = at === 'family' ? familyOf(evaluation, one, conditions) : []
    const curve = asked && whatIfCurve(evaluation, one, conditions, asked, at === 'stc' ? 'stc' : 'swept')
    const dotted = curve ? [{ tag: say('curve.asked'), points: curve, isAsked: true as const }] : []
    return [...family, ...sisters, ...dotted]
  }, [evaluation, one, withSisters, view, asked, conditions])
  /** Swept under different light, they are held beside each other at one. */
  const overlay = (on: boolean): void => {
    setWithSisters(on)
    if (on) setView({ ...view, at: 'stc' })
  }
  const odd = others.filter(({ isOdd }) => isOdd).map(({ tag }) => tag)
  const hasSisters = useMemo(() => sistersOf(evaluation, one, 'swept').length > 0, [evaluation, one])
  const empty: CurvePicture | null = useMemo(
    () => bareOf(evaluation, one, taking, live?.points ?? []),
    [evaluation, one, taking, live],
  )
  /** Nothing stands on it yet: it wants a curve, and nothing can be asked about. */
  const isBare = taking.taking && canWrite && !picture
  const drawn = live ? empty : (picture ?? empty)
  return (
    <section className="curve" aria-label={say('curve.title')} data-testid="curve">
      <div className="curve-tools">
        <Segmented<CurveView['at']>
          aria-label={say('curve.title')}
          value={view.at}
          onChange={(at) => setView({ ...view, at })}
          options={[
            { value: 'swept', label: say('curve.as-swept') },
            { value: 'stc', label: say('curve.at-stc') },
            { value: 'family', label: say('curve.by-light') },
          ]}
        />
        <Checkbox
          checked={view.zoom === 'knee'}
          onChange={(event) => setView({ ...view, zoom: event.target.checked ? 'knee' : 'whole' })}
        >
          {say('curve.knee')}
        </Checkbox>
        {hasSisters && (
          <Checkbox checked={withSisters} onChange={(event) => overlay(event.target.checked)} data-testid="sisters">
            {say('curve.sisters')}
          </Checkbox>
        )}
        {isBare ? (
          <>
            <Button className="small" onClick={() => setImporting('file')} data-testid="curve-file">
              {say('curve.from-file')}
            </Button>
            <Button className="small" onClick={() => setImporting('paste')} data-testid="curve-paste">
              {say('curve.paste')}
            </Button>
          </>
        ) : (
          <>
            <Checkbox checked={asTable} onChange={(event) => setAsTable(event.target.checked)} data-testid="as-table">
              {say('curve.table')}
            </Checkbox>
            <Checkbox
              checked={asked !== null}
              onChange={(event) => setAsked(event.target.checked ? NOTHING_ASKED(one) : null)}
              data-testid="what-if"
            >
              {say('curve.what-if')}
            </Checkbox>
          </>
        )}
      </div>
      {asked && (
        <WhatIf one={one} state={asked} onState={setAsked} onRemark={canWrite && picture ? actions.remark : null} />
      )}
      {drawn &&
        (asTable && picture ? (
          <CurveTable picture={picture} at={view.at} evaluation={evaluation} one={one} />
        ) : (
          <CurveChart picture={drawn} view={view} others={others} />
        ))}
      {withSisters && (
        <p className="src" data-testid="odd-ones">
          {odd.length > 0 ? say('curve.odd', { tags: odd.join(', ') }) : say('curve.none-odd')}
        </p>
      )}
      {sweeping && (
        <Progress
          aria-label={say('curve.points-so-far', { count: sweeping.length })}
          percent={Math.min(99, Math.round((100 * sweeping.length) / USUAL_POINTS))}
          format={() => say('curve.points-so-far', { count: sweeping.length })}
        />
      )}
      {importing && (
        <CurveImport
          evaluation={evaluation}
          one={one}
          instrumentId={taking.draft.instrumentId}
          conditions={taking.at}
          begin={importing}
          onClose={() => setImporting(null)}
          onCurves={actions.keepCurves}
          onCurve={(curve, how, at) => {
            taking.takeCurve(slot, curve, how, at)
            setImporting(null)
          }}
        />
      )}
    </section>
  )
}

/** So many points come of most sweeps: how far one has come. */
const USUAL_POINTS = 120

/** What is expected, with the points so far; null where nothing can be expected. */
function bareOf(
  evaluation: Evaluation,
  one: StepEvaluation,
  taking: Taking,
  points: readonly (readonly [number, number])[],
): CurvePicture | null {
  const conditions = taking.at
  if (!conditions) return null
  const expected = whatIfCurve(evaluation, one, conditions, NOTHING_ASKED(one), 'swept')
  const atStc = whatIfCurve(evaluation, one, conditions, NOTHING_ASKED(one), 'stc')
  if (!expected || !atStc) return null
  return {
    kind: 'curve',
    measured: points,
    expected,
    atStc: { measured: [], expected: atStc },
    irradiance_Wm2: conditions.irradiance.read.value,
    cell_C: Number.NaN,
    voc_V: 0,
    isc_A: 0,
    vmp_V: 0,
    imp_A: 0,
    steps: [],
    top: null,
  }
}
