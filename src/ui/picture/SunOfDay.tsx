'use client'
import { useMemo } from 'react'
import type { SunPoint } from '@/core/evaluation/sunOfDay'
import { say } from '@/words/say'
import { Chart } from '../chart/Chart'
import { usePalette } from '../chart/palette'
import { drawnOf, sunAbout, sunFigures, sunMarks, sunOption } from './sunOption'

const HIGH = 210

/** Light and warmth of the day with what was read under them: those of this test by their marks, others as rings. */
export function SunOfDay({ points, timeZone }: { points: readonly SunPoint[]; timeZone: string }) {
  const palette = usePalette()
  const drawn = useMemo(() => drawnOf(points), [points])
  const option = useMemo(() => sunOption(drawn, timeZone, palette), [drawn, timeZone, palette])
  return (
    <section className="note" aria-labelledby="side-sun">
      <h2 id="side-sun">{say('sun.title')}</h2>
      <p className="src">{sunAbout(points)}</p>
      <Chart
        name="sun"
        option={option}
        height={HIGH}
        label={`${say('sun.title')}: ${sunAbout(points)}`}
        marks={sunMarks(drawn, timeZone)}
        figures={sunFigures(points, timeZone)}
      />
    </section>
  )
}
