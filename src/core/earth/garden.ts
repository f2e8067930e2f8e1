/**
 * Where spikes and buried services lie around an electrode, as on a plan: the electrode in the middle, east and north
 * in metres. Figures for how near is too near: house rules 14 and 15.
 */

const RADIANS_PER_DEG = Math.PI / 180

export type Point = { east_m: number; north_m: number }
/** A straight service, told by its nearest point as seen from the electrode. */
export type Service = { bearing_deg: number; away_m: number }

/** Nothing is driven nearer to a buried service than this, m [D, house rule 14]. */
export const KEEP_OFF_m = 0.5
/** Metal within this share of the way, and nearly alongside it, takes part of the current [D, house rule 15]. */
const ALONG_SHARE = 0.25
const ALONG_deg = 30

/** A place at a bearing (clockwise from north) and a distance from the electrode. */
export const placeAt = (bearing_deg: number, distance_m: number): Point => ({
  east_m: distance_m * Math.sin(bearing_deg * RADIANS_PER_DEG),
  north_m: distance_m * Math.cos(bearing_deg * RADIANS_PER_DEG),
})

/**
 * How far a place is from a service, m.
 * @example awayFrom({ bearing_deg: 90, away_m: 4 }, { east_m: 1, north_m: 7 }) // 3
 */
export function awayFrom({ bearing_deg, away_m }: Service, place: Point): number {
  const toward = placeAt(bearing_deg, 1)
  return Math.abs(place.east_m * toward.east_m + place.north_m * toward.north_m - away_m)
}

/** The angle between a way from the electrode and a service, 0 (alongside) to 90 (across), degrees. */
export function angleTo({ bearing_deg }: Service, way_deg: number): number {
  const between = Math.abs((((way_deg - (bearing_deg + 90)) % 180) + 180) % 180)
  return Math.min(between, 180 - between)
}

/** Whether a metal service lies so near and so much alongside the way to the current spike that it spoils the reading. */
export function runsAlong(service: Service, way: { bearing_deg: number; distance_m: number }): boolean {
  const middle = placeAt(way.bearing_deg, way.distance_m / 2)
  return angleTo(service, way.bearing_deg) < ALONG_deg && awayFrom(service, middle) < ALONG_SHARE * way.distance_m
}

/** Two ends of a service's line, as far as a radius around the electrode reaches; null where it lies beyond. */
export function endsWithin({ bearing_deg, away_m }: Service, radius_m: number): [Point, Point] | null {
  if (away_m >= radius_m) return null
  const half = Math.sqrt(radius_m ** 2 - away_m ** 2)
  const nearest = placeAt(bearing_deg, away_m)
  const along = placeAt(bearing_deg + 90, half)
  return [
    { east_m: nearest.east_m - along.east_m, north_m: nearest.north_m - along.north_m },
    { east_m: nearest.east_m + along.east_m, north_m: nearest.north_m + along.north_m },
  ]
}

/** The bearing, in steps of 15 degrees, that keeps farthest from running alongside any metal and clear of all services. */
export function bestBearing(
  services: readonly (Service & { isMetal: boolean })[],
  distance_m: number,
  shares: readonly number[],
): number | null {
  const bearings = Array.from({ length: 24 }, (_, k) => 15 * k)
  const clear = bearings.filter((bearing_deg) =>
    services.every(
      (service) =>
        shares.every((share) => awayFrom(service, placeAt(bearing_deg, share * distance_m)) >= 2 * KEEP_OFF_m) &&
        !(service.isMetal && runsAlong(service, { bearing_deg, distance_m })),
    ),
  )
  const metals = services.filter((one) => one.isMetal)
  if (clear.length === 0) return null
  const worth = (bearing: number): number => Math.min(90, ...metals.map((one) => angleTo(one, bearing)))
  return clear.reduce((best, one) => (worth(one) > worth(best) ? one : best))
}
