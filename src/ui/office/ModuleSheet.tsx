'use client'
import '@/words/plant'
import { Button, Descriptions, Drawer, Popconfirm } from 'antd'
import { useState } from 'react'
import type { ModuleType } from '@/core/plant/part'
import { say, type WordKey } from '@/words/say'
import { ask } from '../device/api'
import { plateFields, plateOf } from '../plant/dataPlate'
import { TypeForm } from '../plant/TypeForm'
import { Said } from '../shell/Form'

type Props = {
  type: ModuleType
  mayChange: boolean
  onClose(): void
  /** The library is another one now. */
  onDone(): void
}

/** One module type: its figures, and for a supervisor putting them right or taking it out. */
export function ModuleSheet({ type, mayChange, onClose, onDone }: Props) {
  const [correcting, setCorrecting] = useState(false)
  const [refused, setRefused] = useState<string | null>(null)
  const send = (path: string, body: object): void => {
    setRefused(null)
    void ask(`/api/module-types/${path}`, body).then(onDone, (error: Error) => setRefused(error.message))
  }
  const plate = plateOf(type.data)
  return (
    <Drawer open size="large" title={`${type.make} ${type.name}`} onClose={onClose} destroyOnHidden>
      {correcting ? (
        <TypeForm type={type} onAdd={(next) => send(type.id, next)} onClose={() => setCorrecting(false)} />
      ) : (
        <>
          <Descriptions
            size="small"
            column={1}
            bordered
            items={plateFields.map(({ key }) => ({
              key,
              label: say(`plate.${key}` as WordKey),
              children: plate[key]?.replace('-', '−') ?? '–',
            }))}
          />
          <p className="src" style={{ padding: '10px 0' }}>
            {say('modules.copied')}
          </p>
          {mayChange && (
            <div className="acts-row">
              <Button onClick={() => setCorrecting(true)} data-testid="module-correct">
                {say('modules.correct')}
              </Button>
              <Popconfirm
                title={say('modules.retire-sure', { name: `${type.make} ${type.name}` })}
                okText={say('modules.retire')}
                cancelText={say('action.close')}
                onConfirm={() => send(`${type.id}/retire`, {})}
              >
                <Button danger data-testid="module-retire">
                  {say('modules.retire')}
                </Button>
              </Popconfirm>
            </div>
          )}
        </>
      )}
      <Said message={refused} />
    </Drawer>
  )
}
