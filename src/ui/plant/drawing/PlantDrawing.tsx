'use client'
import { Dropdown } from 'antd'
import { type KeyboardEvent, memo, useEffect, useRef, useState } from 'react'
import type { AddedKind } from '@/core/plant/additions'
import { say, type WordKey } from '@/words/say'
import { MarkShape } from '../../mark/Mark'
import type { Layout } from './layout'
import { type Heading, nearest } from './nearest'
import type { Label, Piece, Place, Run, Wire } from './pieces'
import { ShapeOf } from './symbols'

type Props = {
  layout: Layout
  selected: string | null
  zoom: number
  onSelect(piece: Piece): void
  onAdd(kind: AddedKind, at: string | null): void
  /** Enter goes to the fields of what is selected. */
  onFields(): void
}

const headings: Partial<Record<string, Heading>> = {
  ArrowLeft: 'left',
  ArrowRight: 'right',
  ArrowUp: 'up',
  ArrowDown: 'down',
}

/** The plant from sun to earth: every part a button, every place one too; arrows follow wires and lanes. */
export function PlantDrawing({ layout, selected, zoom, onSelect, onAdd, onFields }: Props) {
  const svg = useRef<SVGSVGElement>(null)
  const [here, setHere] = useState<string | null>(null)
  const stop = stopOf(layout, here, selected)
  // biome-ignore lint/correctness/useExhaustiveDependencies: only what is chosen anew comes into sight; a change elsewhere moves nothing
  useEffect(() => {
    const piece =
      selected === null ? null : svg.current?.querySelector(`[data-key="${CSS.escape(keyOf(layout, selected) ?? '')}"]`)
    piece?.scrollIntoView?.({ block: 'nearest', inline: 'nearest' })
  }, [selected])
  // A fold that opens takes its piece away: whoever was on it goes on at what it opened to.
  useEffect(() => {
    const isGone = here !== null && ![...layout.pieces, ...layout.places].some((one) => one.key === here)
    if (!isGone) return
    setHere(null)
    if (document.activeElement === document.body) svg.current?.querySelector<SVGElement>('.drawn.now')?.focus()
  }, [layout, here])
  const onKey = (event: KeyboardEvent): void => {
    const heading = headings[event.key]
    const key = (event.target as Element).closest('[data-key]')?.getAttribute('data-key')
    if (!heading || !key) return
    event.preventDefault()
    const next = nearest(layout, key, heading)
    if (!next) return
    setHere(next)
    svg.current?.querySelector<SVGElement>(`[data-key="${CSS.escape(next)}"]`)?.focus()
  }
  return (
    <svg
      ref={svg}
      className="plant-drawing"
      aria-label={say('drawing.label')}
      viewBox={`0 0 ${layout.width} ${layout.height}`}
      style={{ width: `${zoom * 100}%`, minWidth: layout.width * Math.min(1, zoom) }}
      onKeyDown={onKey}
    >
      <Ground layout={layout} />
      <Slab piece={layout.pieces.find((one) => selected !== null && one.ids.includes(selected)) ?? null} />
      {layout.pieces.length > 0 && <Legend />}
      {layout.wires.map((wire, k) => (
        <WirePath key={k} wire={wire} />
      ))}
      {layout.pieces.map((piece) => (
        <DrawnPiece
          key={piece.key}
          piece={piece}
          isSelected={selected !== null && piece.ids.includes(selected)}
          isStop={piece.key === stop}
          onSelect={onSelect}
          onFields={onFields}
          onFocus={setHere}
        />
      ))}
      {layout.places.map((place) => (
        <DrawnPlace
          key={place.key}
          place={place}
          isHot={place.at !== null && place.at === selected}
          isStop={place.key === stop}
          onAdd={onAdd}
          onFocus={setHere}
        />
      ))}
    </svg>
  )
}

const keyOf = (layout: Layout, id: string): string | null =>
  layout.pieces.find((piece) => piece.ids.includes(id))?.key ?? null

/** Where Tab comes in: where somebody was, at what is selected, or at the first piece. */
function stopOf(layout: Layout, here: string | null, selected: string | null): string | null {
  const isThere = [...layout.pieces, ...layout.places].some((one) => one.key === here)
  if (isThere) return here
  return (selected ? keyOf(layout, selected) : null) ?? layout.pieces[0]?.key ?? layout.places[0]?.key ?? null
}

const strokes: Record<Wire['style'], { stroke: string; width: number; dash?: string }> = {
  ink: { stroke: 'var(--ink)', width: 2.4 },
  pair: { stroke: 'var(--ink)', width: 2 },
  bond: { stroke: 'var(--within)', width: 2.6, dash: '10 4' },
  light: { stroke: 'var(--ink)', width: 1.8, dash: '1.5 5' },
  gang: { stroke: 'var(--ink)', width: 1.6, dash: '4 3' },
  pencil: { stroke: 'var(--pencil)', width: 2.4 },
  may: { stroke: 'var(--pencil)', width: 1.4, dash: '5 4' },
}

function WirePath({ wire }: { wire: Wire }) {
  const { stroke, width, dash } = strokes[wire.style]
  return <path d={wire.d} fill="none" stroke={stroke} strokeWidth={wire.width ?? width} strokeDasharray={dash} />
}

const HATCH = 12

function Ground({ layout }: { layout: Layout }) {
  const { surface, width, terminal } = layout
  const hatch = Array.from({ length: Math.floor(width / HATCH) }, (_, k) => `M${k * HATCH + 10} ${surface + 1}l-7 8`)
  return (
    <>
      <path d={`M0 ${surface}H${width}`} stroke="var(--ink)" strokeWidth="2" />
      <path d={hatch.join('')} stroke="var(--hair)" strokeWidth="1.6" />
      {terminal && <circle cx={terminal.x} cy={terminal.y} r="5" fill="var(--ink)" />}
    </>
  )
}

/** Where somebody is: under the wires, which go on over it. */
function Slab({ piece }: { piece: Piece | null }) {
  if (!piece) return null
  const { x, y, w, h } = piece.box
  return (
    <>
      <rect className="slab" x={x} y={y} width={w} height={h} />
      <path d={`M${x} ${y + h - 2}h${w}`} stroke="var(--accent)" strokeWidth="4" />
    </>
  )
}

/** What ink and pencil say, from the right edge of the drawing. */
function Legend() {
  const lines = [
    { wide: 26, style: 'ink', word: say('drawing.entered') },
    { wide: 26, style: 'pencil', word: say('drawing.figure-missing') },
    { wide: 28, style: 'may', word: say('drawing.may-come') },
  ] as const
  const taken = lines.map(({ wide, word }) => wide + 7 + word.length * LETTER + 14)
  return lines.map(({ wide, style, word }, k) => {
    const x = Math.round(LEGEND_END - taken.slice(k).reduce((sum, one) => sum + one, 0))
    return (
      <g key={style}>
        <WirePath wire={{ d: `M${x} 20h${wide}`, style }} />
        <text x={x + wide + 7} y="25" className="dr-detail">
          {word}
        </text>
      </g>
    )
  })
}
const LEGEND_END = 672
/** A letter of a detail is so wide, about. */
const LETTER = 8.5

const textClass: Record<Run['style'], string> = {
  name: 'dr-name',
  detail: 'dr-detail',
  number: 'dr-number',
  big: 'dr-big',
  missing: 'dr-missing',
}

function LabelText({ label, isPencil }: { label: Label; isPencil: boolean }) {
  return (
    <text x={label.x} y={label.y} textAnchor={label.anchor} className={isPencil ? 'pencil' : undefined}>
      {label.runs.map((run, k) => (
        <tspan key={`${run.style}${run.text}`} dx={k > 0 ? 8 : undefined} className={textClass[run.style]}>
          {run.text}
        </tspan>
      ))}
    </text>
  )
}

type PieceProps = {
  piece: Piece
  isSelected: boolean
  isStop: boolean
  onSelect(piece: Piece): void
  onFields(): void
  onFocus(key: string): void
}

const DrawnPiece = memo(function DrawnPiece({ piece, isSelected, isStop, onSelect, onFields, onFocus }: PieceProps) {
  const { box, isPencil, isDraft, trouble, fold } = piece
  const stroke = isPencil || isDraft ? 'var(--pencil)' : 'var(--ink)'
  const fill = isSelected ? 'var(--accent-tint)' : 'var(--sheet)'
  const onKey = (event: KeyboardEvent): void => {
    if (event.key !== 'Enter' && event.key !== ' ') return
    event.preventDefault()
    onSelect(piece)
    if (event.key === 'Enter' && fold === null) onFields()
  }
  const name = [
    piece.name,
    isPencil && say('drawing.missing'),
    trouble && say(`verdict.${trouble.verdict}`),
    fold && say('drawing.opens'),
  ]
  return (
    // biome-ignore lint/a11y/useSemanticElements: a button of HTML cannot stand in a drawing
    <g
      role="button"
      tabIndex={isStop ? 0 : -1}
      aria-label={name.filter(Boolean).join(', ')}
      aria-pressed={isSelected}
      data-key={piece.key}
      data-part={piece.kind}
      className={`drawn ${isSelected ? 'now' : ''} ${isDraft ? 'draft' : ''}`}
      onClick={() => onSelect(piece)}
      onKeyDown={onKey}
      onFocus={() => onFocus(piece.key)}
    >
      <rect className="hit" x={box.x} y={box.y} width={box.w} height={box.h} />
      {piece.shapes.map((shape, k) => (
        <ShapeOf key={k} shape={shape} pen={{ stroke, fill }} />
      ))}
      {piece.labels.map((one) => (
        <LabelText key={`${one.x} ${one.y}`} label={one} isPencil={isPencil || isDraft} />
      ))}
      {trouble && (
        <g transform={`translate(${trouble.x} ${trouble.y}) scale(0.75)`}>
          <circle r="14" fill={fill} />
          <MarkShape verdict={trouble.verdict} />
        </g>
      )}
    </g>
  )
})

export const kindName = (kind: AddedKind): string => say(`drawing.kind.${kind}` as WordKey)

type PlaceProps = {
  place: Place
  isHot: boolean
  isStop: boolean
  onAdd(kind: AddedKind, at: string | null): void
  onFocus(key: string): void
}

function DrawnPlace({ place, isHot, isStop, onAdd, onFocus }: PlaceProps) {
  const { box, kinds, at, isRing } = place
  const [first] = kinds as [AddedKind]
  const [isOpen, setIsOpen] = useState(false)
  const add = (kind: AddedKind): void => onAdd(kind, at)
  const act = (): void => (kinds.length > 1 ? setIsOpen(true) : add(first))
  const onKey = (event: KeyboardEvent): void => {
    if (event.key !== 'Enter' && event.key !== ' ') return
    event.preventDefault()
    act()
  }
  const middle = { x: box.x + box.w / 2, y: box.y + box.h / 2 }
  const name = kinds.length > 1 ? say('drawing.add-here') : say('drawing.add', { what: kindName(first) })
  const drawn = (
    // biome-ignore lint/a11y/useSemanticElements: a button of HTML cannot stand in a drawing
    <g
      role="button"
      tabIndex={isStop ? 0 : -1}
      aria-label={name}
      data-key={place.key}
      data-add={kinds.join(' ')}
      className={`drawn place ${isHot ? 'hot' : ''}`}
      onClick={act}
      onKeyDown={onKey}
      onFocus={() => onFocus(place.key)}
    >
      <rect className="hit" x={box.x} y={box.y - (isRing ? 0 : 7)} width={box.w} height={box.h + (isRing ? 0 : 14)} />
      {isRing ? (
        <>
          <circle cx={middle.x} cy={middle.y} r="9.5" className="edge" />
          <path d={`M${middle.x - 4.5} ${middle.y}h9M${middle.x} ${middle.y - 4.5}v9`} className="plus" />
        </>
      ) : (
        <>
          <rect x={box.x} y={box.y} width={box.w} height={box.h} className="edge" />
          <path d={`M${box.x + 10} ${middle.y}h11M${box.x + 15.5} ${middle.y - 5.5}v11`} className="plus" />
          <text x={box.x + 27} y={middle.y + 5} className="dr-detail">
            {kindName(first)}
          </text>
          {place.sign && <ShapeOf shape={place.sign} pen={{ stroke: 'var(--pencil)', fill: 'var(--sheet)' }} />}
        </>
      )}
    </g>
  )
  if (kinds.length === 1) return drawn
  return (
    <Dropdown
      open={isOpen}
      onOpenChange={setIsOpen}
      trigger={['click']}
      menu={{
        items: kinds.map((kind) => ({ key: kind, label: kindName(kind) })),
        onClick: ({ key }) => {
          setIsOpen(false)
          add(key as AddedKind)
        },
      }}
    >
      {drawn}
    </Dropdown>
  )
}
