/** Something that happens at a time; ties go to what was put in first, so that runs repeat exactly. */
export interface Timed {
  at: number;
}

/** A binary heap of things by time: the earliest comes out first. */
export class Heap<T extends Timed> {
  private readonly items: { item: T; serial: number }[] = [];
  private serial = 0;

  get size(): number {
    return this.items.length;
  }

  put(item: T): void {
    const { items } = this;
    let at = items.push({ item, serial: this.serial++ }) - 1;
    while (at > 0) {
      const above = (at - 1) >> 1;
      if (!this.earlier(at, above)) break;
      this.swap(at, above);
      at = above;
    }
  }

  take(): T | undefined {
    const { items } = this;
    const top = items[0];
    const last = items.pop();
    if (!top || !last || items.length === 0) return top?.item;
    items[0] = last;
    for (let at = 0; ;) {
      let least = at;
      for (const below of [2 * at + 1, 2 * at + 2])
        if (below < items.length && this.earlier(below, least)) least = below;
      if (least === at) return top.item;
      this.swap(at, least);
      at = least;
    }
  }

  private earlier(a: number, b: number): boolean {
    const [x, y] = [this.items[a]!, this.items[b]!];
    return x.item.at < y.item.at || (x.item.at === y.item.at && x.serial < y.serial);
  }

  private swap(a: number, b: number): void {
    const { items } = this;
    [items[a], items[b]] = [items[b]!, items[a]!];
  }
}
