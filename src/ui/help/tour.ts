/** Whether somebody was shown around on this device, and asking to be shown again. */
const KEY = 'upstand.shown-around'
let asked = 0
const listeners = new Set<() => void>()

export const wasShownAround = (): boolean => localStorage.getItem(KEY) !== null
export const rememberShown = (): void => localStorage.setItem(KEY, '1')

/** Shows around once more. */
export function askForTour(): void {
  asked++
  for (const listener of listeners) listener()
}
export function onTourAsked(listener: () => void): () => void {
  listeners.add(listener)
  return () => listeners.delete(listener)
}
/** How often it was asked for. */
export const toursAsked = (): number => asked
