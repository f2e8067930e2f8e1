/** The demo's simulated light and temperature meter, speaking through the instrument feed like any outside device. */
import { eq } from 'drizzle-orm'
import type { Database } from '@/server/db/client'
import { instrument, instrumentToken } from '@/server/db/schema'
import { PRACTICE_SKY } from '@/standin/sky'
import { issueToken } from '@/server/feed/tokens'
import { sensorReading } from '@/standin/sensors'

const EVERY_ms = 2000
const SENSORS = ['irradiance', 'module-back-temperature', 'air-temperature'] as const

/** Starts the simulated sensors; gives what ends them. */
export async function startYard(db: Database, address: string): Promise<() => void> {
  const rows = await db
    .select({ id: instrument.id, data: instrument.data })
    .from(instrument)
    .where(eq(instrument.standIn, true))
  const meter = rows.find((row) => row.data.ranges.some((range) => range.measures === 'irradiance'))
  if (!meter) return () => undefined
  await db.update(instrumentToken).set({ revokedAt: new Date() }).where(eq(instrumentToken.instrumentId, meter.id))
  const token = await issueToken(db, meter.id, new Date())
  const timer = setInterval(() => void send(), EVERY_ms)
  const send = async (): Promise<void> => {
    const at_ms = Date.now()
    const samples = SENSORS.map((quantity) => ({
      quantity,
      value: sensorReading(quantity, PRACTICE_SKY, meter.id, at_ms),
      unit: quantity === 'irradiance' ? 'Wm2' : 'degC',
      at: new Date(at_ms).toISOString(),
    }))
    // A missed sample is no loss: the next comes in two seconds.
    await fetch(`${address}/api/feed`, {
      method: 'POST',
      headers: { authorization: `Bearer ${token}`, 'content-type': 'application/json' },
      body: JSON.stringify({ instrument: meter.id, samples }),
      signal: AbortSignal.timeout(EVERY_ms),
    }).catch(() => undefined)
  }
  void send()
  return () => clearInterval(timer)
}
