'use client'
import '@/words/regime'
import '@/words/office'
import { Modal } from 'antd'
import { useState } from 'react'
import type { JobLine } from '@/core/record/jobSummary'
import type { Regime } from '@/core/regime/regime'
import { say } from '@/words/say'
import { Answered, ask } from '../device/api'
import { LimitTable, nameOf, rowsOf } from '../office/LimitTable'
import { quietly, useAsked } from '../office/useAsked'
import { Choice, Field, Form, Said } from '../shell/Form'
import { DialogActions } from '../shell/ReasonDialog'

type Props = { job: JobLine; onClose(): void; onMoved(): void }

/** A job moves to a newer version of its rules: what differs is seen before anybody gives the reason. */
export function MoveDialog({ job, onClose, onMoved }: Props) {
  const [asked] = useAsked<{ regimes: Regime[] }>('/api/regimes')
  return (
    <Modal
      open
      width={720}
      title={say('today.move-title', { number: job.number })}
      onCancel={onClose}
      footer={null}
      destroyOnHidden
    >
      {asked.state === 'here' ? (
        <Move job={job} regimes={asked.value.regimes} onClose={onClose} onMoved={onMoved} />
      ) : (
        <p>{quietly(asked)}</p>
      )}
    </Modal>
  )
}

function Move({ job, regimes, onClose, onMoved }: Props & { regimes: readonly Regime[] }) {
  const { id, version } = job.regime ?? { id: '', version: 0 }
  const own = regimes.find((one) => one.id === id && one.version === version)
  const newer = regimes.filter((one) => one.id === id && one.version > version)
  const [to, setTo] = useState(String(newer[0]?.version ?? ''))
  const [reason, setReason] = useState('')
  const [message, setMessage] = useState<string | null>(null)
  const chosen = newer.find((one) => String(one.version) === to)
  if (!own || !chosen) return <p>{say('today.move-none')}</p>
  const rows = rowsOf(chosen, own)
  const move = (): void => {
    if (reason.trim().length < 3) return setMessage(say('today.move-why'))
    ask(`/api/jobs/${job.id}/regime`, { version: chosen.version, reason }).then(onMoved, (error) =>
      setMessage(error instanceof Answered ? error.message : say('record.needs-reception')),
    )
  }
  return (
    <Form onSubmit={move}>
      <p>{say('today.move-about', { name: nameOf(own) })}</p>
      {newer.length > 1 && (
        <Choice
          label={say('today.move-to')}
          value={to}
          onValue={setTo}
          options={newer.map((one) => ({ value: String(one.version), text: nameOf(one) }))}
        />
      )}
      {chosen.changed && <p className="src">{say('office.changed', chosen.changed)}</p>}
      <p className="src" data-testid="move-count">
        {say('office.compare-count', { count: rows.length })}
      </p>
      {rows.length > 0 && <LimitTable regime={chosen} beside={own} rows={rows} />}
      <Field label={say('today.move-reason')} value={reason} onValue={setReason} testId="move-reason" />
      <Said message={message} />
      <DialogActions action={say('today.move-keep', { version: chosen.version })} onClose={onClose} />
    </Form>
  )
}
