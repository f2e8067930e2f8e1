'use client'
import '@/words/record'
import { Button, Collapse } from 'antd'
import { lazy, Suspense, useEffect, useMemo, useState } from 'react'
import { foundIn } from '@/core/evaluation/found'
import { lackingParticulars, sheetsOf } from '@/core/evaluation/particulars'
import type { Evaluation, StepEvaluation } from '@/core/evaluation/types'
import type { Sheet } from '@/core/plant/kinds/descriptor'
import { citesNational } from '@/core/regime/documents'
import { type Figures, worst } from '@/core/verdict/verdict'
import type { Facts } from '@/core/record/facts'
import { certificateOf } from '@/report/certificate'
import { partName, say, sayCode, stepShort, type WordKey } from '@/words/say'
import { ask } from '../device/api'
import type { JobStore, Snapshot } from '../device/jobStore'
import { Mark } from '../mark/Mark'
import { addressOf } from '../shell/route'
import { fullDay } from '../shell/time'
import { Preview } from './Preview'
import { RecordActions } from './RecordActions'
import { SignDialog } from './SignDialog'

// Only in periodic work.
const FoundHere = lazy(() => import('../run/FoundHere').then((module) => ({ default: module.FoundHere })))

type Props = { store: JobStore; snapshot: Snapshot; facts: Facts; evaluation: Evaluation }

type SealProblem = { code: string; figures: Figures }
type IssueCheck = { issue: string; whole: boolean; problems: SealProblem[] }
type JobCheck = { issues: IssueCheck[]; problems: SealProblem[] }
const NOTHING_CHECKED: JobCheck = { issues: [], problems: [] }

/** The office's check of every seal, made when the record is opened; empty without reception. */
function useSealChecks(jobId: string, count: number): JobCheck {
  const [checked, setChecked] = useState(NOTHING_CHECKED)
  // Asked again with each seal; also where none is left, for one may have been removed.
  // biome-ignore lint/correctness/useExhaustiveDependencies: the count says when.
  useEffect(() => {
    void ask<JobCheck>(`/api/jobs/${jobId}/verify`).then(setChecked, () => undefined)
  }, [jobId, count])
  return checked
}

function SealProblems({ problems }: { problems: readonly SealProblem[] }) {
  return (
    <ul data-testid="seal-problems" style={{ paddingLeft: 18 }}>
      {problems.map(({ code, figures }) => (
        <li key={code + JSON.stringify(figures)}>{sayCode('seal-check', code, figures)}</li>
      ))}
    </ul>
  )
}

/** What was found of seals that do not hold, before anything else; nothing where all are whole. */
function BrokenSeals({ checked }: { checked: JobCheck }) {
  const broken = checked.issues.filter((one) => !one.whole)
  if (broken.length === 0 && checked.problems.length === 0) return null
  return (
    <section className="note" role="alert">
      <h2>
        <span>
          <Mark verdict="outside" size={20} named={false} /> {say('record.seals-broken')}
        </span>
      </h2>
      {checked.problems.length > 0 && <SealProblems problems={checked.problems} />}
      {broken.map(({ issue, problems }) => (
        <div key={issue}>
          <b>{say('certificate.issue', { issue })}</b>
          <SealProblems problems={problems} />
        </div>
      ))}
      <p className="src">{say('record.seals-broken-do')}</p>
    </section>
  )
}

function SealState({ check }: { check: IssueCheck | undefined }) {
  if (!check) return null
  return (
    <p className="small" data-testid="seal-state" data-whole={check.whole}>
      <Mark verdict={check.whole ? 'within' : 'outside'} size={16} named={false} />{' '}
      {say(check.whole ? 'record.whole' : 'record.broken')}
    </p>
  )
}

export function RecordScreen({ store, snapshot, facts, evaluation }: Props) {
  const [signing, setSigning] = useState<'tested' | 'checked' | null>(null)
  const [sheet, setSheet] = useState<Sheet | null>(null)
  const sealChecks = useSealChecks(store.jobId, facts.seals.length)
  const last = facts.seals.at(-1) ?? null
  const current = last !== null && evaluation.sinceSeal === 0
  const certificate = useMemo(
    () => certificateOf(facts, Date.now(), current ? last.issue : null, sheet),
    [facts, current, last, sheet],
  )
  const found = useMemo(() => foundIn(evaluation), [evaluation])
  const fresh = new Set(evaluation.signatures.filter((one) => one.fresh).map((one) => one.role))
  const open = evaluation.steps.filter((one) => !one.done)
  const waiting = snapshot.waiting > 0
  const isSupervisor = snapshot.right === 'supervisor'

  const checks = [
    {
      met: open.length === 0,
      text:
        open.length === 0
          ? say('record.all-done', { total: evaluation.progress.total })
          : say('record.open-steps', { open: open.length, total: evaluation.progress.total }),
    },
    { met: !waiting, text: waiting ? say('record.waiting', { count: snapshot.waiting }) : say('record.all-sent') },
    { met: fresh.has('tested'), text: say(fresh.has('tested') ? 'record.tested' : 'record.not-tested') },
    { met: fresh.has('checked'), text: say(fresh.has('checked') ? 'record.checked' : 'record.not-checked') },
  ]
  return (
    <div className="cols" style={{ gridTemplateColumns: undefined }} data-view="record">
      <aside className="rail desk" aria-label={say('record.sheets')}>
        <div className="head">
          <b>{say('record.title')}</b>
          <span>{current ? say('certificate.issue', { issue: last.issue }) : say('record.draft')}</span>
        </div>
        {certificate.tables.map((table) => (
          <div className="grp" key={table.id}>
            <TableMark
              own={evaluation.steps.filter((one) => table.steps?.includes(one.step.id) ?? one.step.id === table.id)}
            />
            <b>{table.title}</b>
            <i>{table.rows.length === 1 ? say('record.line') : say('record.lines', { count: table.rows.length })}</i>
          </div>
        ))}
        <p className="src" style={{ padding: 14 }}>
          {say('record.grey')}
        </p>
        {facts.seals.length > 0 && (
          <section className="note" style={{ borderTop: 'var(--hl) solid var(--ink)' }}>
            <h2>{say('record.issues')}</h2>
            {[...facts.seals].reverse().map((one) => (
              <div key={one.issue} className="ins">
                <b>{say('certificate.issue', { issue: one.issue })}</b>{' '}
                <span className="small">{fullDay(one.at, facts.job.timeZone)}</span>
                <p className="src" style={{ overflowWrap: 'anywhere' }}>
                  {one.hash.slice(0, 16)}…
                </p>
                <SealState check={sealChecks.issues.find((check) => check.issue === one.issue)} />
                <p style={{ display: 'flex', gap: 14, flexWrap: 'wrap' }}>
                  <a href={`/api/jobs/${store.jobId}/certificate?issue=${one.issue}`}>{say('record.pdf')}</a>
                  <a href={`/api/jobs/${store.jobId}/record?issue=${one.issue}`}>{say('record.json')}</a>
                </p>
              </div>
            ))}
          </section>
        )}
      </aside>
      <section className="pane" style={{ background: 'var(--paper)' }}>
        <Preview
          certificate={certificate}
          signed={fresh.has('tested') && fresh.has('checked')}
          photoAt={(attachment) => `/api/jobs/${facts.job.id}/attachments/${attachment}`}
        />
      </section>
      <aside className="margin" aria-label={say('record.before')}>
        <BrokenSeals checked={sealChecks} />
        <section className="note">
          <h2>{say('record.before')}</h2>
          <ul className="checks">
            {checks.map((one) => (
              <li key={one.text}>
                <Mark verdict={one.met ? 'within' : 'held-back'} size={20} />
                <span>{one.text}</span>
              </li>
            ))}
          </ul>
          {open.length > 0 && <p className="src">{say('record.open-why')}</p>}
          <Missing evaluation={evaluation} jobId={store.jobId} />
        </section>
        {found.length > 0 && (
          <Suspense>
            <FoundHere
              found={found}
              store={store}
              canWrite={snapshot.right !== 'viewer'}
              marked={citesNational(facts.regime)}
              whereOf={({ step, partId }) => {
                const one = evaluation.byKey.get(`${step}:${partId}`)
                if (!one) return null
                return { text: stepShort(one), href: addressOf({ jobId: store.jobId, view: 'run', step, partId }) }
              }}
            />
          </Suspense>
        )}
        <section className="note">
          <h2>{say('certificate.signatures')}</h2>
          {(['tested', 'checked'] as const).map((role) => {
            const found = evaluation.signatures.find((one) => one.role === role)
            const may = role === 'tested' ? snapshot.right !== 'viewer' : isSupervisor
            return (
              <div key={role} className="ins">
                <div className="hd">
                  <span>
                    <span className="small quiet">{say(`sign.role.${role}`)}</span>
                    <br />
                    <b>{found ? found.printedName : say('certificate.unsigned')}</b>
                    {found && !found.fresh && <span className="small t-close"> {say('certificate.stale')}</span>}
                  </span>
                  {may && !found?.fresh && (
                    <Button className="small" onClick={() => setSigning(role)} data-testid={`sign-${role}`}>
                      {say('sign.sign')}
                    </Button>
                  )}
                </div>
              </div>
            )
          })}
          <p className="src">{say('record.locks')}</p>
        </section>
        <RecordActions
          store={store}
          issue={current ? last.issue : null}
          isSupervisor={isSupervisor}
          isSigned={fresh.has('tested') && fresh.has('checked')}
          open={open.length}
          sheet={sheet}
          onSheet={sheetsOf(evaluation.plant).size > 1 ? setSheet : null}
        />
      </aside>
      {signing && (
        <SignDialog
          role={signing}
          name={store.me.name}
          facts={facts}
          evaluation={evaluation}
          store={store}
          onClose={() => setSigning(null)}
        />
      )}
    </div>
  )
}

/** Particulars that nobody entered: none of them holds a signature back. */
function Missing({ evaluation, jobId }: { evaluation: Evaluation; jobId: string }) {
  const lacking = useMemo(() => lackingParticulars(evaluation), [evaluation])
  const count = lacking.reduce((sum, { fields }) => sum + fields.length, 0)
  if (count === 0) return null
  return (
    <Collapse
      ghost
      size="small"
      data-testid="missing"
      items={[
        {
          key: 'all',
          label: say('record.missing', { count }),
          children: (
            <ul className="small">
              {lacking.map(({ part, fields }) => (
                <li key={part.id}>
                  <a href={addressOf({ jobId, view: 'plant', step: null, partId: part.id })}>{partName(part)}</a>:{' '}
                  {fields.map(({ label }) => say(`plant.${label}` as WordKey)).join('; ')}
                </li>
              ))}
            </ul>
          ),
        },
      ]}
    />
  )
}

/** The worst of a test on all its parts; a table of the plant has none. */
export function TableMark({ own }: { own: readonly StepEvaluation[] }) {
  if (own.length === 0) return <span style={{ width: 20 }} />
  return <Mark verdict={worst(own.map((one) => one.verdict))} size={20} />
}
