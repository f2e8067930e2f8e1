/** Hook-up drawings of earth and the AC side, by name. */
import { say } from '@/words/say'
import { Board, Circuit, Ground, Spike, Tester, Word, Words } from './acShapes'
import type { Drawings } from './drawing'
import { Balloon, Box, Earth, Meter, Named, OpenSwitch, Wire } from './shapes'

export const acDrawings: Drawings = {
  'prove-dead': ({ lead }) => (
    <>
      <Board x={104} y={34} on={false} />
      <OpenSwitch x={66} y={58} />
      <Wire d="M8 58H66" />
      <path d="M72 74v-6a6 6 0 0 1 12 0v6M68 74h20v14H68Z" fill="none" stroke="var(--ink)" strokeWidth="2" />
      <Meter x={214} y={34} w={84} shows="0 V" name={say('hookup.tester-ac')} />
      <Words lead={lead} count={4} />
    </>
  ),
  overload: ({ lead }) => (
    <>
      <Board x={8} y={40} />
      <Wire d="M104 64H302" />
      <Wire d="M104 76H302" />
      <Balloon x={56} y={118} n={1} />
      <Balloon x={206} y={104} n={2} />
      <Words lead={lead} count={2} y={140} />
    </>
  ),
  'voltage-drop': ({ lead }) => (
    <>
      <Board x={8} y={40} />
      <Wire d="M104 56L300 84" />
      <path d="M104 56H300M300 60v20M294 74l6 8 6-8" fill="none" stroke="var(--ink)" strokeWidth="1.5" />
      <Balloon x={56} y={118} n={1} />
      <Balloon x={286} y={104} n={2} />
      <Words lead={lead} count={2} y={140} />
    </>
  ),
  'ring-ends': ({ lead }) => (
    <>
      <Board x={8} y={40} />
      <path d="M104 52H270V88H104" fill="none" stroke="var(--lead-red)" strokeWidth="3" />
      {[150, 190, 230].map((x) => (
        <circle key={x} cx={x} cy="52" r="5" fill="var(--sheet)" stroke="var(--ink)" strokeWidth="2" />
      ))}
      <Tester x={150} shows="Ω" />
      <Wire d="M160 112V88" lead="red" />
      <Wire d="M120 52V132H150" lead="black" />
      <Balloon x={112} y={70} n={1} />
      <Balloon x={138} y={148} n={2} />
      <Word x={4} y={126}>
        {lead(1)}
      </Word>
      <Word x={4} y={164}>
        {lead(2)}
      </Word>
    </>
  ),
  'r1r2-joined': ({ lead }) => (
    <>
      <Circuit joined />
      <Tester shows="Ω" />
      <Wire d="M254 128H282V86" lead="red" />
      <Wire d="M254 148H296V80" lead="black" />
      <Balloon x={112} y={98} n={1} />
      <Balloon x={280} y={108} n={2} />
      <Word x={8} y={126}>
        {lead(1)}
      </Word>
      <Word x={8} y={150}>
        {lead(2)}
      </Word>
    </>
  ),
  'circuit-off': ({ lead }) => (
    <>
      <Board x={8} y={40} />
      <OpenSwitch x={112} y={58} />
      <path d="M150 58h14M168 46v24M172 50v16M176 54v8" stroke="var(--ink)" strokeWidth="2" />
      <Wire d="M196 58H302" />
      <path d="M118 82v-6a6 6 0 0 1 12 0v6M114 82h20v14h-20Z" fill="none" stroke="var(--ink)" strokeWidth="2" />
      <Balloon x={172} y={32} n={1} />
      <Balloon x={150} y={92} n={2} />
      <Balloon x={292} y={84} n={3} />
      <Words lead={lead} count={3} y={120} />
    </>
  ),
  'r2-long-lead': ({ lead }) => (
    <>
      <Circuit />
      <Tester shows="Ω" />
      <Wire d="M254 128H268V82" lead="red" />
      <Wire d="M150 148H112V78" lead="black" />
      <Balloon x={96} y={104} n={1} />
      <Balloon x={286} y={108} n={2} />
      <Word x={8} y={132}>
        {lead(2)}
      </Word>
      <Word x={4} y={166}>
        {lead(1)}
      </Word>
    </>
  ),
  'ac-insulation': ({ lead }) => (
    <>
      <Circuit />
      <Tester x={8} shows="MΩ" />
      <Wire d="M36 112V76" lead="red" />
      <Wire d="M80 112V82" lead="black" />
      <Named x={140} y={110} n={1} words={lead(1)} />
      <Named x={140} y={134} n={2} words={lead(2)} />
      <Named x={140} y={158} n={3} words={lead(3)} />
    </>
  ),
  'ac-polarity': ({ lead }) => (
    <>
      <Board x={8} y={40} />
      <Wire d="M104 52H150" lead="red" />
      <OpenSwitch x={152} y={52} />
      <Wire d="M180 52H240" lead="red" />
      <circle cx="256" cy="60" r="16" fill="none" stroke="var(--ink)" strokeWidth="2" />
      <path d="M245 49l22 22M267 49l-22 22" stroke="var(--ink)" strokeWidth="2" />
      <Wire d="M104 76H256" lead="black" />
      <Named x={22} y={130} n={1} words={lead(1)} />
    </>
  ),
  'electrode-spikes': ({ lead }) => (
    <>
      <Meter x={8} y={28} w={92} shows="Ω" name={say('hookup.tester-ac')} />
      <Ground y={116} />
      <Spike x={30} y={116} long={34} />
      <Spike x={178} y={116} long={14} />
      <Spike x={280} y={116} long={14} />
      <Wire d="M30 80V104" lead="earth" />
      <Wire d="M100 64H178V104" lead="black" />
      <Wire d="M100 44H280V104" lead="red" />
      <Balloon x={48} y={98} n={1} />
      <Balloon x={262} y={66} n={2} />
      <Balloon x={160} y={86} n={3} />
      <Word x={8} y={164}>
        {lead(1)}
      </Word>
      <text x="303" y="164" textAnchor="end">
        {lead(2)}
      </text>
      <text x="178" y="146" textAnchor="middle">
        {lead(3)}
      </text>
    </>
  ),
  'electrode-loop': ({ lead }) => (
    <>
      <Ground y={132} />
      <Spike x={36} y={132} long={28} />
      <Wire d="M36 120V92H120" lead="earth" />
      <Tester x={120} shows="Ω" />
      <Board x={206} y={24} on={false} />
      <Wire d="M302 40H304" />
      <Wire d="M224 116H290V60" lead="red" />
      <Balloon x={62} y={92} n={1} />
      <Balloon x={290} y={96} n={2} />
      <Balloon x={100} y={112} n={3} />
      <Word x={8} y={36}>
        {lead(1)}
      </Word>
      <Word x={8} y={54}>
        {lead(2)}
      </Word>
      <Word x={8} y={72}>
        {lead(3)}
      </Word>
    </>
  ),
  'electrode-back': ({ lead }) => (
    <>
      <Ground y={86} />
      <Spike x={150} y={86} long={44} />
      <rect x="126" y="66" width="48" height="20" fill="none" stroke="var(--ink)" strokeWidth="2" />
      <Wire d="M8 50H150V72" lead="earth" />
      <Balloon x={60} y={50} n={1} />
      <Balloon x={176} y={58} n={2} />
      <Balloon x={110} y={64} n={3} />
      <Word x={30} y={36}>
        {lead(1)}
      </Word>
      <Word x={194} y={62}>
        {lead(2)}
      </Word>
      <Named x={200} y={114} n={3} words={lead(3)} />
    </>
  ),
  'ze-at-origin': ({ lead }) => (
    <>
      <Wire d="M8 52H96" lead="red" />
      <Wire d="M8 66H96" lead="black" />
      <OpenSwitch x={98} y={52} />
      <OpenSwitch x={98} y={72} />
      <Board x={196} y={34} on={false} />
      <Wire d="M130 58H196" />
      <Wire d="M8 92H60" lead="earth" />
      <path d="M68 92h20" stroke="var(--ink)" strokeWidth="2" strokeDasharray="3 4" />
      <Tester x={120} shows="Ω" />
      <Wire d="M120 128H40V96" lead="earth" />
      <Wire d="M120 148H18V56" lead="red" />
      <Named x={200} y={104} n={1} words={lead(1)} />
      <Balloon x={76} y={104} n={1} />
      <Balloon x={18} y={76} n={2} />
      <Word x={28} y={164}>
        {lead(2)}
      </Word>
    </>
  ),
  'earth-back': ({ lead }) => (
    <>
      <Wire d="M8 60H96" lead="earth" />
      <Box x={96} y={44} w={120} h={32}>
        {[112, 140, 168, 196].map((x) => (
          <circle key={x} cx={x} cy="60" r="7" fill="var(--sheet)" stroke="var(--ink)" strokeWidth="2" />
        ))}
      </Box>
      <Earth x={264} y={72} />
      <Wire d="M216 60H264" lead="earth" />
      <Words lead={lead} count={2} />
    </>
  ),
  'fault-current': ({ lead }) => (
    <>
      <Board x={8} y={40} />
      <Earth x={56} y={106} />
      <Tester x={150} shows="A" />
      <Wire d="M150 128H124V52H104" lead="red" />
      <Wire d="M150 148H110V76H104" lead="black" />
      <Balloon x={140} y={60} n={1} />
      <Balloon x={140} y={86} n={2} />
      <Word x={156} y={65}>
        {lead(1)}
      </Word>
      <Word x={156} y={91}>
        {lead(2)}
      </Word>
    </>
  ),
  'zs-far-end': ({ lead }) => (
    <>
      <Circuit />
      <Tester x={120} shows="Ω" />
      <Wire d="M224 128H268V86" lead="red" />
      <Wire d="M224 148H284V86" lead="earth" />
      <Balloon x={232} y={98} n={1} />
      <Balloon x={276} y={110} n={2} />
      <Word x={4} y={126}>
        {lead(1)}
      </Word>
      <Word x={4} y={150}>
        {lead(2)}
      </Word>
    </>
  ),
  'board-checks': ({ lead }) => (
    <>
      <Board x={104} y={34} />
      <Word x={24} y={64}>
        L1 L2 L3
      </Word>
      <path d="M232 70a24 24 0 1 1 8 8M240 90v-14h-14" fill="none" stroke="var(--ink)" strokeWidth="2.4" />
      <Words lead={lead} count={4} />
    </>
  ),
}
