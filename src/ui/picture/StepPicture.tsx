'use client'
import '@/words/plant'
import type { Picture } from '@/core/steps/picture'
import { drawingOf } from '@/report/drawing'
import { Drawn } from './Drawn'
import { TimesPicture } from './TimesPicture'

/** A picture that a step wants beside its working. */
export function StepPicture({ picture, timeZone }: { picture: Picture; timeZone: string }) {
  if (picture.kind === 'times') return <TimesPicture picture={picture} />
  const drawing = drawingOf(picture, timeZone)
  return drawing && <Drawn drawing={drawing} />
}
