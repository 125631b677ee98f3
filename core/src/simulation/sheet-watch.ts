import { spokenPin } from '../board';
import { elementAt } from '../element-at';
import { type Finding, finding } from '../finding';
import { type Behaviour, compileMachine, evaluateLevels, HIGH, LOW, MachineRun, UNKNOWN } from '../logic';
import type { PoweredBoard } from './powered-board';
import { TraceRow } from './trace';
import { lampsOf, panelOf } from './walk';

/** What a live board is held to: the design, and where the signals that its gates make are on the board, in the order in which they are made. */
export interface WatchedSheet {
  readonly behaviour: Behaviour;
  readonly pins: readonly { readonly signal: string; readonly pin: string }[];
}

/** Where a board first did otherwise than its sheet. */
export interface Parting {
  /** What was pressed since the power came on, in order. */
  readonly presses: readonly string[];
  /** The outputs that differ: what should be shown, and what is (LOW, HIGH or UNKNOWN). */
  readonly outputs: readonly { readonly name: string; readonly wanted: 0 | 1; readonly seen: number }[];
  /** The first pin, in the order in which gates feed each other, at another level than the sheet's; null where none is. */
  readonly pin: string | null;
}

/** The most presses that are kept to be told. */
const MOST_PRESSES = 400;

/**
 * Runs a sheet's own machine beside a live board, on the same presses, and notes where the board's lamps first differ from it. What the sheet does not
 * know, such as what is stored before a reset, differs from nothing.
 */
export class SheetWatch {
  private readonly run: MachineRun;
  private readonly panel: ReturnType<typeof panelOf>;
  private readonly presses: string[] = [];
  private readonly slotOf: ReadonlyMap<string, number>;
  parting: Parting | null = null;
  /** What the sheet's outputs do, by name, each from press to press. */
  readonly wanted: readonly TraceRow[];

  constructor(
    private readonly live: PoweredBoard,
    board: Parameters<typeof panelOf>[0],
    private readonly sheet: WatchedSheet,
  ) {
    const { behaviour } = sheet;
    this.panel = panelOf(
      board,
      live.circuit,
      behaviour.inputs,
      behaviour.outputs.map((o) => o.name),
    );
    // A machine whose outputs are all of its nets: each is asked for by its slot.
    const nets = [...behaviour.inputs, ...behaviour.stored.map((s) => s.name), ...behaviour.gates.map((g) => g.output)];
    this.slotOf = new Map(nets.map((net, i) => [net, 2 + i]));
    this.run = new MachineRun(compileMachine(behaviour));
    behaviour.inputs.forEach((_, i) => {
      this.run.setInput(i, this.isOn(i) ? HIGH : LOW);
    });
    this.run.settle();
    this.wanted = behaviour.outputs.map(({ name }) => new TraceRow(name, -1));
    this.note();
  }

  /** Notes what the sheet's outputs are now. */
  private note(): void {
    this.wanted.forEach((row, o) => {
      row.note(this.live.timeNs, this.wantedLevel(o) ?? UNKNOWN, Number.NaN);
    });
  }

  /** The level that the sheet wants of an output now; null where it does not matter, floats or is not known. */
  private wantedLevel(output: number): 0 | 1 | null {
    const { machine, slots } = this.run;
    const { value, floats, dontCare } = elementAt(machine.outputs, output);
    const level = slots[value];
    const isFree = slots[floats] !== LOW || slots[dontCare] !== LOW || level === UNKNOWN;
    return isFree ? null : (level as 0 | 1);
  }

  /** Whether every input is moved by hand: presses alone tell what the sheet does then. */
  get isByHand(): boolean {
    return this.panel.switches.every((s) => this.live.circuit.switches[s]?.isByHand !== false);
  }

  private isOn(input: number): boolean {
    const at = this.panel.switches[input] ?? -1;
    return at >= 0 && this.live.isOn(at);
  }

  /** A switch of the board has been moved, by its index in the circuit. */
  pressed(index: number): void {
    const input = this.panel.switches.indexOf(index);
    if (input < 0) return;
    this.run.setInput(input, this.isOn(input) ? HIGH : LOW);
    this.run.settle();
    this.note();
    this.presses.push(elementAt(this.sheet.behaviour.inputs, input));
    if (this.presses.length > MOST_PRESSES) this.presses.shift();
  }

  /** Compares the lamps of the board, at rest, with what the sheet has come to; the first difference is kept. */
  look(): void {
    if (this.parting) return;
    const { outputs } = this.sheet.behaviour;
    const seen = lampsOf(this.live, this.panel);
    const differing = outputs.flatMap(({ name }, o) => {
      const wanted = this.wantedLevel(o);
      if (wanted === null || (this.panel.leds[o] ?? -1) < 0 || seen[o] === wanted) return [];
      return [{ name, wanted, seen: elementAt(seen, o) }];
    });
    if (differing.length > 0) this.parting = { presses: [...this.presses], outputs: differing, pin: this.firstPin() };
  }

  private firstPin(): string | null {
    evaluateLevels(this.run.machine.program, this.run.slots);
    const parted = this.sheet.pins.find(({ signal, pin }) => {
      const wanted = this.run.slots[this.slotOf.get(signal) ?? -1];
      return (wanted === LOW || wanted === HIGH) && this.live.levelAt(pin) !== wanted;
    });
    return parted?.pin ?? null;
  }
}

/** A parting as a finding: what was pressed last, which outputs differ, and the pin that parted first. */
export function partingFinding({ presses, outputs, pin }: Parting): Finding {
  const level = (seen: number): string => (seen === UNKNOWN ? '?' : String(seen));
  const said = outputs.slice(0, 4).map(({ name, wanted, seen }) => `${name} should be ${wanted} and is ${level(seen)}`);
  return finding('sheet-parted', pin === null ? [] : [{ kind: 'pin', pin }], {
    after: presses.length === 0 ? 'the power came on' : `${presses.slice(-6).join(', ')}`,
    outputs: said.join(', ') + (outputs.length > 4 ? ', and more' : ''),
    pin: pin === null ? 'no pin of a gate' : spokenPin(pin),
  });
}
