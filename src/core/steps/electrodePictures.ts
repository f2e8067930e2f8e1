/** Pictures of an electrode's resistance: what each place read, and the garden from above. */
import { fitEvenSoil, evenSoilAt, probePlaces, TRUE_SHARE } from '../earth/fallOfPotential'
import { bestBearing, runsAlong } from '../earth/garden'
import {
  curveIn,
  type ElectrodeContext,
  isCurve,
  isLoop,
  judgedElectrode,
  pointsOf,
  probesIn,
  type Reading,
} from './electrodeSlots'
import type { Picture, SpikesPicture } from './picture'
import { numberIn } from './stringReading'

/** Where nobody measured the way, the places are drawn on one of this length, m [D]. */
const USUAL_WAY_m = 30
/** Shares of the way at which the fitted line of even soil is drawn. */
const LINE = Array.from({ length: 29 }, (_, k) => 0.15 + k * 0.025)

/** Places of the potential spike as shares of the way, and what was read there. */
function placesOf(context: ElectrodeContext, reading: Reading): SpikesPicture['places'] {
  if (isCurve(reading)) return curveIn(reading)
  const way = numberIn(reading, 'spike-distance')?.value ?? USUAL_WAY_m
  const read = probesIn(reading)
  return probePlaces(context.regime.schools['earth.probe'], way).map((at, k) => ({
    share: at / way,
    read_ohm: read[k] ?? null,
  }))
}

/** Where the spikes stand or will stand, the current spike last, as shares of the way. */
export const sharesOf = (context: ElectrodeContext, reading: Reading): number[] => [
  ...placesOf(context, reading).map((one) => one.share),
  1,
]

/** A way that crosses the metal and keeps off everything, degrees; null where there is none, or nothing to keep off. */
export function clearBearing(context: ElectrodeContext, reading: Reading): number | null {
  const services = context.plant
    .servicesOf(context.part)
    .map(({ data }) => ({ ...data, isMetal: data.material === 'metal' }))
  const way_m = numberIn(reading, 'spike-distance')?.value ?? USUAL_WAY_m
  return services.length === 0 ? null : bestBearing(services, way_m, sharesOf(context, reading))
}

function spikes(context: ElectrodeContext, reading: Reading): SpikesPicture {
  const points = pointsOf(reading)
  const soil = isCurve(reading) && points.length > 2 ? fitEvenSoil(points) : null
  return {
    kind: 'spikes',
    distance_m: numberIn(reading, 'spike-distance')?.value ?? null,
    places: placesOf(context, reading),
    true_share: isCurve(reading) ? TRUE_SHARE : null,
    even_soil: soil ? LINE.map((share) => ({ share, read_ohm: evenSoilAt(soil, share) })) : [],
    mean_ohm: judgedElectrode(context, reading)?.mean_ohm ?? null,
    spread_pct: context.regime.limits['earth.spread'].value,
  }
}

/** The garden from above: where the spikes stand and what lies in the ground; null where neither is known. */
function garden(context: ElectrodeContext, reading: Reading): Picture | null {
  const bearing = numberIn(reading, 'spike-bearing')?.value ?? null
  const distance_m = numberIn(reading, 'spike-distance')?.value ?? USUAL_WAY_m
  const services = context.plant.servicesOf(context.part)
  if (services.length === 0 && bearing === null) return null
  const planned = bearing ?? clearBearing(context, reading)
  const way = planned === null ? null : { bearing_deg: planned, distance_m }
  return {
    kind: 'garden',
    tag: context.part.data.tag,
    way: way && {
      ...way,
      shares: placesOf(context, reading).map((one) => one.share),
      isPlanned: bearing === null,
    },
    services: services.map(({ data }) => ({
      tag: data.tag,
      what: data.what,
      isMetal: data.material === 'metal',
      bearing_deg: data.bearing_deg,
      away_m: data.away_m,
      spoils: way !== null && data.material === 'metal' && runsAlong(data, way),
    })),
  }
}

export function electrodePictures(context: ElectrodeContext, reading: Reading): Picture[] {
  const plan = isLoop(reading) ? null : garden(context, reading)
  const profile = isLoop(reading) ? [] : [spikes(context, reading)]
  return plan ? [...profile, plan] : profile
}
