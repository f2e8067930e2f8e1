import { Tag } from 'antd'
import type { Evaluation } from '@/core/evaluation/types'
import type { Part } from '@/core/plant/part'
import { isRead } from '@/core/steps/step'
import { say, sayCode } from '@/words/say'

/** Which tests the part brings to the run sheet, and how long they take. */
export function Brings({ evaluation, part }: { evaluation: Evaluation; part: Part }) {
  const own = evaluation.steps.filter((one) => one.part.id === part.id && isRead(one.step))
  if (own.length === 0) return null
  const minutes = own.reduce((sum, one) => sum + one.step.minutes, 0)
  return (
    <section className="brings">
      <h3>
        {say('plant.brings')} <small>{say('plant.brings-so', { count: own.length, minutes })}</small>
      </h3>
      {own.map(({ step, key }) => (
        <Tag key={key}>
          <i>{step.order}</i> {sayCode('step', `${step.id}.short`)}
        </Tag>
      ))}
    </section>
  )
}
