/** An answer that says how far a piece of long work is, line by line, and what came of it in the last line. */
import type { Figures } from '@/core/verdict/verdict'
import { say, type WordKey } from '@/words/say'
import { withoutValues } from '../db/client'
import { Refused } from '../door'
import type { OnProgress, Progress } from './tasks'

/** A line comes at least so often: a line that is silent for longer is taken for a broken one. */
const BEAT_ms = 3000

export type ProgressLine<T> =
  | { progress: Progress }
  | { done: T }
  | { problem: { type: string; title: string; status: number } }

const problemOf = (status: number, key: WordKey, figures: Figures = {}) => ({
  problem: { type: `about:blank#${key}`, title: say(key, figures), status },
})

/** Whether whoever asks reads line by line. */
export const wantsProgress = (request: Request): boolean =>
  (request.headers.get('accept') ?? '').includes('application/x-ndjson')

/** JSON lines: progress as it comes, then `done` or `problem`. */
export function progressStream<T>(work: (onProgress: OnProgress) => Promise<T>): Response {
  const encoder = new TextEncoder()
  let isOver = false
  const stream = new ReadableStream<Uint8Array>({
    start(controller) {
      const write = (line: ProgressLine<T>): void => {
        if (!isOver) controller.enqueue(encoder.encode(`${JSON.stringify(line)}\n`))
      }
      let last: Progress = { stage: 'waiting' }
      const beat = setInterval(() => write({ progress: last }), BEAT_ms)
      const onProgress: OnProgress = (progress) => {
        last = progress
        write({ progress })
      }
      const end = (line: ProgressLine<T>): void => {
        clearInterval(beat)
        write(line)
        if (!isOver) controller.close()
        isOver = true
      }
      work(onProgress).then(
        (done) => end({ done }),
        (error) => {
          if (error instanceof Refused) return end(problemOf(error.status, error.key, error.figures))
          console.error(new Date().toISOString(), 'long work', withoutValues(error))
          end(problemOf(500, 'door.server'))
        },
      )
    },
    // Who asked has gone: the work goes on, and what comes of it is found by whoever asks next.
    cancel() {
      isOver = true
    },
  })
  return new Response(stream, { headers: { 'content-type': 'application/x-ndjson', 'cache-control': 'no-store' } })
}
