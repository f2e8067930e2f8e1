/** Hook-up drawings of charge points, by name: the point, its cable, and the adapter that plays the car. */
import type { ReactNode } from 'react'
import { say } from '@/words/say'
import { type Lead, Words } from './acShapes'
import type { Drawings } from './drawing'
import { Balloon, Box, Meter, strong, Wire } from './shapes'

const LOW = 112

/** The point: its display above, its outlet below. */
const Post = ({ open = false }: { open?: boolean }) => (
  <Box x={16} y={30} w={58} h={74}>
    <rect x="25" y="37" width="40" height="16" fill="var(--sheet)" stroke="var(--ink)" strokeWidth="1.6" />
    <circle cx="45" cy="78" r="15" fill="var(--sheet)" stroke="var(--ink)" strokeWidth="2" />
    <circle cx="39" cy="78" r="2.6" fill="var(--ink)" />
    <circle cx="51" cy="78" r="2.6" fill="var(--ink)" />
    <path d="M45 84v5" stroke="var(--ink)" strokeWidth="3" />
    {open && <path d="M74 30l12-8v74l-12 8" fill="none" stroke="var(--ink)" strokeWidth="1.6" />}
  </Box>
)

const KNOB = { A: 210, B: 250, C: 290, D: 330, E: 30 } as const
type Knob = keyof typeof KNOB

/** The adapter: its knob with the states round it, its sockets. */
const Adapter = ({ knob, marks = [] }: { knob: Knob; marks?: readonly Knob[] }) => (
  <Box x={168} y={30} w={108} h={74}>
    <circle cx="206" cy="68" r="15" fill="var(--sheet)" stroke="var(--ink)" strokeWidth="2" />
    <path d="M206 68V56" stroke="var(--accent)" strokeWidth="5" transform={`rotate(${KNOB[knob]} 206 68)`} />
    {(Object.keys(KNOB) as Knob[]).map((state) => {
      const turn = (KNOB[state] * Math.PI) / 180
      const is = state === knob || marks.includes(state)
      return (
        <text
          key={state}
          x={206 + 26 * Math.sin(turn)}
          y={73 - 26 * Math.cos(turn)}
          textAnchor="middle"
          style={is ? { ...strong, fill: 'var(--accent)' } : undefined}
        >
          {state}
        </text>
      )
    })}
    <circle cx="258" cy="50" r="3.4" fill="var(--ink)" />
    <circle cx="258" cy="66" r="3.4" fill="var(--ink)" />
    <path d="M258 78v10" stroke="var(--ink)" strokeWidth="4" />
  </Box>
)

const Cable = () => <path d="M60 78H112Q122 78 122 70T132 62H168" fill="none" stroke="var(--ink)" strokeWidth="5" />

type Place = readonly [x: number, y: number]

/** The plug with the adapter in it: where the knob stands, and where each balloon belongs. */
const atPlug =
  (knob: Knob, places: readonly Place[], more?: ReactNode, marks?: readonly Knob[]) =>
  ({ lead }: { lead: Lead }): ReactNode => (
    <>
      <Cable />
      <Post />
      <Adapter knob={knob} {...(marks ? { marks } : {})} />
      {more}
      {places.map(([x, y], k) => (
        <Balloon key={`${x} ${y}`} x={x} y={y} n={k + 1} />
      ))}
      <Words lead={lead} count={places.length} y={LOW + 18} />
    </>
  )

/** The point alone, with what is looked at on it. */
const atPost =
  (places: readonly Place[], more?: ReactNode) =>
  ({ lead }: { lead: Lead }): ReactNode => (
    <>
      <g transform="translate(84 2)">
        <Post open />
        {more}
        {places.map(([x, y], k) => (
          <Balloon key={`${x} ${y}`} x={x} y={y} n={k + 1} />
        ))}
      </g>
      <Words lead={lead} count={places.length} y={LOW + 18} />
    </>
  )

const DISPLAY: Place = [88, 44]
const OUTLET: Place = [290, 50]
const KNOB_AT: Place = [206, 20]
const Lock = () => (
  <g transform="translate(112 62)">
    <path d="M-5 0v-6a5 5 0 0 1 10 0v6" fill="none" stroke="var(--ink)" strokeWidth="2" />
    <rect x="-8" y="0" width="16" height="13" fill="var(--sheet)" stroke="var(--ink)" strokeWidth="2" />
  </g>
)
/** A pilot that swings: what the adapter shows of it. */
const Pilot = () => <path d="M122 98v-14h10v14h10v-14h10v14" fill="none" stroke="var(--accent)" strokeWidth="2.4" />
/** Points in small, hanging on one limit. */
const Others = ({ x, y, count }: { x: number; y: number; count: number }) => (
  <>
    <path d={`M${x} ${y}H${x + 26 * count}`} stroke="var(--ink)" strokeWidth="5" />
    {Array.from({ length: count }, (_, k) => x + 4 + 26 * k).map((at) => (
      <g key={at}>
        <path d={`M${at + 9} ${y}v7`} stroke="var(--ink)" strokeWidth="2" />
        <rect x={at} y={y + 7} width="18" height="22" fill="var(--sheet)" stroke="var(--ink)" strokeWidth="1.6" />
        <circle cx={at + 9} cy={y + 20} r="5" fill="none" stroke="var(--ink)" strokeWidth="1.6" />
      </g>
    ))}
  </>
)
const Loop = ({ shows }: { shows: string }) => (
  <Meter x={182} y={LOW} w={92} shows={shows} name={say('hookup.tester-ac')} />
)
/** Words beside a meter that stands where the second column would be. */
const besideMeter =
  (knob: Knob, places: readonly Place[], shows: string) =>
  ({ lead }: { lead: Lead }): ReactNode => (
    <>
      <Cable />
      <Post />
      <Adapter knob={knob} />
      <Wire d="M258 104V112" lead="red" />
      <Loop shows={shows} />
      {places.map(([x, y], k) => (
        <Balloon key={`${x} ${y}`} x={x} y={y} n={k + 1} />
      ))}
      {places.map(([x], k) => (
        <g key={`${x} word`}>
          <Balloon x={22} y={LOW + 12 + 28 * k} n={k + 1} />
          <text x={40} y={LOW + 17 + 28 * k}>
            {lead(k + 1)}
          </text>
        </g>
      ))}
    </>
  )

export const plugDrawings: Drawings = {
  'point-design': ({ lead }) => (
    <>
      <Wire d="M120 52H246" />
      <Wire d="M120 64H246" />
      <Wire d="M120 76H246" lead="earth" />
      <Box x={88} y={40} w={32} h={48} />
      <g transform="translate(214 0)">
        <Post />
      </g>
      <Balloon x={276} y={20} n={1} />
      <Words lead={lead} count={1} y={LOW + 18} />
    </>
  ),
  'point-locks-off': atPost([
    [104, 44],
    [104, 78],
    [-2, 66],
  ]),
  'point-locks-on': atPost(
    [
      [104, 44],
      [138, 70],
      [-2, 84],
      [-2, 44],
    ],
    <Lock />,
  ),
  'point-pretest': atPlug(
    'A',
    [
      [150, 92],
      [206, 20],
    ],
    <rect x="138" y="52" width="22" height="22" fill="var(--accent-tint)" stroke="var(--ink)" strokeWidth="2" />,
    ['A', 'B', 'C', 'D', 'E'],
  ),
  'point-states': atPlug('B', [OUTLET, [150, 82], DISPLAY, [112, 96]], <Lock />, ['A', 'B', 'C']),
  'point-pilot-short': atPlug('E', [[290, 50], KNOB_AT, DISPLAY], null, ['C', 'E']),
  'point-earth-lost': atPlug(
    'C',
    [[290, 50], [290, 88], DISPLAY],
    <path d="M258 92h24" stroke="var(--within)" strokeWidth="3" strokeDasharray="4 4" />,
  ),
  'point-current': atPlug(
    'C',
    [
      [206, 20],
      [138, 112],
      [112, 60],
    ],
    <Pilot />,
  ),
  'point-share': atPlug(
    'C',
    [
      [200, 12],
      [138, 112],
    ],
    <>
      <Others x={130} y={1} count={2} />
      <Pilot />
    </>,
  ),
  'point-load': ({ lead }) => (
    <>
      <g transform="translate(40 22) scale(2)">
        <Others x={0} y={4} count={4} />
      </g>
      <Balloon x={268} y={20} n={1} />
      <Words lead={lead} count={1} y={LOW + 18} />
    </>
  ),
  'point-voltages': besideMeter('C', [OUTLET, [150, 92]], 'V'),
  'point-zs': besideMeter('C', [KNOB_AT, OUTLET], 'Ω'),
  'point-trips': besideMeter('C', [KNOB_AT, [290, 66]], 'ms'),
  'point-detector': besideMeter('C', [[290, 82], OUTLET], 'mA'),
  'point-lost-pen': atPost(
    [
      [140, 92],
      [196, 46],
    ],
    <>
      <Wire d="M86 60H120M160 60H214" />
      <Wire d="M86 78H120M160 78H214" lead="earth" />
      <path d="M120 60l34-12M120 78l34-12" stroke="var(--ink)" strokeWidth="3" />
    </>,
  ),
  'point-inspection': atPost(
    [
      [104, 44],
      [150, 100],
      [-2, 44],
      [40, 110],
    ],
    <path d="M186 104v-40l22-18h52l18 26v32M196 104h76" fill="none" stroke="var(--ink)" strokeWidth="2.4" />,
  ),
  'point-settings': atPost(
    [
      [104, 44],
      [184, 78],
      [-2, 44],
    ],
    <Wire d="M86 60H210" />,
  ),
}
