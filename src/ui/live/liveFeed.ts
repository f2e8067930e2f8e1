/**
 * What the paired instruments show now. Samples come from the server's feed; without reception the simulated ones run
 * on in the page, through the same schema. Real instruments are silent then, and the strip says so.
 */
import type { Instrument } from '@/core/record/instrument'
import { feedSampleSchema, type LiveSample, liveSample, type ShownKey, shownKey } from '@/core/record/feed'
import { isBesides, type Slot } from '@/core/steps/slot'
import { ask } from '../device/api'

/** A sample as this page heard it; `old` where it was there before the page began to listen. */
export type Heard = LiveSample & { old?: true }

/** What was shown last, by quantity, and by conductors where those were told. */
export type Latest = Partial<Record<ShownKey, Heard>>

export type Live = {
  paired: string[]
  latest: Latest
  /** The last few minutes of irradiance, oldest first. */
  light: { at: number; value: number }[]
  /** What is watched while it is read, of the last few minutes, oldest first. */
  watched: Heard[]
}

const POLL_ms = 2000
const HISTORY_ms = 180_000
const SENSED = ['irradiance', 'module-back-temperature', 'air-temperature'] as const

const PAIRED = 'upstand.paired.'
/** What was paired here when the office was last heard: a page that is loaded anew without reception goes on with it. */
const pairedBefore = (jobId: string): string[] =>
  (localStorage.getItem(PAIRED + jobId) ?? '').split(' ').filter(Boolean)

export class LiveFeed {
  private cursor: number | null = null
  private state: Live
  private readonly listeners = new Set<() => void>()
  private timer: ReturnType<typeof setTimeout> | null = null
  private closed = false

  constructor(
    private readonly jobId: string,
    private readonly instruments: () => readonly Instrument[],
    /** By the office's clock: a device whose own is wrong would call every sample old. */
    private readonly now: () => number = Date.now,
  ) {
    this.state = { paired: pairedBefore(jobId), latest: {}, light: [], watched: [] }
  }

  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener)
    return () => this.listeners.delete(listener)
  }
  read = (): Live => this.state

  open(): void {
    void this.poll()
  }

  close(): void {
    this.closed = true
    if (this.timer) clearTimeout(this.timer)
  }

  /** Takes samples as the feed gives them; also those which the page's own stand-ins make. */
  take(samples: readonly Heard[], paired: string[] = this.state.paired): void {
    const latest = { ...this.state.latest }
    let { light, watched } = this.state
    for (const sample of samples) {
      const key = shownKey(sample)
      const before = latest[key]
      // Each instrument has its own clock: only with itself is it later or earlier.
      if (!before || before.instrumentId !== sample.instrumentId || before.at <= sample.at)
        latest[key] = sweptSoFar(before, sample)
      if (isWatched(sample) && !watched.some((one) => one.at === sample.at && one.instrumentId === sample.instrumentId))
        watched = [...watched, sample]
      if (sample.quantity === 'irradiance') light = [...light, { at: Date.parse(sample.at), value: sample.read.value }]
    }
    if (paired.join() !== this.state.paired.join()) localStorage.setItem(PAIRED + this.jobId, paired.join(' '))
    const oldest = this.now() - HISTORY_ms
    this.state = {
      paired,
      latest,
      light: light.filter((one) => one.at >= oldest),
      watched: watched.filter((one) => Date.parse(one.at) >= oldest),
    }
    for (const listener of this.listeners) listener()
  }

  private async poll(): Promise<void> {
    try {
      const after = this.cursor === null ? '' : `?after=${this.cursor}`
      const page = await ask<{ cursor: number; samples: LiveSample[]; paired: string[] }>(
        `/api/jobs/${this.jobId}/feed${after}`,
      )
      // What was shown before this page listened may belong to another string: no slot is filled from it.
      const isFirst = this.cursor === null
      this.cursor = page.cursor
      this.take(isFirst ? page.samples.map((one) => ({ ...one, old: true as const })) : page.samples, page.paired)
    } catch {
      this.take(await this.ownSamples())
    }
    if (!this.closed) this.timer = setTimeout(() => void this.poll(), POLL_ms)
  }

  /** Simulated sensors that are paired here, run by the page itself; they come when they are needed. */
  private async ownSamples(): Promise<LiveSample[]> {
    const at = this.now()
    const own = this.instruments().filter((one) => one.standIn && this.state.paired.includes(one.id))
    if (own.length === 0) return []
    const [{ sensorReading }, { skyOver }] = await Promise.all([import('@/standin/sensors'), import('@/standin/sky')])
    return own.flatMap((instrument) =>
      SENSED.filter((quantity) => instrument.ranges.some((range) => range.measures === quantity)).flatMap(
        (quantity) => {
          const sample = feedSampleSchema.parse({
            quantity,
            value: sensorReading(quantity, skyOver(this.jobId), instrument.id, at),
            unit: quantity === 'irradiance' ? 'Wm2' : 'degC',
            at: new Date(at).toISOString(),
          })
          const live = liveSample(instrument, sample)
          return 'code' in live ? [] : [live]
        },
      ),
    )
  }
}

/** Figures that tell something by how they come: insulation rises while the array charges. */
const isWatched = ({ quantity, old }: Heard): boolean => quantity === 'insulation' && !old

/** A part of a sweep with all that came of it before. */
function sweptSoFar(before: Heard | undefined, sample: Heard): Heard {
  const { sweep } = sample
  if (!sweep || before?.sweep?.id !== sweep.id || before.instrumentId !== sample.instrumentId) return sample
  // The same part comes twice where the page pressed itself and the feed tells it again.
  if (before.sweep.done || before.read.value >= sample.read.value) return before
  return { ...sample, sweep: { ...sweep, points: [...before.sweep.points, ...sweep.points] } }
}

/** A sample older than this is no longer "now". */
export const FRESH_ms = 15_000
/** The light counts as steady while it stayed within this share, per cent. */
const STEADY_PCT = 5

export function isFresh(sample: LiveSample | undefined, now: number): sample is LiveSample {
  return sample !== undefined && now - Date.parse(sample.at) < FRESH_ms
}

/**
 * Whether a figure came before that was open which would take it: it belongs to what was open then, for an instrument is
 * heard a moment after it was pressed, and somebody may have gone on to the next string in between.
 * @param opened by the office's clock, ms since 1970
 */
export const cameBefore = ({ old, receivedAt }: Heard, opened: number): boolean =>
  old === true || (receivedAt !== undefined && Date.parse(receivedAt) < opened)

/** How the light is: steady for so many seconds, rising or falling. */
export function lightTrend(light: Live['light']): { state: 'steady' | 'rising' | 'falling'; seconds: number } {
  const last = light.at(-1)
  if (!last) return { state: 'steady', seconds: 0 }
  let since = last.at
  for (let k = light.length - 1; k >= 0; k--) {
    const one = light[k]!
    if (Math.abs(one.value / last.value - 1) * 100 > STEADY_PCT) {
      const seconds = (last.at - since) / 1000
      if (seconds >= 10) return { state: 'steady', seconds }
      return { state: one.value < last.value ? 'rising' : 'falling', seconds }
    }
    since = one.at
  }
  return { state: 'steady', seconds: (last.at - since) / 1000 }
}

type Times = Partial<Record<ShownKey, string>>
/** When each figure was shown last. */
export const timesOf = (latest: Latest): Times =>
  Object.fromEntries(Object.entries(latest).map(([key, sample]) => [key, sample?.at])) as Times

/** What is shown anew since then, and was not there before this page listened. */
export const freshIn = (latest: Latest, before: Times): Heard[] =>
  Object.entries(latest).flatMap(([key, sample]) =>
    sample && !sample.old && sample.at !== before[key as ShownKey] ? [sample] : [],
  )

/** Whether a slot is for just the quantity and the conductors that a figure was shown of. */
export const isPairOf = (slot: Slot, { quantity, pair }: LiveSample): boolean =>
  pair !== undefined && slot.kind === 'number' && slot.measures === quantity && slot.of?.pair === pair

/** The slot of a test for what a press gave besides its own figure, if it keeps such. */
export const besidesFor = (slots: readonly Slot[], sample: LiveSample): Slot | undefined =>
  slots.find((slot) => isBesides(slot) && isPairOf(slot, sample))
