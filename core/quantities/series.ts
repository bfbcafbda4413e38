const partLength = 512;

/** A list whose entries are computed a part at a time: of a million entries no more than a part is held. */
export class Series<T> {
  /** @param part - computes the entries from one index up to, not including, another */
  constructor(
    readonly length: number,
    readonly part: (from: number, to: number) => readonly T[],
  ) {}

  /** Returns the series with each entry converted. */
  map<To>(convert: (entry: T, i: number) => To): Series<To> {
    return new Series(this.length, (from, to) => this.part(from, to).map((entry, i) => convert(entry, from + i)));
  }

  /** Computes all entries. */
  all(): T[] {
    const all: T[] = [];
    for (const part of this.parts()) for (const entry of part) all.push(entry);
    return all;
  }

  *parts(): Generator<readonly T[]> {
    for (let from = 0; from < this.length; from += partLength)
      yield this.part(from, Math.min(this.length, from + partLength));
  }
}

/** Returns a list as a series. */
export const seriesOf = <T>(list: readonly T[]): Series<T> =>
  new Series(list.length, (from, to) => list.slice(from, to));
