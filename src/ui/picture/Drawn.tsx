import { createElement, type ReactElement } from 'react'
import type { Drawing, Node } from '@/report/drawing/node'

/** Attributes as React names them. */
const propsOf = (attrs: Node['attrs']): Record<string, string | number> =>
  Object.fromEntries(
    Object.entries(attrs).map(([name, value]) => [
      name.replace(/-([a-z])/g, (_, letter: string) => letter.toUpperCase()),
      value,
    ]),
  )

/** Words stay readable where a line runs behind them. */
const OVER_LINES = { paintOrder: 'stroke', stroke: 'var(--paper)', strokeWidth: 4 } as const

const element = ({ tag, attrs, text, kids }: Node, key: number): ReactElement =>
  createElement(
    tag,
    { ...propsOf(attrs), key, ...(tag === 'text' ? OVER_LINES : {}) },
    text,
    ...(kids ?? []).map(element),
  )

/** A drawing on the screen: the same that is printed. */
export function Drawn({ drawing }: { drawing: Drawing }) {
  return (
    <svg
      width="100%"
      viewBox={`0 0 ${drawing.wide} ${drawing.high}`}
      role="img"
      aria-label={drawing.label}
      data-picture={drawing.name}
      style={{ maxWidth: drawing.wide, marginTop: 8 }}
    >
      {drawing.nodes.map(element)}
    </svg>
  )
}
