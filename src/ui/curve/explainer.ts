import type { ExplainerAnswer, ExplainerQuestion } from '@/workers/explainer'

/** Asks beside the screen; what comes back goes to a listener until it is stopped. */
export function askExplainer(
  question: ExplainerQuestion,
  onAnswer: (answer: ExplainerAnswer | null) => void,
): () => void {
  const worker = new Worker('/explainer.js')
  worker.onmessage = ({ data }: MessageEvent<ExplainerAnswer>) => {
    onAnswer(data)
    if (!('share' in data)) worker.terminate()
  }
  worker.onerror = () => onAnswer(null)
  worker.postMessage(question)
  return () => worker.terminate()
}
