'use client'
import { useMemo } from 'react'
import type { CurvePicture } from '@/core/steps/picture'
import { say } from '@/words/say'
import { Chart } from '../chart/Chart'
import { usePalette } from '../chart/palette'
import { curveMarks, curveOption } from './curveOption'
import type { CurveView, OtherCurve } from './curveShape'

const HIGH = 318

type Props = { picture: CurvePicture; view: CurveView; others: readonly OtherCurve[] }

/** Current and power against voltage: measured in ink over the expected chain line, what is lost hatched. */
export function CurveChart({ picture, view, others }: Props) {
  const palette = usePalette()
  const option = useMemo(() => curveOption(picture, view, others, palette), [picture, view, others, palette])
  const marks = useMemo(() => curveMarks(picture, view), [picture, view])
  const { voc_V, isc_A, vmp_V, imp_A, steps } = picture
  const figures = { voc_V, isc_A, power_W: vmp_V * imp_A, ledges: steps.length }
  return <Chart option={option} height={HIGH} label={say('curve.label', figures)} marks={marks} />
}
