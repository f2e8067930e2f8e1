'use client'
import '@/words/charts'
import { type KeyboardEvent, useEffect, useRef, useState } from 'react'
import { say } from '@/words/say'
import { type ChartFigures, FiguresTable } from './FiguresTable'
import { type ChartOption, type EChartsType, init } from './echarts'

/** A mark that the cursor can stand on. */
export type ChartMark = { series: number; index: number; says: string }

type Props = {
  option: ChartOption
  height: number
  /** The whole in one sentence. */
  label: string
  /** Marks in the order in which the arrow keys go through them. */
  marks: readonly ChartMark[]
  /** Which picture it is. */
  name?: string
  /** The same figures as a table. */
  figures?: ChartFigures
}

/** A chart as everything else here is drawn: as vectors, without motion, by keyboard too. */
export function Chart({ option, height, label, marks, name, figures }: Props) {
  const box = useRef<HTMLDivElement>(null)
  const chart = useRef<EChartsType | null>(null)
  const [at, setAt] = useState(-1)
  useEffect(() => {
    const made = init(box.current!, null, { renderer: 'svg' })
    chart.current = made
    const watch = new ResizeObserver(() => made.resize())
    watch.observe(box.current!)
    return () => {
      watch.disconnect()
      made.dispose()
    }
  }, [])
  useEffect(() => {
    chart.current?.setOption(option, { notMerge: true })
  }, [option])

  const goTo = (next: number): void => {
    const mark = marks[next]
    setAt(mark ? next : -1)
    chart.current?.dispatchAction(
      mark ? { type: 'showTip', seriesIndex: mark.series, dataIndex: mark.index } : { type: 'hideTip' },
    )
  }
  const onKey = (event: KeyboardEvent): void => {
    if (marks.length === 0) return
    if (event.key === 'ArrowRight') goTo((at + 1) % marks.length)
    else if (event.key === 'ArrowLeft') goTo((at <= 0 ? marks.length : at) - 1)
    else if (event.key === 'Escape' && at >= 0) goTo(-1)
    else return
    event.preventDefault()
    event.stopPropagation()
  }
  return (
    <>
      <div
        className="chart"
        role="img"
        aria-label={`${label}. ${say('chart.keys')}`}
        // biome-ignore lint/a11y/noNoninteractiveTabindex: the arrow keys go from mark to mark
        tabIndex={0}
        onKeyDown={onKey}
        data-picture={name}
      >
        <div ref={box} style={{ height }} />
      </div>
      <p className="hidden" role="status">
        {marks[at]?.says ?? ''}
      </p>
      {figures && <FiguresTable figures={figures} />}
    </>
  )
}
