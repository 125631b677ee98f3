import { findChip, type PartType, type Unit } from '../catalogue';
import { HIGH, LOW, MachineRun, UNKNOWN } from '../logic';

/** What a pin shows: low, high, floating (an open output that is off, too), or unknown. */
export type Shown = 'L' | 'H' | 'Z' | 'X';

/**
 * A chip on its own, pins by name, as on a tester: set inputs, read outputs. Timers that end pulses
 * are inputs too.
 */
export class ChipBench {
  private readonly units: { readonly unit: Unit; readonly run: MachineRun }[];
  private readonly inputs = new Map<string, { readonly run: MachineRun; readonly i: number }[]>();
  private readonly outputs = new Map<
    string,
    { readonly run: MachineRun; readonly o: number; readonly isOpen: boolean }
  >();
  readonly inputNames: readonly string[];

  constructor(chip: string | PartType) {
    const type = typeof chip === 'string' ? findChip(chip) : chip;
    if (!type) throw new Error(`no chip ${chip}`);
    this.units = type.units.map((unit) => ({ unit, run: new MachineRun(unit.machine) }));
    for (const { unit, run } of this.units) {
      unit.behaviour.outputs.forEach(({ name }, o) => {
        this.outputs.set(name, { run, o, isOpen: unit.machine.outputs[o]?.open === true });
      });
      unit.behaviour.inputs.forEach((name, i) => {
        this.inputs.set(name, [...(this.inputs.get(name) ?? []), { run, i }]);
      });
    }
    this.inputNames = [...this.inputs.keys()];
  }

  /** Sets inputs by name at once, then lets the chip settle. */
  set(levels: Readonly<Record<string, number>>): this {
    for (const [name, level] of Object.entries(levels)) {
      const places = this.inputs.get(name);
      if (!places) throw new Error(`no input ${name}`);
      for (const { run, i } of places) run.setInput(i, level);
    }
    for (const { run } of this.units) if (!run.settle()) throw new Error('does not settle');
    return this;
  }

  /** Puts everything that is stored at a level, as after a power up that went that way. */
  store(level: number): this {
    for (const { run, unit } of this.units)
      for (let i = 0; i < unit.behaviour.stored.length; i++) run.setStored(i, level);
    return this.set({});
  }

  read(name: string): Shown {
    const place = this.outputs.get(name);
    if (!place) throw new Error(`no output ${name}`);
    const { run, o, isOpen } = place;
    const [level, drives] = [run.outputLevel(o), run.outputDriven(o)];
    if (isOpen) return level === HIGH ? 'Z' : level === LOW ? 'L' : 'X';
    if (drives === LOW) return 'Z';
    return drives === UNKNOWN || level === UNKNOWN ? 'X' : level === HIGH ? 'H' : 'L';
  }

  /** Several outputs as one word: `QD QC QB QA` shows `LHLH`. */
  word(names: string): string {
    return names
      .split(' ')
      .map((name) => this.read(name))
      .join('');
  }

  get outputNames(): readonly string[] {
    return this.units.flatMap(({ unit }) => unit.behaviour.outputs.map((o) => o.name));
  }
}
