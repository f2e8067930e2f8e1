/** One sentence that says what is wrong and what to do; the command prints it and ends. */
export class Stop extends Error {}

export function say(text: string): void {
  process.stdout.write(`${text}\n`)
}

/** Says what is being done, and how long it took when it was slow. */
export async function step<T>(text: string, work: () => Promise<T>): Promise<T> {
  const start = Date.now()
  const timer = setInterval(() => say(`  still at it: ${text}, ${Math.round((Date.now() - start) / 1000)} s`), 15_000)
  say(`${text} ...`)
  try {
    return await work()
  } finally {
    clearInterval(timer)
    const seconds = (Date.now() - start) / 1000
    if (seconds > 2) say(`  done in ${seconds.toFixed(0)} s`)
  }
}
