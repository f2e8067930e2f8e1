'use client'
import { lazy, Suspense } from 'react'
import type { Mounting } from '@/core/pv/cellTemperature'
import type { Evaluation, StepEvaluation } from '@/core/evaluation/types'
import type { WithoutMeter } from '@/core/evaluate'
import type { Body, Conditions } from '@/core/record/entry'
import type { Facts } from '@/core/record/facts'
import type { LiveSample } from '@/core/record/feed'
import { isRead } from '@/core/steps/step'
import { partName, say, sayCode } from '@/words/say'
import type { Instrument } from '@/core/record/instrument'
import type { JobStore } from '../device/jobStore'

// Dialogs come when they are opened; without reception from the device's cache.
const ConditionsDialog = lazy(() =>
  import('../bench/ConditionsDialog').then((module) => ({ default: module.ConditionsDialog })),
)
const ReasonDialog = lazy(() => import('../shell/ReasonDialog').then((module) => ({ default: module.ReasonDialog })))
const LoggerDialog = lazy(() => import('../bench/LoggerDialog').then((module) => ({ default: module.LoggerDialog })))
const SequenceDialog = lazy(() => import('./SequenceDialog').then((module) => ({ default: module.SequenceDialog })))
const RemedyDialog = lazy(() => import('./RemedyDialog').then((module) => ({ default: module.RemedyDialog })))

export type Dialog =
  | { kind: 'conditions' }
  | { kind: 'logger' }
  | { kind: 'sequence'; tool: Instrument }
  | { kind: 'note'; keep(note: string): void }
  | { kind: 'left-out' }
  | { kind: 'snag' }
  | { kind: 'remedy'; snag: string }
  | { kind: 'override'; gate: string }
  | { kind: 'void'; target: string }
  | null

type Props = {
  dialog: Dialog
  setDialog(dialog: Dialog): void
  store: JobStore
  facts: Facts
  evaluation: Evaluation
  one: StepEvaluation
  about: { partId: string; step: string }
  mounting: Mounting
  /** Whether instruments give light and warmth by themselves now. */
  hasLive: boolean
  setTyped(conditions: Conditions | WithoutMeter | null): void
  open(one: StepEvaluation | null): void
  /** Light and warmth of this moment. */
  conditionsNow(): Conditions | null
  onHeard(sample: LiveSample): void
}

/** Whatever the bench asks in a dialog. */
export function RunDialogs(props: Props) {
  const { dialog, setDialog, store, facts, evaluation, one, about, mounting, hasLive, setTyped, open } = props
  const close = (): void => setDialog(null)
  return (
    <Suspense>
      {dialog?.kind === 'conditions' && (
        <ConditionsDialog
          instruments={facts.instruments}
          mounting={mounting}
          modules={one.part.data.kind === 'string' ? one.part.data.modulesInSeries : 1}
          onClose={close}
          onLogger={() => setDialog({ kind: 'logger' })}
          onLive={
            hasLive
              ? () => {
                  setTyped(null)
                  close()
                }
              : null
          }
          onSet={(next) => {
            setTyped(next)
            close()
          }}
          onWithout={(air) => {
            setTyped({ air })
            close()
          }}
        />
      )}
      {dialog?.kind === 'logger' && (
        <LoggerDialog
          facts={facts}
          evaluation={evaluation}
          onClose={close}
          onJoin={(bodies) => {
            close()
            void joinAll(store, facts, bodies)
          }}
        />
      )}
      {dialog?.kind === 'sequence' && (
        <SequenceDialog
          store={store}
          facts={facts}
          evaluation={evaluation}
          one={one}
          tool={dialog.tool}
          conditions={props.conditionsNow}
          onHeard={props.onHeard}
          onClose={close}
        />
      )}
      {dialog?.kind === 'remedy' && (
        <RemedyDialog
          evaluation={evaluation}
          one={one}
          onClose={close}
          onKeep={(text, repeat) => {
            close()
            void store.add({ kind: 'remedy', v: 1, snag: dialog.snag, text, repeat }, about)
            // On to the first of what is to be done again, in working order.
            open(evaluation.steps.find((other) => other.part === one.part && repeat.includes(other.step.id)) ?? null)
          }}
        />
      )}
      <Reasons
        dialog={dialog}
        close={close}
        store={store}
        about={about}
        part={partName(one.part)}
        usual={isRead(one.step) ? (one.step.leftOutAs ?? []) : []}
      />
    </Suspense>
  )
}

/** Each reading's light is an entry of its own, on the step and part of that reading. */
async function joinAll(store: JobStore, facts: Facts, bodies: readonly Body<'conditions'>[]): Promise<void> {
  const readings = new Map(facts.entries.map((entry) => [entry.id, entry]))
  for (const body of bodies) {
    const { partId = null, step = null } = readings.get(body.target) ?? {}
    await store.add(body, { partId, step })
  }
}

type ReasonDialogKind = 'note' | 'left-out' | 'snag' | 'override' | 'void'
type Reason = Extract<Dialog, { kind: ReasonDialogKind }>
const reasons: readonly string[] = ['note', 'left-out', 'snag', 'override', 'void'] satisfies ReasonDialogKind[]
const isReason = (dialog: Dialog): dialog is Reason => dialog !== null && reasons.includes(dialog.kind)

type ReasonsProps = {
  dialog: Dialog
  close(): void
  store: JobStore
  about: { partId: string; step: string }
  part: string
  /** Why a test of this kind is usually left out. */
  usual: readonly string[]
}

function Reasons({ dialog, close, store, about, part, usual }: ReasonsProps) {
  if (!isReason(dialog)) return null
  const words = {
    title: say(`reason.${dialog.kind}.title`, { part }),
    about: say(`reason.${dialog.kind}.about`),
    label: say(`reason.${dialog.kind}.label`),
    action: say(`reason.${dialog.kind}.action`),
  }
  const done = (text: string): void => {
    if (dialog.kind === 'note') dialog.keep(text)
    if (dialog.kind === 'snag') void store.add({ kind: 'snag', v: 1, text }, about)
    if (dialog.kind === 'left-out') void store.add({ kind: 'left-out', v: 1, reason: text }, about)
    if (dialog.kind === 'override') void store.add({ kind: 'override', v: 1, gate: dialog.gate, reason: text }, about)
    if (dialog.kind === 'void') void store.add({ kind: 'void', v: 1, target: dialog.target, reason: text }, about)
    close()
  }
  const ready = dialog.kind === 'left-out' ? usual.map((code) => sayCode('left-out-as', code)) : []
  return <ReasonDialog {...words} ready={ready} onClose={close} onKeep={done} />
}
