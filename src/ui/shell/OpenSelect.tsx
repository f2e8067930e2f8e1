import { Select } from 'antd'

export type LateProps = {
  id: string
  /** Where no label of its own names it. */
  label?: string | undefined
  value: string | null
  options: readonly { value: string; text: string }[]
  onValue(value: string): void
  testId: string
}

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
