'use client'
import { Button, Popover } from 'antd'
import { lazy, Suspense, useEffect, useState } from 'react'
import type { Evaluation, StepEvaluation } from '@/core/evaluation/types'
import type { Judgement } from '@/core/verdict/judgement'
import { say } from '@/words/say'
import { useKeys } from '../shell/keys'

const WhyLimits = lazy(() => import('../help/WhyLimits').then((module) => ({ default: module.WhyLimits })))

type Props = { evaluation: Evaluation; one: StepEvaluation; judgement: Judgement }

/** Why the test that somebody is in has the limit it has, over the foot; the pen stays where it is. */
export function WhyHere({ evaluation, one, judgement }: Props) {
  const [open, setOpen] = useState(false)
  useKeys({ i: () => setOpen((now) => !now) })
  // The first Esc closes this, and does not reach the figure that waits in the cell.
  useEffect(() => {
    if (!open) return
    const close = (event: KeyboardEvent): void => {
      if (event.key !== 'Escape') return
      event.stopPropagation()
      setOpen(false)
    }
    document.addEventListener('keydown', close, true)
    return () => document.removeEventListener('keydown', close, true)
  }, [open])
  return (
    <Popover
      open={open}
      onOpenChange={setOpen}
      trigger="click"
      placement="topRight"
      arrow={false}
      classNames={{ root: 'why-pop' }}
      title={say('help.why')}
      content={
        <div className="why-here">
          <Suspense>
            <WhyLimits evaluation={evaluation} one={one} judgement={judgement} />
          </Suspense>
        </div>
      }
    >
      <Button onMouseDown={(event) => event.preventDefault()} aria-expanded={open} data-testid="schedule-why">
        {say('help.why')} <kbd>I</kbd>
      </Button>
    </Popover>
  )
}
