import { elementAt } from '../element-at';
import { atText, type Finding, finding, type Span } from '../finding';
import type { Expr } from '../logic';
import { rangeOf, wiresOf } from './bus';
import { DISPLAY_SIGNALS, type FittedSignals, type WantedPulses, type WrittenFitting } from './fitting';
import type { Clauses, Declarations, Equation, Line, PinJoin, Sheet, Signal, Statement, UsedPart } from './sheet';
import { type TabledOutput, tableOfCells, tableOfRows, type WrittenRow } from './table-statement';

/**
 * What a sheet may use by number: the part's base number, its behaviour as a sheet, and the inputs of that
 * sheet that are no pins of the part and rest low; null when there is no such part or it computes nothing.
 */
export type Library = (number: string) => LibraryPart | null;

/** A part as a sheet uses it by number: its base number, its behaviour as a sheet, and inputs of that sheet that are no pins. */
export interface LibraryPart {
  readonly base: string;
  readonly sheet: Sheet;
  readonly idle?: readonly string[];
  /** Its one-shots, whose pulses may be given a length: for each the pins that must be joined to one signal for that, an output last. */
  readonly oneShots?: readonly (readonly string[])[];
  /** It joins its pins to each other instead of driving them: no sheet can use it. */
  readonly joinsPins?: true;
  /** The definition of a part that the sheet defines itself. */
  readonly own?: string;
  /** Of a memory whose contents are put in: how many words of how many bits, and its behaviour with some. */
  readonly memory?: {
    readonly words: number;
    readonly bits: number;
    /** What a cell holds that was never programmed. */
    readonly blank: 0 | 1;
    readonly holding: (words: readonly number[]) => Sheet;
  };
}

/** The library of a sheet that uses no parts. */
export const noLibrary: Library = () => null;

/** The most signals a sheet may come to when it is written out, and how deep blocks may use blocks. */
const MAX_SIGNALS = 50_000;
const MAX_BLOCK_DEPTH = 20;

/** Gives up a statement; never leaves this file. No Error: a stack for each statement takes long. */
class StatementError {
  constructor(readonly finding: Finding) {}
}

/** Names as one body of statements has them. */
interface Scope {
  /** Before every name of its own: nothing for the sheet itself, `H1.` for a block used as H1. */
  readonly prefix: string;
  /** Wires of each bus, by its name. */
  readonly buses: Map<string, string[]>;
  /** Names that stand for others: a block's outputs where they were given a name outside. */
  readonly aliases: ReadonlyMap<string, string>;
  readonly depth: number;
  /** Whether a name without a range is just itself here: no prefix, no buses, no aliases. */
  readonly plain: boolean;
}

/**
 * Writes a sheet out: buses wire by wire, tables as sums of products, blocks and (with `expand`) used
 * parts as their equations, under names such as `H1.s`. Each statement that cannot be written out
 * gives a finding at its place and is left out.
 */
export function elaborate(
  sheet: Sheet,
  library: Library,
  expand: boolean,
): { declared: Declarations; findings: Finding[] } {
  return new Elaborator(library, expand).run(sheet);
}

class Elaborator {
  private readonly findings: Finding[] = [];
  private readonly inputs: Signal[] = [];
  private readonly outputs: Signal[] = [];
  private readonly equations: Equation[] = [];
  private readonly parts: UsedPart[] = [];
  private readonly never: Expr[] = [];
  private readonly fittings: FittedSignals[] = [];
  private readonly pulses: WantedPulses[] = [];
  private readonly refs = new Set<string>();
  private readonly blocks = new Map<string, readonly Statement[]>();
  private full = false;
  /** Signals that are inputs and outputs, and those of them that something drives. */
  private both: ReadonlySet<string> = new Set();
  private readonly driven = new Set<string>();

  constructor(
    private readonly library: Library,
    private readonly expand: boolean,
  ) {}

  run(sheet: Sheet): { declared: Declarations; findings: Finding[] } {
    const body = this.takeBlocks(sheet.lines);
    const buses = busesOf(body);
    const scope: Scope = { prefix: '', buses, aliases: new Map(), depth: 0, plain: buses.size === 0 };
    for (const s of body) if (s.kind === 'in' || s.kind === 'out') this.declare(s);
    const inputs = new Set(this.inputs.map((s) => s.name));
    this.both = new Set(this.outputs.flatMap((s) => (inputs.has(s.name) ? [s.name] : [])));
    this.body(body, scope);
    const { equations, parts, never } = this;
    const outputs = this.outputs.map((s) => (this.driven.has(s.name) ? { ...s, drivenBy: driverOf(s.name) } : s));
    const declared = {
      inputs: this.inputs,
      outputs,
      equations,
      parts,
      never,
      fittings: this.fittings,
      pulses: this.pulses,
    };
    return { declared, findings: this.findings };
  }

  /** Sets blocks and parts of one's own apart and gives the statements of the sheet itself. */
  private takeBlocks(lines: readonly Line[]): Statement[] {
    const body: Statement[] = [];
    let block: { name: Signal; inside: Statement[] } | null = null;
    for (const { statement: s } of lines) {
      if (!s) continue;
      if (s.kind === 'part') {
        if (block) this.note(finding('sheet/block-in-block', [at(s.name)], { name: s.name.name }));
        block = { name: s.name, inside: [] };
      } else if (s.kind === 'block') {
        if (block) this.note(finding('sheet/block-in-block', [at(s.name)], { name: s.name.name }));
        else if (this.blocks.has(s.name.name))
          this.note(finding('sheet/block-twice', [at(s.name)], { name: s.name.name }));
        block = { name: s.name, inside: [] };
        this.blocks.set(s.name.name, block.inside);
      } else if (s.kind === 'end') {
        if (!block) this.note(finding('sheet/stray-end', [atText(s.at ?? nowhere)], {}));
        block = null;
      } else (block?.inside ?? body).push(s);
    }
    if (block) this.note(finding('sheet/block-open', [at(block.name)], { name: block.name.name }));
    return body;
  }

  private note(found: Finding): void {
    this.findings.push(found);
  }

  private declare({ kind, signals, fitted }: Extract<Statement, { kind: 'in' | 'out' }>): void {
    const wires = signals.flatMap(wired);
    (kind === 'in' ? this.inputs : this.outputs).push(...wires);
    if (fitted)
      this.fitOn(
        fitted,
        wires.map((w) => w.name),
      );
  }

  /** Notes what signals come from or are shown on. */
  private fitOn({ fitting, at: where }: WrittenFitting, signals: readonly string[]): void {
    const isDisplay = fitting.kind === 'display';
    const isSingle = fitting.kind === 'buzzer';
    if (isDisplay && !DISPLAY_SIGNALS.some((n) => n === signals.length))
      this.note(finding('sheet/display-signals', [atText(where ?? nowhere)], { count: signals.length }));
    else if (isSingle && signals.length > 1)
      this.note(finding('sheet/one-buzzer', [atText(where ?? nowhere)], { count: signals.length }));
    else this.fittings.push({ fitting, signals });
  }

  private body(statements: readonly Statement[], scope: Scope): void {
    for (let i = 0; i < statements.length; i++) {
      const s = elementAt(statements, i);
      if (s.kind === 'table') {
        const rows: WrittenRow[] = [];
        for (let next = statements[i + 1]; next?.kind === 'row'; next = statements[++i + 1])
          rows.push({ ...next, at: next.at ?? nowhere });
        this.recovering(() => this.table(s, rows, scope));
      } else if (s.kind === 'row') this.note(finding('sheet/stray-row', [atText(s.at ?? nowhere)], {}));
      else if (s.kind === 'holds') this.note(finding('sheet/stray-holds', [atText(s.at ?? nowhere)], {}));
      else if (s.kind === 'pins') this.note(finding('sheet/stray-pins', [at(s.names[0] ?? { name: '' })], {}));
      else if (s.kind === 'equation') this.recovering(() => this.equation(s, scope));
      else if (s.kind === 'never') this.recovering(() => this.never.push(this.scalar(s.expr, scope)));
      else if (s.kind === 'use') this.recovering(() => this.use(s, scope));
    }
  }

  private recovering(write: () => void): void {
    try {
      write();
    } catch (e) {
      if (!(e instanceof StatementError)) throw e;
      this.note(e.finding);
    }
  }

  private equation(s: Extract<Statement, { kind: 'equation' }>, scope: Scope): void {
    if (scope.plain && !s.clauses && isSingle(s.target.name) && isPlain(s.expr)) {
      this.emit({ target: s.target, expr: s.expr });
      return;
    }
    const targets = this.wires(s.target, scope);
    const width = targets.length;
    const values = this.fit(this.vector(s.expr, scope), width, s.expr);
    const clauses = Array.from({ length: width }, (_, i) => this.clauses(s.clauses, scope, width, i));
    targets.forEach((name, i) => {
      this.emit({ target: { ...s.target, name }, expr: elementAt(values, i), ...clauses[i] });
    });
  }

  private clauses(c: Clauses | undefined, scope: Scope, width: number, i: number): Clauses {
    if (!c) return {};
    const wire = (e: Expr): Expr => elementAt(this.fit(this.vector(e, scope), width, e), i);
    const { storage, forces, when, open, dontCare } = c;
    return {
      ...(storage?.kind === 'while' && { storage: { kind: 'while', enable: wire(storage.enable) } }),
      ...(storage && storage.kind !== 'while' && { storage: { ...storage, clock: this.scalar(storage.clock, scope) } }),
      ...(forces && { forces: forces.map((f) => ({ to: f.to, when: wire(f.when) })) }),
      ...(when && { when: wire(when) }),
      ...(open && { open }),
      ...(dontCare && { dontCare: wire(dontCare) }),
    };
  }

  private emit(written: Equation): void {
    const equation = this.fromInside(written);
    if (this.equations.length < MAX_SIGNALS) this.equations.push(equation);
    else if (!this.full) {
      this.full = true;
      this.note(finding('sheet/too-large', [at(equation.target)], { limit: MAX_SIGNALS }));
    }
  }

  /** What drives a signal that is an input too is kept apart from what comes in. */
  private fromInside(equation: Equation): Equation {
    const { target, when, open } = equation;
    if (!this.both.has(target.name) || (!when && !open)) return equation;
    this.driven.add(target.name);
    return { ...equation, target: { ...target, name: driverOf(target.name) } };
  }

  private table(s: Extract<Statement, { kind: 'table' }>, rows: readonly WrittenRow[], scope: Scope): void {
    const inputs = s.inputs.flatMap((signal) => this.wires(signal, scope));
    const outputs = s.outputs.flatMap((signal) => this.wires(signal, scope).map((name) => ({ ...signal, name })));
    const place = s.at ?? nowhere;
    let made: TabledOutput[];
    if (s.cells !== undefined) {
      if (outputs.length !== 1) throw new StatementError(finding('sheet/cells-of-many', [atText(place)], {}));
      const table = tableOfCells(s.cells, inputs, place);
      if ('code' in table) throw new StatementError(table);
      made = [table];
    } else {
      const table = tableOfRows(rows, inputs, outputs.length, place);
      for (const found of table.findings) this.note(found);
      made = table.outputs;
    }
    made.forEach(({ expr, dontCare }, i) => {
      const target = elementAt(outputs, i);
      this.emit({ target, expr: placed(expr, place), ...(dontCare && { dontCare }) });
    });
    // A table that could not be read still makes its signals, so that they are not told as unknown.
    if (made.length === 0)
      for (const target of outputs) this.emit({ target, expr: { kind: 'const', value: 0, at: place } });
  }

  private use(s: Extract<Statement, { kind: 'use' }>, scope: Scope): void {
    const name = s.part.name;
    const ref = scope.prefix + s.ref.name;
    const block = this.blocks.get(name);
    const found = block ? null : this.library(name);
    if (!block && !found) throw new StatementError(finding('sheet/unknown-part', [at(s.part)], { part: name }));
    if (found?.joinsPins) throw new StatementError(finding('sheet/part-joins', [at(s.part)], { part: found.base }));
    if (this.refs.has(ref)) throw new StatementError(finding('sheet/used-twice', [at(s.ref)], { name: ref }));
    if (scope.depth >= MAX_BLOCK_DEPTH)
      throw new StatementError(finding('sheet/blocks-too-deep', [at(s.part)], { name, limit: MAX_BLOCK_DEPTH }));
    this.refs.add(ref);
    const inside = block ?? (found?.sheet.lines.flatMap((l) => l.statement ?? []) as Statement[]);
    const pins = (kind: 'in' | 'out'): string[] =>
      inside.flatMap((t) => (t.kind === kind ? t.signals.flatMap((signal) => wired(signal).map((w) => w.name)) : []));
    const idle = new Set(found?.idle);
    const [ins, outs] = [pins('in').filter((pin) => !idle.has(pin)), pins('out')];
    const joins = this.joins(s.pins, { known: [...ins, ...outs], buses: busesOf(inside), part: name }, scope);
    if (s.pulses) this.wantPulses(s, ref, found?.oneShots ?? [], joins);
    // A pin that is an output too may be left to itself.
    const open = ins.filter((pin) => !joins.has(pin) && !outs.includes(pin));
    if (open.length > 0)
      throw new StatementError(finding('sheet/pins-open', [at(s.ref)], { ref: s.ref.name, pins: open.join(', ') }));
    const aliases = new Map<string, string>();
    for (const pin of outs) {
      const join = joins.get(pin);
      if (!join) continue;
      if (join.kind !== 'name')
        throw new StatementError(
          finding('sheet/output-joined', [atText(join.at ?? nowhere)], { pin, ref: s.ref.name }),
        );
      aliases.set(pin, join.name);
    }
    const inputs = ins.flatMap((pin) => {
      const expr = joins.get(pin);
      return expr ? [{ pin, expr }] : [];
    });
    if (!block && !this.expand) {
      const outputs = outs.map((pin) => ({ pin, signal: aliases.get(pin) ?? `${ref}.${pin}` }));
      const own = found?.own === undefined ? {} : { own: found.own };
      this.parts.push({ ref, part: found?.base ?? name, ...own, inputs, outputs, at: s.ref.at ?? nowhere });
      for (const [pin, signal] of aliases) this.alias(`${ref}.${pin}`, signal, s.ref);
      return;
    }
    for (const pin of idle)
      this.emit({ target: { name: `${ref}.${pin}`, at: nowhere }, expr: { kind: 'const', value: 0 } });
    // A pin that is both is the signal outside; the others get a name of their own.
    for (const { pin, expr } of inputs)
      if (!aliases.has(pin)) this.emit({ target: { name: `${ref}.${pin}`, at: expr.at ?? nowhere }, expr });
    const prefix = `${ref}.`;
    this.body(inside, { prefix, buses: busesOf(inside), aliases, depth: scope.depth + 1, plain: false });
    for (const [pin, signal] of aliases) this.alias(`${prefix}${pin}`, signal, s.ref);
  }

  /** Notes how long the one-shots of a part are to last: one time for all, or one for each. */
  private wantPulses(
    { pulses = [], ref: at }: Extract<Statement, { kind: 'use' }>,
    ref: string,
    oneShots: NonNullable<LibraryPart['oneShots']>,
    joins: ReadonlyMap<string, Expr>,
  ): void {
    const place = [atText(at.at ?? nowhere)];
    const count = oneShots.length;
    if (count === 0 || (pulses.length > 1 && pulses.length !== count))
      throw new StatementError(finding('sheet/pulses', place, { ref: at.name, has: count, given: pulses.length }));
    // An output without a name is read by its own.
    const signalOf = (pin: string): string => {
      const join = joins.get(pin);
      return join?.kind === 'name' ? join.name : `${ref}.${pin}`;
    };
    const apart = oneShots.find((pins) => new Set(pins.map(signalOf)).size > 1);
    if (apart)
      throw new StatementError(finding('sheet/pulse-pins', place, { ref: at.name, pins: apart.join(' and ') }));
    const seconds = oneShots.map((_, i) => pulses[i] ?? elementAt(pulses, 0));
    this.pulses.push({ ref, seconds });
  }

  /** Lets a pin be read by its dotted name even where its output was given another. */
  private alias(name: string, signal: string, ref: Signal): void {
    this.emit({ target: { name, at: ref.at ?? nowhere }, expr: { kind: 'name', name: signal, at: ref.at ?? nowhere } });
  }

  /** What each pin is joined to, wire by wire. */
  private joins(
    pins: readonly PinJoin[],
    {
      known,
      buses,
      part,
    }: { readonly known: readonly string[]; readonly buses: ReadonlyMap<string, string[]>; readonly part: string },
    scope: Scope,
  ): Map<string, Expr> {
    const joins = new Map<string, Expr>();
    const namesOf = (pin: string): readonly string[] => {
      const range = rangeOf(pin);
      return range ? wiresOf(range) : (buses.get(pin) ?? [pin]);
    };
    const unknown = pins.filter(({ pin }) => !namesOf(pin).every((n) => known.includes(n)));
    if (unknown.length > 0) throw new StatementError(unknownPins(unknown, known, part));
    for (const { pin, expr, at: where } of pins) {
      const place = [atText(where ?? nowhere)];
      const names = namesOf(pin);
      const values = this.fit(this.vector(expr, scope), names.length, expr);
      names.forEach((n, i) => {
        if (joins.has(n)) throw new StatementError(finding('sheet/pin-twice', place, { pin: n }));
        joins.set(n, elementAt(values, i));
      });
    }
    return joins;
  }

  /** A vector of the wanted width: one wire serves all of a bus. */
  private fit(vector: readonly Expr[], width: number, e: Expr): readonly Expr[] {
    if (vector.length === width) return vector;
    if (vector.length === 1) return Array.from({ length: width }, () => elementAt(vector, 0));
    throw new StatementError(
      finding('sheet/bus-width', [atText(e.at ?? nowhere)], { given: vector.length, wanted: width }),
    );
  }

  private scalar(e: Expr, scope: Scope): Expr {
    return elementAt(this.fit(this.vector(e, scope), 1, e), 0);
  }

  /** An expression wire by wire. Infix gates work wire by wire; functions take all wires at once. */
  private vector(e: Expr, scope: Scope): readonly Expr[] {
    if (e.kind === 'const') return [e];
    if (e.kind === 'name') return this.wires({ name: e.name }, scope).map((name) => ({ ...e, name }));
    if (e.kind === 'not') return this.vector(e.of, scope).map((of) => ({ ...e, of }));
    const of = e.of.map((x) => this.vector(x, scope));
    if (!e.infix) {
      const wires = of.flat();
      if (wires.length > 1) return [{ ...e, of: wires }];
      throw new StatementError(
        finding('sheet/function-arity', [atText(e.at ?? nowhere)], {
          name: e.gate,
          given: 'one input',
          needs: 'two or more, with commas between',
        }),
      );
    }
    const width = Math.max(...of.map((v) => v.length));
    const fitted = of.map((v, k) => this.fit(v, width, elementAt(e.of, k)));
    return Array.from({ length: width }, (_, i) => ({ ...e, of: fitted.map((v) => elementAt(v, i)) }));
  }

  /** The full names of a written name: one, or the wires of a bus. */
  private wires({ name }: Signal, scope: Scope): string[] {
    const range = rangeOf(name);
    const names = range ? wiresOf(range) : (scope.buses.get(name) ?? [name]);
    return names.map((n) => scope.aliases.get(n) ?? scope.prefix + n);
  }
}

/** An expression all of which stands at one place: what a table comes to stands at its head. Changes the fresh one given. */
function placed(e: Expr & { at?: Span }, at: Span): Expr {
  e.at = at;
  if (e.kind === 'not') placed(e.of, at);
  else if (e.kind === 'gate') for (const x of e.of) placed(x, at);
  return e;
}

const isSingle = (name: string): boolean => !name.includes('[');

/** Whether an expression names single signals alone. */
function isPlain(e: Expr): boolean {
  if (e.kind === 'name') return isSingle(e.name);
  if (e.kind === 'not') return isPlain(e.of);
  return e.kind === 'const' || (e.of.length > 1 && e.of.every(isPlain));
}

const driverOf = (name: string): string => `${name}.out`;
const nowhere: Span = { from: 0, to: 0 };
const at = (s: Signal) => atText(s.at ?? nowhere);

/** A declared signal wire by wire; the wires of a bus share its label. */
function wired(signal: Signal): Signal[] {
  const range = rangeOf(signal.name);
  if (!range) return [signal];
  return wiresOf(range).map((name) => ({
    ...signal,
    name,
    ...(signal.label !== undefined && { label: `${signal.label}, ${name.slice(range.base.length)}` }),
  }));
}

/** Pins that a part does not have, all at once, with those it has and which of them may be meant. */
function unknownPins(pins: readonly PinJoin[], known: readonly string[], part: string): Finding {
  const all = [...new Set(known)];
  const list = all.length > 24 ? [...all.slice(0, 24), '…'] : all;
  const bare = (pin: string): string => pin.replace(/n$/, '');
  const near = pins.flatMap(({ pin }) => {
    const isMeant = [(k: string) => bare(k) === bare(pin), (k: string) => k.toLowerCase() === pin.toLowerCase()];
    const meant = isMeant.map((fits) => all.find(fits)).find((k) => k !== undefined);
    return meant === undefined ? [] : [`${meant} for ${pin}`];
  });
  return finding('sheet/unknown-pin', [atText(elementAt(pins, 0).at ?? nowhere)], {
    part,
    pin: pins.map((p) => p.pin).join(', '),
    pins: list.join(' '),
    hint: near.length === 0 ? '' : ` Did you mean ${near.join(', ')}?`,
  });
}

/** The buses that a body declares or makes, each with its wires in the order first written. */
function busesOf(statements: readonly Statement[]): Map<string, string[]> {
  const buses = new Map<string, string[]>();
  const add = ({ name }: Signal): void => {
    const range = rangeOf(name);
    if (range && range.high !== range.low && !buses.has(range.base)) buses.set(range.base, wiresOf(range));
  };
  for (const s of statements) {
    if (s.kind === 'in' || s.kind === 'out') s.signals.forEach(add);
    else if (s.kind === 'equation') add(s.target);
    else if (s.kind === 'table') s.outputs.forEach(add);
  }
  return buses;
}
