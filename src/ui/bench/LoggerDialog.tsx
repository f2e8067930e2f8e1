'use client'
import '@/words/office'
import { Button, Modal } from 'antd'
import { useMemo, useState } from 'react'
import type { Evaluation } from '@/core/evaluation/types'
import type { Body, Entry } from '@/core/record/entry'
import type { Facts } from '@/core/record/facts'
import { wantsConditions } from '@/core/steps/step'
import { guessClock, joinLogger, type LoggerRecord, readLogger } from '@/core/record/loggerFile'
import { loggerFile } from '@/standin/logger'
import { skyOver } from '@/standin/sky'
import { say, type WordKey } from '@/words/say'
import { ChooseFile } from '../shell/ChooseFile'
import { cutText } from '../shell/cutText'
import { Field, Form, Said } from '../shell/Form'
import { clockTime } from '../shell/time'
import { DialogActions } from '../shell/ReasonDialog'

const MOST_BYTES = 8_000_000
/** The simulated logger was set up by somebody who forgot the summer time. */
const SIMULATED_AHEAD_s = 3600
/** Where the regime says nothing: light of another minute is another light. */
const USUAL_REACH_s = 60
const MARGIN_ms = 600_000

type Props = {
  facts: Facts
  evaluation: Evaluation
  onClose(): void
  onJoin(bodies: Body<'conditions'>[]): void
}
type Chosen = { name: string; record: LoggerRecord }

/** Readings that light and warmth belong to: of steps which are judged by them, and that still count. */
function readingsOf(evaluation: Evaluation): Entry<'reading'>[] {
  return evaluation.steps
    .filter((one) => wantsConditions(one.step, one.part))
    .flatMap((one) => one.readings.filter((reading) => !reading.ended).map((reading) => reading.entry))
}

/** A logger's record is joined to readings by its clock, which is looked at first: an hour off is told. */
export function LoggerDialog({ facts, evaluation, onClose, onJoin }: Props) {
  const zone = facts.job.timeZone
  const reach_s = facts.regime.limits['conditions.apart']?.value ?? USUAL_REACH_s
  const readings = useMemo(() => readingsOf(evaluation), [evaluation])
  const bare = readings.filter((entry) => entry.body.conditions === null)
  const [chosen, setChosen] = useState<Chosen | null>(null)
  const [ahead, setAhead] = useState('0')
  const [guess, setGuess] = useState<string | null>(null)
  const [message, setMessage] = useState<string | null>(null)

  const take = (name: string, text: string): void => {
    const read = readLogger(text, zone)
    setChosen(null)
    if ('refused' in read) return setMessage(say(`logger.${read.refused}` as WordKey))
    setMessage(null)
    setChosen({ name, record: read })
    const found = guessClock(read, readings, reach_s)
    setAhead(String(found.ahead_s / 60))
    setGuess(
      found.why === 'none'
        ? say('logger.covers-none')
        : found.ahead_s === 0
          ? say('logger.clock-right')
          : say(`logger.${found.why}`, { minutes: found.ahead_s / 60 }),
    )
  }
  const open = async (file: File | undefined): Promise<void> => {
    if (!file) return
    if (file.size > MOST_BYTES) return setMessage(say('sheet.too-large', { most: MOST_BYTES / 1e6 }))
    take(file.name, await file.text())
  }
  const simulated = (): void => {
    const times = readings.map((entry) => Date.parse(entry.deviceTime) + entry.clockOffset_ms)
    const now = Date.now()
    const [from, to] = [Math.min(now, ...times) - MARGIN_ms, Math.max(now, ...times) + MARGIN_ms]
    take(
      say('logger.simulated-name'),
      loggerFile(skyOver(facts.job.id), `logger ${facts.job.id}`, from, to, SIMULATED_AHEAD_s),
    )
  }
  const minutes = Number(ahead.trim().replace(',', '.') || Number.NaN)
  const joined = useMemo(() => {
    if (!chosen || Number.isNaN(minutes)) return []
    return bare.flatMap((entry) => {
      const part = entry.partId ? evaluation.parts.get(entry.partId) : undefined
      const mounting = (part && evaluation.plant.arrayOf(part)?.data.mounting) ?? 'open-rack'
      return joinLogger(chosen.record, [entry], { ahead_s: minutes * 60, reach_s, mounting })
    })
  }, [chosen, minutes, bare, evaluation, reach_s])
  const keep = (): void => {
    if (!chosen) return setMessage(say('logger.choose-first'))
    if (Number.isNaN(minutes)) return setMessage(say('logger.no-minutes', { text: ahead || '–' }))
    if (joined.length === 0) return setMessage(say('logger.joins-none'))
    onJoin(
      joined.map(({ entryId, conditions }) => ({
        kind: 'conditions',
        v: 1,
        target: entryId,
        conditions,
        file: cutText(chosen.name, 120),
      })),
    )
  }
  const rows = chosen?.record.rows
  return (
    <Modal open title={say('logger.title')} onCancel={onClose} footer={null} destroyOnHidden>
      <Form onSubmit={keep}>
        <p>{say('logger.about')}</p>
        <ChooseFile label={say('logger.choose')} testId="logger-file" onFile={(file) => void open(file)} />
        {facts.instruments.some((tool) => tool.standIn) && (
          <Button onClick={simulated} data-testid="logger-simulated">
            {say('logger.simulated')}
          </Button>
        )}
        {rows && (
          <div data-testid="logger-read">
            <p>
              {say('logger.read', {
                rows: rows.length,
                skipped: chosen.record.skipped,
                from: clockTime(rows[0]!.at, zone),
                to: clockTime(rows.at(-1)!.at, zone),
              })}
            </p>
            {guess && <p className="said">{guess}</p>}
            <Field label={say('logger.ahead')} value={ahead} onValue={setAhead} mode="decimal" testId="logger-ahead" />
            <p data-testid="logger-count">{say('logger.count', { joined: joined.length, bare: bare.length })}</p>
          </div>
        )}
        <Said message={message} />
        <DialogActions action={say('logger.join')} onClose={onClose} />
      </Form>
    </Modal>
  )
}
