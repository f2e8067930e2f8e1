import type { Facts } from '@/core/record/facts'

/**
 * What the office answered, laid over what the device holds. An entry never changes, nor does a version of a regime: what
 * is known already stays the same object, so that only what is new is evaluated and drawn.
 *
 * @param partial true where the answer holds only what is new to the device.
 */
export function mergeFacts(held: Facts | null, answer: Facts, partial: boolean): Facts {
  if (!held) return answer
  const own = new Map(held.entries.map((entry) => [entry.id, entry]))
  const merged = new Map(partial ? own : [])
  for (const entry of answer.entries) {
    const known = own.get(entry.id)
    merged.set(entry.id, known ? { ...entry, body: known.body } : entry)
  }
  const { regime, instruments } = answer
  const isSameRegime = held.regime.id === regime.id && held.regime.version === regime.version
  const isSameKit = JSON.stringify(held.instruments) === JSON.stringify(instruments)
  return {
    ...answer,
    entries: [...merged.values()],
    regime: isSameRegime ? held.regime : regime,
    instruments: isSameKit ? held.instruments : instruments,
  }
}
