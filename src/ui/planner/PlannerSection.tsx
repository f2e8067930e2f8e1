'use client'
/** The planning sheet that a step names, opened from beside its bench. Steps are known here by their planner only. */
import { Button } from 'antd'
import { type ComponentType, lazy, Suspense, useState } from 'react'
import type { StepEvaluation } from '@/core/evaluation/types'
import { isRead, type ReadStep } from '@/core/steps/step'
import { sayCode } from '@/words/say'

type Planner = NonNullable<ReadStep['planner']>
type SheetProps = { one: StepEvaluation; onClose(): void }

const sheets: Record<Planner, ComponentType<SheetProps>> = {
  rods: lazy(async () => {
    const { RodPlanner } = await import('./RodPlanner')
    return {
      default: ({ one, onClose }: SheetProps) => {
        const { counting, part, step } = one
        if (part.data.kind !== 'electrode') return null
        return (
          <RodPlanner
            data={part.data}
            read_ohm={(counting && isRead(step) && step.standing?.(counting.entry.body)?.value) || null}
            limit_ohm={counting?.judgement.rule?.band.high ?? null}
            onClose={onClose}
          />
        )
      },
    }
  }),
}

export function PlannerSection({ one }: { one: StepEvaluation }) {
  const [open, setOpen] = useState(false)
  const planner = isRead(one.step) ? one.step.planner : undefined
  if (!planner) return null
  const Sheet = sheets[planner]
  return (
    <>
      <Button className="small" onClick={() => setOpen(true)} data-testid="open-planner">
        {sayCode('planner.open', planner)}
      </Button>
      {open && (
        <Suspense>
          <Sheet one={one} onClose={() => setOpen(false)} />
        </Suspense>
      )}
    </>
  )
}
