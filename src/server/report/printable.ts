/** What the print's own font has no sign for: it is marked where it stands, and that is said. */
import * as fontkit from 'fontkit'
import type { Font } from 'fontkit'

/** Stands for a sign that cannot be printed. */
const UNPRINTED = '?'
/** Parts of a sign that show nothing by themselves: joiners, direction marks, variation selectors, line ends. */
const SHOWS_NOTHING = /\p{Cc}|\p{Cf}|\p{Variation_Selector}|\u2028|\u2029/u

/** Asks the font of a file, once for each sign. */
export class Printable {
  private readonly font: Font
  private readonly known = new Map<string, boolean>()
  /** Whether any text so far held a sign that the font has not. */
  lost = false

  constructor(fontFile: string) {
    this.font = fontkit.openSync(fontFile) as Font
  }

  private has(sign: string): boolean {
    const known = this.known.get(sign) ?? this.font.hasGlyphForCodePoint(sign.codePointAt(0)!)
    this.known.set(sign, known)
    return known
  }

  text(text: string): string {
    let printed = ''
    for (const sign of text) {
      if (SHOWS_NOTHING.test(sign)) printed += sign === '\n' ? sign : ''
      else if (this.has(sign)) printed += sign
      else {
        this.lost = true
        printed += UNPRINTED
      }
    }
    return printed
  }

  /** The same with every text of it as it can be printed; what is no text stays as it is. */
  all<T>(value: T): T {
    if (typeof value === 'string') return this.text(value) as T
    if (Array.isArray(value)) return value.map((one) => this.all(one)) as T
    if (typeof value !== 'object' || value === null) return value
    return Object.fromEntries(Object.entries(value).map(([key, one]) => [key, this.all(one)])) as T
  }
}
