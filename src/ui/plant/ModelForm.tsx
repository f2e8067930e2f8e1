'use client'
import { Button, Form, Input, InputNumber, Select, Switch } from 'antd'
import { v7 as uuid } from 'uuid'
import type { ChargePointModel } from '@/core/plant/part'
import { say } from '@/words/say'
import { blankModel, type ModelField, type ModelValues, modelChoices, readModel } from './modelForm'
import { optionText } from './optionText'

const FIGURES = { controls: false, decimalSeparator: '.', style: { width: '100%' } } as const
const rcdText = (type: string): string => (type === 'none' ? say('model.rcd-none') : say('model.rcd-type', { type }))

/** A model of charge point from its manual, entered once from top to bottom. */
export function ModelForm({ onAdd, onClose }: { onAdd(model: ChargePointModel): void; onClose(): void }) {
  const [form] = Form.useForm<ModelValues>()
  const outlet = Form.useWatch('outlet', form)
  const rcdType = Form.useWatch('rcdType', form)
  const keep = (values: ModelValues): void => {
    const read = readModel({ ...blankModel, ...values }, uuid())
    if ('model' in read) return onAdd(read.model)
    const fields = Object.entries(read.messages) as [ModelField, string][]
    form.setFields(fields.map(([name, message]) => ({ name, errors: [message] })))
    form.scrollToField(fields[0]?.[0] ?? 'make', { focus: true })
  }
  const figure = (name: ModelField) => (
    <Form.Item name={name} label={say(`model.${name}`)}>
      <InputNumber {...FIGURES} inputMode="decimal" data-testid={`model-${name}`} />
    </Form.Item>
  )
  const text = (name: ModelField, most: number, hint?: string) => (
    <Form.Item name={name} label={say(`model.${name}`)} extra={hint}>
      <Input maxLength={most} data-testid={`model-${name}`} />
    </Form.Item>
  )
  const yesNo = (name: ModelField) => (
    <Form.Item name={name} label={say(`model.${name}`)} valuePropName="checked">
      <Switch data-testid={`model-${name}`} />
    </Form.Item>
  )
  return (
    <section className="model-form" aria-label={say('model.title')}>
      <h2 className="sect">{say('model.title')}</h2>
      <p>{say('model.about')}</p>
      <Form<ModelValues>
        form={form}
        layout="vertical"
        initialValues={blankModel}
        onFinish={keep}
        requiredMark={false}
        scrollToFirstError
      >
        <div className="three">
          {text('make', 60)}
          {text('name', 60)}
          <Form.Item name="phases" label={say('model.phases')}>
            <Select options={[1, 3].map((value) => ({ value, label: value }))} data-testid="model-phases" />
          </Form.Item>
          {figure('rated_A')}
          <Form.Item name="outlet" label={say('model.outlet')}>
            <Select
              options={modelChoices.outlet.map((value) => ({ value, label: optionText(value) }))}
              data-testid="model-outlet"
            />
          </Form.Item>
          {outlet === 'tethered' && figure('cable_A')}
          <Form.Item name="rcdType" label={say('model.rcdType')}>
            <Select
              options={modelChoices.rcdType.map((value) => ({ value, label: rcdText(value) }))}
              data-testid="model-rcdType"
            />
          </Form.Item>
          {rcdType !== undefined && rcdType !== 'none' && figure('rcdRated_mA')}
          {figure('ready_s')}
        </div>
        <div className="three">
          {yesNo('dcDetector')}
          {yesNo('penDevice')}
          {yesNo('faultSign')}
        </div>
        <Form.Item name="reset" label={say('model.reset')} extra={say('model.reset-hint')}>
          <Input.TextArea autoSize={{ minRows: 2, maxRows: 6 }} maxLength={600} data-testid="model-reset" />
        </Form.Item>
        <p className="src">{say('model.shows')}</p>
        <div className="three">
          {modelChoices.shows.map((name) => (
            <div key={name}>{text(name, 40)}</div>
          ))}
        </div>
        <p className="src">{say('model.shows-hint')}</p>
        <div className="acts-row">
          <Button type="primary" htmlType="submit" data-testid="keep-model">
            {say('model.keep')}
          </Button>
          <Button onClick={onClose}>{say('action.close')}</Button>
        </div>
      </Form>
    </section>
  )
}
