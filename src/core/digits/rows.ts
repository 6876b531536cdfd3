/** Rows of integers, all of one width, each kept once under its number from 0 on and found by hashing. */
export class Rows {
  /** the row that is looked for or added */
  readonly row: Int32Array;
  size = 0;
  private kept: Int32Array;
  private places: Int32Array;

  constructor(private readonly width: number) {
    this.row = new Int32Array(width);
    this.kept = new Int32Array(64 * width);
    this.places = new Int32Array(128).fill(-1);
  }

  /** The number of `row`; -1: it is not there. */
  find(): number {
    return this.places[this.placeOf(this.row, 0)]!;
  }

  /** Whether `row` is the row of a number. */
  isRow(id: number): boolean {
    return this.isAt(id, this.row, 0);
  }

  /** Keeps `row`, which is not there yet, and answers its number. */
  add(): number {
    if (this.size * 2 >= this.places.length) this.grow();
    this.places[this.placeOf(this.row, 0)] = this.size;
    this.kept.set(this.row, this.size * this.width);
    return this.size++;
  }

  /** What stands in a column of a row. */
  at(id: number, column: number): number {
    return this.kept[id * this.width + column]!;
  }

  private grow(): void {
    const { kept, places, width } = this;
    this.kept = new Int32Array(kept.length * 2);
    this.kept.set(kept);
    this.places = new Int32Array(places.length * 2).fill(-1);
    for (let id = 0; id < this.size; id++) this.places[this.placeOf(this.kept, id * width)] = id;
  }

  /** Where the number of a row stands, or would; the row begins in a list at some index. */
  private placeOf(list: Int32Array, from: number): number {
    const { width, places } = this;
    const mask = places.length - 1;
    let hash = 0;
    for (let i = 0; i < width; i++) hash = (Math.imul(hash, 0x01000193) ^ list[from + i]!) | 0;
    hash = Math.imul(hash ^ (hash >>> 15), 0x85ebca6b);
    let at = (hash ^ (hash >>> 13)) & mask;
    for (;;) {
      const id = places[at]!;
      if (id < 0 || this.isAt(id, list, from)) return at;
      at = (at + 1) & mask;
    }
  }

  private isAt(id: number, list: Int32Array, from: number): boolean {
    const { kept, width } = this;
    const begins = id * width;
    for (let i = 0; i < width; i++) if (kept[begins + i] !== list[from + i]) return false;
    return true;
  }
}
