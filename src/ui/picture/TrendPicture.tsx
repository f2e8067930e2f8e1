'use client'
import { useMemo } from 'react'
import type { TrendPicture as Data } from '@/core/steps/picture'
import { quantity, say } from '@/words/say'
import { Chart } from '../chart/Chart'
import { usePalette } from '../chart/palette'
import { changeText } from '@/report/drawing/trend'
import { trendFigures, trendMarks, trendOption } from './trendOption'

const HIGH = 200

/** Readings of one part over the years, with what was noted beside each. */
export function TrendPicture({ picture, timeZone }: { picture: Data; timeZone: string }) {
  const palette = usePalette()
  const option = useMemo(() => trendOption(picture, timeZone, palette), [picture, timeZone, palette])
  const { points, unit, decimals, limit, change } = picture
  const hints = [
    change ? changeText(change, timeZone) : '',
    limit === null ? '' : say('picture.trend-limit', { limit: quantity(limit, unit, decimals) }),
    points.every((one) => one.alike) ? '' : say('picture.trend-other'),
  ].filter(Boolean)
  return (
    <>
      {hints.length > 0 && <p className="src">{hints.join(' · ')}</p>}
      <Chart
        name="trend"
        option={option}
        height={HIGH}
        label={say('picture.trend', { count: points.length, last: quantity(points.at(-1)!.value, unit, decimals) })}
        marks={trendMarks(picture, timeZone)}
        figures={trendFigures(picture, timeZone)}
      />
    </>
  )
}
