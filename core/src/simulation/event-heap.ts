/**
 * The events to come: for each of a fixed number of items at most one time, in a binary heap that knows where each item is, so that an
 * event can be moved or taken back. Of events at one time that of the lower number comes first. Times are numbers of any unit.
 */
export class EventHeap {
  private readonly heap: Int32Array;
  private readonly placeOf: Int32Array;
  private readonly times: Float64Array;
  size = 0;

  constructor(items: number) {
    this.heap = new Int32Array(items);
    this.placeOf = new Int32Array(items).fill(-1);
    this.times = new Float64Array(items);
  }

  /** The item whose event comes first; -1 where there is none. */
  get first(): number {
    return this.size > 0 ? (this.heap[0] as number) : -1;
  }

  /** The time of the next event, Infinity where there is none. */
  get nextTime(): number {
    return this.size > 0 ? (this.times[this.heap[0] as number] as number) : Infinity;
  }

  has(item: number): boolean {
    return (this.placeOf[item] as number) >= 0;
  }

  /** The time of an item's event, Infinity where it has none. */
  timeOf(item: number): number {
    return this.has(item) ? (this.times[item] as number) : Infinity;
  }

  /** Puts an item's event at a time, in place of one that it had; Infinity takes it back. */
  put(item: number, time: number): void {
    if (time === Infinity) {
      this.remove(item);
      return;
    }
    this.times[item] = time;
    const place = this.placeOf[item] as number;
    if (place >= 0) this.sink(this.rise(place));
    else this.rise(this.place(item, this.size++));
  }

  /** Takes the event that comes first out, and gives its item. There must be one. */
  takeFirst(): number {
    const item = this.heap[0] as number;
    this.placeOf[item] = -1;
    const last = this.heap[--this.size] as number;
    if (last !== item) {
      this.place(last, 0);
      this.sink(0);
    }
    return item;
  }

  /** Counts all times from another moment on. */
  rebase(start: number): void {
    for (let i = 0; i < this.times.length; i++) this.times[i] = (this.times[i] as number) - start;
  }

  remove(item: number): void {
    const place = this.placeOf[item] as number;
    if (place < 0) return;
    this.placeOf[item] = -1;
    const last = this.heap[--this.size] as number;
    if (last === item) return;
    this.place(last, place);
    this.sink(this.rise(place));
  }

  private place(item: number, place: number): number {
    this.heap[place] = item;
    this.placeOf[item] = place;
    return place;
  }

  private isBefore(a: number, b: number): boolean {
    const ta = this.times[a] as number;
    const tb = this.times[b] as number;
    return ta < tb || (ta === tb && a < b);
  }

  private rise(from: number): number {
    const item = this.heap[from] as number;
    let at = from;
    while (at > 0) {
      const above = (at - 1) >> 1;
      const other = this.heap[above] as number;
      if (!this.isBefore(item, other)) break;
      this.place(other, at);
      at = above;
    }
    return this.place(item, at);
  }

  private sink(from: number): void {
    const item = this.heap[from] as number;
    let at = from;
    for (;;) {
      let below = 2 * at + 1;
      if (below >= this.size) break;
      if (below + 1 < this.size && this.isBefore(this.heap[below + 1] as number, this.heap[below] as number)) below++;
      const other = this.heap[below] as number;
      if (!this.isBefore(other, item)) break;
      this.place(other, at);
      at = below;
    }
    this.place(item, at);
  }
}
