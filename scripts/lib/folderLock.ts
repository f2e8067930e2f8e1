/** One command at a time makes, changes or opens the databases of a data folder. */
import { createHash } from 'node:crypto'
import { createServer, type Server } from 'node:net'
import type { Places } from './paths'
import { Stop, say } from './say'

const LOOK_EVERY_ms = 250
const SAY_AFTER_ms = 2000

/** A name in the kernel's own table of sockets: it belongs to one process and goes with it, however that one ends. */
const nameOf = (places: Places): string =>
  `\0upstand-${createHash('sha256').update(places.data).digest('hex').slice(0, 32)}`

function tryToHold(name: string): Promise<Server | null> {
  return new Promise((resolve, reject) => {
    const server = createServer((socket) => socket.destroy())
    server.once('error', (error: NodeJS.ErrnoException) =>
      error.code === 'EADDRINUSE' ? resolve(null) : reject(error),
    )
    server.listen(name, () => resolve(server.unref()))
  })
}

const held = new Map<string, number>()

/** Does work on a data folder alone; who comes second waits. Work within work of the same process goes on at once. */
export async function alone<T>(places: Places, work: () => Promise<T>, longest_ms = 15 * 60_000): Promise<T> {
  const name = nameOf(places)
  const depth = held.get(name) ?? 0
  if (depth > 0) return within(name, depth, work)
  const start = Date.now()
  let told = false
  let server = await tryToHold(name)
  while (!server) {
    if (Date.now() - start > longest_ms)
      throw new Stop(
        `Another command has been at work on ${places.data} for a quarter of an hour. End it, then try again.`,
      )
    if (!told && Date.now() - start > SAY_AFTER_ms) {
      say(`Another command is at work on ${places.data}; waiting for it ...`)
      told = true
    }
    await new Promise((resolve) => setTimeout(resolve, LOOK_EVERY_ms))
    server = await tryToHold(name)
  }
  try {
    return await within(name, depth, work)
  } finally {
    await new Promise((resolve) => server.close(resolve))
  }
}

async function within<T>(name: string, depth: number, work: () => Promise<T>): Promise<T> {
  held.set(name, depth + 1)
  try {
    return await work()
  } finally {
    held.set(name, depth)
  }
}
