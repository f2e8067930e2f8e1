/**
 * Doors that are knocked at all day long, answered before the page framework is asked: its own way to a route costs more
 * than a save does. Built as a file of its own (`.build/hotDoors.mjs`) and put before the server by `scripts/lib/doorstep.mjs`;
 * where it is not there, the same routes are answered by the framework.
 */
import type { IncomingMessage, ServerResponse } from 'node:http'
import { POST as saveEntries } from './api/jobs/[id]/entries/route'

/** As the framework sends with every answer of a door (`next.config.ts`); a test holds the two against each other. */
const WITH_EVERY_ANSWER = {
  'x-content-type-options': 'nosniff',
  'referrer-policy': 'same-origin',
  'content-security-policy': "default-src 'none'; frame-ancestors 'none'",
}
const ENTRIES = /^\/api\/jobs\/([0-9a-f-]{36})\/entries$/

/** Answers where it is one of these doors; false where it is not. */
export function answersHot(request: IncomingMessage, response: ServerResponse): boolean {
  const id = request.method === 'POST' ? ENTRIES.exec(request.url ?? '')?.[1] : undefined
  if (id === undefined) return false
  void answer(request, response, id)
  return true
}

async function answer(request: IncomingMessage, response: ServerResponse, id: string): Promise<void> {
  const gone = new AbortController()
  response.on('close', () => {
    if (!response.writableFinished) gone.abort()
  })
  try {
    const asked = new Request(`http://${request.headers.host ?? 'localhost'}${request.url}`, {
      method: 'POST',
      headers: headersOf(request),
      body: bodyOf(request),
      duplex: 'half',
      signal: gone.signal,
    } as RequestInit)
    const answered = await saveEntries(asked, { params: Promise.resolve({ id }) })
    const body = Buffer.from(await answered.arrayBuffer())
    response.writeHead(answered.status, { ...WITH_EVERY_ANSWER, ...Object.fromEntries(answered.headers) })
    response.end(body)
  } catch (error) {
    // What is no request, or an answer to somebody who has gone.
    if (!gone.signal.aborted) console.error(new Date().toISOString(), request.url, error)
    if (!response.headersSent) response.writeHead(400, WITH_EVERY_ANSWER)
    response.end()
  }
}

/** The body as it comes in. Whoever stops reading is answered all the same: the rest is let pass, and the line stays. */
function bodyOf(request: IncomingMessage): ReadableStream<Uint8Array> {
  let isRead = true
  return new ReadableStream({
    start(controller) {
      request.on('data', (chunk: Buffer) => isRead && controller.enqueue(chunk))
      request.on('end', () => isRead && controller.close())
      request.on('error', (error) => isRead && controller.error(error))
    },
    cancel() {
      isRead = false
    },
  })
}

function headersOf({ rawHeaders }: IncomingMessage): Headers {
  const headers = new Headers()
  for (let k = 0; k < rawHeaders.length; k += 2) headers.append(rawHeaders[k]!, rawHeaders[k + 1]!)
  return headers
}
