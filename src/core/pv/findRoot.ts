/**
 * Root of a continuous function between two points of opposite sign, by Brent's method (R. P. Brent, Algorithms for
 * Minimization without Derivatives, 1973, chapter 4; from memory). Null where the signs do not differ.
 */
export function findRoot(f: (x: number) => number, from: number, to: number, tolerance = 1e-15): number | null {
  let a = from
  let b = to
  let fa = f(a)
  let fb = f(b)
  if (!Number.isFinite(fa) || !Number.isFinite(fb) || fa * fb > 0) return null
  let c = a
  let fc = fa
  let step = b - a
  let before = step
  for (let round = 0; round < 200; round++) {
    if (fb * fc > 0) {
      c = a
      fc = fa
      step = b - a
      before = step
    }
    if (Math.abs(fc) < Math.abs(fb)) {
      a = b
      b = c
      c = a
      fa = fb
      fb = fc
      fc = fa
    }
    const close = 2 * Number.EPSILON * Math.abs(b) + tolerance / 2
    const half = (c - b) / 2
    if (Math.abs(half) <= close || fb === 0) return b
    if (Math.abs(before) >= close && Math.abs(fa) > Math.abs(fb)) {
      const s = fb / fa
      let p: number
      let q: number
      if (a === c) {
        p = 2 * half * s
        q = 1 - s
      } else {
        const r = fb / fc
        const t = fa / fc
        p = s * (2 * half * t * (t - r) - (b - a) * (r - 1))
        q = (t - 1) * (r - 1) * (s - 1)
      }
      if (p > 0) q = -q
      p = Math.abs(p)
      if (2 * p < Math.min(3 * half * q - Math.abs(close * q), Math.abs(before * q))) {
        before = step
        step = p / q
      } else {
        step = half
        before = half
      }
    } else {
      step = half
      before = half
    }
    a = b
    fa = fb
    b += Math.abs(step) > close ? step : Math.sign(half) * close
    fb = f(b)
  }
  return b
}
