import type { Picture } from '@/core/steps/picture'
import { curveDrawing } from './curve'
import { gardenDrawing } from './garden'
import type { Drawing } from './node'
import { riseDrawing } from './rise'
import { spikesDrawing } from './spikes'
import { stringPlaceDrawing } from './stringPlace'
import { trendDrawing } from './trend'

/** A picture as a drawing for screen and print; null where only the screen draws it. */
export function drawingOf(picture: Picture, timeZone: string): Drawing | null {
  switch (picture.kind) {
    case 'spikes':
      return spikesDrawing(picture)
    case 'garden':
      return gardenDrawing(picture)
    case 'trend':
      return trendDrawing(picture, timeZone)
    case 'curve':
      return curveDrawing(picture)
    case 'rise':
      return riseDrawing(picture)
    case 'string-place':
      return stringPlaceDrawing(picture)
    case 'times':
      return null
  }
}
