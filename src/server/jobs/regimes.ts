/** The regimes that ship; a version never changes, so what is there already is left alone. */
import type { Regime } from '@/core/regime/regime'
import { regimeFrom, shippedRegimes } from '@/core/regime/shipped'
import type { Database } from '../db/client'
import { regime } from '../db/schema'

export async function addShippedRegimes(db: Database): Promise<void> {
  const known = await db.select({ id: regime.id, version: regime.version }).from(regime)
  const has = new Set(known.map((one) => `${one.id} ${one.version}`))
  for (const one of shippedRegimes) {
    if (has.has(`${one.id} ${one.version}`)) continue
    await db.insert(regime).values({ id: one.id, version: one.version, data: one })
  }
}

/** Every version of every regime, older ones completed from what ships, newest first within a name. */
export async function allRegimes(db: Database): Promise<Regime[]> {
  const rows = await db.select({ data: regime.data }).from(regime)
  return rows
    .map((row) => regimeFrom(row.data))
    .sort((a, b) => a.name.localeCompare(b.name, 'en') || b.version - a.version)
}
