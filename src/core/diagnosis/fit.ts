import type { Cause } from '../verdict/cause'

/** A predicted value fits within the combined uncertainty, may fit within twice it [D]. */
export function fitOf(difference: number, uncertainty: number): Cause['fit'] {
  const share = Math.abs(difference) / uncertainty
  if (share <= 1) return 'fits'
  return share <= 2 ? 'may-fit' : 'does-not-fit'
}

const rank: Record<Cause['fit'], number> = { fits: 0, 'may-fit': 1, 'does-not-fit': 2 }

/** Likeliest first: by how well it explains the reading, then by how often it is met on a roof (the order given). */
export function ranked(causes: readonly Cause[]): Cause[] {
  return causes
    .map((cause, index) => ({ cause, index }))
    .sort((a, b) => rank[a.cause.fit] - rank[b.cause.fit] || a.index - b.index)
    .map(({ cause }) => cause)
}
