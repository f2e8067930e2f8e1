/**
 * The queue of long work in this process, and the process that does it: one piece at a time, at a lower priority than what
 * people wait for, with a limit of memory. What it dies of it dies of alone: who asked is told, the rest goes on.
 */
import { type ChildProcess, fork } from 'node:child_process'
import { join } from 'node:path'
import { Refused } from '../door'
import type { Done, FromWorker, OnProgress, Task, ToWorker } from './tasks'

/** Heap of the worker, MB; with what lies outside the heap it stays below 600 MB. */
const MOST_HEAP_MB = 400
const MOST_WAITING = 12
const LONGEST_ms = 120_000
/** A worker with nothing to do ends after so long, and gives its memory back. */
const IDLE_ms = 30_000

type Waiting = {
  id: number
  task: Task
  onProgress: OnProgress
  resolve(done: Done[keyof Done]): void
  reject(error: unknown): void
}

type Limits = { waiting: number; longest_ms: number; idle_ms: number }
const LIMITS: Limits = { waiting: MOST_WAITING, longest_ms: LONGEST_ms, idle_ms: IDLE_ms }

export class LongWork {
  private readonly waiting: Waiting[] = []
  private running: Waiting | null = null
  private worker: ChildProcess | null = null
  private count = 0
  private idle: NodeJS.Timeout | null = null
  private limit: NodeJS.Timeout | null = null

  /** @param file the worker, built as a file of its own */
  constructor(
    private readonly file: string,
    private readonly limits: Limits = LIMITS,
  ) {}

  /** @throws Refused where too much waits already, or where the work was refused or came to an end too early */
  do<K extends Task['kind']>(task: Extract<Task, { kind: K }>, onProgress: OnProgress): Promise<Done[K]> {
    if (this.waiting.length >= this.limits.waiting) throw new Refused(429, 'door.work-busy')
    return new Promise((resolve, reject) => {
      const one = { id: ++this.count, task, onProgress, resolve: resolve as Waiting['resolve'], reject }
      this.waiting.push(one)
      this.tellPlaces()
      this.next()
    })
  }

  private tellPlaces(): void {
    for (const [k, one] of this.waiting.entries()) one.onProgress({ stage: 'waiting', place: k + 1 })
  }

  private next(): void {
    if (this.running) return
    const one = this.waiting.shift()
    if (!one) {
      this.idle = setTimeout(() => this.worker?.disconnect(), this.limits.idle_ms).unref()
      return
    }
    if (this.idle) clearTimeout(this.idle)
    this.running = one
    this.tellPlaces()
    this.limit = setTimeout(() => this.worker?.kill('SIGKILL'), this.limits.longest_ms).unref()
    const message: ToWorker = { id: one.id, task: one.task }
    this.ownWorker().send(message)
  }

  private ownWorker(): ChildProcess {
    if (this.worker?.connected) return this.worker
    const worker = fork(this.file, {
      execArgv: [`--max-old-space-size=${MOST_HEAP_MB}`],
      serialization: 'advanced',
    })
    worker.on('message', (message: FromWorker) => this.heard(message))
    worker.on('error', () => this.ended(worker))
    worker.on('exit', () => this.ended(worker))
    // It keeps nobody from ending.
    worker.unref()
    worker.channel?.unref()
    this.worker = worker
    return worker
  }

  private heard(message: FromWorker): void {
    const one = this.running
    if (!one || one.id !== message.id) return
    if ('progress' in message) return one.onProgress(message.progress)
    this.settle()
    if ('done' in message) one.resolve(message.done)
    else if ('refused' in message) {
      const { status, key, figures } = message.refused
      one.reject(new Refused(status, key, figures))
    } else one.reject(new Error(message.failed))
    this.next()
  }

  private ended(worker: ChildProcess): void {
    if (this.worker !== worker) return
    this.worker = null
    const one = this.running
    if (!one) return
    this.settle()
    one.reject(new Refused(507, 'door.work-ended'))
    this.next()
  }

  private settle(): void {
    if (this.limit) clearTimeout(this.limit)
    this.running = null
  }
}

const holder = globalThis as { upstandLongWork?: LongWork }

/** Does a piece of long work in its turn. */
export function longWork<K extends Task['kind']>(
  task: Extract<Task, { kind: K }>,
  onProgress: OnProgress = () => undefined,
): Promise<Done[K]> {
  holder.upstandLongWork ??= new LongWork(join(process.cwd(), '.build', 'longWork.mjs'))
  return holder.upstandLongWork.do(task, onProgress)
}
