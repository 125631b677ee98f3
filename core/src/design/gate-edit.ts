import { elementAt } from '../element-at';
import { type Finding, finding, type Span } from '../finding';
import { type Connective, chain, complement, type Expr, eachName, type GateKind, negated } from '../logic';
import { type Reading, readSheet } from './design';
import type { Library } from './elaborate';
import { expressionsOf } from './equation';
import { editLines, type LineEdit, lineMaking } from './line-edit';
import type { Gate } from './netlist';
import { type Line, opensSection, type Statement } from './sheet';
import { canName, renamed, signalsOf } from './symbols';

/**
 * What a person does to a gate of the diagram, named by the net it drives: change its kind, give it one
 * more input, put another net at one of its inputs (counted from 0), cut one, take the gate out, name
 * what it drives, or make a new gate of some signals. `signal` is a signal of the sheet or any net of
 * the diagram.
 */
export type GateEdit =
  | { readonly act: 'change'; readonly gate: string; readonly kind: GateKind }
  | { readonly act: 'connect'; readonly gate: string; readonly signal: string }
  | { readonly act: 'rewire'; readonly gate: string; readonly input: number; readonly signal: string }
  | { readonly act: 'cut'; readonly gate: string; readonly input: number }
  | { readonly act: 'remove'; readonly gate: string }
  | { readonly act: 'name'; readonly gate: string; readonly name: string }
  | { readonly act: 'add'; readonly kind: GateKind; readonly inputs: readonly string[]; readonly name: string };

/** The sheet after an edit, or why there is none. */
export type GateEdited =
  | { readonly ok: true; readonly text: string }
  | { readonly ok: false; readonly finding: Finding };

const no = (found: Finding): GateEdited => ({ ok: false, finding: found });

/**
 * Edits the sheet as a gate of its diagram is edited: only the lines that write the gate change. A gate
 * written in several places changes in all of them; one of a block changes wherever the block is used.
 * A table whose gate is edited is written out as equations first. The gates inside used parts have no
 * expression on the sheet and cannot be edited. `library` knows the parts used by number.
 */
export function editGate(text: string, reading: Reading, edit: GateEdit, library: Library): GateEdited {
  const { design, sheet } = reading;
  if (!design.netlist) return no(finding('gate/sheet-broken', [], {}));
  if (edit.act === 'add') return added(text, reading, { kind: edit.kind, inputs: edit.inputs, name: edit.name });
  const gate = design.netlist.gates.find((g) => g.output === edit.gate);
  // Names inside a block are its own: there, gates can only be changed in themselves.
  const inside = edit.act === 'change' || edit.act === 'cut' || edit.act === 'remove';
  const owners = gate ? linesWriting(sheet.lines, gate.places, inside) : [];
  if (!gate || owners.length === 0) {
    const opened = gate && tableWrittenOut(text, reading, gate);
    if (opened) return editGate(opened, readSheet(opened, library), edit, library);
    return no(finding('gate/not-written', [], { gate: edit.gate }));
  }
  if (edit.act === 'name') return named(text, reading, { gate, name: edit.name, owners });
  const refused = refusal(reading, gate, edit);
  if (refused) return no(refused);
  const operand = 'signal' in edit ? operandOf(reading, edit.signal) : null;
  if ('signal' in edit && !operand) return no(finding('gate/no-signal', [], { name: edit.signal }));
  const change = (e: Expr): Expr | null => changed(e, edit, operand);
  const edits: LineEdit[] = [];
  for (const line of owners) {
    const statement = withExprs(sheet.lines[line]?.statement as Statement, (e) => replaced(e, gate.places, change));
    if (statement === 'stuck') return no(finding('gate/needed', [], { gate: gate.output }));
    edits.push({ line, statements: statement ? [statement] : [] });
  }
  return { ok: true, text: editLines(text, edits) };
}

function refusal(reading: Reading, gate: Gate, edit: GateEdit): Finding | null {
  const single = gate.kind === 'not';
  if (edit.act === 'connect' && single) return finding('gate/one-input', [], { gate: gate.output });
  if (edit.act === 'change' && (edit.kind === 'not') !== single)
    return finding('gate/one-input', [], { gate: gate.output });
  if ((edit.act === 'connect' || edit.act === 'rewire') && dependsOn(reading, edit.signal, gate.output))
    return finding('gate/would-loop', [], { gate: gate.output, signal: edit.signal });
  return null;
}

type Equation = Extract<Statement, { kind: 'equation' }>;

/** Numbers of the lines that write any of some spans; those of blocks too if `inside`. */
function linesWriting(lines: readonly Line[], places: readonly Span[], inside = false): number[] {
  let inBlock = false;
  return lines.flatMap(({ statement: s }, i) => {
    if (opensSection(s)) inBlock = true;
    if (s?.kind === 'end') inBlock = false;
    return (inside || !inBlock) && s && exprsOf(s).some((e) => writes(e, places)) ? [i] : [];
  });
}

/** The expressions of a statement that come to gates. */
function exprsOf(s: Statement): readonly Expr[] {
  if (s.kind === 'use') return s.pins.map((p) => p.expr);
  return s.kind === 'equation' ? expressionsOf({ ...s, ...s.clauses }, false) : [];
}

/**
 * A statement with its expressions replaced. An equation whose value is gone goes; `stuck` when what a
 * clause or a pin reads would be gone.
 */
function withExprs(s: Statement, change: (e: Expr) => Expr | null): Statement | null | 'stuck' {
  let stuck = false;
  const must = (e: Expr): Expr => {
    const after = change(e);
    if (!after) stuck = true;
    return after ?? e;
  };
  if (s.kind === 'use') {
    const pins = s.pins.map((p) => ({ ...p, expr: must(p.expr) }));
    return stuck ? 'stuck' : { ...s, pins };
  }
  if (s.kind !== 'equation') return s;
  const expr = change(s.expr);
  if (!s.clauses) return expr && { ...s, expr };
  const { storage, forces, when } = s.clauses;
  const clauses = {
    ...s.clauses,
    ...(storage?.kind === 'while' && { storage: { ...storage, enable: must(storage.enable) } }),
    ...(storage && storage.kind !== 'while' && { storage: { ...storage, clock: must(storage.clock) } }),
    ...(forces && { forces: forces.map((f) => ({ ...f, when: must(f.when) })) }),
    ...(when && { when: must(when) }),
  };
  if (stuck) return 'stuck';
  return expr && { ...s, expr, clauses };
}

/** What stands for a net in an expression: its signal's name, or for a net without one the expression of its gate. */
function operandOf({ sheet, design }: Reading, net: string): Expr | null {
  const named = [...signalsOf(sheet), ...design.inputs.map((s) => s.name)].includes(net);
  if (named || design.equations.some((e) => e.target.name === net)) return { kind: 'name', name: net };
  if (design.parts.some((p) => p.outputs.some((o) => o.signal === net))) return { kind: 'name', name: net };
  const gate = design.netlist?.gates.find((g) => g.output === net);
  for (const { statement: s } of gate ? sheet.lines : [])
    for (const e of s ? exprsOf(s) : []) {
      const found = within(e, gate?.places ?? []);
      if (found) return found;
    }
  return null;
}

/** The first part of an expression that stands at any of some places. */
function within(e: Expr, places: readonly Span[]): Expr | null {
  if (isAt(e, places)) return e;
  if (e.kind === 'not') return within(e.of, places);
  for (const x of e.kind === 'gate' ? e.of : []) {
    const found = within(x, places);
    if (found) return found;
  }
  return null;
}

/** The sheet with the table that a gate comes from written out as equations; null when it comes from none. */
function tableWrittenOut(text: string, { sheet, design }: Reading, gate: Gate): string | null {
  let inBlock = false;
  const line = sheet.lines.findIndex(({ statement: s }) => {
    if (opensSection(s)) inBlock = true;
    if (s?.kind === 'end') inBlock = false;
    return (
      !inBlock && s?.kind === 'table' && s.at !== undefined && isAt({ kind: 'const', value: 0, at: s.at }, gate.places)
    );
  });
  const table = sheet.lines[line]?.statement;
  if (table?.kind !== 'table' || !table.at) return null;
  const { at } = table;
  const statements = design.equations
    .filter((e) => e.expr.at?.from === at.from && e.expr.at.to === at.to)
    .map(
      ({ target, expr, dontCare }): Statement => ({
        kind: 'equation',
        target: { name: target.name },
        expr,
        ...(dontCare && { clauses: { dontCare } }),
      }),
    );
  const edits: LineEdit[] = [{ line, statements }];
  for (let i = line + 1; sheet.lines[i]?.statement?.kind === 'row'; i++) edits.push({ line: i, statements: [] });
  return editLines(text, edits);
}

const isAt = (e: Expr, places: readonly Span[]): boolean =>
  e.at !== undefined && places.some((p) => p.from === e.at?.from && p.to === e.at?.to);

function writes(e: Expr, places: readonly Span[]): boolean {
  if (isAt(e, places)) return true;
  return e.kind === 'not' ? writes(e.of, places) : e.kind === 'gate' && e.of.some((x) => writes(x, places));
}

/** An expression with those at some places changed; an operand that is gone leaves its gate, null means all is gone. */
function replaced(e: Expr, places: readonly Span[], change: (e: Expr) => Expr | null): Expr | null {
  if (isAt(e, places)) return change(e);
  if (e.kind === 'not') {
    const of = replaced(e.of, places, change);
    return of && { ...e, of };
  }
  if (e.kind !== 'gate') return e;
  return withOperands(
    e,
    e.of.flatMap((x) => replaced(x, places, change) ?? []),
  );
}

/** A gate with other operands: of one, what it comes to; of none, nothing. */
function withOperands(e: Extract<Expr, { kind: 'gate' }>, of: readonly Expr[]): Expr | null {
  if (of.length > 1) return { ...e, of };
  const [only] = of;
  if (!only) return null;
  return e.gate === 'nand' || e.gate === 'nor' || e.gate === 'xnor' ? negated(only) : only;
}

/** A gate's expression edited: a complement over a connective is one gate with it. */
function changed(e: Expr, edit: Exclude<GateEdit, { act: 'add' | 'name' }>, operand: Expr | null): Expr | null {
  const folded = e.kind === 'not' && e.of.kind === 'gate';
  const inner = folded ? e.of : e;
  if (edit.act === 'remove') return e.kind === 'not' && !folded ? e.of : null;
  if (edit.act === 'rewire' && e.kind === 'not' && !folded) return { ...e, of: operand ?? e.of };
  if (inner.kind !== 'gate') return e;
  const over = (x: Expr | null): Expr | null => (x && folded ? negated(x) : x);
  if (edit.act === 'connect') return over({ ...inner, of: [...inner.of, ...(operand ? [operand] : [])] });
  if (edit.act === 'rewire')
    return over({ ...inner, of: inner.of.map((x, i) => (i === edit.input ? (operand ?? x) : x)) });
  if (edit.act === 'cut') {
    const of = inner.of.filter((_, i) => i !== edit.input);
    return over(withOperands(inner, of));
  }
  return written(edit.kind as Connective, inner, folded);
}

/** A connective of the same operands, in the way the gate was written: infix with a complement over it, or a function. */
function written(kind: Connective, { of, infix }: Extract<Expr, { kind: 'gate' }>, folded: boolean): Expr {
  if (!infix && !folded) return { kind: 'gate', gate: kind, of, infix: false };
  const inverting = kind === 'nand' || kind === 'nor' || kind === 'xnor';
  const plain: Expr = { kind: 'gate', gate: inverting ? complement[kind] : kind, of, infix: true };
  return inverting ? { kind: 'not', of: plain } : plain;
}

function added(
  text: string,
  { sheet, design }: Reading,
  { kind, inputs, name }: { readonly kind: GateKind; readonly inputs: readonly string[]; readonly name: string },
): GateEdited {
  const names = new Set(signalsOf(sheet));
  // An output that is declared and not made yet is what a new gate may make.
  const isOpen = design.outputs.some((o) => o.name === name) && lineMaking(sheet, name) < 0;
  if (!canName(name) || (names.has(name) && !isOpen))
    return no(finding('gate/bad-name', [], { name: name.slice(0, 40) }));
  const known = new Set([...names, ...design.inputs.map((s) => s.name)]);
  const stranger = inputs.find((n) => !known.has(n) && !n.includes('.'));
  if (stranger !== undefined) return no(finding('gate/no-signal', [], { name: stranger }));
  if (kind === 'not' ? inputs.length !== 1 : inputs.length < 2)
    return no(
      finding('gate/inputs', [], {
        kind: kind.toUpperCase(),
        count: inputs.length,
        needs: kind === 'not' ? 'one' : 'two or more',
      }),
    );
  const of = inputs.map((n): Expr => ({ kind: 'name', name: n }));
  const expr: Expr =
    kind === 'not'
      ? { kind: 'not', of: elementAt(of, 0) }
      : kind === 'and' || kind === 'or' || kind === 'xor'
        ? chain(kind, of)
        : { kind: 'gate', gate: kind, of, infix: false };
  const equation: Statement = { kind: 'equation', target: { name }, expr };
  const last = sheet.lines.findLastIndex((l) => l.statement !== undefined);
  return { ok: true, text: editLines(text, [{ line: Math.max(0, last), statements: [equation], after: true }]) };
}

/** Gives what a gate drives a name: its signal is renamed, or its expression gets a line of its own above. */
function named(
  text: string,
  { sheet, design }: Reading,
  { gate, name, owners }: { readonly gate: Gate; readonly name: string; readonly owners: readonly number[] },
): GateEdited {
  const bad = no(finding('gate/bad-name', [], { name: name.slice(0, 40) }));
  const own = design.equations.some((e) => e.target.name === gate.output);
  if (own) {
    const after = renamed(text, gate.output, name);
    return after === null ? bad : { ok: true, text: after };
  }
  if (!canName(name) || signalsOf(sheet).includes(name)) return bad;
  let expr: Expr | null = null;
  const edits = owners.map((line): LineEdit => {
    const statement = sheet.lines[line]?.statement as Equation;
    const take = (e: Expr): Expr => {
      expr ??= e;
      return { kind: 'name', name };
    };
    return { line, statements: [{ ...statement, expr: replaced(statement.expr, gate.places, take) as Expr }] };
  });
  const [first] = edits;
  if (!first || !expr) return bad;
  const equation: Statement = { kind: 'equation', target: { name }, expr };
  return {
    ok: true,
    text: editLines(text, [...edits.slice(1), { line: first.line, statements: [equation, ...first.statements] }]),
  };
}

/** Whether a signal depends on a net: joined to its gate, it would close a loop. */
function dependsOn({ design }: Reading, signal: string, net: string): boolean {
  const gates = new Map(design.netlist?.gates.map((g) => [g.output, g.inputs]));
  const reads = new Map<string, string[]>();
  for (const e of design.equations) {
    if (e.storage) continue;
    const names: string[] = [];
    eachName(e.expr, (n) => names.push(n));
    reads.set(e.target.name, names);
  }
  const seen = new Set<string>();
  const todo = [signal];
  for (let at = todo.pop(); at !== undefined; at = todo.pop()) {
    if (at === net) return true;
    if (seen.has(at)) continue;
    seen.add(at);
    todo.push(...(gates.get(at) ?? []), ...(reads.get(at) ?? []));
  }
  return false;
}
