'use client'
import { Collapse } from 'antd'
import { lazy, Suspense, useState } from 'react'
import type { Evaluation, StepEvaluation } from '@/core/evaluation/types'
import type { Judgement } from '@/core/verdict/judgement'
import { say, sayCode } from '@/words/say'
import { useKeys } from '../shell/keys'

const WhyLimits = lazy(() => import('./WhyLimits').then((module) => ({ default: module.WhyLimits })))
const WordsHere = lazy(() => import('./WordsHere').then((module) => ({ default: module.WordsHere })))
const Glossary = lazy(() => import('./Glossary').then((module) => ({ default: module.Glossary })))

const bare = { header: { padding: '10px 0' }, body: { padding: '0 0 10px' } }

type Props = { evaluation: Evaluation; one: StepEvaluation; judgement: Judgement | null }

/** Why a step has the limit it has, and what its words mean; folded until somebody asks. */
export function Help({ evaluation, one, judgement }: Props) {
  const [open, setOpen] = useState<string[]>([])
  const [all, setAll] = useState(false)
  useKeys({ i: () => setOpen((now) => (now.includes('why') ? now.filter((key) => key !== 'why') : [...now, 'why'])) })
  return (
    <>
      <Collapse
        ghost
        className="help"
        activeKey={open}
        onChange={(keys) => setOpen([keys].flat())}
        destroyOnHidden
        items={[
          {
            key: 'why',
            styles: bare,
            label: <b data-testid="why">{say('help.why')}</b>,
            children: (
              <Suspense>
                <WhyLimits evaluation={evaluation} one={one} judgement={judgement} />
              </Suspense>
            ),
          },
          {
            key: 'words',
            styles: bare,
            label: <b data-testid="words-here">{say('help.words')}</b>,
            children: (
              <Suspense>
                <WordsHere text={saidOf(one, judgement)} onAll={() => setAll(true)} />
              </Suspense>
            ),
          },
        ]}
      />
      <Suspense>{all && <Glossary onClose={() => setAll(false)} />}</Suspense>
    </>
  )
}

/** What a step says, as far as the trade's words stand in it. */
function saidOf({ step, part }: StepEvaluation, judgement: Judgement | null): string {
  const { tag } = part.data
  const lines = judgement?.lines.map((line) => sayCode('working', line.code, line.figures)) ?? []
  return [sayCode('step', `${step.id}.title`, { tag }), sayCode('step', `${step.id}.about`, { tag }), ...lines].join(
    '. ',
  )
}
