'use client'
import { say } from '@/words/say'

const figures = ['7', '8', '9', '4', '5', '6', '1', '2', '3'] as const

/** Keys for gloves: the figure as the instrument shows it, and "more than" for a display over its range. */
export function Keypad({ text, onText }: { text: string; onText(text: string): void }) {
  const key = (one: string) => (
    <button type="button" key={one} onClick={() => onText(text + one)}>
      {one}
    </button>
  )
  const toggle = (sign: string): void =>
    onText(text.startsWith(sign) ? text.slice(1) : `${sign}${text.replace(/^[<>]/, '')}`)
  return (
    // biome-ignore lint/a11y/useSemanticElements: a block of keys, not a form's fieldset
    <div
      className="keys"
      role="group"
      aria-label={say('keypad.name')}
      // The reading keeps the focus: its figure stands beside the keys.
      onMouseDown={(event) => event.preventDefault()}
    >
      {figures.slice(0, 3).map(key)}
      <button type="button" className="w" onClick={() => toggle('>')}>
        {say('keypad.more')}
      </button>
      {figures.slice(3, 6).map(key)}
      <button type="button" className="w" onClick={() => toggle('<')}>
        {say('keypad.less')}
      </button>
      {figures.slice(6, 9).map(key)}
      <button type="button" className="w" onClick={() => onText('')}>
        {say('keypad.clear')}
      </button>
      <span style={{ background: 'var(--sheet)' }} />
      {key('0')}
      {key('.')}
      <button type="button" className="w" aria-label={say('keypad.back')} onClick={() => onText(text.slice(0, -1))}>
        ←
      </button>
    </div>
  )
}
