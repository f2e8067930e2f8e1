/** Work that takes seconds and much memory: it is done in a process of its own, one piece after another. */
import type { Sheet } from '@/core/plant/kinds/descriptor'
import type { Figures } from '@/core/verdict/verdict'
import type { WordKey } from '@/words/say'

export type Task =
  | { kind: 'certificate'; jobId: string; issue: string | null; sheet: Sheet | null; now_ms: number }
  | { kind: 'seal'; jobId: string; by: { id: string; name: string } }

export type CertificateDone = { name: string; bytes: Buffer }
export type SealDone = { issue: string; hash: string; sealedAt: string }
export type Done = { certificate: CertificateDone; seal: SealDone }

/** How far it is: `place` in the queue while it waits, then what is being done. */
export const stages = ['waiting', 'reading', 'judging', 'drawing', 'signing'] as const
export type Stage = (typeof stages)[number]
export type Progress = { stage: Stage; place?: number }

export type ToWorker = { id: number; task: Task }
export type FromWorker =
  | { id: number; progress: Progress }
  | { id: number; done: Done[keyof Done] }
  | { id: number; refused: { status: number; key: WordKey; figures: Figures } }
  | { id: number; failed: string }

export type OnProgress = (progress: Progress) => void
