/** A text cut to so many characters of its encoding, never in the middle of a pair: half a character is none. */
export const cutText = (text: string, most: number): string => text.slice(0, most).replace(/[\ud800-\udbff]$/, '')
