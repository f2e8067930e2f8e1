'use client'
import '@/words/plant'
import type { Picture } from '@/core/steps/picture'
import { drawingOf } from '@/report/drawing'
import { lazy } from 'react'
import { Drawn } from './Drawn'

// The chart library comes with the first chart.
const TimesPicture = lazy(() => import('./TimesPicture').then((module) => ({ default: module.TimesPicture })))

const TrendPicture = lazy(() => import('./TrendPicture').then((module) => ({ default: module.TrendPicture })))
const RisePicture = lazy(() => import('./RisePicture').then((module) => ({ default: module.RisePicture })))
const SpikesPicture = lazy(() => import('./SpikesPicture').then((module) => ({ default: module.SpikesPicture })))

const CurveShows = lazy(() => import('../curve/CurveShows').then((module) => ({ default: module.CurveShows })))

/** A picture that a step wants beside its working. */
type Props = { picture: Picture; tag: string; timeZone: string }

export function StepPicture({ picture, tag, timeZone }: Props) {
  // A curve stands on the bench itself; beside it what it shows.
  if (picture.kind === 'curve') return <CurveShows picture={picture} />
  if (picture.kind === 'times') return <TimesPicture picture={picture} tag={tag} />
  if (picture.kind === 'trend') return <TrendPicture picture={picture} timeZone={timeZone} />
  if (picture.kind === 'rise') return <RisePicture picture={picture} />
  if (picture.kind === 'spikes') return <SpikesPicture picture={picture} />
  const drawing = drawingOf(picture, timeZone)
  return drawing && <Drawn drawing={drawing} />
}
