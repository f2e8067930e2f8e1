'use client'
import { useEffect, useState } from 'react'
import type { DiodeFit } from '@/core/curve/fitDiode'
import type { CurvePoint } from '@/core/curve/points'
import { askExplainer } from './explainer'

/** The five parameters of a curve, found beside the screen; null until they are there, or where it has none. */
export function useFit(points: readonly CurvePoint[] | null): DiodeFit | null {
  const [fit, setFit] = useState<DiodeFit | null>(null)
  useEffect(() => {
    setFit(null)
    if (!points) return
    return askExplainer({ ask: 'fit', of: points }, (answer) => {
      if (answer && 'fit' in answer) setFit(answer.fit)
    })
  }, [points])
  return fit
}
