'use client'
import '@/words/compare'
import { Button, Table } from 'antd'
import { type KeyboardEvent, lazy, type ReactNode, Suspense, useMemo, useRef, useState } from 'react'
import { type Alike, oddestOf, type Strip, stripsOf } from '@/core/evaluation/comparing'
import type { Evaluation, StepEvaluation } from '@/core/evaluation/types'
import { figure, partName, quantity, say, sayCode } from '@/words/say'
import { Mark } from '../mark/Mark'
import { useSize } from '../shell/useSize'
import { gapText } from '@/report/gapText'
import { StripPlot } from './StripPlot'

const ReasonDialog = lazy(() => import('../shell/ReasonDialog').then((module) => ({ default: module.ReasonDialog })))

type Props = {
  evaluation: Evaluation
  one: StepEvaluation
  /** The choice between the step and this. */
  views: ReactNode
  open(one: StepEvaluation): void
  /** Writes a snag of one of them down; null for whoever only looks. */
  onSnag: ((one: StepEvaluation, text: string) => void) | null
}

/** All alike strings side by side, test by test, brought to the same conditions; the odd ones named with what they lack. */
export function Compare({ evaluation, one, views, open, onSnag }: Props) {
  const strips = useMemo(() => stripsOf(evaluation, one.part), [evaluation, one.part])
  const odd = oddestOf(strips)
  const [at, setAt] = useState<string>(odd?.member.key ?? one.key)
  const [snagging, setSnagging] = useState(false)
  const frame = useRef<HTMLDivElement>(null)
  const { width } = useSize(frame)
  const here = strips.flatMap(({ members }) => members).find(({ key }) => key === at) ?? null
  const openKey = (key: string): void => {
    const found = evaluation.byKey.get(key)
    if (found) open(found)
  }
  const focus = (key: string): void => {
    setAt(key)
    frame.current?.querySelector<SVGGElement>(`[data-alike="${key}"]`)?.focus()
  }
  const snag = (text: string): void => {
    const found = here && evaluation.byKey.get(here.key)
    if (found) onSnag?.(found, text)
    setSnagging(false)
  }
  const onKey = (event: KeyboardEvent): void => {
    if (event.key === 's' && onSnag && here) {
      event.preventDefault()
      event.stopPropagation()
      setSnagging(true)
      return
    }
    const to = neighbour(strips, at, event.key)
    if (!to) return
    event.preventDefault()
    focus(to)
  }
  return (
    <section className="bench compare" aria-labelledby="compare-title" data-testid="compare">
      <div className="ttl">
        <div>
          <h1 id="compare-title">{titleOf(strips, odd)}</h1>
          <p>{say(strips.some(({ asRead }) => asRead) ? 'compare.about-read' : 'compare.about')}</p>
        </div>
        {views}
      </div>
      {strips.length === 0 && <p className="quiet">{say('compare.none')}</p>}
      {/* biome-ignore lint/a11y/noStaticElementInteractions: keys of the strips inside it */}
      <div ref={frame} onKeyDown={onKey}>
        {width > 0 &&
          strips.map((strip) => (
            <div key={strip.step.id} className="alike-strip">
              <div className="alike-head">
                <b>{sayCode('step', `${strip.step.id}.short`)}</b>
                <span className="small quiet">{scaleText(strip)}</span>
              </div>
              <StripPlot strip={strip} width={Math.max(260, width)} at={at} onAt={setAt} onOpen={openKey} />
            </div>
          ))}
      </div>
      {strips.length > 0 && <Figures strips={strips} onOpen={openKey} />}
      {here && (
        <div className="dock">
          <div className="acts">
            <Button type="primary" onClick={() => openKey(here.key)} data-testid="compare-open">
              {say('compare.open', { tag: here.part.data.tag })} <kbd>↵</kbd>
            </Button>
            {onSnag && (
              <Button onClick={() => setSnagging(true)} data-testid="compare-snag">
                {say('compare.snag')} <kbd>S</kbd>
              </Button>
            )}
            <span className="hint">{say('compare.keys')}</span>
          </div>
        </div>
      )}
      {snagging && here && (
        <Suspense>
          <ReasonDialog
            title={say('reason.snag.title', { part: partName(here.part) })}
            about={say('reason.snag.about')}
            label={say('reason.snag.label')}
            action={say('reason.snag.action')}
            onClose={() => setSnagging(false)}
            onKeep={snag}
          />
        </Suspense>
      )}
    </section>
  )
}

function titleOf(strips: readonly Strip[], odd: ReturnType<typeof oddestOf>): string {
  if (!odd) return say('compare.agree', { count: strips[0]?.members.length ?? 0 })
  const { strip, member } = odd
  const what = sayCode('step', `${strip.step.id}.short`)
  return say('compare.title', { what, tag: member.part.data.tag, gap: gapText(member.gap) })
}

const DECIMALS: Partial<Record<string, number>> = { A: 2, W: 0 }
const figureText = ({ value, unit }: Alike['figure']): string => quantity(value, unit, DECIMALS[unit] ?? 1)

function scaleText({ unit, middle, members }: Strip): string {
  if (unit !== 'pct') return say('compare.own-scale', { unit })
  const count = members.length
  return middle
    ? say('compare.of-middle', { count, value: figureText(middle) })
    : say('compare.of-middle-unlike', { count })
}

/** The next along a strip, or the same string on the next strip. */
function neighbour(strips: readonly Strip[], at: string, key: string): string | null {
  const row = strips.findIndex(({ members }) => members.some((one) => one.key === at))
  if (row < 0) return null
  const { members } = strips[row]!
  const k = members.findIndex((one) => one.key === at)
  if (key === 'ArrowRight') return members[k + 1]?.key ?? null
  if (key === 'ArrowLeft') return members[k - 1]?.key ?? null
  if (key !== 'ArrowDown' && key !== 'ArrowUp') return null
  const other = strips[row + (key === 'ArrowDown' ? 1 : -1)]
  const same = other?.members.find((one) => one.part.id === members[k]!.part.id)
  return same?.key ?? other?.members[0]?.key ?? null
}

/** The same figures as a table, for those who cannot see the rings and those who want the numbers. */
function Figures({ strips, onOpen }: { strips: readonly Strip[]; onOpen(key: string): void }) {
  const parts = [
    ...new Map(strips.flatMap(({ members }) => members.map(({ part }) => [part.id, part] as const))).values(),
  ]
  const cell = (strip: Strip, partId: string): ReactNode => {
    const own = strip.members.find(({ part }) => part.id === partId)
    if (!own) return null
    return (
      <Button type="text" size="small" className="alike" onClick={() => onOpen(own.key)}>
        <Mark verdict={own.verdict} size={16} named={false} /> {figureText(own.figure)}
        {strip.unit === 'pct' && <span className="quiet"> {figure(own.value - 100, 1, true)} %</span>}
      </Button>
    )
  }
  return (
    <Table
      size="small"
      className="alikes"
      pagination={false}
      virtual={parts.length > 60}
      {...(parts.length > 60 ? { scroll: { y: 400, x: 560 } } : {})}
      rowKey="id"
      dataSource={parts}
      columns={[
        { key: 'tag', title: say('compare.string'), width: 90, render: (_, part) => <b>{part.data.tag}</b> },
        ...strips.map((strip) => ({
          key: strip.step.id,
          title: sayCode('step', `${strip.step.id}.short`),
          render: (_: unknown, part: (typeof parts)[number]) => cell(strip, part.id),
        })),
      ]}
    />
  )
}
