'use client'
import { Button } from 'antd'
import { lazy, Suspense, useEffect, useRef, useState } from 'react'
import { causes } from '@/core/evaluate'
import { choicesOf, isBesides, type NumberSlot, type Slot, slotsShown } from '@/core/steps/slot'
import { isRead, mayBeLeftOut, shownFor, wantsConditions } from '@/core/steps/step'
import type { Verdict } from '@/core/verdict/verdict'
import { measuredBy } from '@/core/steps/measuredBy'
import { toldApart } from '@/words/circuit'
import { verdictWord } from '@/words/reading'
import { say, sayCode } from '@/words/say'
import { shownText } from '../live/shownText'
import { Rule } from '../rule/Rule'
import { useKeys } from '../shell/keys'
import { clockTime } from '../shell/time'
import { Actions } from './Actions'
import { Before } from './Before'
import type { BenchProps } from './types'
import { ConditionsBox } from './ConditionsBox'
import { kitFor, isStarted } from './draft'
import { Keypad } from './Keypad'
import { useMinded } from './minded'
import { DecimalAsk, InstrumentCell, PlaceSelect, TagShape } from './pieces'
import { SlotBlocks } from './SlotBlocks'
import { intoSight, useDock } from './useDock'
import { usePanel } from './usePanel'
import { decimalsOf, expectedRule, sentenceOf, sistersOnRule } from './sentences'
import { type Taking, useTaking } from './useTaking'
import { VerdictBand } from './VerdictBand'

/** What a figure begins with. */
const FIGURE_KEYS = '0123456789.,<>-'

/** Only the live tests of the AC side have it. */
const Besides = lazy(() => import('./Besides').then((module) => ({ default: module.Besides })))

/** One test on one part: hook-up, cautions, slots, rule, verdict, and what to do. The same bench for every test. */
export function Bench(props: BenchProps) {
  const { facts, evaluation, one, actions, canWrite } = props
  const { step } = one
  const [padOpen, setPadOpen] = useState(false)
  /** Whether somebody wanted the drawing of the leads, or wanted it away; null while nobody said. */
  const [hookupAsked, askHookup] = useState<boolean | null>(null)
  const narrow = props.side !== null
  const dock = useDock()
  const minded = useMinded(evaluation, one.part)
  const taking = useTaking(props, minded)
  const { draft, state, live, trap, next, canKeep, ready } = taking
  const { shut } = one
  // Of several figures of one press the test's own is told.
  const late = taking.late?.find(({ slot }) => !isBesides(slot)) ?? taking.late?.[0] ?? null
  const kit = kitFor(evaluation, one, measuredBy(step), Date.now())
  const tool = kit.find((instrument) => instrument.id === props.instrumentId) ?? null
  const shown = taking.taking ? null : one.counting
  const verdict: Verdict = (taking.taking && state.judged?.verdict) || one.verdict
  const wanting = taking.taking && !canKeep && canWrite && !shut?.hard && !trap && next !== null
  /** The figure after the one that was just typed, so that no digit answers a question meanwhile. */
  const after = (): Slot | null => {
    const figures = shownSlots.filter((slot) => slot.kind === 'number')
    const at = figures.findIndex((slot) => slot.id === taking.active)
    return at < 0 ? null : (figures.slice(at + 1).find((slot) => !draft.texts[slot.id]) ?? null)
  }
  const begin = tool?.standIn && next?.measures ? () => void taking.press() : () => taking.goTo(after() ?? next)
  const main = canKeep ? () => void taking.keepNow() : wanting ? begin : actions.next
  const keepNoted = (): void => {
    if (canKeep) actions.noteThen((note) => void taking.keepNow(confirmedOf(taking), note))
  }
  const answered = shown ? choicesOf(shown.entry.body) : draft.choices
  const askedSlots = isRead(step)
    ? slotsShown(step, answered, { part: one.part, regime: facts.regime, plant: evaluation.plant })
    : []
  const besides = askedSlots.filter((slot): slot is NumberSlot => isBesides(slot))
  const { shownSlots, panel, seen } = usePanel({
    evaluation,
    one,
    taking,
    shown,
    askedSlots: besides.length > 0 ? askedSlots.filter((slot) => !isBesides(slot)) : askedSlots,
    tool,
    latest: props.latest,
    canWrite,
    actions,
  })
  // A kept curve is looked at, and wants the room of what was minded before it was swept.
  const isKeptCurve = shown !== null && askedSlots.some((slot) => slot.kind === 'curve')
  // Other leads by another method: the drawing and what to mind follow the answer.
  const { hookup, cautions } = shownFor(step, answered, { part: one.part, plant: evaluation.plant })
  const ticked = minded.ticked(hookup)
  // Known leads, a reading that is kept or a panel over the questions: the drawing comes when it is wanted.
  const isFolded = panel !== null || shown !== null || minded.isKnown(hookup, cautions)
  const hookupOpen = hookupAsked ?? !isFolded
  const tickAll = (): void => {
    const hard = cautions.filter((caution) => caution.hard).map(({ id }) => id)
    minded.tick(hookup, [...new Set([...ticked, ...hard])])
  }
  const active = shownSlots.find((slot) => slot.id === taking.active && slot.kind === 'number')
  const numbers = shownSlots.filter((slot) => slot.kind === 'number')
  const number =
    active ?? numbers.find((slot) => state.open.includes(slot)) ?? numbers.find((slot) => !draft.texts[slot.id])

  useKeys({
    Enter: main,
    r: () => canWrite && taking.again(),
    k: keepNoted,
    n: actions.next,
    b: actions.back,
    l: () => canWrite && mayBeLeftOut(step) && actions.leaveOut(),
    s: () => canWrite && actions.mend(),
    f: () => actions.found?.look(),
    a: () => canWrite && actions.sequence(),
    j: () => canWrite && isRead(step) && step.guide && !shut?.hard && actions.guide(),
    '/': () => setPadOpen((open) => !open),
    h: () => askHookup(!hookupOpen),
    y: () => canWrite && tickAll(),
    c: () => canWrite && actions.typeConditions(),
    p: () => void taking.press(),
    ...Object.fromEntries([...FIGURE_KEYS].map((key) => [key, () => taking.digit(key)])),
  })

  const rule = taking.taking ? (live?.judgement.rule ?? expectedRule(props)) : (one.judgement?.rule ?? null)
  const told = toldApart(one.part.data)
  const needsConditions = wantsConditions(step, one.part)

  const shownFlags = taking.taking ? (live?.flags ?? []) : one.flags
  const band = (
    <VerdictBand
      verdict={verdict}
      word={verdictWord(verdict, step)}
      sentence={sentenceOf(props, taking.taking, live, state.judged)}
      flags={shownFlags}
    >
      {taking.taking && shut && !shut.hard && canWrite && !live && (
        <Button className="small" onClick={() => actions.override(shut.id)}>
          {say('action.go-on')}
        </Button>
      )}
      {canWrite && actions.nullLeads && shownFlags.includes('leads-not-nulled') && (
        <Button className="small" data-testid="null-leads" onClick={actions.nullLeads}>
          {say('action.null-leads')}
        </Button>
      )}
    </VerdictBand>
  )
  // Held in a hand the keys come with the figure that is read; on a table when they are asked for.
  const pad = (padOpen || (narrow && active)) && taking.taking && number && canWrite && (
    <Keypad
      text={draft.texts[number.id] ?? ''}
      onText={(text) => taking.change({ texts: { ...draft.texts, [number.id]: text } })}
    />
  )
  // Whoever chose a row of the run sheet is on the bench now: Enter is its main action, and not the row once more.
  const title = useRef<HTMLHeadingElement>(null)
  useEffect(() => {
    if (document.activeElement?.closest('.stp')) title.current?.focus({ preventScroll: true })
    // The test before it may have been scrolled away from its own title.
    title.current?.closest('.ttl')?.scrollIntoView({ block: 'nearest' })
  }, [])
  const typedInto = pad ? `slot-${number.id}` : null
  useEffect(() => {
    if (typedInto) document.getElementById(typedInto)?.closest('.slot')?.scrollIntoView({ block: 'nearest' })
  }, [typedInto])
  const foot = (
    <Actions
      one={one}
      taking={taking}
      tool={tool}
      ready={ready}
      canWrite={canWrite}
      wanting={wanting}
      shutHard={shut?.hard === true}
      shownSlots={shownSlots}
      actions={actions}
      begin={begin}
      keepNoted={keepNoted}
    />
  )

  return (
    <section className="bench" aria-labelledby="bench-title" data-step={one.key} data-kept={shown ? '' : undefined}>
      <div className="ttl">
        <div>
          <h1 id="bench-title" ref={title} tabIndex={-1}>
            {sayCode('step', `${step.id}.title`, { tag: one.part.data.tag })}
          </h1>
          <p>
            <span className={`tag ${step.tag === 'dead' ? '' : 'live'}`}>
              <TagShape dead={step.tag === 'dead'} />
              {sayCode('tag', step.tag)}
            </span>
            <span>
              {props.stepNumber}. {told && <b>{told}.</b>} {sayCode('step', `${step.id}.about`)}
            </span>
          </p>
        </div>
        {props.askBack}
        {props.views}
      </div>
      {!isKeptCurve && (
        <Before
          hookup={hookup}
          part={one.part}
          cautions={cautions}
          ticked={ticked}
          onTick={(list) => minded.tick(hookup, list)}
          open={hookupOpen}
          onOpen={askHookup}
          onTickAll={tickAll}
          reading={taking.taking}
        />
      )}
      {taking.begun && (
        <p className="said" data-testid="begun">
          {say('bench.begun', { at: clockTime(taking.begun, facts.job.timeZone) })}
        </p>
      )}
      {props.asked}
      {panel}
      {seen}
      {isRead(step) && (
        <SlotBlocks
          slots={shownSlots}
          facts={facts}
          taking={taking}
          shown={shown}
          ready={ready}
          canWrite={canWrite}
          padOpen={padOpen}
          onPad={() => setPadOpen((open) => !open)}
        >
          {kit.length > 0 || measuredBy(step) ? (
            <InstrumentCell
              kit={kit}
              tool={tool}
              canWrite={canWrite}
              onTool={(id) => {
                props.setInstrument(id)
                taking.setTool(id)
              }}
            >
              {one.part.data.kind === 'string' && measuredBy(step) && (
                <PlaceSelect
                  place={shown ? shown.entry.body.place : draft.place}
                  readOnly={!canWrite || !taking.taking}
                  onPlace={taking.setPlace}
                />
              )}
            </InstrumentCell>
          ) : null}
          {needsConditions && (
            <ConditionsBox
              conditions={shown ? shown.entry.body.conditions : taking.at}
              module={one.part.data.kind === 'string' ? one.part.data.moduleType.data : null}
              without={
                shown
                  ? { air: shown.entry.body.air ?? null }
                  : taking.at
                    ? { air: taking.state.body?.air ?? null }
                    : props.without
              }
              taken={shown !== null || isStarted(draft)}
              apart_s={
                shown?.entry.body.conditions
                  ? Math.abs(Date.parse(shown.entry.body.conditions.at) - Date.parse(shown.entry.deviceTime)) / 1000
                  : null
              }
              onOpen={() => taking.taking && canWrite && actions.typeConditions()}
            />
          )}
        </SlotBlocks>
      )}
      {taking.saidPress && (
        <p className="said bad" role="alert">
          {taking.saidPress}
        </p>
      )}
      {late && (
        <div className="ask" ref={intoSight} role="status" data-testid="late">
          <p>
            {say('feed.came-before', {
              tag: facts.instruments.find(({ id }) => id === late.sample.instrumentId)?.tag ?? '',
              value: shownText(late.slot, late.sample),
            })}
          </p>
          <Button onClick={taking.takeLate}>{say('feed.take')}</Button>
        </div>
      )}
      {taking.taking &&
        shownSlots.map((slot) => (
          <DecimalAsk
            key={slot.id}
            draft={draft}
            state={state}
            slot={slot.id}
            onChoose={(text) => taking.change({ texts: { ...draft.texts, [slot.id]: text } })}
          />
        ))}
      {taking.confirming && state.check?.state === 'ask' && (
        <div className="ask" ref={intoSight} role="alert" data-testid="ask">
          <p>{sayCode('ask', state.check.code, state.check.figures)}</p>
          <Button onClick={() => void taking.keepNow(confirmedOf(taking))}>{say('ask.keep')}</Button>
          <Button onClick={taking.again}>{say('ask.correct')}</Button>
        </div>
      )}
      {rule && (
        <Rule
          rule={rule}
          verdict={verdict}
          decimals={decimalsOf(rule.unit)}
          ghosts={shown ? causes(evaluation, one).slice(0, 1) : []}
          others={sistersOnRule(evaluation, one, rule)}
        />
      )}
      {besides.length > 0 && (
        <Suspense>
          <Besides slots={besides} taking={taking} shown={shown} canWrite={canWrite} />
        </Suspense>
      )}
      {props.found}
      {props.side}
      <div className="dock" ref={dock}>
        {band}
        {pad}
        {foot}
      </div>
    </section>
  )
}

const confirmedOf = ({ state }: Taking): string[] => (state.check?.state === 'ask' ? [state.check.code] : [])
