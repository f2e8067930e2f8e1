import { chance } from '@/standin/random'

/** Normally distributed numbers of mean 0 and scatter 1: the same seed gives the same ones (Box and Muller). */
export function gaussian(seed: number): () => number {
  const next = chance(seed * 2654435761 + 12345)
  return () => Math.sqrt(-2 * Math.log(1 - next())) * Math.cos(2 * Math.PI * next())
}
