/** Hook-up drawings of residual current devices, by name. */
import type { ReactNode } from 'react'
import { Tester, Word, Words } from './acShapes'
import type { Drawings } from './drawing'
import { Balloon, Box, strong, Wire } from './shapes'

/** A residual current device: its toroid and its button. */
const Device = ({ x, y, name }: { x: number; y: number; name?: string }) => (
  <Box x={x} y={y} w={64} h={56}>
    <path d={`M${x + 12} ${y + 28}q8-22 16 0t16 0`} fill="none" stroke="var(--ink)" strokeWidth="2" />
    <circle cx={x + 52} cy={y + 12} r="5" fill="var(--sheet)" stroke="var(--ink)" strokeWidth="2" />
    {name && (
      <text x={x + 32} y={y + 50} textAnchor="middle" style={strong}>
        {name}
      </text>
    )}
  </Box>
)

/** A device ahead of what it feeds. */
const deviceAhead =
  (name: string, fed: ReactNode): Drawings[string] =>
  ({ lead }) => (
    <>
      <Wire d="M8 52H40M104 52H222" />
      <Wire d="M8 64H40M104 64H222" />
      <Device x={40} y={30} name={name} />
      <Box x={222} y={36} w={52} h={46} />
      {fed}
      <Balloon x={72} y={104} n={1} />
      <Balloon x={248} y={104} n={2} />
      <Word x={8} y={136}>
        {lead(1)}
      </Word>
      <Word x={180} y={136}>
        {lead(2)}
      </Word>
    </>
  )

export const rcdDrawings: Drawings = {
  'rcd-at-socket': ({ lead }) => (
    <>
      <Device x={8} y={36} />
      <Wire d="M72 52H246" />
      <Wire d="M72 64H246" />
      <Wire d="M8 84H246" lead="earth" />
      <Box x={246} y={42} w={44} h={48} />
      <Tester x={158} shows="ms" />
      <Wire d="M262 138H276V90" lead="red" />
      <Balloon x={276} y={104} n={1} />
      <Balloon x={140} y={138} n={2} />
      <Word x={4} y={112}>
        {lead(1)}
      </Word>
      <Word x={4} y={164}>
        {lead(2)}
      </Word>
    </>
  ),
  'rcd-at-terminals': ({ lead }) => (
    <>
      <Device x={24} y={36} name="S" />
      <Wire d="M88 52H196M260 52H302" />
      <Wire d="M88 64H196M260 64H302" />
      <Device x={196} y={36} />
      <Wire d="M8 104H302" lead="earth" />
      <Tester x={158} shows="ms" />
      <Wire d="M158 132H112V52" lead="red" />
      <Balloon x={112} y={84} n={1} />
      <Balloon x={140} y={138} n={2} />
      <Word x={4} y={126}>
        {lead(1)}
      </Word>
      <Word x={4} y={164}>
        {lead(2)}
      </Word>
    </>
  ),
  'rcd-button': ({ lead }) => (
    <>
      <Box x={104} y={32} w={96} h={72}>
        <circle cx="132" cy="58" r="12" fill="var(--accent-tint)" stroke="var(--ink)" strokeWidth="2" />
        <text x="132" y="63" textAnchor="middle" style={strong}>
          T
        </text>
        <rect x="166" y="44" width="14" height="40" fill="var(--sheet)" stroke="var(--ink)" strokeWidth="2" />
        <path d="M173 50v12" stroke="var(--ink)" strokeWidth="6" />
      </Box>
      <Words lead={lead} count={2} y={136} />
    </>
  ),
  'additional-protection': deviceAhead(
    '30',
    <>
      <circle cx="240" cy="59" r="4" fill="var(--ink)" />
      <circle cx="256" cy="59" r="4" fill="var(--ink)" />
    </>,
  ),
  'rcd-kind': deviceAhead(
    'A',
    <>
      <path d="M230 60c6-16 12-16 18 0s12 16 18 0" fill="none" stroke="var(--ink)" strokeWidth="2" />
      <path d="M196 90h-68m8-6l-8 6 8 6" fill="none" stroke="var(--accent)" strokeWidth="3" />
    </>,
  ),
  'rcd-cascade': ({ lead }) => (
    <>
      <Wire d="M8 52H40M104 52H196M260 52H302" />
      <Wire d="M8 64H40M104 64H196M260 64H302" />
      <Device x={40} y={30} name="S" />
      <Device x={196} y={30} />
      <path d="M128 104H172M164 96l8 8-8 8" fill="none" stroke="var(--ink)" strokeWidth="2" />
      <Balloon x={72} y={104} n={1} />
      <Balloon x={228} y={104} n={2} />
      <Word x={40} y={136}>
        {lead(1)}
      </Word>
      <Word x={196} y={136}>
        {lead(2)}
      </Word>
    </>
  ),
}
