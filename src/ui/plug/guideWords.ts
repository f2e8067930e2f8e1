/** What the guide says at each moment, and what a figure comes to by itself. */
import { judgeFigure } from '@/core/evaluate'
import type { Evaluation, StepEvaluation } from '@/core/evaluation/types'
import { parseReading } from '@/core/quantity/parseReading'
import type { PlannedTrip } from '@/core/steps/charge-point/tripPlan'
import { say, sayCode } from '@/words/say'
import { type TripFigure, tripName } from './TripRules'

/** One figure with what it comes to by itself; nothing where there is none, or where it cannot be read. */
export function figureOf(
  evaluation: Evaluation,
  one: StepEvaluation | null,
  trip: PlannedTrip,
  text: string | undefined,
): TripFigure[] {
  if (!one || text === undefined) return []
  const parsed = parseReading(text, trip.slot.unit)
  if (parsed.state !== 'read') return []
  const { verdict } = judgeFigure(evaluation, one, { [trip.slot.id]: parsed.reading })
  return [{ slot: trip.slot.id, text, value: parsed.reading.value, verdict }]
}

export const halfOf = ({ isDirect, angle_deg }: PlannedTrip): string =>
  isDirect ? say(angle_deg === 0 ? 'guide.plus' : 'guide.minus') : `${angle_deg}°`

export function limitOf({ holds, low, high, unit, slot }: PlannedTrip): string {
  const figures = { low: low ?? 0, high: high ?? 0, unit, id: slot.id }
  if (holds) return say('guide.limit-holds')
  if (low !== null && high !== null) return say('guide.limit-between', figures)
  return high === null ? '' : say('guide.limit-most', figures)
}

export function instructionOf(
  moment: string,
  line: number,
  trip: PlannedTrip | null,
  reset: readonly string[],
): string {
  if (moment === 'reset') return reset[line] ?? ''
  if (moment === 'begin') return say('guide.begin')
  if (moment === 'stopped') return say('guide.stopped')
  if (moment === 'done') return say('guide.done')
  if (moment === 'trip' && trip) return say('guide.press-test', { current: tripName(trip) })
  return say(moment === 'to-a' ? 'guide.to-a' : 'guide.to-c')
}

export function detailOf(
  moment: string,
  trip: PlannedTrip | null,
  texts: Readonly<Record<string, string>>,
  waveform: string,
  /** The words of this model are entered. */
  isKnown: boolean,
): string {
  if (moment === 'reset') return isKnown ? '' : say('guide.reset-unknown')
  if (moment === 'to-a') return say('guide.to-a-why')
  if (moment === 'to-c') return say('guide.to-c-why')
  if (moment === 'trip') return say(trip?.holds ? 'guide.must-hold' : 'guide.nobody-touches')
  if (moment === 'stopped' && trip)
    return say('guide.stopped-why', { read: texts[trip.slot.id] ?? '', name: tripName(trip) })
  if (moment === 'begin') return say('guide.begin-why', { wave: sayCode('choice', waveform) })
  return moment === 'done' ? say('guide.done-why') : ''
}

export function bandOf(
  moment: string,
  line: number,
  lines: number,
  trip: PlannedTrip | null,
  text: string,
  tool: string | null,
): string {
  switch (moment) {
    case 'begin':
      return say('guide.band.begin')
    case 'to-a':
      return say('guide.band.to-a')
    case 'reset':
      return say(line < lines - 1 ? 'guide.band.next-line' : 'guide.band.reset')
    case 'ready':
      return say('guide.band.ready')
    case 'to-c':
      return say('guide.band.to-c')
    case 'trip':
      return tool === null ? say('guide.band.tripped') : say('guide.band.press', { tag: tool })
    case 'read':
      return text === ''
        ? say('guide.what-does-it-show')
        : say('guide.band.keep', { text, unit: trip?.slot.unit ?? 'ms' })
    case 'stopped':
      return say('guide.band.again')
    default:
      return say('guide.to-sheet')
  }
}
