/** Answers what it answered before while it is asked about the same: for what is dear to compute and looked at again and again. */
export class Memory<T> {
  private readonly known = new Map<string, { readonly from: readonly unknown[]; readonly value: T }>();

  /** The value of before when every part of `from` is the very same; else what `make` makes. */
  recall(id: string, from: readonly unknown[], make: () => T): T {
    const before = this.known.get(id);
    if (before?.from.length === from.length && from.every((part, i) => part === before.from[i])) {
      return before.value;
    }
    const value = make();
    this.known.set(id, { from, value });
    return value;
  }
}
