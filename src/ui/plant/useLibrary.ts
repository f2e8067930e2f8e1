import { useEffect, useMemo, useState } from 'react'
import { ask } from '../device/api'
import { recall, remember } from '../device/store'

/** A library's door and what its answer is called. */
const doors = {
  'module-types': { path: '/api/module-types', name: 'moduleTypes' },
  'charge-point-models': { path: '/api/charge-point-models', name: 'chargePointModels' },
} as const

/**
 * What the company entered once: its library, this device's copy where there is no reception, and what the plant uses.
 *
 * @param used what parts of this plant have a copy of.
 */
export function useLibrary<T extends { id: string }>(
  of: keyof typeof doors,
  used: readonly T[],
): [readonly T[], (one: T) => void] {
  const { path, name } = doors[of]
  const [library, setLibrary] = useState<readonly T[]>([])
  useEffect(() => {
    void (async () => {
      setLibrary((await recall<T[]>(of)) ?? [])
      try {
        const answer = await ask<Record<string, T[]>>(path)
        const known = answer[name] ?? []
        await remember(of, known)
        setLibrary(known)
      } catch {
        // Without reception the device's own copy of the library is what there is.
      }
    })()
  }, [of, path, name])
  const all = useMemo(() => [...new Map([...library, ...used].map((one) => [one.id, one])).values()], [library, used])
  const add = (one: T): void => {
    setLibrary((before) => [...before, one])
    void ask(path, one).catch(() => undefined)
  }
  return [all, add]
}
