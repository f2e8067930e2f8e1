'use client'
import '@/words/today'
import { DatePicker, Modal } from 'antd'
import dayjs from 'dayjs'
import 'dayjs/locale/en-gb'
import { useMemo, useState } from 'react'
import type { JobLine } from '@/core/record/jobSummary'
import { say } from '@/words/say'
import { Answered, ask } from '../device/api'
import { Form, Labelled, Said } from '../shell/Form'
import { DialogActions } from '../shell/ReasonDialog'

// Weeks begin on Monday.
dayjs.locale('en-gb')

/** The day by which a job is wanted, or none. */
export function PlanDialog({ job, onClose, onKept }: { job: JobLine; onClose(): void; onKept(): void }) {
  const [day, setDay] = useState(job.dueOn)
  const [message, setMessage] = useState<string | null>(null)
  const keep = (): void => {
    ask(`/api/jobs/${job.id}/plan`, { dueOn: day }).then(onKept, (error) =>
      setMessage(error instanceof Answered ? error.message : say('record.needs-reception')),
    )
  }
  return (
    <Modal
      open
      title={say('today.plan-title', { number: job.number })}
      onCancel={onClose}
      footer={null}
      destroyOnHidden
    >
      <Form focused onSubmit={keep}>
        <Labelled label={say('today.plan-day')}>{(id) => <DayPicker id={id} value={day} onValue={setDay} />}</Labelled>
        <Said message={message} />
        <DialogActions action={say('today.plan-keep')} onClose={onClose} />
      </Form>
    </Modal>
  )
}

/** A day, typed or picked, as 2026-03-07. */
type DayProps = { id: string; value: string | null; onValue(day: string | null): void; mustBe?: boolean }

export function DayPicker({ id, value, onValue, mustBe = false }: DayProps) {
  // The same day is the same object: another one, at any drawing of the page, would wipe what is being typed.
  const day = useMemo(() => (value === null ? null : dayjs(value)), [value])
  return (
    <DatePicker
      id={id}
      allowClear={!mustBe}
      value={day}
      onChange={(next) => onValue(next ? next.format('YYYY-MM-DD') : null)}
      // The first is how it is shown; it may be typed as any of them.
      format={['D MMM YYYY', 'YYYY-MM-DD', 'D/M/YYYY', 'D.M.YYYY']}
      placeholder={say('today.plan-none')}
      style={{ width: '100%' }}
    />
  )
}
