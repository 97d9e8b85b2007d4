/** Chance with a seed: a campaign that found something finds it again. */

export class Chance {
  constructor(private state: number) {}

  /** In [0, 1): mulberry32, a public-domain generator. */
  next(): number {
    this.state = (this.state + 0x6d2b79f5) | 0;
    let t = Math.imul(this.state ^ (this.state >>> 15), 1 | this.state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4_294_967_296;
  }

  below(count: number): number {
    return Math.floor(this.next() * count);
  }

  of<T>(list: readonly T[]): T {
    return list[this.below(list.length)];
  }

  bytes(length: number): Buffer {
    return Buffer.from(Array.from({ length }, () => this.below(256)));
  }
}
