'use client'
import '@/words/ac'
import { Button } from 'antd'
import { useEffect, useState } from 'react'
import type { KitNeed } from '@/core/steps/step'
import { lackCode, needFigures } from '@/core/evaluation/kitNeed'
import type { JobLine, JobSummary } from '@/core/record/jobSummary'
import { figure, say, sayCode } from '@/words/say'
import { Answered, ask, NoReception } from '../device/api'
import { type Me, recall, remember } from '../device/store'
import { useMe } from '../device/me'
import { MiniLine } from '../line/Line'
import { Mark, ZonePatterns } from '../mark/Mark'
import { useKeys } from '../shell/keys'
import { Strip } from '../shell/Strip'
import { Calibrations } from './Calibrations'
import { NewJob } from './NewJob'
import { WhoCell } from '../shell/WhoCell'
import { clockTime, dayName, shortDay } from '../shell/time'

type List =
  | { state: 'loading' }
  | { state: 'here'; jobs: JobLine[]; at: string; reception: boolean }
  | { state: 'none'; why: string }

const zone = Intl.DateTimeFormat().resolvedOptions().timeZone

function useJobs(me: Me | null): List {
  const [list, setList] = useState<List>({ state: 'loading' })
  useEffect(() => {
    if (!me) return
    let gone = false
    const key = `jobs:${me.id}`
    const load = async (): Promise<void> => {
      try {
        const { jobs } = await ask<{ jobs: JobLine[] }>('/api/jobs')
        const at = new Date().toISOString()
        await remember(key, { jobs, at })
        if (!gone) setList({ state: 'here', jobs, at, reception: true })
      } catch (error) {
        const kept = await recall<{ jobs: JobLine[]; at: string }>(key)
        if (gone) return
        if (kept) setList({ state: 'here', ...kept, reception: !(error instanceof NoReception) })
        else setList({ state: 'none', why: error instanceof Answered ? error.message : say('today.no-reception') })
      }
    }
    void load()
    const timer = setInterval(() => void load(), 30_000)
    return () => {
      gone = true
      clearInterval(timer)
    }
  }, [me])
  return list
}

/** What holds a job, in a few words. */
function Holds({ summary, lacks }: { summary: JobSummary; lacks: readonly KitNeed[] }) {
  const { holds } = summary
  if (!holds) {
    const sealed = summary.issue !== null && summary.sinceSeal === 0
    const verdict = summary.total === 0 ? 'not-yet' : summary.worst
    return (
      <span className="bl">
        <b>
          <Mark verdict={sealed || summary.total > 0 ? verdict : 'not-yet'} size={20} />
          {summary.total === 0
            ? say('today.no-plant')
            : sealed
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
      {lacks.map((need) => (
        <span key={JSON.stringify(need)} className="quiet">
          {say(`today.${lackCode(need)}`, needFigures(need))}
        </span>
      ))}
    </span>
  )
}

function JobRow({ job, first, now }: { job: JobLine; first: boolean; now: number }) {
  const { summary } = job
  const isToday = job.visitAt !== null && dayName(job.visitAt, zone) === dayName(now, zone)
  return (
    <a className={`job ${first ? 'now' : ''}`} href={`/job#${job.id}/run`}>
      <span className="tm">
        {job.visitAt ? (isToday ? clockTime(job.visitAt, zone) : shortDay(job.visitAt, zone)) : ''}
      </span>
      <span className="jn">
        <b>{job.name}</b>
        <small className="quiet">
          {summary.strings > 0
            ? say('today.job', { number: job.number, strings: summary.strings, kWp: figure(summary.peak_W / 1000, 1) })
            : job.number}
        </small>
      </span>
      {summary.stations.length > 0 ? (
        <MiniLine stations={summary.stations} />
      ) : (
        <span className="mini quiet small">{say('today.nothing-entered')}</span>
      )}
      <Holds summary={summary} lacks={job.kitLacks ?? []} />
    </a>
  )
}

export function TodayScreen() {
  const who = useMe()
  const me = who.state === 'in' ? who.me : null
  const list = useJobs(me)
  const [adding, setAdding] = useState(false)
  const now = Date.now()
  const jobs = list.state === 'here' ? list.jobs : []
  const open = jobs.filter((job) => job.summary.issue === null || job.summary.sinceSeal > 0)
  const outside = jobs.filter((job) => job.summary.worst === 'outside')
  const toSign = jobs.filter(
    (job) =>
      job.summary.total > 0 &&
      job.summary.done === job.summary.total &&
      (job.summary.issue === null || job.summary.sinceSeal > 0),
  )
  useKeys(
    Object.fromEntries(
      jobs.slice(0, 9).map((job, k) => [String(k + 1), () => window.location.assign(`/job#${job.id}/run`)]),
    ),
  )

  if (who.state !== 'in') return <div className="center-page quiet">{say('loading.day')}</div>
  return (
    <div className="app flat">
      <ZonePatterns />
      <Strip
        title={dayName(now, zone)}
        about={list.state === 'here' ? say('today.about', { open: open.length, sign: toSign.length }) : ''}
        who={<WhoCell me={who.me} />}
      >
        {list.state === 'here' && (
          <div>
            <b>{say('today.read-at', { time: clockTime(list.at, zone) })}</b>
            <small>{say(list.reception ? 'today.from-office' : 'saved.no-reception')}</small>
          </div>
        )}
      </Strip>
      <main className="today">
        <section className="pane">
          <div className="dayhd">
            <h1>{say('today.title')}</h1>
            {me?.role === 'supervisor' && (
              <Button className="small" onClick={() => setAdding(!adding)} data-testid="new-job">
                {say('today.new-job')}
              </Button>
            )}
          </div>
          {adding && <NewJob onClose={() => setAdding(false)} />}
          {list.state === 'loading' && (
            <p className="quiet" style={{ padding: '20px 0' }}>
              {say('loading.day')}
            </p>
          )}
          {list.state === 'none' && <p style={{ padding: '20px 0' }}>{list.why}</p>}
          {list.state === 'here' && jobs.length === 0 && <p style={{ padding: '20px 0' }}>{say('today.empty')}</p>}
          {jobs.map((job, k) => (
            <JobRow key={job.id} job={job} first={k === 0} now={now} />
          ))}
        </section>
        <aside className="margin" aria-label={say('today.side')}>
          <Calibrations me={me} now={now} />
          <section className="note">
            <h2>
              {say('today.outside')} <span>{say('today.count', { count: outside.length })}</span>
            </h2>
            {outside.length === 0 && <p className="src">{say('today.none-outside')}</p>}
            {outside.map((job) => (
              <div className="ins" key={job.id}>
                <b>{job.number}</b>{' '}
                {job.summary.holds
                  ? sayCode('step', `${job.summary.holds.stepId}.title`, { tag: job.summary.holds.tag })
                  : ''}
              </div>
            ))}
          </section>
          <section className="note">
            <h2>
              {say('today.to-sign')} <span>{say('today.count', { count: toSign.length })}</span>
            </h2>
            {toSign.length === 0 && <p className="src">{say('today.none-to-sign')}</p>}
            {toSign.map((job) => (
              <div className="ins" key={job.id}>
                <a href={`/job#${job.id}/record`}>
                  {job.number} {job.name}
                </a>
              </div>
            ))}
          </section>
          <p style={{ padding: '12px 14px 0' }}>
            <a href="/office">{say('office.open')}</a>
          </p>
          <p className="src" style={{ padding: 14 }}>
            {say('caution.general')}
          </p>
        </aside>
      </main>
    </div>
  )
}
