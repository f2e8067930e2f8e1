'use client'
import { Button, Checkbox } from 'antd'
import type { Part } from '@/core/plant/part'
import type { Caution, Hookup as HookupData } from '@/core/steps/step'
import { say, sayCode } from '@/words/say'
import { Hookup } from '../hookup/Hookup'
import { Mark } from '../mark/Mark'

type Props = {
  hookup: HookupData
  part: Part
  cautions: readonly Caution[]
  ticked: readonly string[]
  onTick(list: readonly string[]): void
  /** The drawing is there, or one line says what was minded. */
  open: boolean
  onOpen(open: boolean): void
  onTickAll(): void
  /** A reading is taken: what must be ticked is. */
  reading: boolean
}

/** What stands before the slots: how it is connected and what to mind; one line once both are known. */
export function Before({ hookup, part, cautions, ticked, onTick, open, onOpen, onTickAll, reading }: Props) {
  const wanting = reading ? cautions.filter(({ id, hard }) => hard && !ticked.includes(id)) : []
  const folds = (
    <Button className="small" aria-expanded={open} onClick={() => onOpen(!open)} data-testid="hook-up">
      {say(open ? 'bench.fold' : 'bench.hook-up')} <kbd>H</kbd>
    </Button>
  )
  if (!open && wanting.length === 0)
    return (
      <div className="hook known" data-testid="known">
        <ul>
          {cautions.map(({ id }) => (
            <li key={id}>{sayCode('caution', id)}</li>
          ))}
        </ul>
        {folds}
      </div>
    )
  return (
    <div className={open ? 'hook' : 'hook bare'}>
      {open && (
        <figure>
          <Hookup hookup={hookup} part={part.data} />
        </figure>
      )}
      <div className="chk">
        <div className="hd">
          <h3>{say('bench.before')}</h3>
          {!open || wanting.length === 0 ? folds : null}
          {wanting.length > 1 && (
            <Button className="small" onClick={onTickAll} data-testid="tick-all">
              {say('bench.tick-all')} <kbd>Y</kbd>
            </Button>
          )}
        </div>
        <Cautions cautions={cautions} ticked={ticked} onTick={onTick} />
      </div>
    </div>
  )
}

type CautionsProps = {
  cautions: readonly Caution[]
  ticked: readonly string[]
  onTick(list: readonly string[]): void
}

/** The hard ones must be ticked, the others are said. */
export function Cautions({ cautions, ticked, onTick }: CautionsProps) {
  return (
    <Checkbox.Group role="group" aria-label={say('bench.before')} value={[...ticked]} onChange={onTick}>
      {cautions.map(({ id, hard }) =>
        hard ? (
          <Checkbox key={id} value={id}>
            {sayCode('caution', id)}
          </Checkbox>
        ) : (
          <p className="one said" key={id}>
            <Mark verdict="close" size={20} named={false} />
            {sayCode('caution', id)}
          </p>
        ),
      )}
    </Checkbox.Group>
  )
}
