/** The sun's path against an independent ephemeris and the rules of the almanac; the clear sky against a second model. */
import { Body, Equator, Horizon, Observer } from 'astronomy-engine'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { airMass, clearSky_Wm2, directLight_Wm2, facing, sunAt } from '@/core/pv/sky'

const DAY_ms = 86_400_000
const sinDeg = (deg: number): number => Math.sin((deg * Math.PI) / 180)

/** Where the library of another author has the sun: apparent place, the usual refraction. */
function otherSun(at: number, latitude: number, longitude: number) {
  const observer = new Observer(latitude, longitude, 0)
  const date = new Date(at)
  const { ra, dec } = Equator(Body.Sun, date, observer, true, true)
  return Horizon(date, observer, ra, dec, 'normal')
}

describe('the sun against an ephemeris of other authors (astronomy-engine, tested against JPL Horizons)', () => {
  it('stands where that has it, to a fifth of a degree, anywhere and in any year of use', () => {
    const from = Date.parse('2024-01-01T00:00:00Z')
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 20 * 365 * 24 * 12 }),
        fc.double({ min: -66, max: 66, noNaN: true }),
        fc.double({ min: -180, max: 180, noNaN: true }),
        (n, latitude_deg, longitude_deg) => {
          const at = from + n * 300_000
          const ours = sunAt(at, { latitude_deg, longitude_deg })
          const other = otherSun(at, latitude_deg, longitude_deg)
          if (other.altitude < 1 || other.altitude > 85) return
          expect(Math.abs(ours.elevation_deg - other.altitude)).toBeLessThan(0.2)
          const turn = ((ours.azimuth_deg - other.azimuth + 540) % 360) - 180
          expect(Math.abs(turn) * Math.cos((other.altitude * Math.PI) / 180)).toBeLessThan(0.2)
        },
      ),
      { numRuns: 500 },
    )
  })
})

describe('the sun against the rules of the almanac (common knowledge of astronomy, from memory)', () => {
  const highest = (day: string, latitude_deg: number): number => {
    const from = Date.parse(`${day}T00:00:00Z`)
    const heights = Array.from(
      { length: 1440 },
      (_, k) => sunAt(from + k * 60_000, { latitude_deg, longitude_deg: 0 }).elevation_deg,
    )
    return Math.max(...heights)
  }
  it('at noon of an equinox it stands at 90 degrees less the latitude, at the solstices 23.44 more and less', () => {
    expect(highest('2026-03-20', 52)).toBeCloseTo(38, 0)
    expect(highest('2026-06-21', 52)).toBeCloseTo(38 + 23.44, 1)
    expect(highest('2026-12-21', 52)).toBeCloseTo(38 - 23.44, 0)
  })

  it('is at its highest 16.4 minutes early on 3 November and 14.2 late on 11 February (equation of time)', () => {
    const noon = (day: string): number => {
      const from = Date.parse(`${day}T11:00:00Z`)
      const heights = Array.from(
        { length: 7200 },
        (_, second) => sunAt(from + second * 1000, { latitude_deg: 0, longitude_deg: 0 }).elevation_deg,
      )
      return heights.indexOf(Math.max(...heights)) / 60 - 60
    }
    expect(noon('2026-11-03')).toBeCloseTo(-16.4, 0)
    expect(noon('2026-02-11')).toBeCloseTo(14.2, 0)
  })
})

describe('a clear sky', () => {
  it('comes through the air mass of Kasten and Young: 1 overhead, 2.00 at 30 degrees, 37.9 at the horizon (published values, from memory)', () => {
    expect(airMass(90)).toBeCloseTo(1, 2)
    expect(airMass(30)).toBeCloseTo(1.99, 1)
    expect(airMass(0)).toBeCloseTo(37.9, 0)
  })

  it('gives 846 W/m2 direct at air mass 1.5, near the 900 of the reference spectrum (IEC 60904-3, from memory)', () => {
    const elevation = 41.8
    expect(directLight_Wm2(elevation)).toBeGreaterThan(800)
    expect(directLight_Wm2(elevation)).toBeLessThan(900)
  })

  it('on the level agrees with Haurwitz 1945, 1098 cos z exp(-0.057 / cos z) (from memory), within the 15 % that it promises, above 15 degrees', () => {
    for (let elevation_deg = 15; elevation_deg <= 85; elevation_deg += 5) {
      const haurwitz = 1098 * sinDeg(elevation_deg) * Math.exp(-0.057 / sinDeg(elevation_deg))
      const ours = clearSky_Wm2({ tilt_deg: 0, azimuth_deg: 180 }, { elevation_deg, azimuth_deg: 180 })
      expect(Math.abs(ours / haurwitz - 1)).toBeLessThan(0.15)
    }
  })

  it('is brightest in a plane that faces the sun, and a wall with its back to it has only the sky', () => {
    const sun = { elevation_deg: 40, azimuth_deg: 120 }
    expect(facing({ tilt_deg: 50, azimuth_deg: 120 }, sun)).toBeCloseTo(1, 10)
    expect(facing({ tilt_deg: 90, azimuth_deg: 300 }, sun)).toBeLessThan(0)
    const back = clearSky_Wm2({ tilt_deg: 90, azimuth_deg: 300 }, sun)
    expect(back).toBeGreaterThan(40)
    expect(back).toBeLessThan(200)
  })

  it('gives nothing at night', () => {
    const midnight = sunAt(Date.parse('2026-12-21T00:00:00Z') + DAY_ms, { latitude_deg: 52, longitude_deg: 0 })
    expect(clearSky_Wm2({ tilt_deg: 35, azimuth_deg: 180 }, midnight)).toBe(0)
  })
})
