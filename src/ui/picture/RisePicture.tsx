'use client'
import { useMemo } from 'react'
import type { RisePicture as Data } from '@/core/steps/picture'
import { riseText } from '@/report/drawing/rise'
import { say } from '@/words/say'
import { Chart } from '../chart/Chart'
import { usePalette } from '../chart/palette'
import { riseFigures, riseMarks, riseOption } from './riseOption'

const HIGH = 180

/** Insulation as it rose, stood or wandered while it was read. */
export function RisePicture({ picture }: { picture: Data }) {
  const palette = usePalette()
  const option = useMemo(() => riseOption(picture, palette), [picture, palette])
  const lines = picture.lines.map((line) => riseText(line, picture.unit))
  return (
    <>
      <h3>{say('rise.title')}</h3>
      {lines.map((one) => (
        <p key={one} className="small">
          {one}
        </p>
      ))}
      <Chart
        name="rise"
        option={option}
        height={HIGH}
        label={lines.join('. ')}
        marks={riseMarks(picture)}
        figures={riseFigures(picture)}
      />
      <p className="src">{say('rise.judged-not')}</p>
    </>
  )
}
