import { finding } from '../finding';
import type { LiveBoard, Touch } from './live-board';
import type { LiveMarks } from './live-marks';
import type { Search, Speed, TimeCommand } from './live-state';
import { readSought, type Sought, watcherOf, whenTrue } from './seek';
import { edgeBeside } from './trace-marks';
import { placeNamed } from './walk';

/** Events between two looks at the clock on the wall. */
const EVENTS_A_LOOK = 2000;
/** Time is counted exactly for ten days. */
const MOST_NS = 10 * 86_400e9;
/** Moments between two such looks, where each is looked at by itself. */
const MOMENTS_A_LOOK = 500;
/** Under this speed a person sees what passes between gates. */
const SLOW = 1e-3;
/** After a switch is moved time runs on at once for so long, in nanoseconds, if it runs at full speed at least. */
const AT_ONCE_NS = 20e6;
const AT_ONCE_EVENTS = 20_000;
/** A switch that is pressed several times by itself stays so long each way, in nanoseconds. */
const PRESS_NS = 1e6;
/** So many presses are done before anything else is heard. */
const PRESSES_AT_ONCE = 64;
/** The most pulses or edges that can be asked for at once. */
export const MOST_PULSES = 10_000;

/** All that was done before, being done again up to a moment. */
interface Again {
  readonly touches: readonly Touch[];
  next: number;
  readonly toNs: number;
}

/** A switch that is being pressed by itself, and how many edges it is yet to give. */
interface Pressing {
  readonly index: number;
  readonly to: 0 | 1 | null;
  left: number;
}

/** Asked between pieces of work: whether to stop for now. */
type IsEnough = () => boolean;

/**
 * How time runs on a live board: at a speed, or by itself to somewhere (back, on by so much, to an edge or until an expression is true). Knows no clock:
 * the caller says how much of the person's time has passed, and when to stop working. Times are nanoseconds since power up.
 */
export class TimeInHand {
  /** Whether more happens than can be worked out in the time that passes. */
  isBehind = false;
  /** Counts what it has changed of what a person sets: switches, and whether time stands. */
  handSerial = 0;
  private again: Again | null = null;
  private pressing: Pressing | null = null;
  private sought: { readonly hasCome: () => boolean; readonly stops: boolean } | null = null;
  /** So far time is run on, as fast as it goes. */
  private ahead: { readonly fromNs: number; readonly toNs: number } | null = null;
  private search: Omit<Search, 'isOn' | 'isWaiting' | 'share'> = { serial: 0, atNs: null, findings: [] };

  constructor(
    private readonly at: LiveBoard,
    private readonly marks: LiveMarks,
    private speed: Speed,
    public isPaused: boolean,
  ) {
    this.watchPassing();
    this.follow();
  }

  private get live() {
    return this.at.live;
  }

  /** Whether all that was done is being done again, so that nothing else can be done meanwhile. */
  get isGoingBack(): boolean {
    return this.again !== null;
  }

  /** What was found in time last, and what is being looked for. */
  get found(): Search {
    return { ...this.search, isOn: this.isBusy, isWaiting: this.sought?.stops === false, share: this.share };
  }

  /** Changes how time runs. */
  setPace(speed: Speed, isPaused: boolean): void {
    this.speed = speed;
    this.isPaused = isPaused;
    this.isBehind = false;
    this.watchPassing();
  }

  private watchPassing(): void {
    this.at.watchPassing(this.isPaused || this.speed < SLOW);
  }

  /** Works out what follows a touch within moments, unless time is slowed down or stands. */
  follow(): void {
    this.at.isTouched();
    if (this.isPaused || this.speed < 1) return;
    this.runOn(this.live.timeNs + AT_ONCE_NS);
  }

  private runOn(endNs: number): void {
    const last = this.live.events + AT_ONCE_EVENTS;
    while (this.live.nextNs <= endNs && this.live.events < last) this.at.toNext();
  }

  /** Goes on to the next moment in which something happens. */
  step(): void {
    if (this.live.nextNs < Infinity) this.at.toNext();
  }

  /**
   * Winds time back: the board is powered up again, and all that was done up to then is done again. Later touches are forgotten; time
   * stands there.
   */
  windTo(timeNs: number): void {
    const toNs = Math.max(0, Math.min(timeNs, this.live.timeNs));
    const touches = this.at.touches.filter(({ atNs }) => atNs <= toNs);
    this.sought = null;
    this.pressing = null;
    this.ahead = null;
    this.isPaused = true;
    this.at.begin();
    this.again = { touches, next: 0, toNs };
  }

  /** Winds time back to the last change of what is traced, before now. */
  private stepBack(): void {
    const times = this.at.trace.rows.flatMap((row) => edgeBeside(row, this.live.timeNs, false) ?? []);
    this.windTo(Math.max(0, ...times));
  }

  /** Does what was done again, until that is all or `isEnough` says so. */
  private doAgain(again: Again, isEnough: IsEnough): void {
    const { live } = this;
    for (;;) {
      const touch = again.touches[again.next];
      const untilNs = touch?.atNs ?? again.toNs;
      live.runUntil(untilNs, EVENTS_A_LOOK);
      if (live.nextNs > untilNs) {
        if (!touch) break;
        again.next++;
        this.at.doAgain(touch);
      }
      if (isEnough()) return;
    }
    this.again = null;
    this.at.changedNs = live.timeNs;
    this.marks.cutAt(live.timeNs);
    this.handSerial++;
  }

  /**
   * Looks for something: edges of a signal, or an expression of the sheet language that becomes true, in what is to come. With `stops`, time runs as
   * fast as it goes until then and stands; otherwise it runs as it does. A signal that a person's switch gives is pressed.
   */
  private seek(sought: Sought, stops: boolean): void {
    if (this.again) return;
    const index = sought.kind === 'edges' ? this.switchOf(sought.name) : -1;
    if (sought.kind === 'edges' && index >= 0) {
      this.press(index, sought);
      return;
    }
    const { rows } = this.at.trace;
    const hasCome = watcherOf(sought, rows);
    const findings = sought.kind === 'true' ? readSought(sought.text, rows).findings : [];
    this.search = { ...this.search, findings };
    this.sought = hasCome && { hasCome, stops };
    if (hasCome && stops && this.live.nextNs === Infinity) this.cannotCome();
  }

  /** Runs time on by so much, as fast as it goes; time stands then. */
  private runAhead(forNs: number): void {
    if (this.again || !(forNs > 0)) return;
    const fromNs = this.live.timeNs;
    this.ahead = { fromNs, toNs: Math.min(fromNs + forNs, MOST_NS) };
  }

  private goAhead({ toNs }: { readonly toNs: number }, isEnough: IsEnough): void {
    const { live } = this;
    while (live.nextNs <= toNs) {
      live.runUntil(toNs, EVENTS_A_LOOK);
      if (live.nextNs <= toNs && isEnough()) return;
    }
    live.runUntil(toNs);
    this.at.changedNs = live.timeNs;
    this.standAfterRunning();
  }

  private standAfterRunning(): void {
    this.ahead = null;
    this.isPaused = true;
    this.handSerial++;
  }

  /** How much of the way time has gone where it runs by itself to a moment that is known; null where it does not. */
  private get share(): number | null {
    const { ahead, again, live } = this;
    if (ahead) return (live.timeNs - ahead.fromNs) / (ahead.toNs - ahead.fromNs);
    return again && again.toNs > 0 ? live.timeNs / again.toNs : null;
  }

  /** Ends what is looked for. */
  private stopSeeking(): void {
    this.sought = null;
    this.pressing = null;
    if (this.ahead) this.standAfterRunning();
    this.search = { ...this.search, findings: [] };
  }

  /** Goes to the moment nearest to mark A, or to now, at which an expression became true in what is traced; looks on in time where there is none. */
  private find(text: string, isForward: boolean): void {
    const { rows } = this.at.trace;
    const { expr, findings } = readSought(text, rows);
    this.search = { ...this.search, findings };
    if (!expr) return;
    const fromNs = this.marks.marks.a ?? this.live.timeNs;
    const atNs = whenTrue(rows, expr, { fromNs, isForward });
    if (atNs !== null) this.comeTo(atNs);
    else if (isForward) this.seek({ kind: 'true', text }, true);
    else this.search = { ...this.search, findings: [finding('trace-never-true', [], { text })] };
  }

  private comeTo(atNs: number): void {
    this.search = { serial: this.search.serial + 1, atNs, findings: [] };
    this.marks.set('a', atNs);
  }

  /** The switch that a person moves for a signal, by its index; -1 where there is none. */
  private switchOf(name: string): number {
    const place = placeNamed(this.at.board, 'give', name);
    return this.at.circuit.switches.findIndex(({ ref, isByHand }) => ref === place?.called && isByHand);
  }

  /** Presses a switch until it has given so many edges to a level: a few at once, more beside what else is asked. */
  private press(index: number, { to, count }: Extract<Sought, { kind: 'edges' }>): void {
    this.pressing = { index, to, left: Math.min(count, MOST_PULSES) };
    let presses = 0;
    this.goOnPressing(this.pressing, () => ++presses >= PRESSES_AT_ONCE);
  }

  private goOnPressing(pressing: Pressing, isEnough: IsEnough): void {
    const { index, to } = pressing;
    const { at, live } = this;
    const ref = at.circuit.switches[index]?.ref ?? '';
    while (pressing.left > 0) {
      const on = !live.isOn(index);
      const atNs = live.timeNs;
      at.touch({ kind: 'switches', positions: new Map([[ref, on]]) });
      this.runOn(atNs + PRESS_NS);
      live.runUntil(Math.max(live.timeNs, atNs + PRESS_NS));
      if (!live.isMoving) at.sheetWatch?.look();
      if (to === null || on === (to === 1)) pressing.left--;
      if (isEnough()) break;
    }
    if (pressing.left === 0) this.pressing = null;
    this.handSerial++;
  }

  /** Does what a person asks of time. */
  take(command: TimeCommand): void {
    if (command.kind === 'back') this.stepBack();
    else if (command.kind === 'wind') this.windTo(command.timeNs);
    else if (command.kind === 'seek') this.seek(command.sought, command.stops);
    else if (command.kind === 'run-on') this.runAhead(command.forNs);
    else if (command.kind === 'find') this.find(command.text, command.isForward);
    else this.stopSeeking();
  }

  /** Whether time passes, whatever happens in it. */
  get isPassing(): boolean {
    return !this.isPaused && this.speed < Infinity;
  }

  /** Whether there is anything to go on with. */
  get isGoing(): boolean {
    return this.isBusy || (!this.isPaused && this.live.isMoving);
  }

  /** Whether time runs by itself to somewhere: back, or to what is looked for. */
  private get isBusy(): boolean {
    return (
      this.again !== null ||
      this.ahead !== null ||
      this.pressing !== null ||
      (this.sought?.stops === true && this.live.nextNs < Infinity)
    );
  }

  /** Lets so many milliseconds of the person's time pass, and works on that until `isEnough` says so. */
  advance(ms: number, isEnough: IsEnough): void {
    if (this.again) this.doAgain(this.again, isEnough);
    else if (this.ahead) this.goAhead(this.ahead, isEnough);
    else if (this.pressing) this.goOnPressing(this.pressing, isEnough);
    else if (this.sought?.stops) this.goTo(this.sought.hasCome, isEnough);
    else this.pass(ms, isEnough);
  }

  private pass(ms: number, isEnough: IsEnough): void {
    const { live } = this;
    const end = this.isPaused ? live.timeNs : this.speed === Infinity ? Infinity : live.timeNs + ms * 1e6 * this.speed;
    while (live.nextNs <= end && live.nextNs < Infinity) {
      this.at.changedNs = live.nextNs;
      live.runUntil(end === Infinity || this.sought ? live.nextNs : end, EVENTS_A_LOOK);
      if (this.sought?.hasCome()) {
        this.sought = null;
        this.comeTo(live.timeNs);
      }
      if (isEnough()) break;
    }
    this.isBehind = live.nextNs <= end && end < Infinity;
    if (!this.isBehind && end < Infinity) live.runUntil(end);
  }

  /** Runs from moment to moment until what is sought has come; time stands then. */
  private goTo(hasCome: () => boolean, isEnough: IsEnough): void {
    let moments = 0;
    while (this.live.nextNs < Infinity) {
      this.at.toNext();
      if (hasCome()) {
        this.sought = null;
        this.isPaused = true;
        this.watchPassing();
        this.handSerial++;
        this.comeTo(this.live.timeNs);
        return;
      }
      if (++moments % MOMENTS_A_LOOK === 0 && isEnough()) return;
    }
    this.cannotCome();
  }

  private cannotCome(): void {
    this.sought = null;
    this.search = { ...this.search, findings: [finding('trace-rests', [], {})] };
  }
}
