/** Pictures of an electrode's resistance: what each place read, and the garden from above. */
import { fitEvenSoil, evenSoilAt, probePlaces, TRUE_SHARE } from '../../earth/fallOfPotential'
import { bestBearing, runsAlong } from '../../earth/garden'
import { standingFor } from '../../quantity/span'
import { curveIn, type ElectrodeContext, isCurve, isLoop, judgedElectrode, pointsOf, probesIn } from './electrodeSlots'
import type { Picture, SpikesPicture } from '../picture'
import { numberIn } from '../reading'

/** Where nobody measured the way, the places are drawn on one of this length, m [D]. */
const USUAL_WAY_m = 30
/** Shares of the way at which the fitted line of even soil is drawn. */
const LINE = Array.from({ length: 29 }, (_, k) => 0.15 + k * 0.025)

/** Places of the potential spike as shares of the way, and what was read there. */
function placesOf(context: ElectrodeContext): SpikesPicture['places'] {
  const { reading } = context
  if (isCurve(reading)) return curveIn(reading)
  const way = numberIn(reading, 'spike-distance')?.value ?? USUAL_WAY_m
  const read = probesIn(reading)
  return probePlaces(context.regime.schools['earth.probe'], way).map((at, k) => ({
    share: at / way,
    read_ohm: read[k] ?? null,
  }))
}

/** Where the spikes stand or will stand, the current spike last, as shares of the way. */
export const sharesOf = (context: ElectrodeContext): number[] => [...placesOf(context).map((one) => one.share), 1]

/** A way that crosses the metal and keeps off everything, degrees; null where there is none, or nothing to keep off. */
export function clearBearing(context: ElectrodeContext): number | null {
  const services = context.plant
    .servicesOf(context.part)
    .map(({ data }) => ({ ...data, isMetal: data.material === 'metal' }))
  const way_m = numberIn(context.reading, 'spike-distance')?.value ?? USUAL_WAY_m
  return services.length === 0 ? null : bestBearing(services, way_m, sharesOf(context))
}

function spikes(context: ElectrodeContext): SpikesPicture {
  const { reading } = context
  const points = pointsOf(reading)
  const soil = isCurve(reading) && points.length > 2 ? fitEvenSoil(points) : null
  const found = judgedElectrode(context)
  return {
    kind: 'spikes',
    distance_m: numberIn(reading, 'spike-distance')?.value ?? null,
    places: placesOf(context),
    true_share: isCurve(reading) ? TRUE_SHARE : null,
    even_soil: soil ? LINE.map((share) => ({ share, read_ohm: evenSoilAt(soil, share) })) : [],
    mean_ohm: found ? standingFor(found.value) : null,
    spread_pct: context.limit('earth.spread').value,
  }
}

/** The garden from above: where the spikes stand and what lies in the ground; null where neither is known. */
function garden(context: ElectrodeContext): Picture | null {
  const { reading } = context
  const bearing = numberIn(reading, 'spike-bearing')?.value ?? null
  const distance_m = numberIn(reading, 'spike-distance')?.value ?? USUAL_WAY_m
  const services = context.plant.servicesOf(context.part)
  if (services.length === 0 && bearing === null) return null
  const planned = bearing ?? clearBearing(context)
  const way = planned === null ? null : { bearing_deg: planned, distance_m }
  return {
    kind: 'garden',
    tag: context.part.data.tag,
    way: way && {
      ...way,
      shares: placesOf(context).map((one) => one.share),
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

export function electrodePictures(context: ElectrodeContext): Picture[] {
  if (isLoop(context.reading)) return []
  const plan = garden(context)
  const profile = [spikes(context)]
  return plan ? [...profile, plan] : profile
}
