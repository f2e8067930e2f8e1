import type { Mounting } from '@/core/pv/cellTemperature'
import type { Body, Conditions } from '@/core/record/entry'
import { copyForReading, type Instrument, type Measurable } from '@/core/record/instrument'
import { isFresh, type Live } from './liveFeed'

const copies = (instruments: readonly Instrument[]) => (id: string, measures: Measurable) => {
  const instrument = instruments.find((one) => one.id === id)
  return instrument ? copyForReading(instrument, measures) : null
}

/** The air beside the array, kept with the warmth of the module where both are shown; null where it is that warmth itself. */
export function airBeside(
  { 'air-temperature': air }: Live['latest'],
  conditions: Conditions | null,
  instruments: readonly Instrument[],
  now: number,
): NonNullable<Body<'reading'>['air']> | null {
  if (!conditions || conditions.cell.way === 'air' || !isFresh(air, now)) return null
  return { read: air.read, instrument: copies(instruments)(air.instrumentId, 'air-temperature') }
}

/** Conditions from what the paired instruments show now; null where light or a temperature is missing. */
export function conditionsNow(
  live: Live,
  instruments: readonly Instrument[],
  mounting: Mounting,
  now: number,
): Conditions | null {
  const light = live.latest.irradiance
  const back = live.latest['module-back-temperature']
  const air = live.latest['air-temperature']
  if (!isFresh(light, now)) return null
  const by = copies(instruments)
  const lightBy = by(light.instrumentId, 'irradiance')
  const cell: Conditions['cell'] | null = isFresh(back, now)
    ? { way: 'back', read: back.read, mounting, instrument: by(back.instrumentId, 'module-back-temperature') }
    : isFresh(air, now)
      ? { way: 'air', read: air.read, instrument: by(air.instrumentId, 'air-temperature') }
      : null
  if (!cell) return null
  return {
    irradiance: { read: light.read, instrument: lightBy },
    cell,
    at: light.at,
    how: lightBy?.standIn ? 'stand-in' : 'feed',
  }
}
