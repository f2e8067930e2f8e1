/** What is looked up and added to; a Map is one. */
export type Shelf<K, V> = { get(key: K): V | undefined; has(key: K): boolean; set(key: K, value: V): unknown }

/** So many that came since are copied with each addition; then both layers become one. */
const MOST_ABOVE = 64

/**
 * A map that was added to while the one before stands as it was: what came since lies above, and is all that an addition
 * copies. A job of thousands of readings takes one more for the price of a small one.
 */
export class Layered<K, V> implements Shelf<K, V> {
  private constructor(
    private readonly below: ReadonlyMap<K, V>,
    private readonly above: Map<K, V>,
  ) {}

  /** The same, to be added to without changing `shelf`. */
  static over<K, V>(shelf: Map<K, V> | Layered<K, V>): Layered<K, V> {
    if (shelf instanceof Map) return new Layered(shelf, new Map())
    if (shelf.above.size < MOST_ABOVE) return new Layered(shelf.below, new Map(shelf.above))
    return new Layered(new Map([...shelf.below, ...shelf.above]), new Map())
  }

  get(key: K): V | undefined {
    return this.above.get(key) ?? this.below.get(key)
  }

  has(key: K): boolean {
    return this.above.has(key) || this.below.has(key)
  }

  set(key: K, value: V): void {
    this.above.set(key, value)
  }
}
