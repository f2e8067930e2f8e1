/** Drawings of the hunt for an earth fault: a floating string and its voltages to earth, and a string parted in two. */
import { say } from '@/words/say'
import type { Drawings } from './drawing'
import { OpenString } from './drawings'
import { Balloon, Earth, Meter, Modules, Plug, Wire } from './shapes'

const METER = { x: 104, y: 92, w: 98 }

/** A meter between both ends and earth: the leads to the ends carry the second and third number. */
function BothEndsToEarth({
  shows,
  name,
  right,
  lead,
}: {
  shows: string
  name: string
  right: 'red' | 'black'
  lead(balloon: number): string
}) {
  const { x, y, w } = METER
  return (
    <>
      <Meter x={x} y={y} w={w} shows={shows} name={name} />
      <Wire d={`M${x} 116H20V104`} lead="red" />
      <Wire d={`M${x + w} 116H281V104`} lead={right} />
      <Earth x={x + w / 2} y={156} />
      <Balloon x={66} y={116} n={2} />
      <Balloon x={238} y={116} n={3} />
      <text x="4" y="146">
        {lead(2)}
      </text>
      <text x="300" y="146" textAnchor="end">
        {lead(3)}
      </text>
    </>
  )
}

export const faultDrawings: Drawings = {
  'string-to-earth': ({ lead, modules }) => (
    <>
      <OpenString modules={modules} />
      <BothEndsToEarth shows="V d.c." name={say('hookup.tester')} right="black" lead={lead} />
      <Balloon x={152} y={80} n={1} />
      <text x="172" y="85">
        {lead(1)}
      </text>
    </>
  ),
  'string-halved': ({ lead, modules }) => (
    <>
      <Modules count={Math.max(2, Math.round(modules / 2))} x={10} wide={126} />
      <Modules count={Math.max(2, modules - Math.round(modules / 2))} x={170} wide={126} />
      <path d="M9 68H297" fill="none" stroke="var(--within)" strokeWidth="3" strokeDasharray="10 4" />
      <Plug x={20} sign="+" />
      <Plug x={281} sign="−" />
      <path d="M138 52h8M160 52h8" stroke="var(--ink)" strokeWidth="3" />
      <path d="M153 34v36" stroke="var(--accent)" strokeWidth="2" strokeDasharray="4 3" />
      <BothEndsToEarth shows="MΩ" name={say('hookup.insulation')} right="red" lead={lead} />
      <Balloon x={153} y={80} n={1} />
      <text x="172" y="85">
        {lead(1)}
      </text>
    </>
  ),
}
