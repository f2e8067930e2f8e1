'use client'
import { Button } from 'antd'
import type { StepEvaluation } from '@/core/evaluation/types'
import type { Instrument } from '@/core/record/instrument'
import type { Slot } from '@/core/steps/slot'
import { isRead, mayBeLeftOut } from '@/core/steps/step'
import { say, sayCode, type WordKey } from '@/words/say'
import { usePhone } from '../shell/narrow'
import { PressMenu } from '../shell/PressMenu'
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

type Act = { id: string; words: WordKey; key: string; onClick(): void; disabled?: boolean }

/** So many buttons fit into one row; of more the last are opened by one key. */
const MOST = { desk: 3, phone: 2 }

/** What to do at the foot of the bench: the one main action first, each with its key, in one row. */
export function Actions(props: Props) {
  const { one, taking, ready, canWrite, wanting, shownSlots, actions } = props
  const { canKeep, draft, next } = taking
  const phone = usePhone()
  const standIn = props.tool?.standIn === true && next?.measures != null
  const isOutside =
    !taking.taking && one.verdict === 'outside' && one.counting !== null && !one.flags.includes('plant-changed')
  const isRequestToConfirm = !taking.taking && one.flags.includes('plant-changed') && canWrite
  // Who inspects says how grave it is; who builds says how it was mended.
  const wants = !isOutside || !canWrite ? null : !actions.found ? 'mend' : actions.found.isClassed ? null : 'class'
  const hasMain = canKeep || wanting || isRequestToConfirm || wants !== null
  const hasHint = wanting && next && next.kind !== 'number' && next.measures === null
  const hasButton = hasMain && !hasHint
  const others = othersOf(props, isOutside && canWrite && wants !== 'mend')
  // Where nothing else is to be done, going on is the main action.
  const goesOn = !hasMain && others[0]?.id === 'next' ? others.shift() : null
  const room = (phone ? MOST.phone : MOST.desk) - (hasButton || goesOn ? 1 : 0)
  const shown = others.length > room ? others.slice(0, phone ? room - 1 : room) : others
  const folded = others.slice(shown.length)
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
      {hasHint && (
        <p className="hint" data-testid="hint">
          {say(hintOf(next, draft), { what: sayCode('slot', next.id), count: countOf(next) })}
        </p>
      )}
      {isRequestToConfirm && (
        <Button type="primary" onClick={actions.confirmPlant}>
          {say('action.confirm-plant')}
        </Button>
      )}
      {wants === 'class' && (
        <Button type="primary" onClick={actions.found?.look} data-testid="class-found">
          {say('action.class')} <kbd>F</kbd>
        </Button>
      )}
      {wants === 'mend' && (
        <Button type="primary" onClick={actions.mend} data-testid="mend">
          {say('action.mend')} <kbd>S</kbd>
        </Button>
      )}
      {goesOn && (
        <Button type="primary" onClick={goesOn.onClick} data-testid="next">
          {say(goesOn.words)} <kbd>↵</kbd>
        </Button>
      )}
      {shown.map(({ id, words, key, onClick, disabled }) => (
        <Button key={id} onClick={onClick} disabled={disabled} data-testid={id}>
          {say(words)} <kbd>{key}</kbd>
        </Button>
      ))}
      {folded.length > 0 && (
        <PressMenu
          placement="topRight"
          items={folded.map(({ id, words, key, onClick, disabled }) => ({
            key: id,
            ...(disabled === undefined ? {} : { disabled }),
            label: (
              <span className="more-row" data-testid={id}>
                {say(words)} <kbd>{key}</kbd>
              </span>
            ),
            onClick,
          }))}
          button={
            <Button data-testid="more" className="more">
              {say('action.more')}
            </Button>
          }
        />
      )}
    </div>
  )
}

/** What may be done besides the main action, the likeliest first. */
function othersOf(
  { one, taking, tool, ready, canWrite, shutHard, actions, keepNoted }: Props,
  mayBeMended: boolean,
): Act[] {
  const { canKeep, draft, next } = taking
  const standIn = tool?.standIn === true && next?.measures != null
  const guided = canWrite && taking.taking && isRead(one.step) && one.step.guide && !shutHard
  const inSequence = taking.taking && standIn && canWrite && one.part.data.kind === 'string' && next?.kind !== 'curve'
  const started = one.counting !== null || isStarted(draft)
  const acts: (Act | false | null | undefined)[] = [
    (!canKeep || one.counting !== null) && {
      id: 'next',
      // Behind the last test stands the record.
      words: actions.isLast ? 'line.record' : 'action.next',
      key: taking.taking ? 'N' : '↵',
      onClick: actions.next,
    },
    guided && { id: 'guide', words: 'guide.open', key: 'J', onClick: actions.guide },
    inSequence && { id: 'sequence-open', words: 'sequence.open', key: 'A', onClick: actions.sequence },
    canKeep &&
      tool?.standIn &&
      taking.hasMore && {
        id: 'press-more',
        words: 'standin.press-more',
        key: 'P',
        onClick: () => void taking.press(),
        disabled: !ready || taking.busy,
      },
    canKeep && { id: 'keep-note', words: 'action.keep-note', key: 'K', onClick: keepNoted, disabled: !ready },
    canWrite && isRead(one.step) && started && { id: 'again', words: 'action.again', key: 'R', onClick: taking.again },
    canWrite &&
      !started &&
      mayBeLeftOut(one.step) && { id: 'leave-out', words: 'action.leave-out', key: 'L', onClick: actions.leaveOut },
    mayBeMended && { id: 'mend', words: 'action.mend', key: 'S', onClick: actions.mend },
  ]
  return acts.filter((act): act is Act => Boolean(act))
}
