/**
 * A small drawing as data: the screen makes elements of it, the print a text. Colours are the tokens of the interface;
 * the print has them as ink on paper.
 */
import { type Colour, printed } from '@/look/tokens'
export type Node = {
  tag: 'path' | 'rect' | 'circle' | 'text' | 'g'
  attrs: Readonly<Record<string, string | number>>
  text?: string
  kids?: readonly Node[]
}
export type Drawing = {
  name: string
  wide: number
  high: number /** In a sentence. */
  label: string
  nodes: readonly Node[]
}

const PRINT_FONT = 'Print'

export const line = (d: string, colour = 'ink', width = 1.6, dash = ''): Node => ({
  tag: 'path',
  attrs: {
    d,
    fill: 'none',
    stroke: `var(--${colour})`,
    'stroke-width': width,
    ...(dash ? { 'stroke-dasharray': dash } : {}),
  },
})

export const dot = (x: number, y: number, radius: number, filled = true): Node => ({
  tag: 'circle',
  attrs: {
    cx: x,
    cy: y,
    r: radius,
    fill: filled ? 'var(--ink)' : 'var(--sheet)',
    stroke: filled ? 'var(--sheet)' : 'var(--ink)',
    'stroke-width': 2,
  },
})

type Anchor = 'start' | 'middle' | 'end'
export const words = (x: number, y: number, text: string, anchor: Anchor = 'start', strong = false): Node => ({
  tag: 'text',
  attrs: {
    x,
    y,
    'text-anchor': anchor,
    'font-size': 14,
    ...(strong ? { 'font-weight': 640 } : {}),
    fill: 'var(--ink)',
  },
  text,
})

const escaped = (text: string): string =>
  text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;').replaceAll('"', '&quot;')

const inked = (value: string): string =>
  value.replace(/var\(--([a-z0-9-]+)\)/g, (_, token: string) => printed[token as Colour] ?? printed.ink)

function nodeText({ tag, attrs, text, kids }: Node): string {
  const own = tag === 'text' ? { ...attrs, 'font-family': PRINT_FONT } : attrs
  const written = Object.entries(own)
    .filter(([name]) => name !== 'font-weight')
    .map(([name, value]) => ` ${name}="${escaped(inked(String(value)))}"`)
    .join('')
  return `<${tag}${written}>${text ? escaped(text) : ''}${(kids ?? []).map(nodeText).join('')}</${tag}>`
}

/** The drawing as SVG for print. */
export const svgOf = ({ wide, high, nodes }: Drawing): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${wide} ${high}" width="${wide}" height="${high}">${nodes
    .map(nodeText)
    .join('')}</svg>`
