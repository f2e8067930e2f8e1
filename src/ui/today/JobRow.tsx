'use client'
import { Button, Dropdown } from 'antd'
import type { KitNeed } from '@/core/steps/step'
import { lackCode, needFigures } from '@/core/evaluation/kitNeed'
import { dueIn_days, jobState } from '@/core/record/jobOrder'
import type { JobLine } from '@/core/record/jobSummary'
import { figure, say, sayCode } from '@/words/say'
import { MiniLine } from '../line/Line'
import { Mark } from '../mark/Mark'
import { clockTime, dayName, shortDay } from '../shell/time'

/** What holds a job, in a few words. */
function Holds({ job, lacks }: { job: JobLine; lacks: readonly KitNeed[] }) {
  const { summary } = job
  const { holds } = summary
  if (!holds) {
    const isSealed = summary.issue !== null && summary.sinceSeal === 0
    return (
      <span className="bl">
        <b>
          <Mark verdict={summary.total === 0 ? 'not-yet' : summary.worst} size={20} />
          {summary.total === 0
            ? say('today.no-plant')
            : isSealed
              ? say('today.sealed', { issue: summary.issue ?? '' })
              : say('today.ready-to-sign')}
        </b>
        <span className="quiet">
          {summary.total === 0 ? say('today.no-plant-why') : say('today.all-done', { total: summary.total })}
        </span>
      </span>
    )
  }
  return (
    <span className="bl">
      <b>
        <Mark verdict={holds.verdict} size={20} />
        {sayCode('step', `${holds.stepId}.title`, { tag: holds.tag })}
      </b>
      <span className="quiet">
        {sayCode('finding', holds.code, holds.figures)}
        {holds.simulated && ` (${say('slot.simulated')})`}
      </span>
      {jobState(job) === 'to-sign' && <small className="quiet">{say('today.signed-waits')}</small>}
      {lacks.map((need) => (
        <span key={JSON.stringify(need)} className="quiet">
          {say(`today.${lackCode(need)}`, needFigures(need))}
        </span>
      ))}
    </span>
  )
}

/** When it is wanted: in red words once it is late. */
function Due({ job, today }: { job: JobLine; today: string }) {
  const days = dueIn_days(job, today)
  if (days === null) return null
  if (days < 0) return <small className="t-outside">{say('today.late', { days: -days })}</small>
  const date = shortDay(job.dueOn!, 'UTC')
  return <small className="t-close">{days === 0 ? say('today.due-today') : say('today.due', { date })}</small>
}

type Props = {
  job: JobLine
  /** It comes first. */
  first: boolean
  now: number
  today: string
  zone: string
  /** What a supervisor may do with it besides opening it. */
  menu: { plan(): void; putAway(): void; move(): void } | null
}

/** One job: when and who, how far each station of its line is, and what holds it. */
export function JobRow({ job, first, now, today, zone, menu }: Props) {
  const { summary } = job
  const isToday = job.visitAt !== null && dayName(job.visitAt, zone) === dayName(now, zone)
  const people = job.people.length > 0 ? job.people.join(', ') : say('today.nobody')
  const about =
    summary.strings > 0
      ? say('today.job', { number: job.number, strings: summary.strings, kWp: figure(summary.peak_W / 1000, 1) })
      : job.number
  return (
    <div className={`jobrow ${first ? 'now' : ''}`} data-job={job.number}>
      <a className="job" href={`/job#${job.id}/run`}>
        <span className="tm">
          {job.visitAt ? (isToday ? clockTime(job.visitAt, zone) : shortDay(job.visitAt, zone)) : ''}
          {job.visitAt && <small className="quiet">{say('today.visit')}</small>}
          <Due job={job} today={today} />
        </span>
        <span className="jn">
          <b>{job.name}</b>
          <small className="quiet">{about}</small>
          <small className="quiet">{job.place}</small>
        </span>
        <span className="how">
          {summary.stations.length > 0 ? (
            <>
              <MiniLine stations={summary.stations} />
              <small className="quiet">{say('today.progress', { done: summary.done, total: summary.total })}</small>
            </>
          ) : (
            <small className="quiet">{say('today.nothing-entered')}</small>
          )}
          <small className="quiet">{people}</small>
        </span>
        <Holds job={job} lacks={job.kitLacks} />
      </a>
      {menu && (
        <Dropdown
          trigger={['click']}
          placement="bottomRight"
          menu={{
            items: [
              { key: 'plan', label: say('today.plan'), onClick: menu.plan },
              ...(job.regime && job.regime.newest > job.regime.version
                ? [{ key: 'move', label: say('today.move'), onClick: menu.move }]
                : []),
              {
                key: 'away',
                label: say(jobState(job) === 'put-away' ? 'today.take-back' : 'today.put-away'),
                onClick: menu.putAway,
              },
            ],
          }}
        >
          <Button
            type="text"
            className="small center"
            aria-label={say('today.more', { number: job.number })}
            data-testid={`more-${job.number}`}
          >
            ···
          </Button>
        </Dropdown>
      )}
    </div>
  )
}
