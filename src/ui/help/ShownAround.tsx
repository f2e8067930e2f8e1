'use client'
import { lazy, Suspense, useState, useSyncExternalStore } from 'react'
import { onTourAsked, rememberShown, toursAsked, wasShownAround } from './tour'

const FirstTour = lazy(() => import('./FirstTour').then((module) => ({ default: module.FirstTour })))

/** Shows around where nobody was shown on this device yet, and whenever it is asked for. */
export function ShownAround() {
  const asked = useSyncExternalStore(onTourAsked, toursAsked, toursAsked)
  // Asking counts from one; the first time nobody asks.
  const [left, setLeft] = useState(wasShownAround() ? 0 : -1)
  if (asked <= left) return null
  return (
    <Suspense>
      <FirstTour
        key={asked}
        onClose={() => {
          rememberShown()
          setLeft(asked)
        }}
      />
    </Suspense>
  )
}
