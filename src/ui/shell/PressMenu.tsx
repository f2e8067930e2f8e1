'use client'
import { cloneElement, lazy, type ReactElement, Suspense, useState } from 'react'
import type { Item } from './OpenMenu'

// The library's menu is large, and most days nobody opens one: it comes with the first press.
const OpenMenu = lazy(() => import('./OpenMenu').then((module) => ({ default: module.OpenMenu })))

type Props = {
  items: readonly Item[]
  placement: 'topRight' | 'bottomRight'
  button: ReactElement<{ onClick?: () => void }>
}

/** A button that opens a menu. */
export function PressMenu({ items, placement, button }: Props) {
  const [pressed, setPressed] = useState(false)
  if (!pressed) return cloneElement(button, { onClick: () => setPressed(true) })
  return (
    <Suspense fallback={button}>
      <OpenMenu items={items} placement={placement}>
        {button}
      </OpenMenu>
    </Suspense>
  )
}
