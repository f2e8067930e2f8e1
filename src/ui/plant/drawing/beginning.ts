/** A plant that has nothing yet: the whole of it in pencil, each outline a place. */
import type { AddedKind } from '@/core/plant/additions'
import { emptySheet, type Place, type Shape, type Sheet, symbol, type SymbolName, type Wire } from './pieces'

const W = 148
const H = 44
const COLUMNS = [14, 182, 350, 510] as const

type Spot = readonly [AddedKind, number, number]
const spots: readonly Spot[] = [
  ['array', 0, 76],
  ['string', 1, 76],
  ['dc-switch', 2, 76],
  ['inverter', 3, 76],
  ['supply', 0, 236],
  ['board', 2, 236],
  ['charge-point', 3, 320],
  ['electrode', 0, 440],
]

const signs: Partial<Record<AddedKind, SymbolName>> = {
  array: 'array',
  'dc-switch': 'switch',
  inverter: 'inverter',
  supply: 'supply',
  board: 'board',
  'charge-point': 'charge-point',
  electrode: 'electrode',
}

function signOf(kind: AddedKind, x: number, y: number): Shape {
  const name = signs[kind]
  return name ? symbol(name, x, y, SMALL) : { is: 'chain', x: x - 18, y, modules: 4, sheets: 0 }
}
const SMALL = 0.72

/** Sun to inverter, inverter to board, supply to board, board to charge point and to the ground. */
const wires: readonly string[] = [
  'M162 98H182M330 98H350M498 98H510',
  'M584 120V258H498',
  'M162 258H350',
  'M460 280V342H510',
  'M400 280V420H88V440',
]

export function beginning(): Sheet {
  const places = spots.map(
    ([kind, column, y]): Place => ({
      key: `begin ${kind}`,
      at: null,
      kinds: [kind],
      box: { x: COLUMNS[column]!, y, w: W, h: H },
      isRing: false,
      sign: signOf(kind, COLUMNS[column]! + W - (kind === 'charge-point' ? 22 : 30), y + H / 2),
    }),
  )
  return { ...emptySheet(), places, wires: wires.map((d): Wire => ({ d, style: 'may' })) }
}
