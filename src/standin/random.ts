/** A seeded source of chance (mulberry32, public domain, from memory): the same seed gives the same roof every time. */
export function chance(seed: number): () => number {
  let state = seed >>> 0
  return () => {
    state = (state + 0x6d2b79f5) >>> 0
    let t = state
    t = Math.imul(t ^ (t >>> 15), t | 1)
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61)
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296
  }
}

/** A seed from text (FNV-1a, public domain, from memory). */
export function seedOf(text: string): number {
  let hash = 0x811c9dc5
  for (let k = 0; k < text.length; k++) hash = Math.imul(hash ^ text.charCodeAt(k), 0x01000193)
  return hash >>> 0
}

/** About normal with mean 0 and deviation 1: the sum of twelve even chances less six. */
export function scatter(next: () => number): number {
  let sum = -6
  for (let k = 0; k < 12; k++) sum += next()
  return sum
}

/** Normally distributed numbers of mean 0 and deviation 1 (Box and Muller): the same seed gives the same ones. */
export function gaussian(seed: number): () => number {
  const next = chance(seed * 2654435761 + 12345)
  return () => Math.sqrt(-2 * Math.log(1 - next())) * Math.cos(2 * Math.PI * next())
}
