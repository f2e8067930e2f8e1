/** The one home of the look's colours and letters: style sheets, component library, charts and print are made from here. */
export const themeNames = ['day', 'sun', 'night'] as const
export type ThemeName = (typeof themeNames)[number]

/** What stands on what, and how far apart they must be: WCAG 2.2, 1.4.3 for letters, 1.4.11 for lines. */
export const TEXT_CONTRAST = 4.5
export const LINE_CONTRAST = 3

const day = {
  paper: '#E9EDE6',
  sheet: '#F8FAF5',
  /** Where something is typed. */
  well: '#FFFFFF',
  ink: '#14212B',
  ink2: '#43505A',
  /** Parts lines from one another; never the only bearer of a meaning. */
  hair: '#B4BEB4',
  /** What is not proven: lines and rings only. */
  pencil: '#636F76',
  accent: '#2036C4',
  'on-accent': '#FFFFFF',
  'accent-tint': '#DDE2F7',
  within: '#0A6640',
  'within-tint': '#D3EADB',
  'on-within': '#FFFFFF',
  close: '#7F4F00',
  'close-fill': '#F2B01E',
  'close-tint': '#FBE9BD',
  'on-close': '#14212B',
  outside: '#AD1A21',
  'outside-tint': '#F8D8D5',
  'on-outside': '#FFFFFF',
  'mark-edge': '#14212B',
  'lead-red': '#B4121B',
}
export type Colour = keyof typeof day

const sun: Record<Colour, string> = {
  ...day,
  paper: '#FFFFFF',
  sheet: '#FFFFFF',
  ink: '#000000',
  ink2: '#1E262B',
  hair: '#5A646A',
  pencil: '#4A545A',
  accent: '#0A1C9E',
  'accent-tint': '#FFFFFF',
  within: '#00492A',
  'within-tint': '#FFFFFF',
  close: '#553300',
  'close-fill': '#FFC21A',
  'close-tint': '#FFFFFF',
  'on-close': '#000000',
  outside: '#8C0010',
  'outside-tint': '#FFFFFF',
  'mark-edge': '#000000',
}

const night: Record<Colour, string> = {
  paper: '#10171C',
  sheet: '#182127',
  well: '#0B1115',
  ink: '#E9ECE5',
  ink2: '#AAB6BA',
  hair: '#3C4A52',
  pencil: '#84929A',
  accent: '#9DB4FF',
  'on-accent': '#0B1230',
  'accent-tint': '#26305A',
  within: '#62D69B',
  'within-tint': '#16382A',
  'on-within': '#06190F',
  close: '#FFC95C',
  'close-fill': '#FFC95C',
  'close-tint': '#3D3011',
  'on-close': '#1B1200',
  outside: '#FF9187',
  'outside-tint': '#47201E',
  'on-outside': '#250504',
  'mark-edge': '#FFC95C',
  'lead-red': '#FF6F66',
}

export const colours: Record<ThemeName, Record<Colour, string>> = { day, sun, night }

/** Print is the day's look in black: what is measured stands out on any printer, whatever colours it has. */
export const printed: Record<Colour, string> = {
  ...day,
  paper: '#FFFFFF',
  sheet: '#FFFFFF',
  ink: '#000000',
  accent: '#000000',
  'within-tint': '#E3E8E3',
}

/** Letters: what the text's own family lacks stands in the symbols before it. */
export const FONT_FAMILY = '"Upstand Symbols","Atkinson Hyperlegible Next Variable",sans-serif'

/** The colours as custom properties of the page, for each theme. */
export function themeSheet(): string {
  const rule = (selector: string, of: Record<Colour, string>): string =>
    `${selector}{${Object.entries(of)
      .map(([name, value]) => `--${name}:${value}`)
      .join(';')}}`
  return [
    rule(':root', colours.day),
    ...(['sun', 'night'] as const).map((name) => rule(`:root[data-theme="${name}"]`, colours[name])),
  ].join('')
}
