import type { ReactNode } from 'react'
import { Named } from './shapes'

export type Drawing = (props: { modules: number; lead(balloon: number): string }) => ReactNode
export type Drawings = Record<string, Drawing>

/** What stands at the balloons, in words, two in a row. */
export const list =
  (count: number): Drawing =>
  ({ lead }) => (
    <>
      {Array.from({ length: count }, (_, k) => (
        <Named
          key={lead(k + 1)}
          x={22 + (k % 2) * 150}
          y={128 + Math.floor(k / 2) * 28}
          n={k + 1}
          words={lead(k + 1)}
        />
      ))}
    </>
  )
