import { type Colour, colours } from '@/look/tokens'
import { useTheme } from '../theme/Theme'

/** The colours that a chart computes with. */
export type Palette = Readonly<Record<Colour, string>>

/** The colours of the theme that is on. */
export const usePalette = (): Palette => colours[useTheme().name]
