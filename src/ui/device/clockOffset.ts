/** When a question was sent and its answer came, by the device's clock, and the office's time in it; ms since 1970. */
export type Contact = { sent: number; received: number; serverTime: number }

/**
 * How far the office's clock is ahead of the device's, ms. An answer is as old as anything between nothing and the whole
 * way, so a slow one says little: only what it cannot explain moves the offset. Else the order of one device's entries
 * would change with its reception.
 *
 * @param known the offset so far.
 */
export function offsetAfter({ sent, received, serverTime }: Contact, known: number): number {
  const unsure = (received - sent) / 2
  const found = serverTime - (sent + received) / 2
  return Math.abs(found - known) <= unsure ? known : Math.round(found)
}
