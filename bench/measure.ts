/** Times work in ms: the median of some runs after a warm-up, with the fastest and the slowest. */
export type Timed = { median: number; least: number; most: number }

export function time(work: () => unknown, runs = 7, warmUps = 2): Timed {
  for (let k = 0; k < warmUps; k++) work()
  const list: number[] = []
  for (let k = 0; k < runs; k++) {
    const start = performance.now()
    work()
    list.push(performance.now() - start)
  }
  return summary(list)
}

/** Times several works in turn, so that a machine which slows down meanwhile slows all of them down. */
export function timeInTurn<const T extends readonly (() => unknown)[]>(
  works: T,
  runs: number,
  warmUps = 2,
): { [K in keyof T]: Timed } {
  for (let k = 0; k < warmUps; k++) for (const work of works) work()
  const lists = works.map((): number[] => [])
  for (let k = 0; k < runs; k++) {
    for (const [n, work] of works.entries()) {
      const start = performance.now()
      work()
      lists[n]!.push(performance.now() - start)
    }
  }
  return lists.map(summary) as unknown as { [K in keyof T]: Timed }
}

export async function timeAsync(work: () => Promise<unknown>, runs = 3, warmUps = 1): Promise<Timed> {
  for (let k = 0; k < warmUps; k++) await work()
  const list: number[] = []
  for (let k = 0; k < runs; k++) {
    const start = performance.now()
    await work()
    list.push(performance.now() - start)
  }
  return summary(list)
}

function summary(list: number[]): Timed {
  list.sort((a, b) => a - b)
  return { median: list[list.length >> 1]!, least: list[0]!, most: list.at(-1)! }
}

export const written = ({ median, least, most }: Timed): string =>
  `${fine(median)} ms (${fine(least)} to ${fine(most)})`
const fine = (ms: number): string => (ms < 10 ? ms.toFixed(3) : ms.toFixed(0))
