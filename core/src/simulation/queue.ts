/**
 * A priority queue of events in typed arrays: a binary heap ordered by time, then by the order of
 * arrival. Each event is a time in ns, an item and a stamp, both integers the caller gives meaning to.
 */
export class EventQueue {
  private times = new Float64Array(64);
  private order = new Float64Array(64);
  private items = new Int32Array(64);
  private stamps = new Int32Array(64);
  private arrivals = 0;
  size = 0;
  /** Item and stamp of the event last taken. */
  item = 0;
  stamp = 0;

  /** Time of the next event; the queue must not be empty. */
  get nextTime(): number {
    return this.times[0] as number;
  }

  push(time: number, item: number, stamp: number): void {
    if (this.size === this.items.length) this.grow();
    let i = this.size++;
    const arrival = this.arrivals++;
    while (i > 0) {
      const up = (i - 1) >> 1;
      if ((this.times[up] as number) <= time) break;
      this.copy(up, i);
      i = up;
    }
    this.times[i] = time;
    this.order[i] = arrival;
    this.items[i] = item;
    this.stamps[i] = stamp;
  }

  /** Takes the next event off; its item and stamp are then in `item` and `stamp`. */
  pop(): void {
    this.item = this.items[0] as number;
    this.stamp = this.stamps[0] as number;
    const last = --this.size;
    if (last === 0) return;
    let i = 0;
    for (;;) {
      let child = 2 * i + 1;
      if (child >= last) break;
      if (child + 1 < last && this.before(child + 1, child)) child++;
      if (!this.before(child, last)) break;
      this.copy(child, i);
      i = child;
    }
    this.copy(last, i);
  }

  clear(): void {
    this.size = 0;
  }

  private before(i: number, j: number): boolean {
    const [a, b] = [this.times[i] as number, this.times[j] as number];
    return a < b || (a === b && (this.order[i] as number) < (this.order[j] as number));
  }

  private copy(from: number, to: number): void {
    this.times[to] = this.times[from] as number;
    this.order[to] = this.order[from] as number;
    this.items[to] = this.items[from] as number;
    this.stamps[to] = this.stamps[from] as number;
  }

  private grow(): void {
    const wider = <A extends Float64Array | Int32Array>(a: A, b: A): A => {
      b.set(a);
      return b;
    };
    const n = 2 * this.items.length;
    this.times = wider(this.times, new Float64Array(n));
    this.order = wider(this.order, new Float64Array(n));
    this.items = wider(this.items, new Int32Array(n));
    this.stamps = wider(this.stamps, new Int32Array(n));
  }
}
