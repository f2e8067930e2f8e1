'use client'
import { useMemo } from 'react'
import type { SpikesPicture as Data } from '@/core/steps/picture'
import { say } from '@/words/say'
import { Chart } from '../chart/Chart'
import { usePalette } from '../chart/palette'
import { spikesFigures, spikesMarks, spikesOption } from './spikesOption'

const HIGH = 210

/** The electrode's curve: resistance against the place of the potential spike. */
export function SpikesPicture({ picture }: { picture: Data }) {
  const palette = usePalette()
  const option = useMemo(() => spikesOption(picture, palette), [picture, palette])
  const { mean_ohm, true_share, spread_pct } = picture
  const hint =
    mean_ohm === null
      ? null
      : true_share === null
        ? say('picture.mean', { mean: mean_ohm, spread: spread_pct / 2 })
        : say('picture.read-off', { value: mean_ohm })
  return (
    <>
      {hint && <p className="src">{hint}</p>}
      <Chart
        name="spikes"
        option={option}
        height={HIGH}
        label={say('picture.spikes', { places: picture.places.length })}
        marks={spikesMarks(picture)}
        figures={spikesFigures(picture)}
      />
    </>
  )
}
