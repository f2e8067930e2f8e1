/** The process that does long work; it is built as a file of its own (`.build/longWork.mjs`). */
import { readdirSync } from 'node:fs'
import { setPriority } from 'node:os'
import { database } from '../db/client'
import { Refused } from '../door'
import { certificateFile } from '../report/certificateFile'
import { sealJob } from '../seal/sealJob'
import type { FromWorker, OnProgress, Task, ToWorker } from './tasks'

/** Lower than what people wait for; of every thread, for those that clear memory up work as hard as the one that draws. */
const NICE = 10
for (const thread of readdirSync('/proc/self/task')) setPriority(Number(thread), NICE)

const tell = (message: FromWorker): void => void process.send?.(message)

async function done(task: Task, onProgress: OnProgress): Promise<unknown> {
  if (task.kind === 'certificate') return certificateFile(database(), task, onProgress)
  const { seal } = await sealJob(database(), task.jobId, task.by, new Date(), onProgress)
  return { issue: seal.issue, hash: seal.hash, sealedAt: seal.sealedAt }
}

process.on('message', async ({ id, task }: ToWorker) => {
  try {
    const result = await done(task, (progress) => tell({ id, progress }))
    tell({ id, done: result as never })
  } catch (error) {
    if (error instanceof Refused)
      tell({ id, refused: { status: error.status, key: error.key, figures: error.figures } })
    else tell({ id, failed: String((error as Error).stack) })
  }
})
// The application that asks is gone, or needs nothing more.
process.on('disconnect', () => process.exit(0))
