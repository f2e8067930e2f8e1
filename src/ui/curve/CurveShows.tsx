'use client'
import { Descriptions } from 'antd'
import type { DiodeFit, Interval } from '@/core/curve/fitDiode'
import type { CurvePicture } from '@/core/steps/picture'
import { GROUPS_PER_MODULE } from '@/core/curve/reference'
import { say } from '@/words/say'
import { balloonsOf } from './curveOption'
import { useFit } from './useFit'

/** What a curve shows, by the numbers that stand on it. */
export function CurveShows({ picture }: { picture: CurvePicture }) {
  // Of a curve with a ledge no single diode says anything.
  const isOne = picture.measured.length > 0 && picture.steps.length === 0
  const fit = useFit(isOne ? picture.measured : null)
  if (picture.measured.length === 0) return null
  return (
    <div className="curve-shows" data-testid="curve-shows">
      <h3>{say('curve.shows')}</h3>
      <ol>
        {balloonsOf(picture).map(({ n, what }) => (
          <li key={n}>
            <span className="n">{n}</span>
            <b>{what === 'ledge' ? ledgeText(picture, n - 1) : topText(picture)}</b>
          </li>
        ))}
      </ol>
      {fit && (
        <Descriptions
          size="small"
          column={1}
          title={say('curve.as-one-diode')}
          items={fitItems(fit)}
          data-testid="curve-fit"
        />
      )}
    </div>
  )
}

function ledgeText({ steps, voc_V, isc_A }: CurvePicture, k: number): string {
  const { voltage_V, width_V, drop_A } = steps[k]!
  return say('curve.shows-ledge', {
    voltage_V,
    width_V,
    drop_A,
    share_pct: (100 * drop_A) / isc_A,
    width_pct: (100 * width_V) / voc_V,
    groups: GROUPS_PER_MODULE,
  })
}

function topText({ vmp_V, imp_A, top }: CurvePicture): string {
  const figures = { vmp_V, power_W: vmp_V * imp_A }
  if (!top) return say('curve.shows-top', figures)
  return say('curve.shows-top-expected', { ...figures, expected_V: top.vmp_V, expected_W: top.vmp_V * top.imp_A })
}

/** The five as measured, each with its 95 % interval. */
function fitItems(fit: DiodeFit): { key: string; label: string; children: string }[] {
  return (
    [
      'photocurrent_A',
      'saturationCurrent_A',
      'seriesResistance_ohm',
      'shuntResistance_ohm',
      'modifiedIdeality_V',
    ] as const
  ).map((name) => ({
    key: name,
    label: say(`curve.${name}`),
    children: intervalText(fit[name], name === 'saturationCurrent_A' ? 1e9 : 1),
  }))
}

const DIGITS = 4
const digits = (value: number): string => String(Number(value.toPrecision(DIGITS)))

function intervalText({ value, low, high }: Interval, times: number): string {
  if (high === null) return say('curve.interval-open', { low: digits(low * times) })
  return say('curve.interval', { value: digits(value * times), low: digits(low * times), high: digits(high * times) })
}
