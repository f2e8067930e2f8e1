/** Hook-up drawings of what comes before circuits are read: a walk round, bonding, the supply as it comes in. */
import { say } from '@/words/say'
import { Board, Word } from './acShapes'
import type { Drawings } from './drawing'
import { Balloon, Box, Earth, Meter, Named, Wire } from './shapes'

const ink = { fill: 'none', stroke: 'var(--ink)', strokeWidth: 2.4 } as const

export const acLookDrawings: Drawings = {
  'ac-walk-round': ({ lead }) => (
    <>
      <path d="M8 112h290" {...ink} />
      <Box x={20} y={58} w={34} h={54}>
        <path d="M28 70h18M28 80h18M37 90v14" {...ink} />
      </Box>
      <path d="M54 84h34" {...ink} />
      <Box x={88} y={40} w={70} h={72}>
        <path d="M98 58h50M98 72h50" {...ink} />
        <path d="M104 90v12M116 90v12M128 90v12M140 90v12" {...ink} />
      </Box>
      <path d="M158 52h70v36M158 62h40v50M228 52h44v30" {...ink} />
      <path d="M218 88h20v18h-20zM262 82a10 10 0 1 0 20 0a10 10 0 1 0-20 0" {...ink} />
      <Balloon x={36} y={42} n={1} />
      <Balloon x={122} y={24} n={2} />
      <Balloon x={196} y={40} n={3} />
      <Balloon x={252} y={106} n={4} />
      <Named x={22} y={132} n={1} words={lead(1)} />
      <Named x={162} y={132} n={2} words={lead(2)} />
      <Named x={22} y={158} n={3} words={lead(3)} />
      <Named x={162} y={158} n={4} words={lead(4)} />
    </>
  ),
  bonding: ({ lead }) => (
    <>
      <path d="M254 26v78" stroke="var(--ink)" strokeWidth="9" />
      <path d="M254 26v78" stroke="var(--sheet)" strokeWidth="4" />
      <Box x={14} y={48} w={62} h={20} />
      <Earth x={45} y={92} />
      <Wire d="M96 40H240" lead="earth" />
      <path d="M82 52l10-9" stroke="var(--outside)" strokeWidth="3" />
      <path d="M244 32h20v16h-20z" {...ink} />
      <Wire d="M120 82H104V44" lead="red" />
      <Wire d="M208 82h30V52" lead="black" />
      <Meter x={120} y={56} w={88} shows="Ω" name={say('hookup.meter')} />
      <Balloon x={280} y={40} n={1} />
      <Balloon x={26} y={34} n={2} />
      <Balloon x={92} y={24} n={3} />
      <Named x={14} y={126} n={1} words={lead(1)} />
      <Named x={138} y={126} n={2} words={lead(2)} />
      <Named x={14} y={152} n={3} words={lead(3)} />
    </>
  ),
  'insulation-connected': ({ lead }) => (
    <>
      <Board x={14} y={34} />
      <path d="M110 46h50M110 58h50M160 40v24" {...ink} />
      <Wire d="M110 74h120" lead="earth" />
      <Wire d="M160 52h38" lead="red" />
      <Wire d="M230 74v-6" lead="black" />
      <Meter x={198} y={16} w={96} shows="MΩ" name="250 V" />
      <Balloon x={150} y={28} n={1} />
      <Balloon x={276} y={82} n={2} />
      <Named x={22} y={124} n={1} words={lead(1)} />
      <Named x={22} y={150} n={2} words={lead(2)} />
    </>
  ),
  'supply-polarity': ({ lead }) => (
    <>
      <Box x={14} y={36} w={54} h={64}>
        <path d="M24 52h34M24 66h34M24 80h34" {...ink} />
      </Box>
      <path d="M68 50h44M68 66h44M68 82h44" {...ink} />
      <path d="M112 50l22-14M112 66l22-14" {...ink} />
      <Earth x={112} y={100} />
      <Wire d="M96 50v-22h92" lead="red" />
      <Wire d="M96 82v30h92V92" lead="black" />
      <Meter x={160} y={36} w={92} shows="V" name={say('hookup.tester-ac')} />
      <path d="M272 48a15 15 0 1 1 4 22M276 78v-10h-10" {...ink} />
      <Balloon x={150} y={112} n={1} />
      <Balloon x={284} y={92} n={2} />
      <Named x={14} y={142} n={1} words={lead(1)} />
      <Named x={150} y={142} n={2} words={lead(2)} />
    </>
  ),
  'board-polarity': ({ lead }) => (
    <>
      <Board x={24} y={34} />
      <Wire d="M72 56v-24h88" lead="red" />
      <Wire d="M96 76v36h92V92" lead="black" />
      <Meter x={160} y={36} w={92} shows="V" name={say('hookup.tester-ac')} />
      <path d="M272 48a15 15 0 1 1 4 22M276 78v-10h-10" {...ink} />
      <Balloon x={150} y={112} n={1} />
      <Balloon x={284} y={92} n={2} />
      <Word x={20} y={28}>
        L N PE
      </Word>
      <Named x={14} y={142} n={1} words={lead(1)} />
      <Named x={150} y={142} n={2} words={lead(2)} />
    </>
  ),
}
