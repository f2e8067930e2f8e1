/** What a circuit's devices allow its loop to be: the overcurrent device in its time, the RCD by touch voltage. */
import { electrodeLimit_ohm } from '../../earth/electrode'
import { disconnection_s, maxZs_ohm } from '../../loop/maxZs'
import type { SourceId } from '../../regime/sources'
import type { StepContext } from '../step'
import { isTt, supplyOf } from './shared'

type Context = StepContext<'circuit'>
export type LoopLimit = {
  value: number
  close: number
  source: SourceId
  code: 'device' | 'device-iec' | 'rcd'
  id: string
}

/** In how long this circuit's fault must be off, s; null where its supply is not known. */
export function inTime_s(context: Context): number | null {
  const supply = supplyOf(context)
  const { role, sockets, rating_A } = context.part.data
  return (
    supply &&
    disconnection_s({
      role: role ?? 'final',
      sockets: sockets ?? null,
      rating_A,
      isTt: isTt(context),
      nominal_V: supply.data.nominal_V,
    })
  )
}

/** What the overcurrent device allows; null without one, without a supply, or where no table tells it. */
export function deviceLimit(context: Context): LoopLimit | null {
  const { device, rating_A } = context.part.data
  const supply = supplyOf(context)
  const within_s = inTime_s(context)
  if (device === null || rating_A === null || !supply || within_s === null) return null
  const factor = context.limit('ac.voltage-factor')
  const value = maxZs_ohm(device, rating_A, { nominal_V: supply.data.nominal_V, voltageFactor: factor.value, within_s })
  if (value === null) return null
  const close = (value * context.limit('ac.cold-share').value) / 100
  const isIec = context.regime.schools.cites === 'international'
  return { value, close, source: factor.source, code: isIec ? 'device-iec' : 'device', id: 'ac.zs' }
}

/** What the nearest residual current device allows by touch voltage; null without one. */
export function rcdLimit(context: Context): (LoopLimit & { rated_mA: number }) | null {
  const [nearest] = context.plant.rcdsOf(context.part)
  if (!nearest) return null
  const touch = context.limit('earth.touch-voltage')
  const { rated_mA } = nearest.data
  const value = electrodeLimit_ohm(rated_mA, touch.value)
  const close = Math.min(value, context.limit('earth.unstable').value)
  return { value, close, source: touch.source, code: 'rcd', id: 'earth.ra', rated_mA }
}
