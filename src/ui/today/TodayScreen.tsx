'use client'
import '@/words/today'
import '@/words/everyTest'
import { Button, Empty, Input, Segmented } from 'antd'
import { lazy, Suspense, useMemo, useState } from 'react'
import { byWhatIsNext, isFound, isOpenJob, type JobState, jobState } from '@/core/record/jobOrder'
import type { JobLine } from '@/core/record/jobSummary'
import { say, sayCode, type WordKey } from '@/words/say'
import { Answered, ask } from '../device/api'
import { useMe } from '../device/me'
import { ZonePatterns } from '../mark/Mark'
import { Said } from '../shell/Form'
import { useKeys } from '../shell/keys'
import { Strip } from '../shell/Strip'
import { clockTime, dayName, dayOf } from '../shell/time'
import { WhoCell } from '../shell/WhoCell'
import { Calibrations } from './Calibrations'
import { JobRow } from './JobRow'
import { Matters } from './Matters'
import { useJobs } from './useJobs'

// What is asked for now and then comes then.
const NewJob = lazy(() => import('./NewJob').then((module) => ({ default: module.NewJob })))
const MoveDialog = lazy(() => import('./MoveDialog').then((module) => ({ default: module.MoveDialog })))
const PlanDialog = lazy(() => import('./PlanDialog').then((module) => ({ default: module.PlanDialog })))

const zone = Intl.DateTimeFormat().resolvedOptions().timeZone

/** Which jobs are shown: all that are open, or those that stand in one way. */
const shows = ['open', 'outside', 'to-sign', 'sealed', 'put-away'] as const
type Show = (typeof shows)[number]
const isShown = (job: JobLine, show: Show): boolean =>
  show === 'open' ? isOpenJob(job) : jobState(job) === (show satisfies JobState)

export function TodayScreen() {
  const who = useMe()
  const me = who.state === 'in' ? who.me : null
  const { list, again } = useJobs(me)
  const [adding, setAdding] = useState(false)
  const [typed, setTyped] = useState('')
  const [show, setShow] = useState<Show>('open')
  const [moved, setMoved] = useState<JobLine | null>(null)
  const [planned, setPlanned] = useState<JobLine | null>(null)
  const [message, setMessage] = useState<string | null>(null)
  const now = Date.now()
  const today = dayOf(now, zone)
  const all = list.state === 'here' ? list.jobs : []
  const jobs = useMemo(() => [...all].sort(byWhatIsNext(today, (at) => dayOf(at, zone) === today)), [all, today])
  const outside = jobs.filter((job) => jobState(job) === 'outside')
  // What was sent back with a question waits for whoever tests.
  const dangers = jobs.flatMap((job) => (job.summary.dangers ?? []).map((one) => ({ job, ...one })))
  const askedBack = jobs.flatMap((job) => (job.summary.asked ?? []).map((one) => ({ job, ...one })))
  const toSign = jobs.filter((job) => jobState(job) === 'to-sign')
  // A search looks everywhere: whoever types a number wants that job, wherever it stands.
  const searching = typed.trim() !== ''
  const shown = jobs.filter((job) => (searching ? isFound(job, typed.trim()) : isShown(job, show)))
  useKeys({
    ...Object.fromEntries(
      shown.slice(0, 9).map((job, k) => [String(k + 1), () => window.location.assign(`/job#${job.id}/run`)]),
    ),
    f: () => document.querySelector<HTMLInputElement>('#find-job')?.focus(),
  })
  const putAway = (job: JobLine): void => {
    setMessage(null)
    ask(`/api/jobs/${job.id}/plan`, { putAway: jobState(job) !== 'put-away' }).then(again, (error) =>
      setMessage(error instanceof Answered ? error.message : say('record.needs-reception')),
    )
  }

  if (who.state !== 'in') return <div className="center-page quiet">{say('loading.day')}</div>
  return (
    <div className="app flat">
      <ZonePatterns />
      <Strip
        title={dayName(now, zone)}
        about={
          list.state === 'here' ? say('today.about', { open: jobs.filter(isOpenJob).length, sign: toSign.length }) : ''
        }
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
            {list.state === 'here' && all.length > 0 && (
              <Input
                id="find-job"
                className="find"
                type="search"
                allowClear
                value={typed}
                onChange={(event) => setTyped(event.target.value)}
                aria-label={say('today.find')}
                placeholder={say('today.find')}
              />
            )}
            {me?.role === 'supervisor' && (
              <Button className="small" onClick={() => setAdding(!adding)} data-testid="new-job">
                {say('today.new-job')}
              </Button>
            )}
          </div>
          <Suspense>{adding && <NewJob onClose={() => setAdding(false)} />}</Suspense>
          <Said message={message} />
          {list.state === 'here' && all.length > 0 && (
            <div className="scroll shows">
              <Segmented<Show>
                aria-label={say('today.show')}
                disabled={searching}
                value={show}
                onChange={setShow}
                options={shows.map((one) => ({
                  value: one,
                  label: say(`today.show-${one}` as WordKey, {
                    count: jobs.filter((job) => isShown(job, one)).length,
                  }),
                }))}
              />
            </div>
          )}
          {list.state === 'loading' && (
            <p className="quiet" style={{ padding: '20px 0' }}>
              {say('loading.day')}
            </p>
          )}
          {list.state === 'none' && <p style={{ padding: '20px 0' }}>{list.why}</p>}
          {list.state === 'here' && all.length === 0 && <p style={{ padding: '20px 0' }}>{say('today.empty')}</p>}
          {all.length > 0 && shown.length === 0 && (
            <Empty
              image={null}
              description={searching ? say('today.none-found', { typed: typed.trim() }) : say('today.none-such')}
            />
          )}
          {shown.map((job, k) => (
            <JobRow
              key={job.id}
              job={job}
              first={k === 0 && !searching && show === 'open'}
              now={now}
              today={today}
              zone={zone}
              menu={
                me?.role === 'supervisor'
                  ? { plan: () => setPlanned(job), putAway: () => putAway(job), move: () => setMoved(job) }
                  : null
              }
            />
          ))}
          <Suspense>
            {moved && (
              <MoveDialog
                job={moved}
                onClose={() => setMoved(null)}
                onMoved={() => {
                  setMoved(null)
                  again()
                }}
              />
            )}
            {planned && (
              <PlanDialog
                job={planned}
                onClose={() => setPlanned(null)}
                onKept={() => {
                  setPlanned(null)
                  again()
                }}
              />
            )}
          </Suspense>
        </section>
        <aside className="margin" aria-label={say('today.side')}>
          <Matters id="dangers" title={say('today.dangers')} matters={dangers} grave={say('today.dangers-do')} />
          <Matters id="asked-back" title={say('today.asked')} matters={askedBack} />
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
