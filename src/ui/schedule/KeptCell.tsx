'use client'
import { Tooltip } from 'antd'
import { memo } from 'react'
import type { StepEvaluation } from '@/core/evaluation/types'
import type { Slot } from '@/core/steps/slot'
import { Mark } from '../mark/Mark'
import { NOTHING_TYPED, otherwise, shownIn } from './cell'

type Props = { one: StepEvaluation; slots: readonly Slot[] }

const isSame = (before: Props, after: Props): boolean =>
  before.one === after.one &&
  before.slots.length === after.slots.length &&
  before.slots.every((slot, k) => slot === after.slots[k])

/** A figure that was read another way than is set up now: it is looked at here, and read again on the bench. */
export const KeptCell = memo(function KeptCell({ one, slots }: Props) {
  const { text, verdict } = shownIn(one, slots, NOTHING_TYPED)
  return (
    <Tooltip title={otherwise(slots)} trigger={['hover', 'focus', 'click']}>
      <div className={`gcell apart ${slots[0]?.kind === 'number' ? '' : 'mid'}`} data-verdict={verdict ?? ''}>
        {verdict && <Mark verdict={verdict} size={16} />}
        <span>{slots[0]?.kind === 'number' ? text : ''}</span>
        <small className="hidden">{otherwise(slots)}</small>
      </div>
    </Tooltip>
  )
}, isSame)
