'use client'
import { Button } from 'antd'
import { lazy, type ReactNode, Suspense, useMemo } from 'react'
import { causes, linesOf, picturesOf, soundOf, stepKey, toExplain } from '@/core/evaluate'
import { sunOf } from '@/core/evaluation/sunOfDay'
import type { Evaluation, ReadingEvaluation, StepEvaluation } from '@/core/evaluation/types'
import { kindOf } from '@/core/plant/kinds'
import type { Facts } from '@/core/record/facts'
import { isRead, neededFor, NOTHING_READ } from '@/core/steps/step'
import type { Cause } from '@/core/verdict/cause'
import { figure, say, sayCode, sayFinding } from '@/words/say'
import { Mark } from '../mark/Mark'
import { readingText } from '@/words/reading'
import type { Look } from '../bench/types'
import { moment } from '../shell/time'
import { useCauses } from '../curve/useCauses'
import { Help } from '../help/Help'
import { PlannerSection } from '../planner/PlannerSection'
import { Working } from '../working/Working'

// A picture comes with the first step that wants one.
const StepPicture = lazy(() => import('../picture/StepPicture').then((module) => ({ default: module.StepPicture })))

// Only where light is read.
const SunOfDay = lazy(() => import('../picture/SunOfDay').then((module) => ({ default: module.SunOfDay })))

// Only on a narrow screen, and only while causes are sought.
const SideTabs = lazy(() => import('./SideTabs').then((module) => ({ default: module.SideTabs })))
const Explaining = lazy(() => import('./Explaining').then((module) => ({ default: module.Explaining })))

// Only where there are twins.
const Beside = lazy(() => import('./Beside').then((module) => ({ default: module.Beside })))

type Props = {
  facts: Facts
  evaluation: Evaluation
  one: StepEvaluation
  /** What is being taken, else the reading which counts is shown. */
  look: Look
  meId: string
  /** Pictures of the step, and taking one. */
  photos: ReactNode
  canVoid(reading: ReadingEvaluation): boolean
  onVoid(reading: ReadingEvaluation): void
  onChoose(reading: ReadingEvaluation): void
  onOpen(one: StepEvaluation): void
}

const panels = ['working', 'wrong', 'earlier'] as const
type Panel = (typeof panels)[number]

function panelOf(panel: Panel, props: Props): ReactNode {
  if (panel === 'working') return <WorkingPanel {...props} />
  if (panel === 'wrong') return <CausesPanel {...props} />
  return (
    <>
      <EarlierPanel {...props} />
      <BesidePanel {...props} />
      <SunPanel {...props} />
    </>
  )
}

/** Arithmetic, causes and earlier readings beside the bench; below 1000 px wide they are tabs. */
export function Side(props: Props & { tabs?: boolean }) {
  if (!props.tabs) {
    // What is close or outside is explained before its sum is.
    const wrong =
      !props.look.body &&
      (causes(props.evaluation, props.one).length > 0 || toExplain(props.evaluation, props.one) !== null)
    return (
      <>
        {wrong && <CausesPanel {...props} />}
        <WorkingPanel {...props} />
        {!wrong && <CausesPanel {...props} />}
        <BesidePanel {...props} />
        <SunPanel {...props} />
        {props.photos}
        <EarlierPanel {...props} />
      </>
    )
  }
  return (
    <div className="side">
      <Suspense>
        <SideTabs panels={panels.map((key) => ({ key, label: say(`side.${key}`), children: panelOf(key, props) }))} />
      </Suspense>
      {props.photos}
    </div>
  )
}

function WorkingPanel({ facts, evaluation, one, look }: Props) {
  const body = look.body ?? one.counting?.entry.body ?? NOTHING_READ
  const pictures = useMemo(() => picturesOf(evaluation, one, body), [evaluation, one, body])
  return (
    <section className="note" aria-labelledby="side-working">
      <h2 id="side-working">
        {say('side.working')} <span>{one.step.order}</span>
      </h2>
      <Working lines={look.judgement ? look.judgement.lines : linesOf(evaluation, one)} />
      <Help evaluation={evaluation} one={one} judgement={look.judgement ?? one.judgement} />
      <PlannerSection one={one} />
      {pictures.length > 0 && (
        <Suspense>
          {pictures.map((picture) => (
            <StepPicture key={picture.kind} picture={picture} tag={one.part.data.tag} timeZone={facts.job.timeZone} />
          ))}
        </Suspense>
      )}
    </section>
  )
}

/** Whether there are parts alike to hold this one beside. */
const hasTwins = ({ plant, byKey }: Evaluation, { step, part: { data } }: StepEvaluation): boolean =>
  kindOf(data.kind).hasSheet === true &&
  plant.ofKind(data.kind).filter((one) => byKey.has(stepKey(step.id, one.id))).length > 1

const BesidePanel = ({ evaluation, one }: Props) =>
  hasTwins(evaluation, one) ? (
    <Suspense>
      <Beside evaluation={evaluation} one={one} />
    </Suspense>
  ) : null

/** Fewer moments tell nothing of a day. */
const LEAST_MOMENTS = 2

function SunPanel({ facts, evaluation, one }: Props) {
  const points = useMemo(() => sunOf(evaluation, one), [evaluation, one])
  return points.length < LEAST_MOMENTS ? null : (
    <Suspense>
      <SunOfDay points={points} timeZone={facts.job.timeZone} />
    </Suspense>
  )
}

function fitWords(cause: Cause): string {
  if (cause.fit !== 'does-not-fit') {
    const { sure_pct } = cause.figures
    const words = sayCode('fit', cause.fit)
    return sure_pct === undefined ? words : `${words}, ${say('curve.sure', { sure_pct })}`
  }
  if (cause.figures.needed_C !== undefined) return sayCode('fit', 'needs_C', cause.figures)
  if (cause.figures.predicted !== undefined) return sayCode('fit', 'needs_V', cause.figures)
  return sayCode('fit', cause.fit)
}

/** Tests that are asked for only because this one is low: each is one press away. */
function Hunts({ evaluation, one, onOpen }: Pick<Props, 'evaluation' | 'one' | 'onOpen'>) {
  const hunts = evaluation.steps.filter(({ step, part }) => part === one.part && neededFor(step).includes(one.step.id))
  return hunts.map((hunt) => (
    <Button key={hunt.key} className="small" data-testid="hunt" onClick={() => onOpen(hunt)}>
      {sayCode('step', `${hunt.step.id}.title`, { tag: hunt.part.data.tag })}
    </Button>
  ))
}

function CausesPanel({ evaluation, one, look, onOpen }: Props) {
  const found = useCauses(evaluation, one)
  const list = look.body ? [] : found.list
  const hasSound = !look.body && soundOf(evaluation, one).length > 0
  return (
    <section className="note" aria-labelledby="side-wrong">
      <h2 id="side-wrong">
        {say('side.wrong')} <span>{list.length > 0 ? say('side.likeliest') : ''}</span>
      </h2>
      {list.length === 0 ? (
        found.working !== null && !look.body ? (
          <Suspense>
            <Explaining share={found.working} onStop={found.cancel} />
          </Suspense>
        ) : (
          !hasSound && (
            <p className="src">
              {say(look.judgement?.verdict === 'outside' ? 'side.keep-first' : 'side.nothing-wrong')}
            </p>
          )
        )
      ) : (
        <ol className="why" data-testid="causes">
          {list.map((cause, k) => (
            <li key={cause.code} className={cause.fit === 'does-not-fit' ? 'no' : ''}>
              <span className="n">{k + 1}</span>
              <div>
                <div className="hd">
                  <b>{sayCode('cause', cause.code, cause.figures)}</b>
                  <span className={`fit ${cause.fit === 'fits' ? 't-within' : ''}`}>{fitWords(cause)}</span>
                </div>
                {k === 0 && cause.figures.canTell === 0 && <p className="t-close">{say('curve.cannot-tell')}</p>}
                {cause.fit !== 'does-not-fit' && <p>{sayCode('next', cause.next.code, cause.next.figures)}</p>}
              </div>
            </li>
          ))}
        </ol>
      )}
      {!look.body && <Hunts evaluation={evaluation} one={one} onOpen={onOpen} />}
      {!look.body && <Sound evaluation={evaluation} one={one} />}
    </section>
  )
}

/** What looks wrong and is not, with its figure. */
function Sound({ evaluation, one }: Pick<Props, 'evaluation' | 'one'>) {
  const all = soundOf(evaluation, one)
  if (all.length === 0) return null
  return (
    <div data-testid="sound">
      <p className="small">
        <b>{say('side.sound')}</b>
      </p>
      {all.map((finding) => (
        <p key={finding.code}>{sayFinding(finding)}</p>
      ))}
    </div>
  )
}

function EarlierPanel({ facts, one, meId, canVoid, onVoid, onChoose }: Props) {
  const text = (reading: ReadingEvaluation): string => readingText(one.step, reading.entry.body)
  const choosing = one.flags.includes('two-people')
  // What a reading came to does not change when it reaches the office: that is told by the entries.
  const unsent = new Set(facts.entries.filter((entry) => entry.receivedAt === null).map((entry) => entry.id))
  return (
    <section className="note" aria-labelledby="side-earlier">
      <h2 id="side-earlier">
        {say('side.earlier')}{' '}
        <span>{one.readings.some((reading) => reading.judgement.referred) ? say('side.at-stc') : ''}</span>
      </h2>
      {one.readings.length === 0 && <p className="src">{say('side.no-earlier')}</p>}
      {[...one.readings].reverse().map((reading) => {
        const who = facts.people.find((person) => person.id === reading.entry.personId)?.name ?? ''
        const { referred } = reading.judgement
        return (
          <div key={reading.entry.id} className="ins">
            <div className="hd">
              <span>
                <Mark verdict={reading.verdict} size={16} />{' '}
                <b style={reading.ended ? { textDecoration: 'line-through' } : undefined}>{text(reading)}</b>{' '}
                {moment(reading.at, facts.job.timeZone, Date.now())}
              </span>
              <span className="small">
                {referred ? `${figure(referred.value, 1)} ${figure(referred.difference_pct, 1, true)} %` : ''}
              </span>
            </div>
            <p className="src">
              {reading.entry.personId === meId ? say('side.you') : who}
              {reading === one.counting && one.readings.length > 1 ? `, ${say('side.counts')}` : ''}
              {reading.entry.body.instrument ? `, ${say('side.by', { tag: reading.entry.body.instrument.tag })}` : ''}
              {isRead(one.step) && reading.entry.body.place && reading.entry.body.place !== 'plugs'
                ? `, ${sayCode('place', reading.entry.body.place)}`
                : ''}
              {reading.flags.includes('stand-in') ? `, ${say('slot.simulated')}` : ''}
              {unsent.has(reading.entry.id) ? `, ${say('side.not-sent')}` : ''}
              {reading.ended ? `, ${say('side.ended', { reason: reading.ended.reason })}` : ''}
              {reading.entry.body.note ? `. “${reading.entry.body.note}”` : ''}
            </p>
            {!reading.ended && (choosing || canVoid(reading)) && (
              <div className="tools" style={{ display: 'flex', gap: 8 }}>
                {choosing && (
                  <Button className="small" onClick={() => onChoose(reading)}>
                    {say('action.choose')}
                  </Button>
                )}
                {canVoid(reading) && (
                  <Button className="small" onClick={() => onVoid(reading)}>
                    {say('action.void')}
                  </Button>
                )}
              </div>
            )}
          </div>
        )
      })}
    </section>
  )
}
