/** A bounded memory of computed results: the least recently used go first. */
export class ResultCache<T> {
  private readonly held = new Map<string, T>();
  constructor(private readonly most: number) {}

  /** The held result, or `compute()` held from now on. */
  get(key: string, compute: () => T): T {
    const known = this.held.get(key);
    if (known !== undefined) {
      this.held.delete(key);
      this.held.set(key, known);
      return known;
    }
    const value = compute();
    this.held.set(key, value);
    if (this.held.size > this.most) this.held.delete(this.held.keys().next().value as string);
    return value;
  }

  get size(): number {
    return this.held.size;
  }
}
