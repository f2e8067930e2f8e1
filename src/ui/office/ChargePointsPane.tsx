'use client'
import '@/words/everyTest'
import { Button, Table } from 'antd'
import { useState } from 'react'
import type { ChargePointModel } from '@/core/plant/part'
import { compareTags } from '@/core/plant/projection'
import { say } from '@/words/say'
import { ask } from '../device/api'
import { ModelForm } from '../plant/ModelForm'
import { optionText } from '../plant/optionText'
import { quietly, useAsked, whyNot } from './useAsked'

const nameOf = ({ make, name }: ChargePointModel): string => `${make} ${name}`
const figureOf = (value: number | null): string => (value === null ? '–' : String(value))

/** The models of charge point that the company meets: what they are made for and how they are reset. */
export function ChargePointsPane({ mayAdd }: { mayAdd: boolean }) {
  const [asked, again] = useAsked<{ chargePointModels: ChargePointModel[] }>('/api/charge-point-models')
  const [adding, setAdding] = useState(false)
  const [said, setSaid] = useState<string | null>(null)
  if (asked.state !== 'here') return <p style={{ padding: '20px 0' }}>{quietly(asked)}</p>
  const models = [...asked.value.chargePointModels].sort((a, b) => compareTags(nameOf(a), nameOf(b)))
  const add = async (model: ChargePointModel): Promise<void> => {
    try {
      await ask('/api/charge-point-models', model)
      setAdding(false)
      setSaid(null)
      again()
    } catch (error) {
      setSaid(whyNot(error))
    }
  }
  return (
    <>
      {mayAdd && !adding && (
        <div className="acts-row" style={{ paddingTop: 10 }}>
          <Button className="small" onClick={() => setAdding(true)} data-testid="add-model">
            {say('plant.add-model')}
          </Button>
        </div>
      )}
      {adding && <ModelForm onClose={() => setAdding(false)} onAdd={(model) => void add(model)} />}
      {said && (
        <p className="said bad" role="alert">
          {said}
        </p>
      )}
      <Table<ChargePointModel>
        rowKey="id"
        size="small"
        pagination={false}
        scroll={{ x: 'max-content' }}
        dataSource={models}
        locale={{ emptyText: say('models.none') }}
        style={{ paddingTop: 12 }}
        columns={[
          { title: say('plant.point-model'), align: 'left', render: (_, one) => nameOf(one) },
          { title: say('model.phases'), align: 'right', render: (_, { data }) => data.phases },
          { title: say('models.rated'), align: 'right', render: (_, { data }) => data.rated_A },
          { title: say('model.outlet'), align: 'left', render: (_, { data }) => optionText(data.outlet) },
          { title: say('models.cable'), align: 'right', render: (_, { data }) => figureOf(data.cable_A) },
          {
            title: say('model.rcdType'),
            align: 'left',
            render: (_, { data }) =>
              data.rcdType === null
                ? say('model.rcd-none')
                : say('models.rcd', { type: data.rcdType, rated: data.rcdRated_mA ?? 0 }),
          },
          {
            title: say('models.detector'),
            align: 'left',
            render: (_, { data }) => say(data.dcDetector ? 'models.inside' : 'model.rcd-none'),
          },
          {
            title: say('models.reset'),
            align: 'left',
            render: (_, { data }) => data.reset.join('; ') || say('models.no-words'),
          },
          { title: say('models.ready'), align: 'right', render: (_, { data }) => data.ready_s },
        ]}
      />
    </>
  )
}
