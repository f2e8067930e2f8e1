import canonicalize from 'canonicalize'
import type { Entry } from '@/core/record/entry'
import type { Facts } from '@/core/record/facts'

/** What the office answers: what is no entry is left away where the device has it. */
export type Answer = Facts | { entries: Entry[] }

const isWhole = (answer: Answer): answer is Facts => 'job' in answer

/**
 * What the office answered, laid over what the device holds. An entry never changes, nor does a version of a regime: what
 * is known already stays the same object, so that only what is new is evaluated and drawn.
 *
 * @param partial true where the answer holds only what is new to the device.
 */
export function mergeFacts(held: Facts | null, answer: Answer, partial: boolean): Facts {
  if (!held) {
    if (isWhole(answer)) return answer
    throw new Error('mergeFacts: expected a whole job for a device that holds none')
  }
  const own = new Map(held.entries.map((entry) => [entry.id, entry]))
  const merged = new Map(partial ? own : [])
  for (const entry of answer.entries) {
    const known = own.get(entry.id)
    merged.set(entry.id, known && isSame(known.body, entry.body) ? { ...entry, body: known.body } : entry)
  }
  const entries = [...merged.values()]
  if (!isWhole(answer)) return { ...held, entries }
  const { regime, instruments } = answer
  const isSameRegime = held.regime.id === regime.id && held.regime.version === regime.version
  return {
    ...answer,
    entries,
    regime: isSameRegime ? held.regime : regime,
    instruments: isSame(held.instruments, instruments) ? held.instruments : instruments,
  }
}

/** The office may keep another word than the device sent: an instrument as the kit has it, a name as it is signed in with. */
export const isSame = (a: unknown, b: unknown): boolean => canonicalize(a) === canonicalize(b)
