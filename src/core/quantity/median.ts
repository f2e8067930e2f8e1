/**
 * The middle one, or halfway between the two middle ones.
 * @example medianOf([3, 1, 8, 2]) // 2.5
 */
export function medianOf(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b)
  const middle = sorted.length >> 1
  return sorted.length % 2 ? sorted[middle]! : (sorted[middle - 1]! + sorted[middle]!) / 2
}
