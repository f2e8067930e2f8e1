'use client'
import { type ReactNode, type RefObject, useEffect, useRef } from 'react'

const ZOOM_STEP = 1.12

type Props = {
  paneRef: RefObject<HTMLDivElement | null>
  /** As many times as large as it is. */
  onZoom(by: number): void
  children: ReactNode
}

/** Where the drawing scrolls; with Ctrl the wheel zooms, and so do two fingers that move apart. */
export function Pane({ paneRef, onZoom, children }: Props) {
  const zoom = useRef(onZoom)
  zoom.current = onZoom
  useEffect(() => {
    const pane = paneRef.current
    let apart: number | null = null
    const onWheel = (event: WheelEvent): void => {
      if (!event.ctrlKey) return
      event.preventDefault()
      zoom.current(event.deltaY < 0 ? ZOOM_STEP : 1 / ZOOM_STEP)
    }
    const onTouch = (event: TouchEvent): void => {
      const [one, other] = event.touches
      if (!one || !other) {
        apart = null
        return
      }
      // One finger scrolls; two are the drawing's and not the page's.
      event.preventDefault()
      const now = Math.hypot(one.clientX - other.clientX, one.clientY - other.clientY)
      if (apart !== null && apart > 0 && now > 0) zoom.current(now / apart)
      apart = now
    }
    const touches = ['touchstart', 'touchmove', 'touchend', 'touchcancel'] as const
    // A listener of the library cannot hold the page's own zoom back.
    pane?.addEventListener('wheel', onWheel, { passive: false })
    for (const name of touches) pane?.addEventListener(name, onTouch, { passive: false })
    return () => {
      pane?.removeEventListener('wheel', onWheel)
      for (const name of touches) pane?.removeEventListener(name, onTouch)
    }
  }, [paneRef])
  return (
    <div className="drawing-pane" ref={paneRef}>
      {children}
    </div>
  )
}
