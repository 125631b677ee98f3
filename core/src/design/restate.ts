import { elementAt } from '../element-at';
import { type Finding, finding } from '../finding';
import {
  addRow,
  type Cube,
  chain,
  compile,
  type Expr,
  exprOfCover,
  type Functions,
  factored,
  fromOneKind,
  listRows,
  minimise,
  negated,
  offRows,
  productOfSums,
  type Rows,
  rowBit,
  type SolveInteger,
  sizeOf,
  sweep,
  withXor,
} from '../logic';
import { type Reading, readSheet } from './design';
import type { Library } from './elaborate';
import { editLines, type LineEdit, lineMaking } from './line-edit';
import { type Netlist, netlistOf, networkOf } from './netlist';
import type { Clauses, Equation, Sheet, Statement } from './sheet';

/** The forms a signal can be put into. */
export type Form = 'sum' | 'product' | 'factored' | 'xor' | 'nand' | 'nor' | 'selector' | 'decoder';

/** The forms with the titles that screens and the command line give them, in the order of the menu. */
export const forms: readonly { readonly form: Form; readonly title: string }[] = [
  { form: 'sum', title: 'smallest sum of products' },
  { form: 'product', title: 'smallest product of sums' },
  { form: 'factored', title: 'factored' },
  { form: 'xor', title: 'with exclusive or' },
  { form: 'nand', title: 'NANDs alone' },
  { form: 'nor', title: 'NORs alone' },
  { form: 'selector', title: 'by selector' },
  { form: 'decoder', title: 'by decoder' },
];

/** How large signals are: gates that make them, those on the longest way, and literals as written. */
export interface Size {
  readonly gates: number;
  readonly levels: number;
  readonly literals: number;
}

/**
 * Signals in another form: the whole sheet with their lines changed, what stands there now, and its size.
 * `proved`: no sum (or product) of fewer terms does the same, and of those none with fewer literals;
 * null for forms of which nothing is claimed.
 */
export interface Restated {
  readonly form: Form;
  readonly signals: readonly string[];
  readonly text: string;
  readonly lines: readonly string[];
  readonly size: Size;
  readonly proved: boolean | null;
}

/** Most inputs of a function that is restated. */
export const MAX_RESTATE_INPUTS = 16;

/** The signals of a sheet that can be restated: each made by an equation or table of its own. */
export function restatable({ sheet, design }: Reading): string[] {
  const made = new Set(design.equations.filter((e) => !e.open && !e.when).map((e) => e.target.name));
  return [...made].filter((name) => !name.includes('.') && lineMaking(sheet, name) >= 0);
}

/** How large some signals are as the sheet has them. */
export function sizeOfSignals({ design }: Reading, signals: readonly string[]): Size {
  const equations = signals.flatMap((name) => design.equations.filter((e) => e.target.name === name));
  const netlist = partial(design.equations, design, equations);
  const { gates, outputs } = netlist;
  const level = new Map<string, number>();
  for (const g of gates) level.set(g.output, 1 + Math.max(0, ...g.inputs.map((n) => level.get(n) ?? 0)));
  const parts = netlist.cells.filter((c) => c.kind === 'part').length;
  return {
    gates: gates.length + parts,
    levels: Math.max(0, ...outputs.map((o) => level.get(o.net) ?? 0)) + (parts > 0 ? 1 : 0),
    literals: equations.reduce((n, e) => n + sizeOf(e.expr), 0),
  };
}

/**
 * Puts signals into another form. Gives findings instead when a form cannot be had: too many inputs,
 * nothing to gain from exclusive ors, no line of its own.
 */
export async function restate(
  text: string,
  { signals, form }: { readonly signals: readonly string[]; readonly form: Form },
  library: Library,
  solve: SolveInteger | null = null,
): Promise<{ restated: Restated | null; findings: readonly Finding[] }> {
  const reading = readSheet(text, library);
  const no = (found: Finding) => ({ restated: null, findings: [found] });
  if (!reading.design.netlist) return { restated: null, findings: reading.findings };
  const able = new Set(restatable(reading));
  const stranger = signals.find((name) => !able.has(name));
  if (stranger !== undefined || signals.length === 0)
    return no(finding('restate/no-line', [], { name: stranger ?? 'nothing' }));
  const problem = problemOf(reading, signals);
  if (problem.functions === null)
    return no(finding('restate/too-wide', [], { inputs: problem.names.length, limit: MAX_RESTATE_INPUTS }));
  const answer = await new Restater(reading, { signals, names: problem.names, f: problem.functions }, solve).make(form);
  if ('code' in answer) return no(answer);
  const changed = editLines(text, answer.edits);
  const lines = answer.edits.flatMap((e) => e.statements);
  const after = readSheet(changed, library);
  const printed = editLines('', [{ line: 0, statements: lines, after: true }])
    .split('\n')
    .slice(1);
  const restated = { form, signals, text: changed, lines: printed, proved: answer.proved };
  return { restated: { ...restated, size: sizeOfSignals(after, signals) }, findings: [] };
}

/** What some signals are, over the sources they depend on; no functions when those are too many. */
function problemOf({ design }: Reading, signals: readonly string[]): { names: string[]; functions: Functions | null } {
  const equations = signals.map((name) => design.equations.find((e) => e.target.name === name) as Equation);
  const netlist = partial(design.equations, design, equations);
  const { inputs, gates } = networkOf(netlist);
  const read = new Set([...gates.flatMap((g) => g.inputs), ...netlist.outputs.map((o) => o.net)]);
  const used = inputs.filter((n) => read.has(n));
  if (used.length > MAX_RESTATE_INPUTS) return { names: used, functions: null };
  const table = sweep(compile({ inputs: used, gates, outputs: netlist.outputs.map((o) => o.net) }));
  const free = signals.map((_, i) => {
    const never = elementAt(table.columns, signals.length + 2 * i);
    const own = elementAt(table.columns, signals.length + 2 * i + 1);
    return never.map((w, k) => w | elementAt(own, k));
  });
  const on = signals.map((_, i) => elementAt(table.columns, i).map((w, k) => w & ~elementAt(elementAt(free, i), k)));
  return withoutIdle({ inputs: used.length, on, free }, used);
}

/** Leaves out inputs that no function depends on. */
function withoutIdle(f: Functions, names: readonly string[]): { names: string[]; functions: Functions } {
  let functions = f;
  let left = [...names];
  for (const name of names) {
    const k = left.length - 1 - left.indexOf(name);
    const less = without(functions, k);
    if (!less || left.length === 1) continue;
    functions = less;
    left = left.filter((n) => n !== name);
  }
  return { names: left, functions };
}

/** The functions without the input at bit k, when each wants the same with it low and high; null otherwise. */
function without({ inputs, on, free }: Functions, k: number): Functions | null {
  const n = inputs - 1;
  const rows = 2 ** n;
  const [ons, frees]: [Rows[], Rows[]] = [[], []];
  for (let o = 0; o < on.length; o++) {
    const [newOn, newFree] = [new Int32Array(Math.max(1, rows >>> 5)), new Int32Array(Math.max(1, rows >>> 5))];
    const [onRows, freeRows] = [elementAt(on, o), elementAt(free, o)];
    for (let r = 0; r < rows; r++) {
      const low = ((r >>> k) << (k + 1)) | (r & ((1 << k) - 1));
      const high = low | (1 << k);
      const wants = [low, high].flatMap((x) => (rowBit(freeRows, x) ? [] : [rowBit(onRows, x)]));
      if (wants.length === 2 && wants[0] !== wants[1]) return null;
      if (wants.length === 0) addRow(newFree, r);
      else if (wants[0] === 1) addRow(newOn, r);
    }
    ons.push(newOn);
    frees.push(newFree);
  }
  return { inputs: n, on: ons, free: frees };
}

/** The netlist of some equations' expressions, and after them of each one's rows that never come and do not matter. */
function partial(
  all: readonly Equation[],
  { inputs, parts, never }: Reading['design'],
  chosen: readonly Equation[],
): Netlist {
  const extra = chosen.map((e, i): Equation => ({ target: { name: `restated.${i}` }, expr: e.expr }));
  const cares = chosen.flatMap((e, i): Equation[] => [
    { target: { name: `never.${i}` }, expr: chain('or', never) },
    { target: { name: `free.${i}` }, expr: e.dontCare ?? { kind: 'const', value: 0 } },
  ]);
  const outputs = [...extra, ...cares].map((e) => e.target);
  return netlistOf({
    inputs,
    outputs,
    equations: [...all, ...extra, ...cares],
    parts,
    never: [],
    fittings: [],
    pulses: [],
  }).netlist;
}

interface Answer {
  readonly edits: readonly LineEdit[];
  readonly proved: boolean | null;
}

/** Makes the lines of each form. */
class Restater {
  private readonly signals: readonly string[];
  private readonly names: readonly string[];
  private readonly f: Functions;

  constructor(
    private readonly reading: Reading,
    {
      signals,
      names,
      f,
    }: { readonly signals: readonly string[]; readonly names: readonly string[]; readonly f: Functions },
    private readonly solve: SolveInteger | null,
  ) {
    this.signals = signals;
    this.names = names;
    this.f = f;
  }

  async make(form: Form): Promise<Answer | Finding> {
    switch (form) {
      case 'sum': {
        const { exprs, proved } = await this.sums();
        return this.equations(exprs, proved);
      }
      case 'product': {
        const { exprs, proved } = await this.productsOfSums();
        return this.equations(exprs, proved);
      }
      case 'factored':
        return this.equations(
          (await this.factoreds()).map(({ expr }) => expr),
          null,
        );
      case 'xor':
        return this.xor();
      case 'nand':
        return this.oneKind('nand');
      case 'nor':
        return this.oneKind('nor');
      case 'selector':
        return this.selector();
      case 'decoder':
        return this.decoder();
    }
  }

  private async sums(): Promise<{ exprs: Expr[]; proved: boolean; cubes: Cube[][] }> {
    const { cubes, proved } = await this.fewest(this.f.on, (list) => exprOfCover(list, this.names));
    return { exprs: cubes.map((list) => exprOfCover(list, this.names)), proved, cubes };
  }

  private async productsOfSums(): Promise<{ exprs: Expr[]; proved: boolean; cubes: Cube[][] }> {
    const { inputs, on, free } = this.f;
    const off = on.map((rows, o) => offRows(rows, elementAt(free, o), inputs));
    const { cubes, proved } = await this.fewest(off, (list) => productOfSums(list, this.names));
    return { exprs: cubes.map((list) => productOfSums(list, this.names)), proved, cubes };
  }

  /**
   * The products of each function: shared between them where that saves gates, otherwise each function's
   * own smallest.
   */
  private async fewest(
    on: readonly Rows[],
    form: (list: readonly Cube[]) => Expr,
  ): Promise<{ cubes: Cube[][]; proved: boolean }> {
    const { inputs, free } = this.f;
    const each = await Promise.all(
      on.map((rows, o) => minimise({ inputs, on: [rows], free: [elementAt(free, o)] }, this.solve)),
    );
    const own = { cubes: each.map((e) => [...e.products]), proved: each.every((e) => e.proved) };
    if (on.length === 1) return own;
    const { products, proved } = await minimise({ inputs, on, free }, this.solve);
    const shared = on.map((_, o) => products.filter((p) => (p.serves >>> o) & 1));
    const gates = (cubes: readonly Cube[][]): number => gatesIn(cubes.map(form), this.names);
    return gates(shared) < gates(own.cubes) ? { cubes: shared, proved } : own;
  }

  /** Each signal factored, from its ones or its zeros, whichever comes out shorter. */
  private async factoreds(): Promise<{ expr: Expr }[]> {
    const [ones, zeros] = [await this.sums(), await this.productsOfSums()];
    return ones.cubes.map((list, o) => {
      const short = factored(list, this.names);
      const other = negated(factored(elementAt(zeros.cubes, o), this.names));
      return { expr: sizeOf(other) < sizeOf(short) ? other : short };
    });
  }

  private async xor(): Promise<Answer | Finding> {
    const plain = await this.factoreds();
    let used = false;
    const exprs: Expr[] = [];
    for (const [o, { expr }] of plain.entries()) {
      const form = await withXor(elementAt(this.f.on, o), elementAt(this.f.free, o), this.names);
      const shorter = form !== null && sizeOf(form) < sizeOf(expr);
      if (shorter) used = true;
      exprs.push(shorter ? form : expr);
    }
    if (!used) return finding('restate/no-xor', [], { names: this.signals.join(', ') });
    return this.equations(exprs, null);
  }

  /** From two levels or from the factored form, whichever takes fewer gates. */
  private async oneKind(kind: 'nand' | 'nor'): Promise<Answer> {
    const two = kind === 'nand' ? (await this.sums()).exprs : (await this.productsOfSums()).exprs;
    const many = (await this.factoreds()).map((x) => x.expr);
    const [a, b] = [two, many].map((exprs) => exprs.map((e) => fromOneKind(e, kind))) as [Expr[], Expr[]];
    return this.equations(gatesIn(b, this.names) < gatesIn(a, this.names) ? b : a, null);
  }

  private equations(exprs: readonly Expr[], proved: boolean | null): Answer {
    const statements = exprs.map((expr, i): Statement => {
      const name = elementAt(this.signals, i);
      const clauses = this.clausesOf(name);
      return { kind: 'equation', target: { name }, expr, ...(clauses && { clauses }) };
    });
    return { edits: this.replacing(statements.map((s) => [s])), proved };
  }

  /** The clauses a signal keeps: those of its equation, or the don't-cares of its table. */
  private clausesOf(name: string): Clauses | undefined {
    const { sheet, design } = this.reading;
    const statement = sheet.lines[lineMaking(sheet, name)]?.statement;
    if (statement?.kind === 'equation') return statement.clauses;
    const dontCare = design.equations.find((e) => e.target.name === name)?.dontCare;
    return dontCare && { dontCare };
  }

  /** The edits that put statements in the place of each signal's own; a table keeps its other columns. */
  private replacing(statements: readonly (readonly Statement[])[]): LineEdit[] {
    const { sheet } = this.reading;
    const byLine = new Map<number, { own: Statement[]; gone: string[] }>();
    this.signals.forEach((name, i) => {
      const line = lineMaking(sheet, name);
      const entry = byLine.get(line) ?? { own: [], gone: [] };
      entry.own.push(...elementAt(statements, i));
      entry.gone.push(name);
      byLine.set(line, entry);
    });
    return [...byLine].flatMap(([line, { own, gone }]) => tableEdits(sheet, line, own, gone));
  }

  private selector(): Answer | Finding {
    const n = this.names.length;
    if (n < 2 || n > 4) return finding('restate/not-so-wide', [], { inputs: n, form: 'A selector', least: 2, most: 4 });
    const wide = n === 4;
    const address = wide ? ['C', 'B', 'A'] : ['B', 'A'];
    const used = Math.min(n - 1, address.length);
    const rest = elementAt(this.names, n - 1);
    const statements = this.signals.map((name, o): Statement[] => {
      const data = (k: number): Expr => this.datum(o, k, rest);
      const lines = Array.from({ length: 2 ** address.length }, (_, k) => k);
      const letters = wide ? 'D' : '1C';
      const pins = [
        ...address.map((pin, i) => ({ pin, expr: this.addressed(i - (address.length - used)) })),
        ...lines.map((k) => ({ pin: `${letters}${k}`, expr: k < 2 ** used ? data(k) : constant(0) })),
        ...(wide
          ? [{ pin: 'Gn', expr: constant(0) }]
          : [
              { pin: '1Gn', expr: constant(0) },
              { pin: '2Gn', expr: constant(1) },
            ]),
        ...(wide ? [] : [0, 1, 2, 3].map((k) => ({ pin: `2C${k}`, expr: constant(0) }))),
        { pin: wide ? 'Y' : '1Y', expr: { kind: 'name', name } as Expr },
      ];
      return [{ kind: 'use', part: { name: wide ? '74151' : '74153' }, ref: { name: this.freeRef('sel', o) }, pins }];
    });
    return { edits: this.replacing(statements), proved: null };
  }

  /** Address input i of those in use; those before the first are tied low. */
  private addressed(i: number): Expr {
    return i < 0 ? constant(0) : { kind: 'name', name: elementAt(this.names, i) };
  }

  /** What data input k of a selector gets: 0, 1, the last input or its complement. */
  private datum(o: number, k: number, rest: string): Expr {
    const { on, free } = this.f;
    const want = (row: number): number | null =>
      rowBit(elementAt(free, o), row) ? null : rowBit(elementAt(on, o), row);
    const [low, high] = [want(2 * k), want(2 * k + 1)];
    if (low === null || high === null || low === high) return constant((low ?? high ?? 0) as 0 | 1);
    const name: Expr = { kind: 'name', name: rest };
    return high === 1 ? name : { kind: 'not', of: name };
  }

  private decoder(): Answer | Finding {
    const n = this.names.length;
    if (n < 2 || n > 4) return finding('restate/not-so-wide', [], { inputs: n, form: 'A decoder', least: 2, most: 4 });
    const wide = n === 4;
    const ref = this.freeRef('dec', 0);
    const address = wide ? ['D', 'C', 'B', 'A'] : ['C', 'B', 'A'];
    const pins = [
      ...address.map((pin, i) => ({ pin, expr: this.addressed(i - (address.length - n)) })),
      ...(wide ? ['G1n', 'G2n'] : ['G2An', 'G2Bn']).map((pin) => ({ pin, expr: constant(0) })),
      ...(wide ? [] : [{ pin: 'G1', expr: constant(1) }]),
    ];
    const use: Statement = { kind: 'use', part: { name: wide ? '74154' : '74138' }, ref: { name: ref }, pins };
    const statements = this.signals.map((name, o): Statement[] => {
      const ones = listRows(elementAt(this.f.on, o));
      const zeros = listRows(offRows(elementAt(this.f.on, o), elementAt(this.f.free, o), n));
      const clauses = this.clausesOf(name);
      const equation: Statement = {
        kind: 'equation',
        target: { name },
        expr: fromLines(ones, zeros, (k) => ({ kind: 'name', name: `${ref}.Y${k}n` })),
        ...(clauses && { clauses }),
      };
      return o === 0 ? [use, equation] : [equation];
    });
    return { edits: this.replacing(statements), proved: null };
  }

  private freeRef(stem: string, skip: number): string {
    const taken = new Set(this.reading.design.parts.map((p) => p.ref));
    let k = 1;
    for (let left = skip; taken.has(`${stem}${k}`) || left > 0; k++) if (!taken.has(`${stem}${k}`)) left--;
    return `${stem}${k}`;
  }
}

const constant = (value: 0 | 1): Expr => ({ kind: 'const', value });

/** A signal from the low-active lines of a decoder: NAND of its ones, or AND of its zeros, whichever are fewer. */
function fromLines(ones: readonly number[], zeros: readonly number[], line: (k: number) => Expr): Expr {
  if (ones.length === 0) return constant(0);
  if (zeros.length === 0) return constant(1);
  const few = ones.length <= zeros.length;
  const of = (few ? ones : zeros).map(line);
  if (of.length === 1) return few ? negated(elementAt(of, 0)) : elementAt(of, 0);
  return { kind: 'gate', gate: few ? 'nand' : 'and', of, infix: false };
}

/** What becomes of the line of some signals, and of the rows below it when it is a table. */
function tableEdits(sheet: Sheet, line: number, own: readonly Statement[], gone: readonly string[]): LineEdit[] {
  const statement = sheet.lines[line]?.statement;
  if (statement?.kind !== 'table') return [{ line, statements: own }];
  const kept = statement.outputs.flatMap((o, i) => (gone.includes(o.name) ? [] : [i]));
  const edits: LineEdit[] = [];
  const head = { ...statement, outputs: kept.map((i) => elementAt(statement.outputs, i)) };
  edits.push({ line, statements: kept.length > 0 ? [...own, head] : own });
  if (statement.cells !== undefined) return edits;
  for (let below = line + 1; below < sheet.lines.length; below++) {
    const row = sheet.lines[below]?.statement;
    if (!row) continue;
    if (row.kind !== 'row') break;
    const outputs = kept.map((i) => row.outputs[i]).join('');
    edits.push({ line: below, statements: kept.length > 0 ? [{ ...row, outputs }] : [] });
  }
  return edits;
}

/** Gates that some expressions take, equal ones made once. */
function gatesIn(exprs: readonly Expr[], names: readonly string[]): number {
  const inputs = names.map((name) => ({ name }));
  const equations = exprs.map((expr, i) => ({ target: { name: `restated.${i}` }, expr }));
  const outputs = equations.map((e) => e.target);
  return netlistOf({ inputs, outputs, equations, parts: [], never: [], fittings: [], pulses: [] }).netlist.gates.length;
}
