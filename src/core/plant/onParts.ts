/** Which parts a column speaks of, and where each stands in it. It only grows, so that columns may share it. */
class Places {
  private found: Map<string, number> | null = null
  /** Where the last one stood that was asked for: mostly the same is asked for again, or the next. */
  private last = 0

  constructor(private readonly partIds: string[] = []) {}

  get count(): number {
    return this.partIds.length
  }

  /** Where a part stands among the first so many; undefined where it is none of them. */
  of(partId: string, among: number): number | undefined {
    const place = this.near(partId) ?? this.anywhere(partId)
    if (place === undefined) return undefined
    this.last = place
    return place < among ? place : undefined
  }

  private near(partId: string): number | undefined {
    const { partIds, last } = this
    if (partIds[last] === partId) return last
    return partIds[last + 1] === partId ? last + 1 : undefined
  }

  private anywhere(partId: string): number | undefined {
    this.found ??= new Map(this.partIds.map((id, k) => [id, k]))
    return this.found.get(partId)
  }

  add(partId: string): void {
    this.found?.set(partId, this.partIds.length)
    this.partIds.push(partId)
  }

  /** The first so many by themselves. */
  first(count: number): Places {
    return new Places(this.partIds.slice(0, count))
  }
}

/** What one step has on each of its parts. */
class Column<T> {
  constructor(
    private places: Places,
    readonly list: T[],
  ) {}

  copy(): Column<T> {
    return new Column(this.places, this.list.slice())
  }

  map<S>(make: (one: T) => S): Column<S> {
    return new Column(this.places, this.list.map(make))
  }

  get(partId: string): T | undefined {
    const place = this.places.of(partId, this.list.length)
    return place === undefined ? undefined : this.list[place]
  }

  set(partId: string, value: T): void {
    const place = this.places.of(partId, this.list.length)
    if (place === undefined) this.add(partId, value)
    else this.list[place] = value
  }

  /** One of a part that has none yet. */
  add(partId: string, value: T): void {
    // Another copy added to it since: from here on they differ.
    if (this.places.count !== this.list.length) this.places = this.places.first(this.list.length)
    this.places.add(partId)
    this.list.push(value)
  }
}

/**
 * Something for each step on each part, or for each question about it. It is looked up by both, for of a big job it is looked up tens of thousands of
 * times, and to put a name together for each look takes longer than the look.
 */
export class OnParts<T> {
  /** Steps whose columns nobody else has: any other is copied before it is changed. */
  private readonly mine = new Set<string>()

  private constructor(private readonly bySteps: Map<string, Column<T>>) {}

  static empty<T>(): OnParts<T> {
    return new OnParts(new Map())
  }

  /** The same, to be added to without changing this one. */
  copy(): OnParts<T> {
    this.mine.clear()
    return new OnParts(new Map(this.bySteps))
  }

  /** Something else for each. */
  map<S>(make: (one: T) => S): OnParts<S> {
    return new OnParts(new Map([...this.bySteps].map(([step, column]) => [step, column.map(make)])))
  }

  get(step: string, partId: string): T | undefined {
    return this.bySteps.get(step)?.get(partId)
  }

  has(step: string, partId: string): boolean {
    return this.get(step, partId) !== undefined
  }

  set(step: string, partId: string, value: T): void {
    this.column(step).set(partId, value)
  }

  /** What a step has, to be added to. */
  column(step: string): Pick<Column<T>, 'add' | 'get' | 'set'> {
    const known = this.bySteps.get(step)
    if (known && this.mine.has(step)) return known
    const column = known?.copy() ?? new Column<T>(new Places(), [])
    this.bySteps.set(step, column)
    this.mine.add(step)
    return column
  }

  /** Those of a step, in the order in which each was set first. */
  ofStep(step: string): readonly T[] {
    return this.bySteps.get(step)?.list ?? []
  }

  /** All of them, in the order in which each was set first. */
  all(): T[] {
    const found: T[] = []
    for (const { list } of this.bySteps.values()) for (const one of list) found.push(one)
    return found
  }
}

/** The same, looked up by the one name that a step on a part has. */
export class ByKey<T> {
  constructor(private readonly onParts: OnParts<T>) {}

  get(key: string): T | undefined {
    const at = key.indexOf(':')
    return this.onParts.get(key.slice(0, at), key.slice(at + 1))
  }

  has(key: string): boolean {
    return this.get(key) !== undefined
  }
}
