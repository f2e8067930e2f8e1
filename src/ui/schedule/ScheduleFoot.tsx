'use client'
import { Button } from 'antd'
import type { Evaluation, StepEvaluation } from '@/core/evaluation/types'
import type { Caution } from '@/core/steps/step'
import { type Flag, type Verdict, worstFirst } from '@/core/verdict/verdict'
import type { Judgement } from '@/core/verdict/judgement'
import type { WorkingLine } from '@/core/verdict/working'
import { resultText, say, sayCode, sayFinding, stepShort } from '@/words/say'
import { Cautions } from '../bench/Before'
import { Mark } from '../mark/Mark'
import { sourceName } from '@/words/sourceName'
import { shownText } from '../live/shownText'
import type { Row } from './model'
import { WhyHere } from './WhyHere'
import type { Drafts, Saying } from './useSchedule'
import type { Offered } from './useShown'

type Props = {
  one: StepEvaluation | null
  saying: Saying | null
  /** What was done, or could not be, a moment ago. */
  said: string | null
  evaluation: Evaluation
  /** What the test comes to as it stands, or should come to; null where nobody is in one. */
  judgement: Judgement | null
  rows: readonly Row[]
  drafts: Drafts
  mayKeepOf(one: StepEvaluation): boolean
  /** What must be minded before this test is read; null where it was. */
  before: { cautions: readonly Caution[]; ticked: readonly string[]; onTick(list: readonly string[]): void } | null
  /** The simulated tester that would read the figure somebody is in. */
  tester: string | null
  /** What a paired instrument shows for the figure somebody is in. */
  shown: { offered: Offered | null; listening: string | null; takeOffered(): void }
  instrumentTag(id: string): string
  onPress(): void
  onConfirm(code: string): void
  onEither(text: string): void
  onBench(one: StepEvaluation): void
}

/** At the foot: first what to mind, then what the cell comes to, its sum, and the way to the bench. */
export function ScheduleFoot(props: Props) {
  const { evaluation, one, saying, said, judgement, before, tester, shown, onPress, onConfirm, onEither, onBench } =
    props
  const told = tell(props)
  // A question is never hidden behind what was done a moment ago.
  const isAsking = Boolean(saying?.either || saying?.ask)
  if (before)
    return (
      <div className="sfoot gate" data-testid="schedule-gate">
        {said && (
          <p className="just" role="status">
            {said}
          </p>
        )}
        <b className="bandhd">{say('bench.before')}</b>
        <div className="chk">
          <Cautions cautions={before.cautions} ticked={before.ticked} onTick={before.onTick} />
        </div>
        {one && <ToBench one={one} onBench={onBench} />}
      </div>
    )
  return (
    <div className="sfoot">
      <section
        className={`verdict v-${told.verdict}`}
        role="status"
        data-testid="schedule-foot"
        data-verdict={told.verdict}
      >
        <Mark verdict={told.verdict} size={34} named={false} />
        <div>
          <h2 className={`t-${told.verdict}`}>{told.title}</h2>
          <p>
            {[said, isAsking || !said ? told.sentence : null].filter((each) => each !== null).join(' ')}
            {!said && told.flags.map((flag) => <small key={flag}> · {sayCode('flag', flag)}</small>)}
          </p>
        </div>
        <div className="asks">
          {saying?.either?.texts.map((text) => (
            <Button key={text} onMouseDown={stay} onClick={() => onEither(text)} data-testid="schedule-either">
              {text}
            </Button>
          ))}
          {saying?.ask && (
            <Button onMouseDown={stay} onClick={() => onConfirm(saying.ask!)} data-testid="schedule-confirm">
              {say('ask.keep')}
            </Button>
          )}
          {shown.offered && (
            <p className="shown" data-testid="schedule-offered">
              {say(shown.offered.isLate ? 'feed.came-before' : 'feed.shows', {
                tag: props.instrumentTag(shown.offered.sample.instrumentId),
                value: shownText(shown.offered.slot, shown.offered.sample),
              })}
              <Button onMouseDown={stay} onClick={shown.takeOffered}>
                {say('feed.take')}
              </Button>
            </p>
          )}
          {!tester && shown.listening && !shown.offered && (
            <small className="quiet">{say('schedule.listens', { tag: shown.listening })}</small>
          )}
          {tester && !isAsking && (
            <Button onMouseDown={stay} onClick={onPress} data-testid="schedule-press">
              {say('standin.press', { tag: tester })} <kbd>Alt P</kbd>
            </Button>
          )}
        </div>
      </section>
      <Sums lines={judgement?.lines ?? []} />
      {told.about && (
        <div className="ways">
          {one && judgement && <WhyHere key={one.key} evaluation={evaluation} one={one} judgement={judgement} />}
          <ToBench one={told.about} onBench={onBench} />
        </div>
      )}
    </div>
  )
}

/** The pen stays where it is. */
const stay = (event: { preventDefault(): void }): void => event.preventDefault()

function ToBench({ one, onBench }: { one: StepEvaluation; onBench(one: StepEvaluation): void }) {
  return (
    <Button className="tobench" onMouseDown={stay} onClick={() => onBench(one)} data-testid="schedule-bench">
      {say('schedule.on-bench')} <kbd>B</kbd>
    </Button>
  )
}

type Told = {
  verdict: Verdict
  title: string
  sentence: string
  /** What is said of it besides, wherever it is shown. */
  flags: readonly Flag[]
  about: StepEvaluation | null
}

/** What is said: of the cell that somebody is in, else of the worst that was read, else how far it has come. */
function tell({ one, saying, rows, drafts, mayKeepOf }: Props): Told {
  if (one) {
    const [verdict, sentence] = saying
      ? [saying.verdict, saying.said ?? say('schedule.goes-on')]
      : [one.verdict, sayFinding(one.finding)]
    const flags = saying?.flags ?? one.flags
    return { verdict, title: `${stepShort(one)}: ${say(`verdict.${verdict}`)}`, sentence, flags, about: one }
  }
  const all = rows.flatMap(({ byStep }) => [...byStep.values()])
  const bad = all
    .filter((each) => each.counting && each.verdict !== 'within')
    .sort((a, b) => worstFirst(a.verdict, b.verdict))[0]
  if (bad)
    return {
      verdict: bad.verdict,
      title: `${stepShort(bad)}: ${say(`verdict.${bad.verdict}`)}`,
      sentence: sayFinding(bad.finding),
      flags: bad.flags,
      about: bad,
    }
  const done = all.filter((each) => each.done).length
  const waiting = all.filter((each) => drafts[each.key] && !mayKeepOf(each)).length
  return {
    verdict: done === all.length && all.length > 0 ? 'within' : 'not-yet',
    title: say('schedule.so-far', { done, all: all.length }),
    sentence: say(waiting > 0 ? 'schedule.waiting' : 'schedule.about', { count: waiting }),
    flags: [],
    about: null,
  }
}

const MOST_LINES = 2

/** The lines that decide, with their sums and where they come from. */
function Sums({ lines }: { lines: readonly WorkingLine[] }) {
  const summed = lines.filter((line) => line.result)
  const deciding = summed.filter((line) => line.decides)
  const shown = [...deciding, ...summed.filter((line) => !line.decides)].slice(0, MOST_LINES)
  if (shown.length === 0) return null
  const source = shown.find((line) => line.source)?.source
  return (
    <div className="sums">
      <dl>
        {shown.map((line) => (
          <div key={line.code + JSON.stringify(line.figures)}>
            <dt>{sayCode('working', line.code, line.figures)}</dt>
            <dd>{resultText(line.result!)}</dd>
          </div>
        ))}
      </dl>
      {source && <small>{sourceName(source)}</small>}
    </div>
  )
}
