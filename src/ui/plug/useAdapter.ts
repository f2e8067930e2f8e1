import { useEffect, useRef } from 'react'
import { stateAt } from '@/core/pilot/state'
import type { Instrument } from '@/core/record/instrument'
import type { PlugTold } from '@/core/steps/charge-point/tripGuide'
import type { Heard, Live } from '../live/liveFeed'

const key = (one: Heard | undefined): string => one?.at ?? ''

const TELLS = ['pilot-voltage', 'outlet'] as const

/** The paired instrument that tells the states of a plug; null where none is paired here. A simulated one has no knob that anybody turns. */
export const pairedAdapter = ({ paired }: Live, instruments: readonly Instrument[]): Instrument | null =>
  instruments.find(
    (one) =>
      !one.standIn &&
      paired.includes(one.id) &&
      TELLS.some((quantity) => one.ranges.some((range) => range.measures === quantity)),
  ) ?? null

/**
 * What a paired adapter tells, as it arrives: each sample once, and none that was there before the moment it would end.
 *
 * @param place where somebody is in the ritual.
 */
export function useAdapter({ latest }: Live, place: string, tell: (told: PlugTold) => void): void {
  const [pilot, outlet] = TELLS.map((quantity) => latest[quantity])
  const seen = useRef({ place: '', at: ['', ''] })
  if (seen.current.place !== place) seen.current = { place, at: [key(pilot), key(outlet)] }
  const told = useRef(tell)
  told.current = tell
  useEffect(() => {
    const [pilotBefore, outletBefore] = seen.current.at
    const news = (one: Heard | undefined, before: string | undefined): Heard | null =>
      one && !one.old && one.at !== before ? one : null
    const [level, live] = [news(pilot, pilotBefore), news(outlet, outletBefore)]
    if (!level && !live) return
    seen.current.at = [key(pilot), key(outlet)]
    told.current({
      state: level && level.read.bound === 'exact' ? stateAt(level.read.value) : null,
      isLive: live ? live.read.value === 1 : null,
    })
  }, [pilot, outlet])
}
