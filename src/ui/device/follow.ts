import { PERSON } from '@/core/record/exchange'
import { say } from '@/words/say'
import { Answered, NoReception, ownPersonId } from './api'

export type Progress = { stage: string; place?: number }
type Line = { progress?: Progress; done?: unknown; problem?: { type: string; title: string; status: number } }

/** So long may the office be silent, ms: while it works it says so more often. */
const PATIENCE_ms = 20_000

/**
 * Has the office do something that takes its time, and tells how far it is.
 * @throws NoReception; Answered with the office's sentence
 */
export async function follow<T>(path: string, body: object, onProgress: (progress: Progress) => void): Promise<T> {
  const cut = new AbortController()
  let timer = setTimeout(() => cut.abort(), PATIENCE_ms)
  const goesOn = (): void => {
    clearTimeout(timer)
    timer = setTimeout(() => cut.abort(), PATIENCE_ms)
  }
  const person = ownPersonId()
  const headers = {
    'content-type': 'application/json',
    accept: 'application/x-ndjson',
    ...(person ? { [PERSON]: person } : {}),
  }
  let last: Line | null = null
  try {
    const response = await fetch(path, { method: 'POST', headers, body: JSON.stringify(body), signal: cut.signal })
    if (!response.ok) throw await refusal(response)
    for await (const line of linesOf(response, goesOn)) {
      last = line
      if (line.progress) onProgress(line.progress)
    }
  } catch (error) {
    throw error instanceof Answered ? error : new NoReception()
  } finally {
    clearTimeout(timer)
  }
  if (last?.problem) throw new Answered(last.problem.status, last.problem.title, last.problem.type.split('#')[1])
  // An answer that broke off says nothing of what became of the work.
  if (!last || !('done' in last)) throw new NoReception()
  return last.done as T
}

async function refusal(response: Response): Promise<Answered> {
  const answer = (await response.json().catch(() => null)) as { type?: string; title?: string } | null
  return new Answered(response.status, answer?.title ?? say('door.server'), answer?.type?.split('#')[1])
}

async function* linesOf(response: Response, onMore: () => void): AsyncGenerator<Line> {
  const reader = response.body?.getReader()
  const decoder = new TextDecoder()
  let text = ''
  while (reader) {
    const { done, value } = await reader.read()
    if (done) break
    onMore()
    text += decoder.decode(value, { stream: true })
    const lines = text.split('\n')
    text = lines.pop() ?? ''
    for (const line of lines) yield JSON.parse(line) as Line
  }
}
