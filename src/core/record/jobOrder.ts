/** What stands next among jobs: one order for every list of them. */
import type { JobLine } from './jobSummary'

export const jobStates = ['outside', 'to-sign', 'going', 'not-begun', 'sealed', 'put-away'] as const
export type JobState = (typeof jobStates)[number]

/** Where a job stands: what somebody signed waits for the next, whatever it says; else what is outside counts before how far it is. */
export function jobState({ summary, putAwayAt }: JobLine): JobState {
  if (putAwayAt !== null) return 'put-away'
  if (summary.issue !== null && summary.sinceSeal === 0) return 'sealed'
  if (summary.signed.length > 0) return 'to-sign'
  if (summary.worst === 'outside') return 'outside'
  if (summary.total > 0 && summary.done === summary.total) return 'to-sign'
  return summary.done > 0 ? 'going' : 'not-begun'
}

/** Whether somebody still has to do something about it. */
export const isOpenJob = (job: JobLine): boolean => !['sealed', 'put-away'].includes(jobState(job))

const DAY_ms = 86_400_000

/**
 * Days until a job is due, negative where it is late; null where no day was named or nothing is left to do.
 * @param today the day at the reader's place, as 2026-03-07
 */
export function dueIn_days(job: JobLine, today: string): number | null {
  if (job.dueOn === null || !isOpenJob(job)) return null
  return Math.round((Date.parse(job.dueOn) - Date.parse(today)) / DAY_ms)
}

/**
 * What is to be done next comes first: open before sealed before put away; of the open ones what is late or due today,
 * then where people are today, then by the day they are due, then by where they stand, then the one visited last.
 * @param today the day at the reader's place, as 2026-03-07
 * @param isToday whether an instant lies in it
 */
export function byWhatIsNext(today: string, isToday: (at: string) => boolean) {
  const key = (job: JobLine): readonly (number | string)[] => {
    const state = jobState(job)
    const days = dueIn_days(job, today) ?? Number.POSITIVE_INFINITY
    const isHere = isOpenJob(job) && job.visitAt !== null && isToday(job.visitAt) && state !== 'not-begun'
    return [
      state === 'put-away' ? 2 : state === 'sealed' ? 1 : 0,
      days <= 0 ? 0 : isHere ? 1 : 2,
      days,
      jobStates.indexOf(state),
      -Date.parse(job.visitAt ?? '1970-01-01'),
      job.number,
    ]
  }
  return (a: JobLine, b: JobLine): number => {
    const [left, right] = [key(a), key(b)]
    const at = left.findIndex((one, k) => one !== right[k])
    return at < 0 ? 0 : left[at]! < right[at]! ? -1 : 1
  }
}

/** As people type: without accents, whatever is capital. */
const plain = (text: string): string => text.normalize('NFD').replace(/\p{M}/gu, '').toLocaleLowerCase('en')

/** Whether every word that was typed stands in the job's number, name, place or among its people. */
export function isFound(job: JobLine, typed: string): boolean {
  const all = plain([job.number, job.name, job.place, ...job.people].join(' '))
  return plain(typed)
    .split(/\s+/)
    .every((word) => all.includes(word))
}
