'use client'
import { Button } from 'antd'
import type { StepEvaluation } from '@/core/evaluation/types'
import type { Instrument } from '@/core/record/instrument'
import type { Slot } from '@/core/steps/slot'
import { isRead, mayBeLeftOut } from '@/core/steps/step'
import { say, sayCode, type WordKey } from '@/words/say'
import type { BenchActions } from './types'
import { type Draft, isStarted } from './draft'
import { keepLabel, type Taking } from './useTaking'

type Props = {
  one: StepEvaluation
  taking: Taking
  tool: Instrument | null
  ready: boolean
  canWrite: boolean
  wanting: boolean
  shutHard: boolean
  shownSlots: readonly Slot[]
  actions: BenchActions
  begin(): void
  keepNoted(): void
}

function hintOf(next: Slot, draft: Draft): WordKey {
  if (draft.choices[next.id]) return 'action.words-wanted'
  return next.kind === 'check' ? 'action.check-keys' : 'action.choice-keys'
}

/** How many figure keys answer a question. */
const countOf = (slot: Slot): number => (slot.kind === 'choice' ? slot.options.length : 3)

/** What to do at the foot of the bench: the one main action first, each with its key. */
export function Actions(props: Props) {
  const { one, taking, ready, canWrite, wanting, shownSlots, actions } = props
  const { canKeep, draft, next } = taking
  const standIn = props.tool?.standIn === true && next?.measures != null
  const isOutside =
    !taking.taking && one.verdict === 'outside' && one.counting !== null && !one.flags.includes('plant-changed')
  return (
    <div className="acts">
      {canKeep ? (
        <Button type="primary" onClick={() => void taking.keepNow()} data-testid="keep" disabled={!ready}>
          {ready ? keepLabel(taking.state.body!, shownSlots) : say('action.tick-first')} <kbd>↵</kbd>
        </Button>
      ) : wanting && (standIn || next?.kind === 'number') ? (
        <Button
          type="primary"
          onClick={props.begin}
          disabled={taking.busy || (!ready && standIn)}
          data-testid={standIn ? 'press' : 'type'}
        >
          {!ready && standIn
            ? say('action.tick-first')
            : standIn
              ? say(taking.busy ? 'standin.reading' : 'standin.press', { tag: props.tool?.tag ?? '' })
              : say('action.type')}{' '}
          <kbd>↵</kbd>
        </Button>
      ) : null}
      {wanting && next && next.kind !== 'number' && next.measures === null && (
        <p className="hint" data-testid="hint">
          {say(hintOf(next, draft), { what: sayCode('slot', next.id), count: countOf(next) })}
        </p>
      )}
      {!taking.taking && one.flags.includes('plant-changed') && canWrite && (
        <Button type="primary" onClick={actions.confirmPlant}>
          {say('action.confirm-plant')}
        </Button>
      )}
      {isOutside && canWrite && (
        <Button type="primary" onClick={actions.mend} data-testid="mend">
          {say('action.mend')} <kbd>S</kbd>
        </Button>
      )}
      {(!canKeep || one.counting) && (
        <Button
          type={(taking.taking && canWrite && !props.shutHard) || isOutside ? 'default' : 'primary'}
          onClick={actions.next}
          data-testid="next"
        >
          {say('action.next')} <kbd>{taking.taking ? 'N' : '↵'}</kbd>
        </Button>
      )}
      {canKeep && (
        <Button onClick={props.keepNoted} disabled={!ready}>
          {say('action.keep-note')} <kbd>K</kbd>
        </Button>
      )}
      {canWrite && isRead(one.step) && (one.counting || isStarted(draft)) && (
        <Button onClick={taking.again} data-testid="again">
          {say('action.again')} <kbd>R</kbd>
        </Button>
      )}
      {taking.taking && standIn && canWrite && one.part.data.kind === 'string' && next?.kind !== 'curve' && (
        <Button onClick={actions.sequence} data-testid="sequence-open">
          {say('sequence.open')} <kbd>A</kbd>
        </Button>
      )}
      {canWrite && taking.taking && isRead(one.step) && one.step.guide && !props.shutHard && (
        <Button onClick={actions.guide} data-testid="guide">
          {say('guide.open')} <kbd>J</kbd>
        </Button>
      )}
      {canWrite && !one.counting && !isStarted(draft) && mayBeLeftOut(one.step) && (
        <Button onClick={actions.leaveOut} data-testid="leave-out">
          {say('action.leave-out')} <kbd>L</kbd>
        </Button>
      )}
    </div>
  )
}
