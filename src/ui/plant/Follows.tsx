import { useMemo } from 'react'
import { type Consequence, consequencesOf } from '@/core/evaluation/consequences'
import type { Evaluation } from '@/core/evaluation/types'
import type { Part, PartData } from '@/core/plant/part'
import { quantity, resultText, say, sayCode } from '@/words/say'
import { Mark } from '../mark/Mark'
import { ThinRule } from '../rule/ThinRule'
import { sourceName } from '@/words/sourceName'

/** What follows from the part as it is typed, the worst first, each with its sum and where its limit comes from. */
export function Follows({ evaluation, part, data }: { evaluation: Evaluation; part: Part; data: PartData }) {
  const list = useMemo(() => consequencesOf(evaluation, part, data), [evaluation, part, data])
  if (list.length === 0) return null
  const source = list.find((one) => one.source !== null)?.source
  return (
    <section className="follows" aria-live="polite" data-testid="follows">
      <h3>
        {say('plant.follows')} {source && <small>{sourceName(source)}</small>}
      </h3>
      {list.map((one) => (
        <One key={one.step} one={one} />
      ))}
    </section>
  )
}

function One({ one }: { one: Consequence }) {
  const { step, verdict, finding, line, rule } = one
  const figure = rule?.measured
    ? quantity(rule.measured.value, rule.unit, 1)
    : line?.result
      ? resultText(line.result)
      : ''
  return (
    <div className="one" data-step={step} data-verdict={verdict ?? 'none'}>
      <p>
        <span>
          {verdict && <Mark verdict={verdict} size={16} />} {sayCode('step', `${step}.short`)}
        </span>
        <b>{figure}</b>
      </p>
      {rule?.measured && verdict && <ThinRule rule={rule} verdict={verdict} />}
      {line && <small>{sayCode('working', line.code, line.figures)}</small>}
      {finding && verdict !== 'within' && <small>{sayCode('finding', finding.code, finding.figures)}</small>}
    </div>
  )
}
