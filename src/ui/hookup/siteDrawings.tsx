/** Hook-up drawings of what is looked at or joined at the site as a whole, by name. */
import { say } from '@/words/say'
import { type Drawings, list } from './drawing'
import { Balloon, Box, Meter, Named, Wire } from './shapes'

export const siteDrawings: Drawings = {
  'walk-round': (props) => (
    <>
      <path d="M20 74L92 30L164 74" fill="none" stroke="var(--ink)" strokeWidth="2.4" />
      <path d="M42 56L84 30M52 64L94 36" stroke="var(--ink)" strokeWidth="5" />
      <path d="M30 74V108H154V74" fill="none" stroke="var(--ink)" strokeWidth="2" />
      <Box x={184} y={56} w={38} h={46} />
      <Box x={244} y={56} w={38} h={46}>
        <path d="M252 66h22M252 76h22M252 86h22" stroke="var(--ink)" strokeWidth="2.4" />
      </Box>
      <path d="M2 108H304" stroke="var(--ink)" strokeWidth="2.4" />
      <Balloon x={112} y={40} n={1} />
      <Balloon x={62} y={78} n={2} />
      <Balloon x={203} y={44} n={3} />
      <Balloon x={263} y={44} n={4} />
      {list(4)(props)}
    </>
  ),
  'leads-joined': ({ lead }) => (
    <>
      <Meter x={107} y={92} shows="Ω" name={say('hookup.meter')} />
      <Wire d="M107 118H60V60H130" lead="red" />
      <Wire d="M199 118H246V60H176" lead="black" />
      <path d="M126 50l28 10-28 10zM180 50l-28 10 28 10z" fill="var(--ink)" />
      <Balloon x={153} y={36} n={1} />
      <text x="170" y="41">
        {lead(1)}
      </text>
    </>
  ),
  'close-out': (props) => (
    <>
      <path d="M20 74L92 30L164 74" fill="none" stroke="var(--ink)" strokeWidth="2.4" />
      <path d="M42 56L84 30M52 64L94 36" stroke="var(--ink)" strokeWidth="5" />
      <path d="M30 74V108H154V74" fill="none" stroke="var(--ink)" strokeWidth="2" />
      <path d="M118 44v28m-6-7l6 9 6-9" fill="none" stroke="var(--accent)" strokeWidth="3" />
      <Box x={184} y={56} w={38} h={46}>
        <path d="M192 80l8 8 14-18" fill="none" stroke="var(--within)" strokeWidth="4" />
      </Box>
      <Box x={244} y={56} w={38} h={46}>
        <path d="M252 80l8 8 14-18" fill="none" stroke="var(--within)" strokeWidth="4" />
      </Box>
      <path d="M2 108H304" stroke="var(--ink)" strokeWidth="2.4" />
      <Balloon x={138} y={42} n={1} />
      <Balloon x={203} y={44} n={2} />
      <Balloon x={263} y={44} n={3} />
      <Balloon x={62} y={88} n={4} />
      {list(4)(props)}
    </>
  ),
  'close-out-ac': ({ lead }) => (
    <>
      <Box x={8} y={34} w={86} h={66}>
        <path d="M18 50h66M18 66h66" stroke="var(--ink)" strokeWidth="2" />
        <path d="M30 84l8 8 14-18" fill="none" stroke="var(--within)" strokeWidth="4" />
      </Box>
      <path d="M112 86V40h54v46Z" fill="none" stroke="var(--ink)" strokeWidth="2.4" />
      <path d="M122 52h34M122 62h34M122 72h20" stroke="var(--ink)" strokeWidth="2" />
      <path
        d="M226 58a16 16 0 1 1 32 0a16 16 0 1 1-32 0M214 102a28 24 0 0 1 56 0"
        fill="none"
        stroke="var(--ink)"
        strokeWidth="2.4"
      />
      <path d="M176 64h34m-10-8l12 8-12 8" fill="none" stroke="var(--accent)" strokeWidth="3" />
      <Balloon x={94} y={100} n={2} />
      <Balloon x={80} y={42} n={3} />
      <Balloon x={270} y={54} n={4} />
      <Named x={22} y={128} n={2} words={lead(2)} />
      <Named x={172} y={128} n={3} words={lead(3)} />
      <Named x={22} y={156} n={4} words={lead(4)} />
    </>
  ),
}
