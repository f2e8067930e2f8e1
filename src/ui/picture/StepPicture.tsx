'use client'
import type { Picture } from '@/core/steps/picture'
import { SpikesPicture } from './SpikesPicture'
import { TimesPicture } from './TimesPicture'

/** The picture that a step wants beside its working. */
export function StepPicture({ picture }: { picture: Picture }) {
  return picture.kind === 'times' ? <TimesPicture picture={picture} /> : <SpikesPicture picture={picture} />
}
