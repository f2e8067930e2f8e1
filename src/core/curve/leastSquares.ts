import { Matrix, solve } from 'ml-matrix'

/** Coefficients of basis functions that fit values best in the sense of least squares. */
export function fitBasis(rows: readonly (readonly number[])[], values: readonly number[]): number[] {
  return solve(new Matrix(rows as number[][]), Matrix.columnVector(values as number[]), true).to1DArray()
}

/** A polynomial of a degree through points, lowest power first, over x less `about` divided by `scale`. */
export function fitPolynomial(points: readonly (readonly [number, number])[], degree: number): Polynomial {
  const xs = points.map(([x]) => x)
  const [low, high] = [Math.min(...xs), Math.max(...xs)]
  const about = (low + high) / 2
  const scale = (high - low) / 2 || 1
  const rows = xs.map((x) => Array.from({ length: degree + 1 }, (_, power) => ((x - about) / scale) ** power))
  return new Polynomial(
    fitBasis(
      rows,
      points.map(([, y]) => y),
    ),
    about,
    scale,
  )
}

export class Polynomial {
  constructor(
    private readonly coefficients: readonly number[],
    private readonly about: number,
    private readonly scale: number,
  ) {}

  at(x: number): number {
    const t = (x - this.about) / this.scale
    return this.coefficients.reduceRight((sum, one) => sum * t + one, 0)
  }

  slopeAt(x: number): number {
    const t = (x - this.about) / this.scale
    let sum = 0
    for (let power = this.coefficients.length - 1; power > 0; power--) sum = sum * t + power * this.coefficients[power]!
    return sum / this.scale
  }
}
