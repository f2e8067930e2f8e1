/**
 * Loaded before the server: a method that no page and no door has is answered at once. The framework cannot make a request
 * of some of them (TRACE among them) and would answer with an error of its own.
 */
import { Server } from 'node:http'

const KNOWN = new Set(['GET', 'HEAD', 'POST', 'PUT', 'PATCH', 'DELETE', 'OPTIONS'])
const emit = Server.prototype.emit

Server.prototype.emit = function emitKnown(name, request, response, ...rest) {
  if (name !== 'request' || KNOWN.has(request.method)) return emit.call(this, name, request, response, ...rest)
  response.writeHead(405, { allow: [...KNOWN].join(', '), 'content-type': 'application/problem+json' })
  response.end(JSON.stringify({ type: 'about:blank', title: `${request.method} is not understood here.`, status: 405 }))
  return true
}
