import { Select } from 'antd'
import type { LateProps } from './LateSelect'

/** A list that stands open. */
export const OpenSelect = ({ id, label, value, options, onValue, testId }: LateProps) => (
  <Select<string>
    id={id}
    size="small"
    defaultOpen
    autoFocus
    aria-label={label}
    value={value}
    popupMatchSelectWidth={false}
    onChange={onValue}
    options={options.map((one) => ({ value: one.value, label: one.text }))}
    data-testid={testId}
  />
)
