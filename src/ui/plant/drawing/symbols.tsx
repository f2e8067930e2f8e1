import type { ReactNode } from 'react'
import { SunShape, stationSymbol } from '../../line/symbols'
import type { Shape, SymbolName } from './pieces'

type Pen = { stroke: string; fill: string }

/** A symbol around 0,0. */
function symbolOf(name: SymbolName, { stroke, fill }: Pen): ReactNode {
  switch (name) {
    case 'sun':
      return <SunShape stroke={stroke} />
    case 'array':
      return stationSymbol('modules', stroke, fill, [])
    case 'switch':
      return stationSymbol('dc-switch', stroke, fill, [])
    case 'surge-protection':
      return (
        <>
          <rect x="-9" y="-12" width="18" height="24" fill={fill} stroke={stroke} strokeWidth="1.8" />
          <path d="M-5-8H5L0-1ZM-5 8H5L0 1Z" fill={stroke} />
        </>
      )
    case 'supply':
    case 'rcd':
    case 'inverter':
    case 'board':
    case 'electrode':
    case 'charge-point':
      return stationSymbol(name, stroke, fill, [])
    case 'breaker':
    case 'breaker-with-rcd':
      return (
        <>
          <rect x="-14" y="-13" width="28" height="17" fill={fill} />
          <path d="M-14-4-7 4M-7-4-14 4" stroke={stroke} strokeWidth="2" />
          <path d="M-10 0 12-10" stroke={stroke} strokeWidth="2.4" />
          <circle cx="13" r="2.4" fill={stroke} />
          {name === 'breaker-with-rcd' && <ellipse cx="22" rx="4" ry="8" fill="none" stroke={stroke} strokeWidth="2" />}
        </>
      )
  }
}

const CELL = 9
const CHAIN_WIDE = 178
const HIGH = 20
const FAR_BEHIND = 3

/** A string module by module; many are drawn narrower, and the figure on the wire says how many. */
function Chain({ shape, pen }: { shape: Extract<Shape, { is: 'chain' }>; pen: Pen }) {
  const { x, y, modules, sheets } = shape
  const cell = Math.min(CELL, CHAIN_WIDE / modules)
  const wide = cell * modules
  const cells = Array.from(
    { length: modules - 1 },
    (_, k) => `M${(x + (k + 1) * cell).toFixed(1)} ${y - HIGH / 2}v${HIGH}`,
  )
  return (
    <>
      {Array.from({ length: sheets }, (_, k) => sheets - k).map((k) => (
        <rect
          key={k}
          x={x + k * FAR_BEHIND}
          y={y - HIGH / 2 - k * FAR_BEHIND}
          width={wide}
          height={HIGH}
          fill={pen.fill}
          stroke={pen.stroke}
          strokeWidth="1.2"
        />
      ))}
      <rect
        x={x}
        y={y - HIGH / 2}
        width={wide}
        height={HIGH}
        fill="var(--well)"
        stroke={pen.stroke}
        strokeWidth="1.3"
      />
      <path d={`${cells.join('')}M${x} ${y}h${wide}`} stroke={pen.stroke} strokeWidth="1" />
    </>
  )
}

/** A tall box over all its inputs: their marks in a strip on the left, the sign on the right. */
function Inverter({ shape, pen }: { shape: Extract<Shape, { is: 'inverter' }>; pen: Pen }) {
  const { box, inputs, sheets } = shape
  const { x, y, w, h } = box
  const right = x + w
  return (
    <>
      {Array.from({ length: sheets }, (_, k) => sheets - k).map((k) => (
        <rect
          key={k}
          x={x + k * FAR_BEHIND}
          y={y - k * FAR_BEHIND}
          width={w}
          height={h}
          fill={pen.fill}
          stroke={pen.stroke}
          strokeWidth="1.2"
        />
      ))}
      <rect x={x} y={y} width={w} height={h} fill={pen.fill} stroke={pen.stroke} strokeWidth="2" />
      <path d={`M${x + 34} ${y}v${h}M${x + 34} ${y + h}L${right} ${y}`} stroke={pen.stroke} strokeWidth="1.4" />
      <path d={`M${x + 41} ${y + 14}h12M${x + 41} ${y + 19}h12`} stroke={pen.stroke} strokeWidth="2" />
      <path d={`M${x + 62} ${y + h - 12}q3.5-7 7 0t7 0`} fill="none" stroke={pen.stroke} strokeWidth="2" />
      {inputs.map((one) => (
        <text key={one.y} x={x + 17} y={one.y + 5.5} textAnchor="middle" className="dr-name">
          {one.text}
        </text>
      ))}
    </>
  )
}

export function ShapeOf({ shape, pen }: { shape: Shape; pen: Pen }) {
  const { stroke, fill } = pen
  switch (shape.is) {
    case 'symbol':
      return (
        <g transform={`translate(${shape.x} ${shape.y}) scale(${shape.scale ?? 1})`}>{symbolOf(shape.name, pen)}</g>
      )
    case 'chain':
      return <Chain shape={shape} pen={pen} />
    case 'inverter':
      return <Inverter shape={shape} pen={pen} />
    case 'combiner': {
      const { x, top, foot } = shape
      const middle = (top + foot) / 2
      return (
        <>
          <rect x={x - 18} y={top} width="36" height={foot - top} fill={fill} stroke={stroke} strokeWidth="2" />
          <path
            d={`M${x - 18} ${top + 9}H${x - 8}L${x + 4} ${middle}M${x - 18} ${foot - 9}H${x - 8}L${x + 4} ${middle}M${x - 18} ${middle}H${x + 18}`}
            fill="none"
            stroke={stroke}
            strokeWidth="2"
          />
        </>
      )
    }
    case 'bar':
      return <path d={`M${shape.x} ${shape.top}V${shape.foot}`} stroke={stroke} strokeWidth={shape.width} />
    case 'rod':
      return (
        <>
          <path d={`M${shape.x} ${shape.y}v26`} stroke={stroke} strokeWidth="4" />
          <path d={`M${shape.x - 3} ${shape.y + 26}l3 6 3-6Z`} fill={stroke} />
        </>
      )
    case 'line':
      return <path d={shape.d} fill="none" stroke={stroke} strokeWidth={shape.width} />
  }
}
