'use client'
import { Button, Upload } from 'antd'

type Props = { label: string; small?: boolean; testId: string; onFile(file: File | undefined): void }

/** One table as text, from a file; nothing is sent, it is read here. Taken off again: no file. */
export function ChooseFile({ label, small = false, testId, onFile }: Props) {
  return (
    <Upload
      accept=".csv,.tsv,.txt,text/csv"
      maxCount={1}
      beforeUpload={(file) => {
        onFile(file)
        return false
      }}
      onRemove={() => onFile(undefined)}
      data-testid={testId}
    >
      <Button className={small ? 'small' : ''}>{label}</Button>
    </Upload>
  )
}
