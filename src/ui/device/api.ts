import { say } from '@/words/say'

/** No reception, or the server did not answer. */
export class NoReception extends Error {}

/** The server answered with a sentence. */
export class Answered extends Error {
  constructor(
    readonly status: number,
    message: string,
  ) {
    super(message)
  }
}

const PATIENCE_ms = 15_000

/** Sends a picture; throws as `ask` does. */
export async function sendPicture(path: string, picture: Blob): Promise<void> {
  await answerOf(path, { method: 'POST', headers: { 'content-type': 'image/jpeg' }, body: picture })
}

/** Asks the server; throws NoReception where it cannot be reached, Answered with its own sentence where it refuses. */
export async function ask<T>(path: string, body?: unknown): Promise<T> {
  if (body === undefined) return answerOf<T>(path, { method: 'GET' })
  const headers = { 'content-type': 'application/json' }
  return answerOf<T>(path, { method: 'POST', headers, body: JSON.stringify(body) })
}

async function answerOf<T>(path: string, request: RequestInit): Promise<T> {
  let response: Response
  try {
    response = await fetch(path, { ...request, signal: AbortSignal.timeout(PATIENCE_ms) })
  } catch {
    throw new NoReception()
  }
  if (response.status === 502 || response.status === 503 || response.status === 504) throw new NoReception()
  const answer = (await response.json().catch(() => null)) as ({ title?: string; message?: string } & T) | null
  if (!response.ok) throw new Answered(response.status, answer?.title ?? answer?.message ?? say('door.server'))
  return answer as T
}
