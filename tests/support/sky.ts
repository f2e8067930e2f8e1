/** What the tests know of the practice sky ahead of time: it is simulated, and a cloud in it comes by the clock. */
import { PRACTICE_SKY, skyAt } from '@/standin/sky'

const LOOK_EVERY_ms = 1000
/** Sensors follow the light with a lag: what passed so lately still stands on the page. */
const LAG_ms = 30_000
/** What haze does to the light in minutes; a cloud takes more. */
const LEAST_SHARE = 0.9

function isClear(from_ms: number, to_ms: number): boolean {
  const light: number[] = []
  for (let at = from_ms; at <= to_ms; at += LOOK_EVERY_ms) light.push(skyAt(PRACTICE_SKY, at).irradiance_Wm2)
  return Math.min(...light) > LEAST_SHARE * Math.max(...light)
}

/** How long a cloud may keep somebody waiting, ms: the limit of a test or hook that waits for it. */
export const CLOUD_LIMIT_ms = 400_000

/** Waits as somebody on a roof does who reads currents: until no cloud is over the site, nor comes in the next while. */
export async function clearSky(while_ms: number): Promise<void> {
  while (!isClear(Date.now() - LAG_ms, Date.now() + while_ms))
    await new Promise((resolve) => setTimeout(resolve, LOOK_EVERY_ms))
}
