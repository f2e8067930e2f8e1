/** Works on a curve beside the screen: a question comes, how far it has come goes out, and the answer at the end. */
import { type DiodeFit, fitDiode } from '@/core/curve/fitDiode'
import type { CurvePoint } from '@/core/curve/points'
import { type CurveToExplain, curveCauses } from '@/core/diagnosis/curveCauses'
import type { Cause } from '@/core/verdict/cause'

export type ExplainerQuestion = { ask: 'causes'; of: CurveToExplain } | { ask: 'fit'; of: readonly CurvePoint[] }
export type ExplainerAnswer = { share: number } | { causes: Cause[] } | { fit: DiodeFit | null }
declare const self: DedicatedWorkerGlobalScope

self.onmessage = ({ data }: MessageEvent<ExplainerQuestion>) => {
  const answer = (one: ExplainerAnswer): void => self.postMessage(one)
  if (data.ask === 'causes') return answer({ causes: curveCauses(data.of, (share) => answer({ share })) })
  const fit = fitDiode(data.of)
  answer({ fit: typeof fit === 'string' ? null : fit })
}
