'use client'
import '@/words/keys'
import { Button, Checkbox, Modal } from 'antd'
import { useState } from 'react'
import { say, type WordKey } from '@/words/say'
import { lettersOff, setLettersOff } from './keys'
import type { JobRoute } from './route'

const ofPlant = ['walk', 'fields', 'fold', 'add', 'find', 'again', 'copy', 'paste', 'out'] as const
const ofSchedule = ['on', 'along', 'arrows', 'press', 'tick', 'find-row', 'i', 'bench', 'block', 'back'] as const
const ofRun = [
  'enter',
  'r',
  'k',
  'n',
  'b',
  'h',
  'y',
  'i',
  'v',
  'digit',
  'pad',
  'l',
  'c',
  'line',
  't',
  'help',
  'esc',
] as const

/** Every key of the screen, and the switch that turns single letters off. */
export function KeysDialog({ view, onClose }: { view: JobRoute['view']; onClose(): void }) {
  const own = view === 'plant' ? ofPlant : view === 'schedule' ? ofSchedule : null
  const shown = own ? [...own, 't', 'help', 'esc'] : ofRun
  const [off, setOff] = useState(lettersOff())
  return (
    <Modal open title={say('keys.title')} onCancel={onClose} footer={null} destroyOnHidden>
      <dl className="calc">
        {shown.map((key) => (
          <div key={key} style={{ display: 'contents' }}>
            <dt>{say(`keys.${key}` as WordKey)}</dt>
            <dd>{say(`keys.${key}.key` as WordKey)}</dd>
          </div>
        ))}
      </dl>
      <Checkbox
        checked={off}
        onChange={(event) => {
          setLettersOff(event.target.checked)
          setOff(event.target.checked)
        }}
      >
        {say('keys.off')}
      </Checkbox>
      <div className="acts">
        <Button type="primary" onClick={onClose}>
          {say('action.close')}
        </Button>
      </div>
    </Modal>
  )
}
