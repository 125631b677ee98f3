import type { Board, Nets } from '../board';
import { finding } from '../finding';
import { type Circuit, compileCircuit } from './circuit';
import type { LiveSettings, LiveState, Numbers, Search, Speed, TimeCommand, TraceFile } from './live-state';
import { PassageWatch } from './passage';
import { lastPassing, type PassingState } from './passing-states';
import { PoweredBoard } from './powered-board';
import { labelledSignals, netNamed } from './run';
import { readSought, type Sought, watcherOf, whenTrue } from './seek';
import { type Parting, SheetWatch } from './sheet-watch';
import { Trace } from './trace';
import { traceCsvOf, vcdOf } from './trace-files';
import { between, edgeBeside, type MarkName, snapped, type TraceMarks } from './trace-marks';
import { type Scope, type TraceColumns, windowOf } from './trace-window';
import { panelOf, placeNamed, rowAtHand } from './walk';

/** What was done to a live board at a moment, in nanoseconds: enough to do it all again. */
type Touch = { readonly atNs: number } & (
  | { readonly kind: 'switches'; readonly positions: ReadonlyMap<string, boolean> }
  | { readonly kind: 'dials'; readonly positions: ReadonlyMap<string, number> }
  | { readonly kind: 'burn'; readonly lamp: string; readonly ma: number }
);

/** An LED past its maximum for so long is destroyed, in nanoseconds. */
const BURN_NS = 100e6;
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

/**
 * A board under power as a person has it before them: time runs at the speed that is asked for, and what is seen is told in whole. Knows no clock: the
 * caller says how much time has passed, and when to stop working.
 */
export class LiveRun {
  private live!: PoweredBoard;
  private trace!: Trace;
  private sheetWatch: SheetWatch | null = null;
  private passing!: PassageWatch;
  private readonly circuit: Circuit;
  private readonly panel: ReturnType<typeof panelOf> | null;
  private speed: Speed;
  isPaused: boolean;
  private isBehind = false;
  /** When it was touched last, and when something happened last, in nanoseconds. */
  private touchedNs = 0;
  private changedNs = 0;
  private scope: Scope | null;
  private traced: readonly string[];
  private numbers: Numbers;
  private marks: TraceMarks = { a: null, b: null, between: {} };
  /** Marks of before that time has not reached yet. */
  private markedAhead: { a: number | null; b: number | null };

  /** Lamps that are destroyed, with what did it; and since when others are past their maximum, in nanoseconds. */
  private destroyed = new Map<string, number>();
  private readonly overSince = new Map<string, number>();
  /** Where potentiometers stand that were turned. */
  private dials = new Map<string, number>();

  /** All that was done since the power came on; time is wound back by doing it again. */
  private touches: Touch[] = [];
  /** What is being done again, and up to when. */
  private again: { readonly touches: readonly Touch[]; next: number; readonly toNs: number } | null = null;
  /** A switch that is being pressed by itself, and how many edges it is yet to give. */
  private pressing: { readonly index: number; readonly to: 0 | 1 | null; left: number } | null = null;
  private sought: { readonly hasCome: () => boolean; readonly stops: boolean } | null = null;
  /** So far time is run on, as fast as it goes. */
  private ahead: { readonly fromNs: number; readonly toNs: number } | null = null;
  private handSerial = 0;
  private search: Omit<Search, 'isOn' | 'isWaiting' | 'share'> = { serial: 0, atNs: null, findings: [] };

  constructor(
    private readonly board: Board,
    private readonly nets: Nets,
    private readonly settings: LiveSettings,
  ) {
    const { subject, speed, isPaused } = settings;
    this.circuit = compileCircuit(board);
    this.panel = subject && panelOf(board, this.circuit, subject.inputs, subject.outputs);
    this.speed = speed;
    this.isPaused = isPaused;
    this.scope = settings.scope;
    this.traced = settings.traced;
    this.numbers = settings.numbers ?? new Map();
    this.markedAhead = { a: null, b: null, ...settings.marks };
    this.begin();
  }

  /** Powers the board up, with everything as it was set then. */
  private begin(): void {
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
    this.watchPassing();
    this.trace.alsoTell = (islands) => this.passing.take(islands);
    // The sheet's machine begins as the board does, and hears of each press.
    const watch = sheet && new SheetWatch(this.live, board, sheet);
    this.sheetWatch = watch?.isByHand ? watch : null;
    this.touches = [];
    this.dials = new Map(settings.dials);
    for (const [ref, position] of settings.dials) this.live.setDial(ref, position);
    this.move(new Map(settings.on.map((ref) => [ref, true])));
    this.follow();
  }

  /** Moves actuators, by name. */
  setSwitches(positions: ReadonlyMap<string, boolean>): void {
    if (this.again) return;
    this.touches.push({ kind: 'switches', atNs: this.live.timeNs, positions });
    this.move(positions);
    this.follow();
  }

  private move(positions: ReadonlyMap<string, boolean>): void {
    this.passing.begin();
    this.circuit.switches.forEach(({ ref, hertz }, i) => {
      const on = positions.get(ref);
      if (on === undefined || hertz !== null || this.live.isOn(i) === on) return;
      this.live.setSwitch(i, on);
      this.sheetWatch?.pressed(i);
    });
  }

  /** Turns potentiometers, by reference, to positions from 0 to DIAL_END; what follows is worked out as after a switch. */
  setDials(positions: ReadonlyMap<string, number>): void {
    if (this.again) return;
    this.touches.push({ kind: 'dials', atNs: this.live.timeNs, positions });
    this.turn(positions);
    this.follow();
  }

  private turn(positions: ReadonlyMap<string, number>): void {
    for (const [ref, position] of positions) {
      this.dials.set(ref, position);
      this.live.setDial(ref, position);
    }
  }

  /** Works out what follows a touch within moments, unless time is slowed down or stands. */
  private follow(): void {
    this.touchedNs = this.live.timeNs;
    this.changedNs = this.live.timeNs;
    if (this.isPaused || this.speed < 1) return;
    this.runOn(this.live.timeNs + AT_ONCE_NS);
  }

  private runOn(endNs: number): void {
    const last = this.live.events + AT_ONCE_EVENTS;
    while (this.live.nextNs <= endNs && this.live.events < last) this.toNext();
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

  /** Shows several rows as one number, whose passing states are told. */
  setNumbers(numbers: Numbers): void {
    this.numbers = numbers;
  }

  private passingStates(): ReadonlyMap<string, readonly PassingState[]> {
    const rowNamed = new Map(this.trace.rows.map((row) => [row.name, row]));
    return new Map(
      [...this.numbers].map(([name, of]) => [name, lastPassing(of.flatMap((one) => rowNamed.get(one) ?? []))]),
    );
  }

  /** Sets a mark at a moment, on the nearest edge of a signal if that is near enough; takes it away where no moment is given. */
  setMark(
    mark: MarkName,
    at: { readonly name: string; readonly timeNs: number; readonly withinNs: number } | null,
  ): void {
    const row = this.trace.rows.find((r) => r.name === at?.name);
    const timeNs = at && Math.max(0, Math.min(at.timeNs, this.live.timeNs));
    this.mark(mark, at && row && timeNs !== null ? snapped(row, timeNs, at.withinNs) : timeNs);
  }

  /** Moves a mark to the next edge of a signal, or the last one before it; one that is not set comes to the signal's last edge. */
  moveMark(mark: MarkName, name: string, isForward: boolean): void {
    const row = this.trace.rows.find((r) => r.name === name);
    const from = this.marks[mark];
    const next = row && edgeBeside(row, from ?? this.live.timeNs, from !== null && isForward);
    if (next != null) this.mark(mark, next);
  }

  /** Marks that lie in time that was wound back are gone; the others are measured again. */
  private markAgain(): void {
    const { a, b } = this.marks;
    const { timeNs } = this.live;
    this.marks = { a: a !== null && a <= timeNs ? a : null, b: b !== null && b <= timeNs ? b : null, between: {} };
    this.mark('a', this.marks.a);
  }

  /** Sets the marks of before that time has reached. */
  private reachMarks(): void {
    for (const mark of ['a', 'b'] as const) {
      const atNs = this.markedAhead[mark];
      if (atNs !== null && atNs <= this.live.timeNs) this.mark(mark, atNs);
    }
  }

  private mark(mark: MarkName, timeNs: number | null): void {
    this.markedAhead[mark] = null;
    const a = mark === 'a' ? timeNs : this.marks.a;
    const b = mark === 'b' ? timeNs : this.marks.b;
    // What has been does not change: it is measured once.
    const measured =
      a === null || b === null ? [] : this.trace.rows.map((row) => [row.name, between(row, a, b)] as const);
    this.marks = { a, b, between: Object.fromEntries(measured) };
  }

  /** Looks at another span of what is traced. */
  setScope(scope: Scope | null): void {
    this.scope = scope;
  }

  /** Changes how time runs. */
  setPace(speed: Speed, isPaused: boolean): void {
    this.speed = speed;
    this.isPaused = isPaused;
    this.isBehind = false;
    this.watchPassing();
  }

  private watchPassing(): void {
    this.passing.setSlow(this.isPaused || this.speed < SLOW);
  }

  /** Goes on to the next moment in which something happens. */
  step(): void {
    if (this.live.nextNs < Infinity) this.toNext();
  }

  private toNext(): void {
    this.live.runUntil(this.live.nextNs);
    this.changedNs = this.live.timeNs;
  }

  /**
   * Winds time back: the board is powered up again, and all that was done up to then is done again. Later touches are forgotten; time
   * stands there.
   */
  windTo(timeNs: number): void {
    const toNs = Math.max(0, Math.min(timeNs, this.live.timeNs));
    const touches = this.touches.filter(({ atNs }) => atNs <= toNs);
    this.sought = null;
    this.pressing = null;
    this.ahead = null;
    this.isPaused = true;
    this.begin();
    this.again = { touches, next: 0, toNs };
  }

  /** Winds time back to the last change of what is traced, before now. */
  stepBack(): void {
    const times = this.trace.rows.flatMap((row) => edgeBeside(row, this.live.timeNs, false) ?? []);
    this.windTo(Math.max(0, ...times));
  }

  /** Does what was done again, until that is all or `isEnough` says so. */
  private doAgain(again: NonNullable<LiveRun['again']>, isEnough: () => boolean): void {
    const { live } = this;
    for (;;) {
      const touch = again.touches[again.next];
      const untilNs = touch?.atNs ?? again.toNs;
      live.runUntil(untilNs, EVENTS_A_LOOK);
      if (live.nextNs > untilNs) {
        if (!touch) break;
        again.next++;
        this.touches.push(touch);
        if (touch.kind === 'switches') this.move(touch.positions);
        else if (touch.kind === 'dials') this.turn(touch.positions);
        else this.burnOut(touch.lamp, touch.ma);
        this.touchedNs = touch.atNs;
      }
      if (isEnough()) return;
    }
    this.again = null;
    this.changedNs = live.timeNs;
    this.markAgain();
    this.handSerial++;
  }

  /**
   * Looks for something: edges of a signal, or an expression of the sheet language that becomes true, in what is to come. With `stops`, time runs as
   * fast as it goes until then and stands; otherwise it runs as it does. A signal that a person's switch gives is pressed.
   */
  seek(sought: Sought, stops: boolean): void {
    if (this.again) return;
    const index = sought.kind === 'edges' ? this.switchOf(sought.name) : -1;
    if (sought.kind === 'edges' && index >= 0) {
      this.press(index, sought);
      return;
    }
    const hasCome = watcherOf(sought, this.trace.rows);
    const findings = sought.kind === 'true' ? readSought(sought.text, this.trace.rows).findings : [];
    this.search = { ...this.search, findings };
    this.sought = hasCome && { hasCome, stops };
    if (hasCome && stops && this.live.nextNs === Infinity) this.cannotCome();
  }

  /** Runs time on by so much, as fast as it goes; time stands then. */
  runAhead(forNs: number): void {
    if (this.again || !(forNs > 0)) return;
    const fromNs = this.live.timeNs;
    this.ahead = { fromNs, toNs: Math.min(fromNs + forNs, MOST_NS) };
  }

  private goAhead({ toNs }: NonNullable<LiveRun['ahead']>, isEnough: () => boolean): void {
    const { live } = this;
    while (live.nextNs <= toNs) {
      live.runUntil(toNs, EVENTS_A_LOOK);
      if (live.nextNs <= toNs && isEnough()) return;
    }
    live.runUntil(toNs);
    this.changedNs = live.timeNs;
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
  stopSeeking(): void {
    this.sought = null;
    this.pressing = null;
    if (this.ahead) {
      this.ahead = null;
      this.isPaused = true;
      this.handSerial++;
    }
    this.search = { ...this.search, findings: [] };
  }

  /** Goes to the moment nearest to mark A, or to now, at which an expression became true in what is traced; looks on in time where there is none. */
  find(text: string, isForward: boolean): void {
    const { expr, findings } = readSought(text, this.trace.rows);
    this.search = { ...this.search, findings };
    if (!expr) return;
    const fromNs = this.marks.a ?? this.live.timeNs;
    const atNs = whenTrue(this.trace.rows, expr, { fromNs, isForward });
    if (atNs !== null) this.found(atNs);
    else if (isForward) this.seek({ kind: 'true', text }, true);
    else this.search = { ...this.search, findings: [finding('trace-never-true', [], { text })] };
  }

  private found(atNs: number): void {
    this.search = { serial: this.search.serial + 1, atNs, findings: [] };
    this.mark('a', atNs);
  }

  /** The switch that a person moves for a signal, by its index; -1 where there is none. */
  private switchOf(name: string): number {
    const place = placeNamed(this.board, 'give', name);
    return this.circuit.switches.findIndex(({ ref, hertz }) => ref === place?.called && hertz === null);
  }

  /** Presses a switch until it has given so many edges to a level: a few at once, more beside what else is asked. */
  private press(index: number, { to, count }: Extract<Sought, { kind: 'edges' }>): void {
    this.pressing = { index, to, left: Math.min(count, MOST_PULSES) };
    let presses = 0;
    this.goOnPressing(this.pressing, () => ++presses >= PRESSES_AT_ONCE);
  }

  private goOnPressing(pressing: NonNullable<LiveRun['pressing']>, isEnough: () => boolean): void {
    const { index, to } = pressing;
    const ref = this.circuit.switches[index]?.ref ?? '';
    while (pressing.left > 0) {
      const on = !this.live.isOn(index);
      const positions = new Map([[ref, on]]);
      const atNs = this.live.timeNs;
      this.touches.push({ kind: 'switches', atNs, positions });
      this.move(positions);
      this.touchedNs = atNs;
      this.runOn(atNs + PRESS_NS);
      this.live.runUntil(Math.max(this.live.timeNs, atNs + PRESS_NS));
      if (!this.live.isMoving) this.sheetWatch?.look();
      if (to === null || on === (to === 1)) pressing.left--;
      if (isEnough()) break;
    }
    if (pressing.left === 0) this.pressing = null;
    this.handSerial++;
  }

  /** Does what a person asks of time. */
  inTime(command: TimeCommand): void {
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
  advance(ms: number, isEnough: () => boolean): void {
    if (this.again) this.doAgain(this.again, isEnough);
    else if (this.ahead) this.goAhead(this.ahead, isEnough);
    else if (this.pressing) this.goOnPressing(this.pressing, isEnough);
    else if (this.sought?.stops) this.goTo(this.sought.hasCome, isEnough);
    else this.pass(ms, isEnough);
  }

  private pass(ms: number, isEnough: () => boolean): void {
    const { live } = this;
    const end = this.isPaused ? live.timeNs : this.speed === Infinity ? Infinity : live.timeNs + ms * 1e6 * this.speed;
    while (live.nextNs <= end && live.nextNs < Infinity) {
      this.changedNs = live.nextNs;
      live.runUntil(end === Infinity || this.sought ? live.nextNs : end, EVENTS_A_LOOK);
      if (this.sought?.hasCome()) {
        this.sought = null;
        this.found(live.timeNs);
      }
      if (isEnough()) break;
    }
    this.isBehind = live.nextNs <= end && end < Infinity;
    if (!this.isBehind && end < Infinity) live.runUntil(end);
  }

  /** Runs from moment to moment until what is sought has come; time stands then. */
  private goTo(hasCome: () => boolean, isEnough: () => boolean): void {
    let moments = 0;
    while (this.live.nextNs < Infinity) {
      this.toNext();
      if (hasCome()) {
        this.sought = null;
        this.isPaused = true;
        this.watchPassing();
        this.handSerial++;
        this.found(this.live.timeNs);
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

  /** Destroys lamps that have been past their maximum for long enough, or are while the board rests. */
  private burn(): void {
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
      if (!isResting && live.timeNs - since < BURN_NS) return;
      this.touches.push({ kind: 'burn', atNs: live.timeNs, lamp: ref, ma });
      this.burnOut(ref, ma);
    });
  }

  private burnOut(lamp: string, ma: number): void {
    this.destroyed.set(lamp, ma);
    this.live.burn(lamp);
  }

  /** Writes the trace as a file of a kind, which the next state carries. */
  writeTrace(kind: TraceFile['kind']): void {
    const text = kind === 'vcd' ? vcdOf(this.trace, this.live.timeNs) : traceCsvOf(this.trace);
    this.file = { kind, text };
  }

  private file: TraceFile | null = null;

  private takeFile(): TraceFile | null {
    const { file } = this;
    this.file = null;
    return file;
  }

  private parting(isMoving: boolean): Parting | null {
    if (!isMoving) this.sheetWatch?.look();
    return this.sheetWatch?.parting ?? null;
  }

  private wantedColumns(): readonly TraceColumns[] {
    const { scope, sheetWatch } = this;
    if (!scope || !sheetWatch?.parting) return [];
    return windowOf({ rows: sheetWatch.wanted }, scope, this.live.timeNs).rows;
  }

  private switchesOn(): string[] {
    return this.circuit.switches.flatMap(({ ref, hertz }, i) => (hertz === null && this.live.isOn(i) ? [ref] : []));
  }

  /** What is seen now. */
  state(): LiveState {
    const { live } = this;
    if (!this.again) this.burn();
    this.reachMarks();
    const count = live.nets.nets.length;
    const [levels, volts, hertz] = [new Uint8Array(count), new Float32Array(count), new Float32Array(count)];
    for (let net = 0; net < count; net++) {
      levels[net] = live.levelOf(net);
      volts[net] = live.voltsOf(net) ?? Number.NaN;
      hertz[net] = live.hertzOf(net);
    }
    const isMoving = live.isMoving;
    return {
      timeNs: live.timeNs,
      events: live.events,
      settleNs: Math.max(0, this.changedNs - this.touchedNs),
      isMoving,
      isShorted: live.shorted,
      supplyMa: live.supplyMa,
      supplyV: live.supplyV,
      levels,
      volts,
      hertz,
      lamps: new Map(live.circuit.leds.map(({ ref }, i) => [ref, live.lamp(i)])),
      destroyed: new Map(this.destroyed),
      overloads: live.overloadedOutputs(),
      timing: live.timingFaults,
      clocksOn: live.circuit.switches.flatMap(({ ref, hertz: rate }, i) =>
        rate !== null && live.isOn(i) ? [ref] : [],
      ),
      row: this.panel && !isMoving ? rowAtHand(live, this.panel, true) : null,
      file: this.takeFile(),
      hand: { serial: this.handSerial, on: this.switchesOn(), dials: new Map(this.dials), isPaused: this.isPaused },
      search: { ...this.search, isOn: this.isBusy, isWaiting: this.sought?.stops === false, share: this.share },
      parting: this.parting(isMoving),
      passage: this.passing.passage,
      passing: this.passingStates(),
      marks: this.marks,
      trace: this.scope ? windowOf(this.trace, this.scope, live.timeNs) : null,
      wanted: this.wantedColumns(),
      unknownLoop: isMoving ? null : live.unknownLoop,
      isBehind: this.isBehind,
    };
  }
}
