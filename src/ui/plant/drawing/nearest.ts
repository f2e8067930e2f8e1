/** Where an arrow leads in the drawing: along the wire, or to the lane above or below. */
import type { Box, Sheet } from './pieces'

export type Heading = 'left' | 'right' | 'up' | 'down'

const middle = ({ x, y, w, h }: Box) => ({ x: x + w / 2, y: y + h / 2 })
/** Off the way counts this much more than along it. */
const ASIDE = 3

/** @returns the key of the nearest piece or place that way, null where there is none. */
export function nearest(
  { pieces, places }: Pick<Sheet, 'pieces' | 'places'>,
  from: string,
  heading: Heading,
): string | null {
  const all = [...pieces, ...places]
  const start = all.find((one) => one.key === from)
  if (!start) return null
  const here = middle(start.box)
  let found: string | null = null
  let least = Number.POSITIVE_INFINITY
  for (const one of all) {
    if (one.key === from) continue
    const there = middle(one.box)
    const [dx, dy] = [there.x - here.x, there.y - here.y]
    const isAcross = heading === 'left' || heading === 'right'
    const along = heading === 'left' ? -dx : heading === 'right' ? dx : heading === 'up' ? -dy : dy
    const aside = Math.abs(isAcross ? dy : dx)
    if (along <= 1) continue
    const far = along + ASIDE * aside
    if (far < least) {
      least = far
      found = one.key
    }
  }
  return found
}
