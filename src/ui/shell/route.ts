'use client'
import { useMemo, useSyncExternalStore } from 'react'

export type JobRoute = {
  jobId: string
  view: 'run' | 'plant' | 'record' | 'schedule' | 'trips' | 'day'
  step: string | null
  partId: string | null
}

const views = ['run', 'plant', 'record', 'schedule', 'trips', 'day'] as const

/** Stands for the step where a part is looked at without one. */
const NO_STEP = '-'

/**
 * Where in a job the page is, kept behind the # of the address: one static page serves every job, so that it opens
 * from the device's cache, and back and forward still work.
 */
export function parseRoute(hash: string): JobRoute | null {
  const [jobId, view, step, partId] = hash.replace(/^#/, '').split('/')
  if (!jobId || !/^[0-9a-f-]{36}$/.test(jobId)) return null
  const known = views.find((one) => one === view) ?? 'run'
  return { jobId, view: known, step: step && step !== NO_STEP ? step : null, partId: partId || null }
}

export function addressOf(route: JobRoute): string {
  const step = route.step ?? (route.partId ? NO_STEP : null)
  return `/job#${[route.jobId, route.view, step, route.partId].filter(Boolean).join('/')}`
}

function subscribe(listener: () => void): () => void {
  window.addEventListener('hashchange', listener)
  return () => window.removeEventListener('hashchange', listener)
}

export function useJobRoute(): [JobRoute | null | undefined, (route: JobRoute) => void] {
  const hash = useSyncExternalStore(
    subscribe,
    () => window.location.hash,
    () => null,
  )
  const route = useMemo(() => (hash === null ? undefined : parseRoute(hash)), [hash])
  return [route, go]
}

function go(route: JobRoute): void {
  window.location.hash = addressOf(route).slice('/job'.length)
}
