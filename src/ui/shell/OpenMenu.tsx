import { Dropdown } from 'antd'
import { type ReactElement, type ReactNode, useState } from 'react'

export type Item = { key: string; label: ReactNode; disabled?: boolean; onClick(): void }
type Props = { items: readonly Item[]; placement: 'topRight' | 'bottomRight'; children: ReactElement }

/** A menu that stands open at its button. */
export function OpenMenu({ items, placement, children }: Props) {
  const [open, setOpen] = useState(true)
  return (
    <Dropdown
      open={open}
      onOpenChange={setOpen}
      autoFocus
      trigger={['click']}
      placement={placement}
      menu={{ items: [...items] }}
    >
      {children}
    </Dropdown>
  )
}
