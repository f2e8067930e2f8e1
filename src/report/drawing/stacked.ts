/** Where rings stand on a strip: each at its value, one above another where they would lie on each other. */
export type Placed<T> = { one: T; x: number; level: number }

/** @param apart how far two of one level are from each other at least, px. @param most levels; what is over lies on the highest. */
export function stacked<T>(all: readonly { one: T; x: number }[], apart: number, most: number): Placed<T>[] {
  const ends: number[] = []
  return [...all]
    .sort((a, b) => a.x - b.x)
    .map(({ one, x }) => {
      const free = ends.findIndex((end) => x - end >= apart)
      const level = Math.min(free >= 0 ? free : ends.length, most - 1)
      ends[level] = x
      return { one, x, level }
    })
}
