import type { Board, Nets } from '../board';
import { type Circuit, compileCircuit } from './circuit';
import type { LiveSettings } from './live-state';
import { PassageWatch } from './passage';
import { PoweredBoard } from './powered-board';
import { labelledSignals, netNamed } from './run';
import { SheetWatch } from './sheet-watch';
import { Trace } from './trace';

/** What is done to a live board: its switches, its potentiometers, a lamp destroyed by a current. */
export type Deed =
  | { readonly kind: 'switches'; readonly positions: ReadonlyMap<string, boolean> }
  | { readonly kind: 'dials'; readonly positions: ReadonlyMap<string, number> }
  | { readonly kind: 'burn'; readonly lamp: string; readonly ma: number };

/** What was done to a live board at a moment, in nanoseconds: enough to do it all again. */
export type Touch = { readonly atNs: number } & Deed;

/** An LED past its maximum for so long is destroyed, in nanoseconds. */
const BURN_NS = 100e6;

/**
 * A board under power with all that watches it (the trace, how a change passes, the sheet's machine) and all that was done to it since the power came
 * on. Times are nanoseconds since then. It can begin again, so that time is wound back by doing all of it anew (decision 0021).
 */
export class LiveBoard {
  live!: PoweredBoard;
  trace!: Trace;
  sheetWatch: SheetWatch | null = null;
  passing!: PassageWatch;
  readonly circuit: Circuit;
  /** When it was touched last, and when something happened last, in nanoseconds. */
  touchedNs = 0;
  changedNs = 0;
  /** All that was done since the power came on. */
  touches: Touch[] = [];
  /** Lamps that are destroyed, with what did it; and since when others are past their maximum, in nanoseconds. */
  destroyed = new Map<string, number>();
  private readonly overSince = new Map<string, number>();
  /** Where potentiometers stand that were turned. */
  dials = new Map<string, number>();
  private traced: readonly string[];
  private isSlow = false;

  constructor(
    readonly board: Board,
    private readonly nets: Nets,
    private readonly settings: LiveSettings,
  ) {
    this.circuit = compileCircuit(board);
    this.traced = settings.traced;
    this.begin();
  }

  /** Powers the board up, with everything as it was set then. */
  begin(): void {
    const { board, nets, circuit, settings } = this;
    const { start, bounce, sheet } = settings;
    this.live = new PoweredBoard(board, nets, { circuit, start, bounce, clocksRun: true });
    this.destroyed = new Map(settings.destroyed);
    this.overSince.clear();
    for (const lamp of this.destroyed.keys()) this.live.burn(lamp);
    const named = (name: string, net: number | null | undefined) => (net == null ? [] : [{ name, net }]);
    this.trace = new Trace(this.live, [
      ...labelledSignals(board).flatMap((name) => named(name, netNamed(board, nets, name))),
      ...this.traced.flatMap((pin) => named(pin, nets.ofPin.get(pin))),
    ]);
    this.passing = new PassageWatch(this.live);
    this.watchPassing(this.isSlow);
    this.trace.alsoTell = (islands) => this.passing.take(islands);
    // The sheet's machine begins as the board does, and hears of each press.
    const watch = sheet && new SheetWatch(this.live, board, sheet);
    this.sheetWatch = watch?.isByHand ? watch : null;
    this.touches = [];
    this.dials = new Map(settings.dials);
    for (const [ref, position] of settings.dials) this.live.setDial(ref, position);
    this.move(new Map(settings.on.map((ref) => [ref, true])));
    this.isTouched();
  }

  /** Whether time runs so slowly that a person sees how a change passes from gate to gate. */
  watchPassing(isSlow: boolean): void {
    this.isSlow = isSlow;
    this.passing.setSlow(isSlow);
  }

  /** Does something to the board now, and remembers it. */
  touch(deed: Deed): void {
    this.doAgain({ ...deed, atNs: this.live.timeNs });
  }

  /** Does what was done before; its time must have come. */
  doAgain(touch: Touch): void {
    this.touches.push(touch);
    if (touch.kind === 'switches') this.move(touch.positions);
    else if (touch.kind === 'dials') this.turn(touch.positions);
    else this.burnOut(touch.lamp, touch.ma);
    // A lamp burns by itself: what is told as settling is what followed a hand.
    if (touch.kind !== 'burn') this.touchedNs = touch.atNs;
  }

  /** What happens from now on follows what was done. */
  isTouched(): void {
    this.touchedNs = this.live.timeNs;
    this.changedNs = this.live.timeNs;
  }

  private move(positions: ReadonlyMap<string, boolean>): void {
    this.passing.begin();
    this.circuit.switches.forEach(({ ref, isByHand }, i) => {
      const on = positions.get(ref);
      if (on === undefined || !isByHand || this.live.isOn(i) === on) return;
      this.live.setSwitch(i, on);
      this.sheetWatch?.pressed(i);
    });
  }

  private turn(positions: ReadonlyMap<string, number>): void {
    for (const [ref, position] of positions) {
      this.dials.set(ref, position);
      this.live.setDial(ref, position);
    }
  }

  private burnOut(lamp: string, ma: number): void {
    this.destroyed.set(lamp, ma);
    this.live.burn(lamp);
  }

  /** Destroys lamps that have been past their maximum for long enough, or are while the board rests. */
  burn(): void {
    const { live } = this;
    const isResting = !live.isMoving;
    live.circuit.leds.forEach(({ ref }, i) => {
      const { state, ma } = live.lamp(i);
      if (state !== 'over') {
        this.overSince.delete(ref);
        return;
      }
      const since = this.overSince.get(ref) ?? live.timeNs;
      this.overSince.set(ref, since);
      if (isResting || live.timeNs - since >= BURN_NS) this.touch({ kind: 'burn', lamp: ref, ma });
    });
  }

  /** Goes to the next moment in which something happens. */
  toNext(): void {
    this.live.runUntil(this.live.nextNs);
    this.changedNs = this.live.timeNs;
  }

  /** Traces these pins beside the labelled signals, and no others. */
  setTraced(pins: readonly string[]): void {
    for (const pin of this.traced) if (!pins.includes(pin)) this.trace.remove(pin);
    for (const pin of pins) {
      const net = this.live.nets.ofPin.get(pin);
      if (net !== undefined && !this.traced.includes(pin)) this.trace.add(pin, net);
    }
    this.traced = pins;
  }
}
