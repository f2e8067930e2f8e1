import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { type Colour, colours, LINE_CONTRAST, printed, TEXT_CONTRAST, themeNames, themeSheet } from './tokens'

/** Relative luminance of a colour, WCAG 2.2, "relative luminance". */
function luminance(hex: string): number {
  const [r, g, b] = [1, 3, 5]
    .map((at) => Number.parseInt(hex.slice(at, at + 2), 16) / 255)
    .map((c) => (c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4)) as [number, number, number]
  return 0.2126 * r + 0.7152 * g + 0.0722 * b
}
/** Contrast ratio of two colours, 1 to 21, WCAG 2.2, "contrast ratio". */
function contrast(one: string, other: string): number {
  const [dark, light] = [luminance(one), luminance(other)].sort((a, b) => a - b) as [number, number]
  return (light + 0.05) / (dark + 0.05)
}

/** Letters, and every ground that they stand on. */
const letters: [Colour, Colour[]][] = [
  ['ink', ['paper', 'sheet', 'well', 'accent-tint', 'within-tint', 'close-tint', 'outside-tint']],
  ['ink2', ['paper', 'sheet', 'well', 'accent-tint']],
  ['accent', ['paper', 'sheet', 'well', 'accent-tint']],
  ['within', ['paper', 'sheet', 'within-tint']],
  ['close', ['paper', 'sheet', 'close-tint', 'accent-tint']],
  ['outside', ['paper', 'sheet', 'outside-tint', 'accent-tint']],
  ['on-accent', ['accent']],
  ['on-within', ['within']],
  ['on-close', ['close-fill']],
  ['on-outside', ['outside']],
]

describe.each(themeNames)('the %s theme', (name) => {
  const of = colours[name]
  it('can be read: letters stand off every ground they are on', () => {
    const weak = letters.flatMap(([letter, grounds]) =>
      grounds
        .filter((ground) => contrast(of[letter], of[ground]) < TEXT_CONTRAST)
        .map((ground) => `${letter} on ${ground}: ${contrast(of[letter], of[ground]).toFixed(2)}`),
    )
    expect(weak).toEqual([])
  })
  it('shows what is drawn in pencil', () => {
    for (const ground of ['paper', 'sheet'] as const)
      expect(contrast(of.pencil, of[ground]), ground).toBeGreaterThanOrEqual(LINE_CONTRAST)
  })
})

it('contrast is that of the published examples', () => {
  // WCAG 2.2, understanding 1.4.3: black on white 21, #767676 on white 4.54.
  expect(contrast('#000000', '#FFFFFF')).toBeCloseTo(21, 6)
  expect(contrast('#767676', '#FFFFFF')).toBeCloseTo(4.54, 2)
})

describe('colours have one home', () => {
  const files = readdirSync('src', { recursive: true, withFileTypes: true })
    .filter((entry) => entry.isFile() && /\.(ts|tsx|css)$/.test(entry.name) && !/\.test\.tsx?$/.test(entry.name))
    .map((entry) => join(entry.parentPath, entry.name))
  const texts = files.map((file) => ({ file, text: readFileSync(file, 'utf8') }))

  it('none is written anywhere else', () => {
    expect(files.length).toBeGreaterThan(300)
    const strange = texts
      .filter(({ file }) => !file.endsWith('look/tokens.ts'))
      .flatMap(({ file, text }) =>
        [...text.matchAll(/(?<![\w&])#(?:[0-9a-fA-F]{6}|[0-9a-fA-F]{3})\b(?!\w)/g)].map(
          (found) => `${file}: ${found[0]}`,
        ),
      )
    expect(strange).toEqual([])
  })

  it('every one that is used exists, and every one that exists is used', () => {
    const sheet = texts.map(({ text }) => text).join('\n')
    const used = new Set([...sheet.matchAll(/var\(--([a-z0-9-]+)/g)].map((found) => found[1]!))
    const defined = new Set(
      [...`${sheet}${themeSheet()}`.matchAll(/--([a-z0-9-]+)['`]?\s*[:,]/g)].map((found) => found[1]!),
    )
    expect([...used].filter((name) => !defined.has(name) && !name.startsWith('ant'))).toEqual([])
    const idle = Object.keys(colours.day).filter(
      (name) => !used.has(name) && !sheet.includes(`t.${name}`) && !sheet.includes(`t['${name}']`),
    )
    expect(idle).toEqual([])
  })

  it('print knows every one', () => {
    expect(Object.keys(printed).sort()).toEqual(Object.keys(colours.day).sort())
  })
})
