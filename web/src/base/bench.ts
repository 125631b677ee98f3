import {
  type Board,
  type Circuit,
  checkWalk,
  compileCircuit,
  type LampReading,
  type LedState,
  type Nets,
  type Panel,
  PoweredBoard,
  panelOf,
  rowAtHand,
  type Settled,
  type TableSubject,
  type WalkedRow,
} from '@saddlebag/core';

/** What the screens see of a powered board; a new object after every change. */
export interface BenchState {
  readonly on: boolean;
  /** Rows walked on the board as it is, by row number. */
  readonly walked: ReadonlyMap<number, WalkedRow>;
  readonly walking: boolean;
  readonly settled: Settled | null;
  readonly shorted: boolean;
  /** What the supply gives, in milliamperes. */
  readonly supplyMa: number;
  readonly version: number;
}

/** What the table on the bench is about; `key` changes when it does, `stores` where no table can tell it. */
export interface BenchSubject extends TableSubject {
  readonly key: string;
  readonly stores: boolean;
}

const off: BenchState = {
  on: false,
  walked: new Map(),
  walking: false,
  settled: null,
  shorted: false,
  supplyMa: 0,
  version: 0,
};

/**
 * The power switch of a job: holds the board as it is under power while the power is on. A change
 * of the board builds it anew, with the switches as they stood; what was walked before is forgotten. Every row that the switches
 * are set to while the power is on counts as walked.
 */
export class PowerBench {
  private state: BenchState = off;
  private readonly listeners = new Set<() => void>();
  private wired: { readonly board: Board; readonly nets: Nets } | null = null;
  private subject: BenchSubject | null = null;
  private panel: Panel | null = null;
  private circuit: Circuit | null = null;
  private live: PoweredBoard | null = null;
  private readonly switchedOn = new Set<string>();

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  readonly snapshot = (): BenchState => this.state;

  /** Tells the bench which board lies on it and what its table is about; the same again changes nothing. */
  lay(board: Board, nets: Nets, subject: BenchSubject): void {
    const same = this.wired?.board === board;
    if (same && this.subject?.key === subject.key) return;
    this.subject = subject;
    this.wired = { board, nets };
    if (!this.state.on && this.state.walked.size === 0) return;
    this.state = { ...this.state, walked: new Map(), walking: false };
    if (this.state.on) this.build();
    this.set({});
  }

  powerOn(): void {
    this.build();
    this.set({ on: true });
  }

  powerOff(): void {
    this.live = null;
    this.circuit = null;
    this.panel = null;
    this.set({ on: false, settled: null, shorted: false, supplyMa: 0 });
  }

  /** Puts a switch on or off by its reference; it stays so when the power goes. */
  flip(ref: string): void {
    this.setSwitches(new Map([[ref, !this.switchedOn.has(ref)]]));
  }

  /** Sets several switches at once and lets the board settle. */
  setSwitches(positions: ReadonlyMap<string, boolean>): void {
    for (const [ref, on] of positions) {
      if (on) this.switchedOn.add(ref);
      else this.switchedOn.delete(ref);
    }
    this.run();
    this.set({});
  }

  isOn(ref: string): boolean {
    return this.switchedOn.has(ref);
  }

  /** The level of a net, LOW, HIGH or UNKNOWN, while the power is on; null when it is off. */
  levelOf(net: number): number | null {
    return this.live?.levelOf(net) ?? null;
  }

  /** What an LED does; dark without power. */
  led(ref: string): LedState {
    const index = this.circuit?.leds.findIndex((l) => l.ref === ref) ?? -1;
    return index < 0 || !this.live ? 'dark' : this.live.ledState(index);
  }

  /** What a meter and a logic probe show on a net; null without power. */
  probe(net: number): { readonly volts: number | null; readonly level: '0' | '1' | '?' } | null {
    const point = this.live?.point;
    return point ? { volts: point.voltsOfNet(net), level: point.levelOfNet(net) } : null;
  }

  /** A lamp with its current, by its name; null for none of that name, or without power. */
  lamp(ref: string): LampReading | null {
    const index = this.circuit?.leds.findIndex((l) => l.ref === ref) ?? -1;
    return index < 0 || !this.live ? null : this.live.lamp(index);
  }

  startWalk(): void {
    this.set({ walking: true, walked: new Map() });
  }

  /** Notes rows walked on a board; rows of a board that has changed since count no longer. */
  addWalked(board: Board, rows: readonly WalkedRow[]): void {
    if (board !== this.wired?.board) return;
    const walked = new Map(this.state.walked);
    for (const row of rows) walked.set(row.row, row);
    this.set({ walked });
  }

  endWalk(): void {
    this.set({ walking: false });
  }

  private build(): void {
    if (!this.wired) return;
    this.circuit = compileCircuit(this.wired.board, this.wired.nets);
    this.panel = this.panelOfSubject();
    this.live = new PoweredBoard(this.wired.board, this.wired.nets, this.circuit);
    this.run();
  }

  private run(): void {
    const { live } = this;
    if (!live) return;
    this.circuit?.switches.forEach(({ ref }, i) => {
      live.setSwitch(i, this.switchedOn.has(ref));
    });
    const settled = live.settle();
    this.state = {
      ...this.state,
      settled,
      shorted: live.shorted,
      supplyMa: live.point.supplyMa,
      walked: this.withRowAtHand(settled.settled),
    };
  }

  /** Where the switches and lamps of the table are; null where there is no table. */
  private panelOfSubject(): Panel | null {
    if (!this.wired || !this.circuit || !this.subject || this.subject.stores) return null;
    const { inputs, outputs } = this.subject;
    return checkWalk(inputs.length).length > 0 ? null : panelOf(this.wired.board, this.circuit, inputs, outputs);
  }

  /** The rows seen, with that which the switches stand at just now. */
  private withRowAtHand(settled: boolean): ReadonlyMap<number, WalkedRow> {
    const row = this.live && this.panel && rowAtHand(this.live, this.panel, settled);
    return row ? new Map(this.state.walked).set(row.row, row) : this.state.walked;
  }

  private set(change: Partial<BenchState>): void {
    this.state = { ...this.state, ...change, version: this.state.version + 1 };
    for (const listener of this.listeners) listener();
  }
}
