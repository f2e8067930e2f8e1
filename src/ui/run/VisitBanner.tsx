'use client'
import { Button } from 'antd'
import { useState } from 'react'
import { v7 as uuid } from 'uuid'
import type { Facts } from '@/core/record/facts'
import { say } from '@/words/say'
import { Answered, ask } from '../device/api'
import type { JobStore } from '../device/jobStore'
import { dayName } from '../shell/time'

type Props = { store: JobStore; facts: Facts; now: number; canWrite: boolean }

/** Said where the last visit was another day at the site: nulled leads and set-up belong to that one. */
export function VisitBanner({ store, facts, now, canWrite }: Props) {
  const [said, setSaid] = useState<string | null>(null)
  const [later, setLater] = useState(false)
  const last = facts.visits.at(-1)
  const zone = facts.job.timeZone
  if (!last || later || !canWrite || dayName(Date.parse(last.startsAt), zone) === dayName(now, zone)) return null
  const begin = async (): Promise<void> => {
    try {
      await ask(`/api/jobs/${store.jobId}/visits`, { id: uuid(), title: '' })
      await store.sync()
    } catch (error) {
      setSaid(error instanceof Answered ? error.message : say('record.needs-reception'))
    }
  }
  return (
    <div className="visit" role="status">
      <p>
        {say('visit.last', { day: dayName(Date.parse(last.startsAt), zone) })} {said}
      </p>
      <Button className="small" type="primary" onClick={() => void begin()} data-testid="begin-visit">
        {say('visit.begin')}
      </Button>
      <Button className="small" onClick={() => setLater(true)}>
        {say('visit.later')}
      </Button>
    </div>
  )
}
