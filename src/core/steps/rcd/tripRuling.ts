/** One trip of a residual current device as a ruling: the same at a socket and at the plug of a charge point. */
import { standingFor } from '../../quantity/span'
import { judgeTrip, type OneTrip, type RcdRules, type Trip } from '../../rcd/judgeRcd'
import { type FiveSchool, type Rcd, tripCurrent_mA } from '../../rcd/limits'
import { type Cause, causeOf } from '../../verdict/cause'
import type { Judgement, Ruling } from '../../verdict/judgement'
import type { Figures } from '../../verdict/verdict'
import { closeness } from '../holding'
import { type Figure, measuredOf } from '../reading'

export type ReadTrip = { trip: Trip; figure: Figure }

/** The device that is tripped, how it is called, and by which rules. */
export type Tripped = {
  rcd: Rcd
  tag: string
  rules: Pick<RcdRules, 'halfWait_ms' | 'place'>
  five: FiveSchool
}

/** The line of the working that a trip is told in: a ramp, a wait, a band, or a longest time. */
function lineOf(trip: Trip, { figures }: OneTrip): string {
  if ('waveform' in figures) return 'rcd.not-for-type'
  if (trip.kind === 'ramp') return 'rcd.ramp'
  if (trip.multiple === 0.5) return 'rcd.half'
  return 'least_ms' in figures ? 'rcd.time' : 'rcd.time-most'
}

/** The current that flowed in a timed trip, mA; of a ramp it is what was read. */
const currentOf = ({ rcd, five }: Tripped, trip: Trip): number =>
  trip.kind === 'ramp' ? standingFor(trip.current) : tripCurrent_mA(rcd, trip.multiple, five, trip.waveform)

export function tripRuling(tripped: Tripped, { trip, figure }: ReadTrip): Ruling {
  const { rcd, tag, rules } = tripped
  const one = judgeTrip(rcd, trip, rules)
  const { verdict, code, band, closeBy } = one
  const unit = trip.kind === 'time' ? 'ms' : 'mA'
  const span = trip.kind === 'time' ? trip.time : trip.current
  const figures = { ...one.figures, at: figure.slot.id, flows_mA: currentOf(tripped, trip) }
  const also =
    closeBy === 'whisker' ? closeness({ closeBy, verdict: 'close', where: 'inside' }, span.whisker, unit) : undefined
  const high = band?.high ?? null
  return {
    verdict,
    slots: [figure.slot.id],
    // A trip that the detector took before the device says nothing of the device.
    isUndecided: verdict === 'not-yet' && band !== null && code !== 'detector-tripped-first',
    finding: { code: `rcd.${code}`, figures: { tag, ...figures }, ...(also ? { also } : {}) },
    line: {
      code: lineOf(trip, one),
      figures,
      result: { value: standingFor(span), unit, decimals: 1, asRead: figure.read.text },
      source: 'iec-61008',
    },
    rule: band && {
      unit,
      scale: 'linear',
      measured: measuredOf(span, figure.read.text),
      expected: null,
      band,
      source: 'iec-61008',
    },
    limit: high === null ? null : { id: 'rcd.time', value: high, unit, source: 'iec-61008' },
  }
}

/** What may be wrong with a device that is outside. */
export function tripCauses({ finding }: Judgement, figures: Figures): Cause[] {
  if (finding.code === 'rcd.too-slow') return [causeOf('rcd-slow', 'fits', 'change-slow-device', figures)]
  return [
    causeOf('standing-leakage', 'may-fit', 'loads-off-repeat', figures),
    causeOf('other-device-tripped', 'may-fit', 'see-which-tripped', figures),
    causeOf('rcd-too-sensitive', 'may-fit', 'replace-rcd', figures),
  ]
}
