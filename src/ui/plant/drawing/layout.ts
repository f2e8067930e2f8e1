/** The whole drawing, sun at the top, earth along the foot. Pure: the same plant is always drawn the same. */
import { partKinds } from '@/core/plant/part'
import type { PlantIndex } from '@/core/plant/plantIndex'
import { beginning } from './beginning'
import { earthSide } from './earthSide'
import { inGround } from './inGround'
import { addTo, emptySheet, type Ground, type Sheet } from './pieces'
import { bondsOf, sunSide } from './sunSide'

export const WIDE = 672
/** Between the sides. */
const GAP = 18
/** Above the ground, where the main terminal is. */
const ABOVE = 26
/** Room for one row in the ground. */
const UNDER = 56
const DEFAULT_TERMINAL = 208

export type Layout = Sheet & {
  width: number
  height: number
  /** Where the ground begins. */
  surface: number
  terminal: { x: number; y: number } | null
}

/** @param least as high as there is room: the ground lies at the foot. */
export function layoutOf(ground: Ground, least = 0): Layout {
  const { plant } = ground
  if (ground.canWrite && isEmpty(plant)) return emptyLayout(least)
  const sheet = emptySheet()
  const hasSun = ['array', 'string', 'inverter', 'dc-switch', 'combiner', 'row', 'surge-protection'].some(
    (kind) => plant.ofKind(kind as 'array').length > 0,
  )
  const sun = sunSide(ground)
  const earth = earthSide(ground, sun.outs, sun.foot + (hasSun ? GAP : 0))
  const own = earth.foot + ABOVE
  const surface = Math.max(own, least - UNDER)
  const terminal = { x: earth.terminal?.x ?? DEFAULT_TERMINAL, y: surface - 10 }
  const buried = inGround(ground, terminal, surface)
  addTo(sheet, bondsOf(sun, earth.terminal ? terminal : null))
  if (earth.terminal) sheet.wires.push({ d: `M${terminal.x} ${earth.terminal.y}V${terminal.y}`, style: 'bond' })
  for (const one of [sun, earth, buried]) addTo(sheet, one)
  return {
    ...sheet,
    width: WIDE,
    height: Math.max(least, buried.foot),
    surface,
    terminal: earth.terminal ? terminal : null,
  }
}

const isEmpty = (plant: PlantIndex): boolean =>
  partKinds.every((kind) => kind === 'site' || plant.ofKind(kind).length === 0)

/** Lower than this the places of an empty plant do not stand. */
const EMPTY_SURFACE = 500

function emptyLayout(least: number): Layout {
  const surface = Math.max(EMPTY_SURFACE, least - UNDER)
  return { ...beginning(), width: WIDE, height: surface + UNDER, surface, terminal: null }
}
