import { useLayoutEffect, useRef } from 'react'
import type { PartData } from '@/core/plant/part'
import type { Hookup as HookupData } from '@/core/steps/step'
import { partName, say, sayCode } from '@/words/say'
import { drawings } from './drawings'
import { strong } from './shapes'

/** Drawings that show a string with its plugs open. */
const OPEN = new Set([
  'string-polarity',
  'string-to-voltmeter',
  'string-through-switch',
  'string-to-tracer',
  'insulation-to-frame',
  'insulation-joined',
])

function titleOf(hookup: HookupData, part: PartData): string {
  if (part.kind === 'string') {
    return say(OPEN.has(hookup.drawing) ? 'hookup.string-open' : 'hookup.string', {
      tag: part.tag,
      modules: part.modulesInSeries,
    })
  }
  const name = partName({ data: part })
  return name.charAt(0).toUpperCase() + name.slice(1)
}

/** Words that are longer than where they were drawn are moved until they stand inside. */
function keepInside(drawing: SVGSVGElement): void {
  for (const text of drawing.querySelectorAll('text')) text.removeAttribute('dx')
  const frame = drawing.getBoundingClientRect()
  // A drawing that is not laid out has no measures.
  if (frame.width === 0) return
  const scale = frame.width / WIDE
  for (const text of drawing.querySelectorAll('text')) {
    const box = text.getBoundingClientRect()
    const over = Math.max(0, (box.right - frame.right) / scale + EDGE)
    const under = Math.max(0, (frame.left - box.left) / scale + EDGE)
    if (box.width > 0 && (over > 0 || under > 0)) text.setAttribute('dx', String(under > 0 ? under : -over))
  }
}
const WIDE = 306
const EDGE = 3

/** How a test is connected: the drawing that the step names, with its numbered leads. */
export function Hookup({ hookup, part }: { hookup: HookupData; part: PartData }) {
  const drawing = drawings[hookup.drawing]
  const lead = (balloon: number): string =>
    sayCode('lead', hookup.leads.find((one) => one.balloon === balloon)?.code ?? '')
  const words = hookup.leads.map((one) => `${one.balloon}: ${sayCode('lead', one.code)}`).join(', ')
  const title = titleOf(hookup, part)
  const drawn = useRef<SVGSVGElement>(null)
  useLayoutEffect(() => {
    if (drawn.current) keepInside(drawn.current)
  })
  return (
    <svg ref={drawn} width={WIDE} height="168" viewBox={`0 2 ${WIDE} 168`} role="img" aria-label={`${title}. ${words}`}>
      <text x="8" y="17" style={strong}>
        {title}
      </text>
      {drawing?.({ modules: part.kind === 'string' ? part.modulesInSeries : 0, lead })}
    </svg>
  )
}
