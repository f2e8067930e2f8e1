import '@/words/everyTest'
import '@/words/plant'
import { describe, expect, it } from 'vitest'
import type { GardenPicture, PlaceFound, SpikesPicture, StringPlacePicture, TrendPicture } from '@/core/steps/picture'
import { drawingOf } from './index'
import { type Drawing, svgOf } from './node'

const ZONE = 'Europe/London'
const textsOf = (drawing: Drawing | null): string[] => drawing!.nodes.flatMap((node) => node.text ?? [])
const spikes: SpikesPicture = {
  kind: 'spikes',
  distance_m: 40,
  places: [
    { share: 0.62, read_ohm: 18.3 },
    { share: 0.52, read_ohm: 17.7 },
    { share: 0.72, read_ohm: null },
  ],
  true_share: null,
  even_soil: [],
  mean_ohm: 18,
  spread_pct: 5,
}
const garden: GardenPicture = {
  kind: 'garden',
  tag: 'E1',
  way: { bearing_deg: 90, distance_m: 40, shares: [0.62, 1], isPlanned: false },
  services: [{ tag: 'W1', what: 'water', isMetal: true, bearing_deg: 0, away_m: 3, spoils: true }],
}
const day = 86_400_000
const point = (at: number, value: number, alike = true): TrendPicture['points'][number] => ({
  at: at * day,
  value,
  verdict: 'within',
  note: null,
  count: null,
  alike,
  counts: false,
})
const trend: TrendPicture = {
  kind: 'trend',
  change: null,
  unit: 'ohm',
  decimals: 1,
  limit: 100,
  points: [point(0, 30), point(9, 24)],
}

describe('drawings', () => {
  it('tell places in metres, or as shares where nobody measured the way', () => {
    expect(textsOf(drawingOf(spikes, ZONE))).toEqual(
      expect.arrayContaining(['25\u00a0m', '29\u00a0m'].map((one) => one.replace('\u00a0', ' '))),
    )
    expect(textsOf(drawingOf({ ...spikes, distance_m: null }, ZONE))).toContain('62 %')
  })

  it('of a curve say what is read off, and of even soil draw the line', () => {
    const curve = drawingOf(
      {
        ...spikes,
        true_share: 0.618,
        even_soil: [
          { share: 0.2, read_ohm: 10 },
          { share: 0.8, read_ohm: 20 },
        ],
      },
      ZONE,
    )
    expect(textsOf(curve).some((text) => text.includes('18.0'))).toBe(true)
    expect(curve!.nodes.some((node) => String(node.attrs['stroke-dasharray']).startsWith('11 3'))).toBe(true)
  })

  it('of the ground put north up and everything in its place', () => {
    const { nodes, wide, high } = drawingOf(garden, ZONE)!
    const end = nodes.find((node) => node.tag === 'rect')!
    expect(Number(end.attrs.x)).toBeGreaterThan(wide / 2 + 60)
    expect(Number(end.attrs.y)).toBeCloseTo(high / 2 - 5, 6)
    const service = nodes.find((node) => node.attrs.stroke === 'var(--outside)')!
    // 3 m north of the electrode it runs level, above the middle.
    const [y1, y2] = String(service.attrs.d)
      .match(/-?[\d.]+/g)!
      .filter((_, k) => k % 2 === 1)
      .map(Number)
    expect(y1).toBeCloseTo(y2!, 6)
    expect(y1!).toBeLessThan(high / 2)
    expect(textsOf(drawingOf(garden, ZONE))).toContain('W1 water')
  })

  it('of a trend join what is alike and leave the rest as rings', () => {
    const other = drawingOf({ ...trend, points: [point(0, 30, false), point(1, 28), point(9, 24)] }, ZONE)!
    expect(other.nodes.filter((node) => node.attrs.fill === 'var(--sheet)')).toHaveLength(1)
    expect(textsOf(other)).toContain('ring: set up another way')
    expect(textsOf(drawingOf(trend, ZONE))).not.toContain('ring: set up another way')
  })

  it('of one moment, or far apart in value, stay on the sheet', () => {
    for (const points of [
      [point(3, 5), point(3, 5)],
      [point(0, 0.1), point(400, 900)],
    ]) {
      const drawing = drawingOf({ ...trend, points }, ZONE)!
      for (const { attrs, tag } of drawing.nodes)
        if (tag === 'circle') {
          expect(Number(attrs.cx)).toBeGreaterThanOrEqual(0)
          expect(Number(attrs.cx)).toBeLessThanOrEqual(drawing.wide)
          expect(Number(attrs.cy)).toBeGreaterThanOrEqual(0)
        }
    }
  })

  it('are ink on paper in print, with nothing that could break out of a text', () => {
    const svg = svgOf(drawingOf({ ...garden, tag: '<E&1>' }, ZONE)!)
    expect(svg).not.toContain('var(')
    expect(svg).toContain('&lt;E&amp;1&gt;')
    expect(svg.startsWith('<svg ')).toBe(true)
  })
})

describe('a string with the places that a hunt found', () => {
  const read = (more: Partial<PlaceFound>): PlaceFound => ({
    from: 3.9,
    to: 4.1,
    at: 4,
    surface: 'dry',
    ended: false,
    ...more,
  })
  const picture: StringPlacePicture = {
    kind: 'string-place',
    tag: '7',
    modules: 10,
    readings: [read({}), read({ from: 0, to: 5, at: null })],
    suspect: { from: 3.9, to: 4.1 },
    isUnlike: false,
    openNext: null,
  }
  const texts = (of: StringPlacePicture): string[] =>
    drawingOf(of, 'UTC')!.nodes.flatMap(({ tag, text }) => (tag === 'text' ? [text!] : []))

  it('numbers the modules from the positive end and names the plugs', () => {
    expect(texts(picture).slice(0, 12)).toEqual(['+', '−', '1', '2', '3', '4', '5', '6', '7', '8', '9', '10'])
    expect(texts(picture)).toContain('The fault: at the plugs after module 4, counted from +.')
  })

  it('tints what is left by halves, and says where to open next', () => {
    const halved = {
      ...picture,
      readings: [read({ from: 0, to: 5, at: null })],
      suspect: { from: 0, to: 5 },
      openNext: 3,
    }
    expect(drawingOf(halved, 'UTC')!.nodes.some(({ tag, attrs }) => tag === 'rect' && attrs.width === 150)).toBe(true)
    expect(texts(halved)).toContain('Open it after module 3 next: that halves what is left.')
  })

  it('says that a reading was clean, or from before a mending, in words', () => {
    const clean = {
      ...picture,
      readings: [read({ from: null, to: null, at: null, surface: 'wet', ended: true })],
      suspect: null,
    }
    expect(texts(clean)).toContain('Wet, clean to earth, before it was mended')
    expect(texts({ ...picture, suspect: null, isUnlike: true })).toContain(
      'Readings name unlike places: it wanders, or there is more than one.',
    )
    expect(texts({ ...picture, suspect: { from: 9.8, to: 10 } })).toContain('The fault: plug or cable at the − end.')
  })
})
