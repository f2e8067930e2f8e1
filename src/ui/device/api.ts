import { OFFICE_TIME, PERSON } from '@/core/record/exchange'
import { spoken } from '@/words/language'
import { say } from '@/words/say'
import type { DeviceClock } from './deviceClock'

/** No reception, or the server did not answer. */
export class NoReception extends Error {}

/** The server answered with a sentence. */
export class Answered extends Error {
  constructor(
    readonly status: number,
    message: string,
    /** Which refusal it is, such as `door.not-found`. */
    readonly code: string = '',
  ) {
    super(message)
  }
}

/** So long may a server be silent, ms; an answer that goes on arriving may take as long as it needs. */
const PATIENCE_ms = 15_000

type Problem = { type?: string; title?: string; message?: string }
type Ends = {
  /** Whose page asks. */
  person(): string | null
  /** The clock that every answer sets: each carries the office's time. */
  clock?: DeviceClock
  fetch?(path: string, request: RequestInit): Promise<Response>
}

/** The way to the office. */
export class Line {
  constructor(private readonly ends: Ends) {}

  /** Asks the server; throws NoReception where it cannot be reached, Answered with its own sentence where it refuses. */
  async ask<T>(path: string, body?: unknown): Promise<T> {
    if (body === undefined) return this.answer<T>(path, { method: 'GET' })
    const headers = { 'content-type': 'application/json' }
    return this.answer<T>(path, { method: 'POST', headers, body: JSON.stringify(body) })
  }

  /** Sends a picture; throws as `ask` does. */
  async sendPicture(path: string, picture: Blob): Promise<void> {
    await this.answer(path, { method: 'POST', headers: { 'content-type': 'image/jpeg' }, body: picture })
  }

  private async answer<T>(path: string, request: RequestInit): Promise<T> {
    const { response, text } = await this.patiently(path, request)
    if (response.status === 502 || response.status === 503 || response.status === 504) throw new NoReception()
    const answer = jsonOf<(Problem & T) | null>(text)
    if (response.ok) return answer as T
    const code = answer?.type?.split('#')[1] ?? ''
    throw new Answered(response.status, answer?.title ?? answer?.message ?? say('door.server'), code)
  }

  /** The whole answer, as long as it keeps arriving. @throws NoReception where the line is silent for too long. */
  private async patiently(path: string, request: RequestInit): Promise<{ response: Response; text: string }> {
    const cut = new AbortController()
    let timer = setTimeout(() => cut.abort(), PATIENCE_ms)
    const goesOn = (): void => {
      clearTimeout(timer)
      timer = setTimeout(() => cut.abort(), PATIENCE_ms)
    }
    const person = this.ends.person()
    const language = { 'accept-language': spoken().tag }
    const headers = { ...request.headers, ...language, ...(person ? { [PERSON]: person } : {}) }
    const { clock, fetch: own = fetch } = this.ends
    const sent = clock?.moment()
    try {
      const response = await own(path, { ...request, headers, signal: cut.signal })
      const serverTime = Date.parse(response.headers.get(OFFICE_TIME) ?? '')
      if (clock && sent && Number.isFinite(serverTime)) clock.heard({ sent, received: clock.moment(), serverTime })
      return { response, text: await textOf(response, goesOn) }
    } catch {
      throw new NoReception()
    } finally {
      clearTimeout(timer)
    }
  }
}

/** An answer that broke off, or a page that some network puts in the way, is no answer of the office. */
function jsonOf<T>(text: string): T {
  try {
    return JSON.parse(text) as T
  } catch {
    throw new NoReception()
  }
}

async function textOf(response: Response, onMore: () => void): Promise<string> {
  const decoder = new TextDecoder()
  const reader = response.body?.getReader()
  let text = ''
  while (reader) {
    onMore()
    const { done, value } = await reader.read()
    if (done) break
    text += decoder.decode(value, { stream: true })
  }
  return text + decoder.decode()
}

let ownPerson: string | null = null
/** From now on every question says whose page this is: in another tab somebody else may sign in. */
export const setPerson = (personId: string | null): void => {
  ownPerson = personId
}

export const ownPersonId = (): string | null => ownPerson

const own = new Line({ person: () => ownPerson })
/** Asks the server for this page's person; throws as `Line.ask` does. */
export const ask = <T>(path: string, body?: unknown): Promise<T> => own.ask<T>(path, body)
