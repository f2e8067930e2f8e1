'use client'
import '@/words/record'
import { Button, Popconfirm, Progress, Radio } from 'antd'
import { useState } from 'react'
import type { Sheet } from '@/core/plant/kinds/descriptor'
import { say, sayCode } from '@/words/say'
import { Answered } from '../device/api'
import { follow, type Progress as Stage } from '../device/follow'
import type { JobStore } from '../device/jobStore'
import { Said } from '../shell/Form'

type Props = {
  store: JobStore
  /** The issue that holds all that stands; null where there is something new, or nothing sealed yet. */
  issue: string | null
  isSupervisor: boolean
  isSigned: boolean
  /** Tests that are outside or not finished: they are sealed as they stand, and nobody does that by mistake. */
  open: number
  /** The one that is shown and printed, null for both in one. */
  sheet: Sheet | null
  /** Where the plant has an array and an electrical side: each can be had by itself. */
  onSheet: ((sheet: Sheet | null) => void) | null
}

/** What a piece of work goes through, in order: which of them is under way is drawn. */
const STAGES = {
  print: ['waiting', 'reading', 'judging', 'drawing'],
  seal: ['waiting', 'reading', 'judging', 'signing'],
}
type Work = keyof typeof STAGES

/** Print and seal: both are made by the office, which tells how far it is. */
export function RecordActions({ store, issue, isSupervisor, isSigned, open, sheet, onSheet }: Props) {
  const [under, setUnder] = useState<{ work: Work; stage: Stage } | null>(null)
  const [said, setSaid] = useState<string | null>(null)
  const begin = async (work: Work, path: string, body: object, then: () => void): Promise<void> => {
    if (under) return
    setSaid(null)
    setUnder({ work, stage: { stage: 'waiting' } })
    try {
      await store.sync()
      await follow(`/api/jobs/${store.jobId}/${path}`, body, (stage) => setUnder({ work, stage }))
      then()
    } catch (error) {
      setSaid(error instanceof Answered ? error.message : say('record.needs-reception'))
    }
    setUnder(null)
  }
  const seal = (): void => void begin('seal', 'seal', {}, () => void store.sync())
  const asked = new URLSearchParams({ ...(issue ? { issue } : {}), ...(sheet ? { sheet } : {}) }).toString()
  const href = `/api/jobs/${store.jobId}/certificate${asked ? `?${asked}` : ''}`
  return (
    <div className="note" style={{ display: 'grid', gap: 10 }}>
      <Said message={said} />
      {under && <HowFar {...under} />}
      {onSheet && (
        <Radio.Group
          block
          optionType="button"
          aria-label={say('record.sheet')}
          value={sheet ?? 'both'}
          onChange={({ target }) => onSheet(target.value === 'both' ? null : (target.value as Sheet))}
          options={(['both', 'pv', 'electrical'] as const).map((value) => ({
            value,
            label: <span data-testid={`sheet-${value}`}>{say(`record.sheet.${value}`)}</span>,
          }))}
        />
      )}
      <Button
        href={href}
        data-testid="pdf"
        type={issue ? 'primary' : 'default'}
        onClick={(event) => {
          event.preventDefault()
          void begin('print', 'certificate', { issue, sheet }, () => window.location.assign(href))
        }}
      >
        {say(issue ? 'record.download' : 'record.print-draft')}
      </Button>
      {isSupervisor && !issue && (
        <Popconfirm
          title={say('record.seal-open', { open })}
          description={say('record.seal-open-why')}
          okText={say('record.seal')}
          cancelText={say('action.close')}
          okButtonProps={{ className: 'seal-anyway' }}
          disabled={open === 0}
          onConfirm={seal}
        >
          <Button
            type="primary"
            onClick={open === 0 ? seal : undefined}
            disabled={under !== null || !isSigned}
            data-testid="seal"
          >
            {say(under?.work === 'seal' ? 'record.sealing' : 'record.seal')}
          </Button>
        </Popconfirm>
      )}
    </div>
  )
}

function HowFar({ work, stage }: { work: Work; stage: Stage }) {
  const stages = STAGES[work]
  const place = Math.max(0, stages.indexOf(stage.stage))
  const words =
    stage.place !== undefined && stage.place > 1
      ? say('work.place', { place: stage.place })
      : sayCode('work', stage.stage)
  return (
    <div role="status" data-testid="how-far">
      <p className="small">{words}</p>
      <Progress
        aria-label={words}
        percent={((place + 1) / (stages.length + 1)) * 100}
        showInfo={false}
        strokeLinecap="butt"
        size={['100%', 8]}
      />
    </div>
  )
}
