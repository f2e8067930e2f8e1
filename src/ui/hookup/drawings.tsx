import { say } from '@/words/say'
import { type Drawing, type Drawings, list } from './drawing'
import { siteDrawings } from './siteDrawings'
import { Balloon, Box, Earth, Meter, Modules, Named, OpenSwitch, Plug, strong, Wire } from './shapes'

/** A string with its frame earthed and its plugs open, as most tests find it. */
export function OpenString({ modules, joined }: { modules: number; joined?: boolean }) {
  return (
    <>
      <Modules count={modules} />
      <path d="M9 68H297" fill="none" stroke="var(--within)" strokeWidth="3" strokeDasharray="10 4" />
      <Plug x={20} sign="+" joined={joined} />
      <Plug x={281} sign="−" joined={joined} />
    </>
  )
}

/** Modules, DC switch, inverter and AC switch in a row. */
function Chain({ dcOpen, acOpen, tint }: { dcOpen: boolean; acOpen: boolean; tint?: readonly number[] }) {
  const at = [6, 102, 170]
  return (
    <>
      {tint?.map((k) => (
        <rect
          key={k}
          x={at[k]! - 2}
          y={k === 2 ? 32 : 38}
          width={k === 2 ? 64 : k === 0 ? 78 : 52}
          height={k === 2 ? 68 : 54}
          fill="var(--accent-tint)"
        />
      ))}
      <Modules count={3} x={8} y={44} wide={72} />
      <Wire d="M80 66H104" />
      <Box x={104} y={44} w={44} h={44}>
        {dcOpen ? <OpenSwitch x={114} y={72} /> : <Wire d="M104 66H148" />}
      </Box>
      <Wire d="M148 66H172" />
      <Box x={172} y={36} w={56} h={60}>
        <path d="M172 96L228 36" stroke="var(--ink)" strokeWidth="1.6" />
        <path d="M180 50h14M180 56h14M206 84q4-9 8 0t8 0" fill="none" stroke="var(--ink)" strokeWidth="2" />
      </Box>
      <Wire d="M228 66H252" />
      <Box x={252} y={44} w={44} h={44}>
        {acOpen ? <OpenSwitch x={262} y={72} /> : <Wire d="M252 66H296" />}
      </Box>
    </>
  )
}

/** A tester across the open plugs of a string; what it shows tells the test. */
const openStringAt =
  (shows: string): Drawing =>
  ({ lead, modules }) => (
    <>
      <OpenString modules={modules} />
      <Meter x={96} y={112} w={110} shows={shows} name={say('hookup.tester')} />
      <Wire d="M96 138H20V104" lead="red" />
      <Wire d="M206 138H281V104" lead="black" />
      <Balloon x={58} y={138} n={1} />
      <Balloon x={244} y={138} n={2} />
      <text x="42" y="166">
        {lead(1)}
      </text>
      <text x="226" y="166">
        {lead(2)}
      </text>
    </>
  )

/** Drawings that come later are known from then on. */
export function addDrawings(more: Drawings): void {
  Object.assign(drawings, more)
}

export const drawings: Drawings = {
  ...siteDrawings,
  'string-polarity': openStringAt('+ / −'),
  'string-to-voltmeter': openStringAt('V d.c.'),
  'string-through-switch': ({ lead, modules }) => (
    <>
      <OpenString modules={modules} />
      <Wire d="M20 104V140H104" lead="red" />
      <Wire d="M281 104V140H226" lead="black" />
      <Meter x={104} y={112} shows="A d.c." name={say('hookup.tester')} />
      <Wire d="M196 140H202" lead="black" />
      <OpenSwitch x={202} y={140} />
      <Balloon x={58} y={140} n={1} />
      <text x="4" y="166">
        {lead(1)}
      </text>
      <text x="206" y="164">
        {lead(2)}
      </text>
    </>
  ),
  'string-to-tracer': ({ lead, modules }) => (
    <>
      <OpenString modules={modules} />
      <Wire d="M20 104V140H96" lead="red" />
      <Wire d="M281 104V140H188" lead="black" />
      <Box x={96} y={112} w={92} h={44} />
      <path d="M106 120H140C158 120 160 132 164 148" fill="none" stroke="var(--ink)" strokeWidth="2.4" />
      <path d="M104 118V150H180" fill="none" stroke="var(--hair)" strokeWidth="1" />
      <path d="M236 62L252 96" stroke="var(--accent)" strokeWidth="2" strokeDasharray="4 3" />
      <Balloon x={58} y={140} n={1} />
      <Balloon x={236} y={56} n={2} />
      <text x="4" y="168">
        {lead(1)}
      </text>
      <text x="196" y="168">
        {lead(2)}
      </text>
    </>
  ),
  'design-voltage': (props) => (
    <>
      <Chain dcOpen={false} acOpen={false} tint={[0, 1, 2]} />
      <text x="44" y="40" textAnchor="middle" style={strong}>
        V
      </text>
      <Balloon x={44} y={96} n={1} />
      <Balloon x={126} y={102} n={2} />
      <Balloon x={200} y={110} n={3} />
      {list(3)(props)}
    </>
  ),
  'design-tracker': (props) => (
    <>
      <Chain dcOpen={false} acOpen={false} tint={[0, 2]} />
      <path d="M168 28h64M168 22v12M232 22v12" stroke="var(--ink)" strokeWidth="2" />
      <Balloon x={44} y={96} n={1} />
      <Balloon x={200} y={110} n={2} />
      {list(2)(props)}
    </>
  ),
  'design-current': (props) => (
    <>
      <Chain dcOpen={false} acOpen={false} tint={[0, 1, 2]} />
      <path d="M82 34h20m-7-6 7 6-7 6" fill="none" stroke="var(--ink)" strokeWidth="2.4" />
      <Balloon x={44} y={96} n={1} />
      <Balloon x={126} y={102} n={2} />
      <Balloon x={200} y={110} n={3} />
      {list(3)(props)}
    </>
  ),
  'design-fuses': (props) => (
    <>
      {[36, 60, 84].map((y) => (
        <g key={y}>
          <Modules count={4} x={8} y={y - 10} wide={110} high={20} />
          <Wire d={`M118 ${y}H150M184 ${y}H220`} />
          <rect
            x="150"
            y={y - 6}
            width="34"
            height="12"
            fill="var(--accent-tint)"
            stroke="var(--ink)"
            strokeWidth="2"
          />
          <path d={`M150 ${y}h34`} stroke="var(--ink)" strokeWidth="1.4" />
        </g>
      ))}
      <path d="M220 30V90" stroke="var(--ink)" strokeWidth="6" />
      <Balloon x={62} y={104} n={1} />
      <Balloon x={167} y={104} n={2} />
      {list(2)(props)}
    </>
  ),
  'design-kit': (props) => (
    <>
      <Modules count={5} x={8} y={36} wide={150} />
      <Meter x={196} y={30} w={100} shows="V  A" name={say('hookup.tester')} />
      <path d="M158 54H196" stroke="var(--ink)" strokeWidth="2.4" strokeDasharray="5 5" />
      <Balloon x={82} y={90} n={1} />
      <Balloon x={246} y={98} n={2} />
      {list(2)(props)}
    </>
  ),
  isolation: (props) => (
    <>
      <Chain dcOpen acOpen />
      <path d="M84 54q8-14 16 0v24q-8 14-16 0z" fill="none" stroke="var(--accent)" strokeWidth="3" />
      <Balloon x={274} y={104} n={1} />
      <Balloon x={126} y={104} n={2} />
      <Balloon x={92} y={100} n={3} />
      {list(3)(props)}
    </>
  ),
  'sensor-in-plane': ({ lead }) => (
    <>
      <path d="M24 150L190 66" stroke="var(--ink)" strokeWidth="7" />
      <path d="M24 150H200" stroke="var(--hair)" strokeWidth="2" />
      <path d="M70 150a46 46 0 0 0-6-21" fill="none" stroke="var(--ink)" strokeWidth="2" />
      <rect x="150" y="62" width="34" height="10" transform="rotate(-27 167 67)" fill="var(--accent)" />
      <path d="M104 116l10 18" stroke="var(--ink)" strokeWidth="4" />
      <circle cx="40" cy="44" r="17" fill="none" stroke="var(--ink)" strokeWidth="2" />
      <path d="M40 30l5 14-5 14-5-14z" fill="var(--ink)" />
      <Named x={206} y={64} n={1} words={lead(1).split(' ')[0]!} />
      <text x="196" y="90">
        {lead(1).split(' ').slice(1).join(' ')}
      </text>
      <Named x={74} y={34} n={2} words={lead(2)} />
      <Named x={132} y={142} n={3} words={lead(3)} />
    </>
  ),
  'earth-to-row': ({ lead }) => (
    <>
      <Modules count={6} y={28} wide={200} x={92} />
      <path d="M88 70H294" stroke="var(--ink)" strokeWidth="4" />
      <path d="M88 70V120" stroke="var(--within)" strokeWidth="3" strokeDasharray="10 4" />
      <Box x={18} y={108} w={70} h={22} />
      <Earth x={36} y={144} />
      <Meter x={156} y={96} shows="Ω" name={say('hookup.meter')} />
      <Wire d="M156 126H62V120" lead="red" />
      <Wire d="M248 120H276V74" lead="black" />
      <Balloon x={28} y={96} n={1} />
      <text x="2" y="166">
        {lead(1)}
      </text>
      <Balloon x={276} y={96} n={2} />
      <text x="262" y="90" textAnchor="end">
        {lead(2)}
      </text>
    </>
  ),
  'combiner-open': (props) => (
    <>
      <Box x={60} y={28} w={186} h={78} />
      {[84, 126, 168].map((x) => (
        <g key={x}>
          <Wire d={`M${x} 104V86`} />
          <circle cx={x} cy="84" r="3.4" fill="var(--sheet)" stroke="var(--ink)" strokeWidth="2" />
          <circle cx={x} cy="56" r="3.4" fill="var(--sheet)" stroke="var(--ink)" strokeWidth="2" />
          <rect x={x - 5} y="60" width="10" height="20" fill="none" stroke="var(--pencil)" strokeDasharray="3 3" />
          <Wire d={`M${x} 53V44`} />
        </g>
      ))}
      <path d="M76 44H222" stroke="var(--ink)" strokeWidth="6" />
      <Balloon x={200} y={70} n={1} />
      <Balloon x={40} y={96} n={2} />
      <Balloon x={264} y={44} n={3} />
      {list(3)(props)}
    </>
  ),
  'insulation-to-frame': ({ lead, modules }) => (
    <>
      <OpenString modules={modules} />
      <Meter x={108} y={108} shows="MΩ" name={say('hookup.insulation')} />
      <Wire d="M200 122H281V104" lead="black" />
      <path d="M200 146H236V70" fill="none" stroke="var(--within)" strokeWidth="4" />
      <path d="M108 134H20V106" fill="none" stroke="var(--lead-red)" strokeWidth="3" strokeDasharray="6 5" />
      <Balloon x={260} y={122} n={1} />
      <Balloon x={62} y={134} n={2} />
      <Balloon x={96} y={96} n={3} />
      <Balloon x={236} y={90} n={4} />
      <text x="302" y="150" textAnchor="end">
        {lead(1)}
      </text>
      <text x="42" y="164">
        {lead(2)}
      </text>
    </>
  ),
  'insulation-joined': ({ lead, modules }) => (
    <>
      <OpenString modules={modules} />
      <Wire d="M20 106V122H62" lead="red" />
      <Wire d="M281 104V122H206" lead="black" />
      <Box x={62} y={110} w={40} h={24}>
        <path d="M68 122h8l14-8M92 122h6" fill="none" stroke="var(--ink)" strokeWidth="2" />
      </Box>
      <Meter x={122} y={108} shows="MΩ" name={say('hookup.insulation')} />
      <Wire d="M102 122H122" />
      <path d="M206 146H236V70" fill="none" stroke="var(--within)" strokeWidth="4" />
      <Balloon x={48} y={100} n={1} />
      <Balloon x={114} y={98} n={3} />
      <Balloon x={236} y={90} n={4} />
      <text x="8" y="164">
        {lead(1)}
      </text>
      <text x="302" y="164" textAnchor="end">
        {lead(4)}
      </text>
    </>
  ),
  'surge-in-base': ({ lead }) => (
    <>
      <Wire d="M20 48H96M20 100H96" />
      <Wire d="M176 48H290M176 100H290" />
      <Box x={96} y={30} w={80} h={92}>
        <path d="M106 40h26v72h-26ZM140 40h26v72h-26Z" fill="none" stroke="var(--ink)" strokeWidth="2" />
        <path d="M112 50h14v12h-14ZM146 50h14v12h-14Z" fill="var(--within)" stroke="var(--ink)" strokeWidth="1.6" />
      </Box>
      <path d="M119 12v14m-6-7l6 8 6-8M153 12v14m-6-7l6 8 6-8" fill="none" stroke="var(--accent)" strokeWidth="3" />
      <path d="M136 122V146H204V138" fill="none" stroke="var(--within)" strokeWidth="4" />
      <Earth x={204} y={138} />
      <Balloon x={84} y={20} n={1} />
      <Balloon x={188} y={66} n={2} />
      <Balloon x={158} y={146} n={3} />
      <text x="8" y="24">
        {lead(1)}
      </text>
      <text x="204" y="74">
        {lead(2)}
      </text>
      <text x="224" y="152">
        {lead(3)}
      </text>
    </>
  ),
  'plugs-locked': ({ lead, modules }) => (
    <>
      <OpenString modules={modules} joined />
      <Named x={48} y={112} n={1} words={lead(1)} />
      <Wire d="M20 128V146H120M281 128V146H186" />
      <Box x={120} y={124} w={66} h={42}>
        <OpenSwitch x={140} y={152} />
      </Box>
      <Balloon x={104} y={152} n={2} />
      <Named x={200} y={158} n={3} words={lead(3)} />
    </>
  ),
  'inverter-on': (props) => (
    <>
      <Chain dcOpen={false} acOpen={false} />
      <Balloon x={126} y={104} n={1} />
      <Balloon x={200} y={112} n={2} />
      <Balloon x={274} y={104} n={3} />
      {list(3)(props)}
    </>
  ),
  'grid-watch': (props) => (
    <>
      <Chain dcOpen={false} acOpen={false} />
      <path d="M262 40a16 16 0 1 1 0 .1M262 30v10l7 5" fill="none" stroke="var(--ink)" strokeWidth="2.4" />
      <Balloon x={200} y={112} n={1} />
      <Balloon x={286} y={50} n={2} />
      {list(2)(props)}
    </>
  ),
  'operating-clamp': ({ lead, modules }) => (
    <>
      <OpenString modules={modules} joined />
      <Wire d="M20 128V152H130M281 128V152H172" />
      <Box x={130} y={126} w={42} h={40}>
        <path d="M130 166L172 126" stroke="var(--ink)" strokeWidth="1.6" />
      </Box>
      <ellipse cx="66" cy="152" rx="9" ry="15" fill="none" stroke="var(--accent)" strokeWidth="4" />
      <Named x={96} y={116} n={1} words={lead(1)} />
      <Named x={166} y={116} n={2} words={lead(2)} />
      <path d="M216 130V152M240 130V152" stroke="var(--lead-red)" strokeWidth="3" />
    </>
  ),
}
