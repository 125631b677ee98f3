import { type Finding, finding, type Span } from '../finding';
import { type Connective, chain, complement, type Expr, eachName, type GateKind, negated } from '../logic';
import type { Reading } from './design';
import { editLines, type LineEdit } from './line-edit';
import type { Gate } from './netlist';
import { type Line, opensSection, type Statement } from './sheet';
import { canName, renamed, signalsOf } from './symbols';

/**
 * What a person does to a gate of the diagram, named by the net it drives: change its kind, give it one
 * more input, cut one of its inputs (counted from 0), take it out, name what it drives, or make a new
 * gate of some signals.
 */
export type GateEdit =
  | { readonly act: 'change'; readonly gate: string; readonly kind: GateKind }
  | { readonly act: 'connect'; readonly gate: string; readonly signal: string }
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
 * written in several places changes in all of them. Gates of tables, blocks and used parts have no
 * expression of their own on the sheet and cannot be edited this way.
 */
export function editGate(text: string, reading: Reading, edit: GateEdit): GateEdited {
  const { design, sheet } = reading;
  if (!design.netlist) return no(finding('gate/sheet-broken', [], {}));
  if (edit.act === 'add') return added(text, reading, edit.kind, edit.inputs, edit.name);
  const gate = design.netlist.gates.find((g) => g.output === edit.gate);
  const owners = gate ? linesWriting(sheet.lines, gate.places) : [];
  if (!gate || owners.length === 0) return no(finding('gate/not-written', [], { gate: edit.gate }));
  if (edit.act === 'name') return named(text, reading, gate, edit.name, owners);
  if (edit.act === 'connect') {
    if (gate.kind === 'not') return no(finding('gate/one-input', [], { gate: gate.output }));
    if (dependsOn(reading, edit.signal, gate.output))
      return no(finding('gate/would-loop', [], { gate: gate.output, signal: edit.signal }));
  }
  if (edit.act === 'change' && (edit.kind === 'not') !== (gate.kind === 'not'))
    return no(finding('gate/one-input', [], { gate: gate.output }));
  const change = (e: Expr): Expr | null => changed(e, edit);
  const edits = owners.map((line): LineEdit => {
    const statement = sheet.lines[line]?.statement as Equation;
    const expr = replaced(statement.expr, gate.places, change);
    return { line, statements: expr ? [{ ...statement, expr }] : [] };
  });
  return { ok: true, text: editLines(text, edits) };
}

type Equation = Extract<Statement, { kind: 'equation' }>;

/** Numbers of the lines, outside blocks, whose equations write any of some spans. */
function linesWriting(lines: readonly Line[], places: readonly Span[]): number[] {
  let inBlock = false;
  return lines.flatMap(({ statement: s }, i) => {
    if (opensSection(s)) inBlock = true;
    if (s?.kind === 'end') inBlock = false;
    return !inBlock && s?.kind === 'equation' && writes(s.expr, places) ? [i] : [];
  });
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
function changed(e: Expr, edit: Exclude<GateEdit, { act: 'add' | 'name' }>): Expr | null {
  const folded = e.kind === 'not' && e.of.kind === 'gate';
  const inner = folded ? e.of : e;
  if (edit.act === 'remove') return e.kind === 'not' && !folded ? e.of : null;
  if (inner.kind !== 'gate') return e;
  const over = (x: Expr | null): Expr | null => (x && folded ? negated(x) : x);
  if (edit.act === 'connect') return over({ ...inner, of: [...inner.of, { kind: 'name', name: edit.signal }] });
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
  kind: GateKind,
  inputs: readonly string[],
  name: string,
): GateEdited {
  const names = new Set(signalsOf(sheet));
  if (!canName(name) || names.has(name)) return no(finding('gate/bad-name', [], { name: name.slice(0, 40) }));
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
      ? { kind: 'not', of: of[0] as Expr }
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
  gate: Gate,
  name: string,
  owners: readonly number[],
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
