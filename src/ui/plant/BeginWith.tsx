'use client'
import { Button, List, Modal } from 'antd'
import { useEffect, useState } from 'react'
import { v7 as uuid } from 'uuid'
import type { NewPart } from '@/core/plant/additions'
import { copyOf, houseWith, pointWith } from '@/core/plant/begin'
import { plantOfJob } from '@/core/plant/projection'
import type { Facts } from '@/core/record/facts'
import type { JobLine } from '@/core/record/jobSummary'
import { say, type WordKey } from '@/words/say'
import { ask } from '../device/api'
import { Said } from '../shell/Form'
import { useKeys } from '../shell/keys'

type Props = {
  job: Facts['job']
  /** The part that is the site here already. */
  siteId: string | null
  onRoof(): void
  onPaste(): void
  onParts(parts: readonly NewPart[]): void
}

const ways = ['roof', 'house', 'point', 'table', 'job'] as const

/** A plant that has nothing yet begins with one of these. */
export function BeginWith({ job, siteId, onRoof, onPaste, onParts }: Props) {
  const [isChoosing, setIsChoosing] = useState(false)
  const begin: Record<(typeof ways)[number], () => void> = {
    roof: onRoof,
    house: () => onParts(houseWith(uuid)),
    point: () => onParts(pointWith(uuid)),
    table: onPaste,
    job: () => setIsChoosing(true),
  }
  useKeys(Object.fromEntries(ways.map((way, k) => [String(k + 1), begin[way]])))
  return (
    <section className="begin" aria-label={say('begin.title')}>
      <header>
        <h2>{say('begin.title')}</h2>
        <small>{`${job.number} ${job.name}`}</small>
      </header>
      {ways.map((way, k) => (
        <Button key={way} className="way" onClick={begin[way]} data-testid={`begin-${way}`}>
          <span>
            <b>{say(`begin.${way}` as WordKey)}</b>
            <small>{say(`begin.${way}-is` as WordKey)}</small>
          </span>
          <kbd>{k + 1}</kbd>
        </Button>
      ))}
      <p className="src">{say('begin.about')}</p>
      {isChoosing && <OtherJob jobId={job.id} siteId={siteId} onParts={onParts} onClose={() => setIsChoosing(false)} />}
    </section>
  )
}

type OtherProps = Pick<Props, 'siteId' | 'onParts'> & { jobId: string; onClose(): void }

/** The plant of a job that is alike, without its readings. */
function OtherJob({ jobId, siteId, onParts, onClose }: OtherProps) {
  const [jobs, setJobs] = useState<readonly JobLine[] | null>(null)
  const [message, setMessage] = useState<string | null>(null)
  useEffect(() => {
    ask<{ jobs: JobLine[] }>('/api/jobs').then(
      (answer) => setJobs(answer.jobs.filter((one) => one.id !== jobId)),
      () => setMessage(say('begin.needs-reception')),
    )
  }, [jobId])
  const take = async (job: JobLine): Promise<void> => {
    try {
      const { facts } = await ask<{ facts: Facts }>(`/api/jobs/${job.id}/facts`)
      const parts = copyOf(plantOfJob(facts.entries, job.id).values(), uuid, siteId)
      if (parts.every(({ data }) => data.kind === 'site')) return setMessage(say('begin.nothing-there'))
      onParts(parts)
      onClose()
    } catch {
      setMessage(say('begin.needs-reception'))
    }
  }
  return (
    <Modal open title={say('begin.job-title')} onCancel={onClose} footer={null} destroyOnHidden>
      <Said message={message} />
      <List
        loading={jobs === null && message === null}
        dataSource={jobs ? [...jobs] : []}
        renderItem={(one) => (
          <List.Item>
            <Button type="text" block style={{ textAlign: 'left' }} onClick={() => void take(one)}>
              {`${one.number} ${one.name}`}
            </Button>
          </List.Item>
        )}
      />
    </Modal>
  )
}
