/** Explains a curve beside the screen: a question comes, how far it has come goes out, and the causes at the end. */
import { type CurveToExplain, curveCauses } from '@/core/diagnosis/curveCauses'
import type { Cause } from '@/core/verdict/cause'

export type ExplainerAnswer = { share: number } | { causes: Cause[] }
declare const self: DedicatedWorkerGlobalScope

self.onmessage = ({ data }: MessageEvent<CurveToExplain>) => {
  const answer = (one: ExplainerAnswer): void => self.postMessage(one)
  answer({ causes: curveCauses(data, (share) => answer({ share })) })
}
