/** Indices that wait for their turn, first come, first served; one that waits already is not put again. */
export class IndexRing {
  private readonly isWaiting: Uint8Array;
  private readonly ring: Int32Array;
  private first = 0;
  private end = 0;
  size = 0;

  /** A ring for indices from 0 up to `count`. */
  constructor(count: number) {
    this.isWaiting = new Uint8Array(count);
    this.ring = new Int32Array(Math.max(1, count));
  }

  put(i: number): void {
    if (this.isWaiting[i] === 1) return;
    this.isWaiting[i] = 1;
    this.ring[this.end] = i;
    if (++this.end === this.ring.length) this.end = 0;
    this.size++;
  }

  /** Takes the index that has waited longest. There must be one. */
  take(): number {
    const i = this.ring[this.first] as number;
    if (++this.first === this.ring.length) this.first = 0;
    this.size--;
    this.isWaiting[i] = 0;
    return i;
  }
}
