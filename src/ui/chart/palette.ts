import { useMemo } from 'react'
import { useTheme } from '../theme/Theme'

const tokens = ['ink', 'ink2', 'hair', 'pencil', 'accent', 'sheet', 'within', 'close-fill', 'outside'] as const
/** The colours of the theme that is on, from the tokens of the style sheet: the library computes with them. */
export type Palette = Readonly<Record<(typeof tokens)[number], string>>

export function readPalette(): Palette {
  const style = getComputedStyle(document.documentElement)
  return Object.fromEntries(tokens.map((one) => [one, style.getPropertyValue(`--${one}`).trim()])) as Palette
}

/** Read anew with each theme. */
export function usePalette(): Palette {
  const { name } = useTheme()
  // biome-ignore lint/correctness/useExhaustiveDependencies: the tokens follow the theme's name
  return useMemo(readPalette, [name])
}
