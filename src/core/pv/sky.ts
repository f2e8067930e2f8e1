/**
 * The sun over a plane: where it stands at a place and time, and what a clear sky gives in the plane. For planning a day;
 * no reading is ever held against it.
 */
import { getPosition } from 'suncalc'

/** Where on earth: degrees, north and east positive. */
export type Place = { latitude_deg: number; longitude_deg: number }
/** Which way a plane lies: its tilt from level, its direction from true north by east. */
export type Plane = { tilt_deg: number; azimuth_deg: number }
/** Where the sun stands: height above the horizon, refraction taken in, and direction from true north by east. */
export type Sun = { elevation_deg: number; azimuth_deg: number }

/** @param at ms since 1970. */
export function sunAt(at: number, place: Place): Sun {
  const { altitude, azimuth } = getPosition(new Date(at), place.latitude_deg, place.longitude_deg)
  return { elevation_deg: altitude, azimuth_deg: azimuth }
}

/** Outside the air, W/m2, as Meinel took it. */
const OUTSIDE_AIR_Wm2 = 1353
/** What comes from the blue sky beside the sun itself, as a share of the direct light [D]. */
const SKY_SHARE = 0.1
/** What grass, gravel and roofs throw back [D]. */
const GROUND_SHARE = 0.2

const rad = (deg: number): number => (deg * Math.PI) / 180
const cosDeg = (deg: number): number => Math.cos(rad(deg))
const sinDeg = (deg: number): number => Math.sin(rad(deg))

/** How much air the light comes through, 1 from overhead [P Kasten and Young 1989, from memory]. */
export const airMass = (elevation_deg: number): number =>
  1 / (sinDeg(elevation_deg) + 0.50572 * (elevation_deg + 6.07995) ** -1.6364)

/** Straight from a clear sky's sun, on a surface turned to it, W/m2 [P Meinel and Meinel 1976, from memory]. */
export const directLight_Wm2 = (elevation_deg: number): number =>
  elevation_deg <= 0 ? 0 : OUTSIDE_AIR_Wm2 * 0.7 ** (airMass(elevation_deg) ** 0.678)

/** Cosine of the angle between the sun and the plane's normal; below nought the sun is behind it. */
export const facing = ({ tilt_deg, azimuth_deg }: Plane, sun: Sun): number =>
  sinDeg(sun.elevation_deg) * cosDeg(tilt_deg) +
  cosDeg(sun.elevation_deg) * sinDeg(tilt_deg) * cosDeg(sun.azimuth_deg - azimuth_deg)

/** Light in a plane under a clear sky with nothing in its way, W/m2: good to some 15 % [D]. */
export function clearSky_Wm2(plane: Plane, sun: Sun): number {
  const direct = directLight_Wm2(sun.elevation_deg)
  const level = direct * (sinDeg(sun.elevation_deg) + SKY_SHARE)
  const sky = (direct * SKY_SHARE * (1 + cosDeg(plane.tilt_deg))) / 2
  const ground = (level * GROUND_SHARE * (1 - cosDeg(plane.tilt_deg))) / 2
  return direct * Math.max(0, facing(plane, sun)) + sky + Math.max(0, ground)
}
