'use client'
import '@/words/dialogs'
import { Button, Modal } from 'antd'
import { useState } from 'react'
import type { Evaluation, StepEvaluation } from '@/core/evaluation/types'
import type { Conditions } from '@/core/record/entry'
import type { Facts } from '@/core/record/facts'
import type { LiveSample } from '@/core/record/feed'
import type { Instrument } from '@/core/record/instrument'
import { partName, say, sayCode, sayFinding } from '@/words/say'
import { readingText } from '@/words/reading'
import type { JobStore } from '../device/jobStore'
import { Cautions } from '../bench/Before'
import { hardCautions } from '../bench/minded'
import { Mark } from '../mark/Mark'
import { pressSimulated } from './pressSimulated'
import { runSequence, type SequenceEnd, sequenceOf, type Taken } from './sequence'

type Props = {
  store: JobStore
  facts: Facts
  evaluation: Evaluation
  one: StepEvaluation
  tool: Instrument
  conditions(): Conditions | null
  /** A sample of the sequence is its own: it fills no slot of the bench behind it. */
  onHeard(sample: LiveSample): void
  onClose(): void
}

/** The tester's automatic sequence: cautions of all its tests first, then one reading after another, then kept together. */
export function SequenceDialog({ store, facts, evaluation, one, tool, conditions, onHeard, onClose }: Props) {
  const [steps] = useState(() => sequenceOf(evaluation, facts, one, tool))
  const hard = hardCautions(steps, evaluation.plant)
  const [ticked, setTicked] = useState<readonly string[]>([])
  const [taken, setTaken] = useState<readonly Taken[]>([])
  const [end, setEnd] = useState<SequenceEnd | null>(null)
  const [running, setRunning] = useState(false)
  const ready = hard.every(({ id }) => ticked.includes(id))

  const start = async (): Promise<void> => {
    setRunning(true)
    setTaken([])
    setEnd(null)
    const done = await runSequence(steps, {
      evaluation,
      facts,
      tool,
      conditions,
      press: async (other, wanted) => {
        const pressed = await pressSimulated(store, facts, evaluation, other, {
          measures: wanted,
          setting: { step: other.step.id, slot: '', choices: {} },
          instrumentId: tool.id,
        })
        if (typeof pressed !== 'string') onHeard(pressed)
        return pressed
      },
      onTaken: (next) => setTaken((before) => [...before, next]),
    })
    setEnd(done)
    setRunning(false)
  }
  const keep = async (): Promise<void> => {
    const entries = taken.map(({ one: other, body }) => ({
      body,
      about: { partId: other.part.id, step: other.step.id },
    }))
    if (await store.addAll(entries)) onClose()
  }
  return (
    <Modal
      open
      title={say('sequence.title', { tag: tool.tag, part: partName(one.part) })}
      onCancel={onClose}
      footer={null}
      destroyOnHidden
    >
      {steps.length === 0 ? (
        <p>{one.shut?.hard ? sayFinding(one.shut.finding) : say('sequence.none')}</p>
      ) : (
        <div className="chk">
          <Cautions cautions={hard} ticked={ticked} onTick={setTicked} />
        </div>
      )}
      <ul className="seq" data-testid="sequence">
        {steps.map((other) => {
          const done = taken.find((found) => found.one === other)
          const verdict = done?.judgement.verdict ?? 'not-yet'
          return (
            <li key={other.key}>
              <Mark verdict={verdict} size={20} />
              <b>{sayCode('step', `${other.step.id}.short`)}</b>
              <span>{done ? readingText(other.step, done.body) : ''}</span>
              {done && verdict !== 'within' && (
                <small>
                  {[sayFinding(done.judgement.finding), ...done.flags.map((flag) => sayCode('flag', flag))].join(' · ')}
                </small>
              )}
            </li>
          )
        })}
      </ul>
      {end?.stopped && (
        <p className="said bad" role="alert">
          {say('sequence.stopped', { what: sayCode('step', `${end.stopped.one.step.id}.short`) })}{' '}
          {end.stopped.why ?? ''}
        </p>
      )}
      <div className="acts">
        {end && taken.length > 0 ? (
          <Button type="primary" onClick={() => void keep()} data-testid="sequence-keep">
            {say('sequence.keep', { count: taken.length })}
          </Button>
        ) : (
          steps.length > 0 && (
            <Button
              type="primary"
              disabled={!ready || running}
              onClick={() => void start()}
              data-testid="sequence-start"
            >
              {say(running ? 'standin.reading' : ready ? 'sequence.start' : 'action.tick-first')}
            </Button>
          )
        )}
        {end && taken.length > 0 && (
          <Button onClick={() => void start()} data-testid="sequence-again">
            {say('sequence.again')}
          </Button>
        )}
        <Button onClick={onClose}>{say('action.close')}</Button>
      </div>
    </Modal>
  )
}
