'use client'
import { Collapse, Radio } from 'antd'
import { memo, useEffect, useRef, useState } from 'react'
import type { Evaluation, StepEvaluation } from '@/core/evaluation/types'
import { type Walk, type WalkGroup, type Way, ways } from '@/core/evaluation/walk'
import { worst } from '@/core/verdict/verdict'
import { calledOf } from '@/words/circuit'
import { readingText, verdictWord } from '@/words/reading'
import { partName, say, sayCode } from '@/words/say'
import { Mark } from '../mark/Mark'

/** Rows reach from edge to edge. */
const bare = { header: { padding: 0 }, body: { padding: 0 } }

/** What a row shows at its right: the reading which counts. */
function rowText(one: StepEvaluation): string {
  if (one.repeatAsked) return say('runsheet.again')
  const text = one.counting ? readingText(one.step, one.counting.entry.body) : ''
  // A simulated reading is marked wherever it is shown.
  return text && one.flags.includes('stand-in') ? say('runsheet.simulated', { text }) : text
}

export type RunSheetProps = {
  evaluation: Evaluation
  walks: Record<Way, Walk>
  way: Way
  setWay(way: Way): void
  nowKey: string | null
  /** Tests that were begun and not kept, by their key. */
  begun: ReadonlySet<string>
  onOpen(one: StepEvaluation): void
}

function Sheet({ evaluation, walks, way, setWay, nowKey, begun, onOpen }: RunSheetProps) {
  const walk = walks[way]
  const nowGroup = walk.groups.find((group) => group.steps.some((one) => one.key === nowKey))?.id
  const [open, setOpen] = useState<string | null>(null)
  const shown = open ?? nowGroup ?? null
  useEffect(() => {
    if (nowGroup) setOpen(nowGroup)
  }, [nowGroup])
  return (
    <>
      <div className="head">
        <b>{say('runsheet.title')}</b>
        <a href={`#${evaluation.facts.job.id}/day`}>{say('runsheet.day')}</a>
        <span data-testid="progress">
          {say('runsheet.done', { done: evaluation.progress.done, total: evaluation.progress.total })}
        </span>
      </div>
      <WayChoice walks={walks} way={way} setWay={setWay} />
      <Collapse
        ghost
        destroyOnHidden
        className="sheet-groups"
        activeKey={shown ? [shown] : []}
        // One at a time: what is opened takes the place of what was open.
        onChange={(keys) => setOpen([keys].flat().find((key) => key !== shown) ?? '')}
        expandIcon={() => null}
        items={walk.groups.map((group) => ({
          key: group.id,
          label: <GroupHead group={group} isBegun={group.steps.some((one) => begun.has(one.key))} />,
          styles: bare,
          children: group.steps.map((one) => (
            <Row
              key={one.key}
              one={one}
              isNow={one.key === nowKey}
              isBegun={one.key !== nowKey && begun.has(one.key)}
              byPart={group.step !== null}
              onOpen={onOpen}
            />
          )),
        }))}
      />
    </>
  )
}

/** The worst of a group, its name, and how much of it is done. */
function GroupHead({ group, isBegun }: { group: WalkGroup; isBegun: boolean }) {
  const done = group.steps.filter((one) => one.done).length
  return (
    <span className="grp">
      <Mark verdict={worst(group.steps.map((one) => one.verdict))} size={20} />
      <b>{groupName(group)}</b>
      <i>
        {isBegun && `${say('runsheet.begun')} `}
        {done}/{group.steps.length}
      </i>
    </span>
  )
}

type RowProps = {
  one: StepEvaluation
  isNow: boolean
  isBegun: boolean
  byPart: boolean
  onOpen(one: StepEvaluation): void
}

/** One step on one part; of four hundred only those that changed are drawn again. */
const Row = memo(function Row({ one, isNow, isBegun, byPart, onOpen }: RowProps) {
  const row = useRef<HTMLButtonElement>(null)
  useEffect(() => {
    // Newer browsers give a promise back here, which is no clean-up.
    if (isNow) void row.current?.scrollIntoView({ block: 'nearest' })
  }, [isNow])
  const beside = one.verdict === 'held-back' ? waitsWords(one) : byPart ? calledOf(one.part.data) : ''
  return (
    <button
      type="button"
      ref={row}
      className={`stp ${isNow ? 'now' : ''}`}
      aria-current={isNow ? 'step' : undefined}
      onClick={() => onOpen(one)}
    >
      <Mark verdict={one.verdict} size={20} word={verdictWord(one.verdict, one.step)} />
      <span>
        {byPart ? capital(partName(one.part)) : sayCode('step', `${one.step.id}.short`)}
        {beside && <em>{beside}</em>}
      </span>
      <i>{isBegun ? say('runsheet.begun') : rowText(one)}</i>
    </button>
  )
})

/** By test or by place, with what each way still costs. */
function WayChoice({ walks, way, setWay }: Pick<RunSheetProps, 'walks' | 'way' | 'setWay'>) {
  return (
    <Radio.Group
      block
      optionType="button"
      className="walks"
      aria-label={say('walk.name')}
      value={way}
      onChange={({ target }) => setWay(target.value as Way)}
      options={ways.map((one) => ({
        value: one,
        label: (
          <span className="walk" data-testid={`way-${one}`}>
            <b>{say(`walk.${one}`)}</b>
            <span>{say('walk.left', { minutes: walks[one].minutesLeft, changes: walks[one].leadChanges })}</span>
          </span>
        ),
      }))}
    />
  )
}

/** As a line begins: String 2, Row R1. */
const capital = (name: string): string => name.charAt(0).toUpperCase() + name.slice(1)

function groupName({ step, part }: WalkGroup): string {
  if (step) return `${step.order} ${sayCode('step', `${step.id}.short`)}`
  return part ? capital(partName(part)) : ''
}

/** Steps in working order, one group open: what is done, what waits, and for what. Typing a figure leaves it alone. */
export const RunSheet = memo(Sheet)

function waitsWords(one: StepEvaluation): string {
  const { shut } = one
  const waits = shut?.waitsFor?.split(':')[0]
  return waits
    ? say('runsheet.waits', { what: sayCode('step', `${waits}.short`) })
    : sayCode('gate', shut?.id ?? '', shut?.finding.figures)
}
