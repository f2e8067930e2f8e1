'use client'
import { Modal, Table } from 'antd'
import { useState } from 'react'
import type { ElectrodeData } from '@/core/plant/part'
import { figure, quantity, say, sayCode } from '@/words/say'
import { Mark } from '../mark/Mark'
import { Choice, Field, Form, Said } from '../shell/Form'
import { fieldsAsked, labelOf, type Planned, readPlan, type RodTexts, soilFromReading, startTexts } from './rodForm'

export type PlannerProps = {
  data: ElectrodeData
  /** What it reads now, and the limit on it; null while nobody knows. */
  read_ohm: number | null
  limit_ohm: number | null
  onClose(): void
}

/** How many rods or discs reach a target, and what each further one would bring. Nothing of it is kept. */
export function RodPlanner({ data, read_ohm, limit_ohm, onClose }: PlannerProps) {
  const [texts, setTexts] = useState<RodTexts>(() => startTexts(data, read_ohm, limit_ohm))
  const planned = readPlan(texts)
  const fromReading = soilFromReading(data, read_ohm)
  return (
    <Modal open title={say('planner.rods.title')} onCancel={onClose} footer={null} width={980} destroyOnHidden>
      <Form onSubmit={() => undefined}>
        <p>{say('planner.rods.about')}</p>
        <div className="planner" data-testid="rod-planner">
          <div className="asked">
            <Choice
              label={say('planner.soil')}
              value={texts.soil}
              onValue={(soil) => setTexts({ ...texts, soil })}
              options={[
                { value: 'given', text: say('planner.soil.given') },
                { value: 'wenner', text: say('planner.soil.wenner') },
              ]}
            />
            <Choice
              label={say('plant.electrode-form')}
              value={texts.form}
              onValue={(form) => setTexts({ ...texts, form })}
              options={(['rods', 'disc'] as const).map((form) => ({
                value: form,
                text: sayCode('plate-option', form),
              }))}
            />
            {fieldsAsked(texts).map((field) => (
              <Field
                key={field}
                label={labelOf(field)}
                value={texts[field]}
                mode="decimal"
                testId={`plan-${field}`}
                onValue={(value) => setTexts({ ...texts, [field]: value })}
              />
            ))}
            {fromReading !== null && texts.soil === 'given' && (
              <p className="small quiet">{say('planner.soil.from-reading', { soil: fromReading })}</p>
            )}
          </div>
          {'message' in planned ? <Said message={planned.message} /> : <PlanTable planned={planned} />}
        </div>
        <p className="small quiet">{say('planner.source')}</p>
      </Form>
    </Modal>
  )
}

function PlanTable({ planned: { plan, target_ohm, spacing_m, length_m } }: { planned: Planned }) {
  const hasDeep = plan.rows.some((row) => row.asOneDeep_ohm !== null)
  const said =
    plan.needed === null
      ? say('planner.none', { target: target_ohm, spacing: spacing_m })
      : say('planner.needed', { count: plan.needed, target: target_ohm, spacing: spacing_m })
  return (
    <div>
      <p>{say('planner.soil-is', { soil: plan.resistivity_ohm_m, single: plan.rows[0]!.combined_ohm })}</p>
      <p data-testid="plan-said">
        <b>{said}</b>{' '}
        {plan.deepNeeded !== null && plan.deepNeeded > 1 && length_m !== null
          ? say('planner.deep', { length: plan.deepNeeded * length_m })
          : ''}
      </p>
      <Table
        size="small"
        pagination={false}
        rowKey="count"
        dataSource={plan.rows}
        rowClassName={(row) => (row.count === plan.needed ? 'on' : '')}
        columns={[
          { title: say('planner.count'), dataIndex: 'count', align: 'right' },
          {
            title: say('planner.together'),
            align: 'right',
            render: (_, row) => (
              <>
                {row.count === plan.needed && <Mark verdict="within" size={16} named={false} />}{' '}
                {quantity(row.combined_ohm, 'ohm', 1)}
              </>
            ),
          },
          {
            title: say('planner.brings'),
            align: 'right',
            render: (_, row) => (row.count === 1 ? '' : `−${figure(row.brings_ohm, 1)}`),
          },
          ...(hasDeep
            ? [
                {
                  title: say('planner.as-deep'),
                  align: 'right' as const,
                  render: (_: unknown, row: Planned['plan']['rows'][number]) =>
                    row.asOneDeep_ohm === null ? '' : quantity(row.asOneDeep_ohm, 'ohm', 1),
                },
              ]
            : []),
        ]}
      />
    </div>
  )
}
