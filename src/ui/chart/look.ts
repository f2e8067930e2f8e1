/** What all charts share: their letters, and the box that tells of what is under the cursor. */
import { FONT_FAMILY } from '@/look/tokens'
import type { Palette } from './palette'

export const chartText = ({ ink2 }: Palette) => ({ fontFamily: FONT_FAMILY, fontSize: 14, color: ink2 })

export const tooltipLook = (palette: Palette) => ({
  confine: true,
  backgroundColor: palette.sheet,
  borderColor: palette.ink,
  borderRadius: 0,
  padding: [6, 10],
  extraCssText: 'box-shadow:none;white-space:normal',
  textStyle: { ...chartText(palette), color: palette.ink },
})

/** An axis of figures that begins at nothing, with a few faint lines. */
export const upFromNothing = (palette: Palette): object => ({
  type: 'value',
  min: 0,
  axisLabel: chartText(palette),
  splitNumber: 3,
  splitLine: { lineStyle: { color: palette.hair } },
})
