/** What a plan of a day says: its work, its planes, what is left. */
import type { Left, PlaneLight, Stretch } from '@/core/evaluation/dayPlan'
import type { Piece, Unit } from '@/core/evaluation/dayWork'
import { partName, quantity, say, sayCode } from '@/words/say'
import { clockTime } from '../shell/time'

/** What is done in one go: a test, or all tests of a part. */
export const workName = ({ step, part, units }: Piece): string =>
  step
    ? `${step.order} ${sayCode('step', `${step.id}.short`)}`
    : `${part ? partName(part) : ''} · ${units.map(({ one }) => one.step.order).join(' ')}`

/** On which parts: the first and the last of several; nothing where the part is the name of the work. */
export function partsText(piece: Piece, units: readonly Unit[]): string {
  if (!piece.step) return ''
  const parts = [...new Map(units.map(({ one }) => [one.part.id, one.part])).values()]
  const [first, last] = [parts[0], parts.at(-1)]
  if (!first || !last) return ''
  if (first === last) return partName(first)
  return say('day.parts', { first: partName(first), last: last.data.tag, count: parts.length })
}

export const whoText = ({ person }: Stretch): string => say(person === 0 ? 'day.who-1' : 'day.who-2')

export const stretchText = (one: Stretch, timeZone: string): string =>
  say('day.bar', {
    from: clockTime(one.from, timeZone),
    to: clockTime(one.to, timeZone),
    who: whoText(one),
    what: [workName(one.piece), partsText(one.piece, one.units)].filter(Boolean).join(', '),
  })

/** From when to when there is enough light in a plane, or that there never is. */
export function planeText({ array, windows, most, points }: PlaneLight, least_Wm2: number, timeZone: string): string {
  const plane = array.data.tag
  if (points.every(({ elevation_deg }) => elevation_deg <= 0)) return say('day.plane-dark', { plane })
  const about = { plane, most: quantity(most.irradiance_Wm2, 'Wm2', 0), time: clockTime(most.at, timeZone) }
  if (windows.length === 0) return say('day.plane-never', { ...about, least: quantity(least_Wm2, 'Wm2', 0) })
  const spans = windows.map(({ from, to }) =>
    say('day.window', { from: clockTime(from, timeZone), to: clockTime(to, timeZone) }),
  )
  return say('day.plane', { ...about, windows: spans.join(', ') })
}

export const leftText = ({ why }: Left): string => sayCode('day', `left-${why}`)
