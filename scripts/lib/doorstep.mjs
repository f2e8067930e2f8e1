/**
 * Loaded before the server: a method that no page and no door has, and an address that is not made of whole characters, are
 * answered at once. The framework cannot make a request of some of them and would answer with an error of its own. So are
 * the few doors that are knocked at all day long (`src/app/hotDoors.ts`).
 */
import { Server } from 'node:http'

const { answersHot } = process.env.NODE_ENV === 'production' ? await import('../../.build/hotDoors.mjs') : {}

const KNOWN = new Set(['GET', 'HEAD', 'POST', 'PUT', 'PATCH', 'DELETE', 'OPTIONS'])
const emit = Server.prototype.emit

Server.prototype.emit = function emitKnown(name, request, response, ...rest) {
  if (name !== 'request') return emit.call(this, name, request, response, ...rest)
  if (!KNOWN.has(request.method))
    return refuse(response, 405, `${request.method} is not understood here.`, { allow: [...KNOWN].join(', ') })
  if (!isWhole(request.url))
    return refuse(response, 400, 'This address is not made of whole characters. Copy the link again, all of it.')
  if (answersHot?.(request, response)) return true
  return emit.call(this, name, request, response, ...rest)
}

function isWhole(address) {
  try {
    decodeURIComponent(address.split('?')[0])
    return true
  } catch {
    return false
  }
}

function refuse(response, status, title, headers = {}) {
  response.writeHead(status, { ...headers, 'content-type': 'application/problem+json' })
  response.end(JSON.stringify({ type: 'about:blank', title, status }))
  return true
}
