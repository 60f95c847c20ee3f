/** A bounded memory of computed results: the least recently used go first. */
export class ResultCache<T> {
  private readonly held = new Map<string, T>();
  private weight = 0;

  private readonly weigh: (result: T) => number;

  /**
   * Holds results that together weigh at most `most`; each weighs 1 where nothing else is said, and at least 1, so that none
   * stays for ever. The newest always stays.
   */
  constructor(
    private readonly most: number,
    weigh: (result: T) => number = () => 1,
  ) {
    this.weigh = (result) => Math.max(1, weigh(result));
  }

  /** The held result, if there is one. */
  find(key: string): T | undefined {
    const known = this.held.get(key);
    if (known !== undefined) {
      this.held.delete(key);
      this.held.set(key, known);
    }
    return known;
  }

  /** The held result, or `compute()` held from now on. */
  get(key: string, compute: () => T): T {
    const known = this.find(key);
    if (known !== undefined) return known;
    const value = compute();
    this.held.set(key, value);
    this.weight += this.weigh(value);
    for (const [oldest, result] of this.held) {
      if (this.weight <= this.most || oldest === key) break;
      this.held.delete(oldest);
      this.weight -= this.weigh(result);
    }
    return value;
  }

  get size(): number {
    return this.held.size;
  }
}
