'use client'
import { useMemo } from 'react'
import type { TimesPicture as Data } from '@/core/steps/picture'
import { say } from '@/words/say'
import { Chart } from '../chart/Chart'
import { usePalette } from '../chart/palette'
import { timesFigures, timesMarks, timesOption } from './timesOption'

const HIGH = 250

/** Time against current: limits as bars across their lanes, own trips as marks, those of twins as rings. */
export function TimesPicture({ picture, tag }: { picture: Data; tag: string }) {
  const palette = usePalette()
  const option = useMemo(() => timesOption(picture, tag, palette), [picture, tag, palette])
  return (
    <Chart
      option={option}
      height={HIGH}
      label={say('picture.times', { trips: picture.trips.length })}
      marks={timesMarks(picture, tag)}
      name="times"
      figures={timesFigures(picture, tag)}
    />
  )
}
