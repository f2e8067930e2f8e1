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
