import { atText, type Finding, finding, isError, type Place } from '../finding';
import { type Expr, eachName } from '../logic';
import { type Netlist, netlistOf } from './netlist';
import { parseSheet } from './parser';
import type { Declarations, Equation, Sheet, Signal } from './sheet';

/**
 * A design: what the sheet declares, and its gates. `netlist` is null while the sheet has an error,
 * so nothing downstream can be computed from half a design.
 */
export interface Design extends Declarations {
  readonly netlist: Netlist | null;
}

/** The outcome of reading a sheet: always a sheet, a design and the findings, which may be errors. */
export interface Reading {
  readonly sheet: Sheet;
  readonly design: Design;
  readonly findings: readonly Finding[];
}

/** Reads the text of a sheet, checks what it says and makes its gates. Never throws for bad text. */
export function readSheet(text: string): Reading {
  const { sheet, findings } = parseSheet(text);
  const declared = gather(sheet);
  const wrong = [...findings, ...check(declared)];
  // What is unused is known only once everything else is right.
  const all = wrong.some(isError) ? wrong : [...wrong, ...checkUnused(declared)];
  if (all.some(isError)) return { sheet, design: { ...declared, netlist: null }, findings: byPlace(all) };
  const { netlist, findings: more } = netlistOf(declared);
  return { sheet, design: { ...declared, netlist }, findings: byPlace([...all, ...more]) };
}

function gather(sheet: Sheet): Declarations {
  const of = (kind: 'in' | 'out') => sheet.lines.flatMap(({ statement: s }) => (s && s.kind === kind ? s.signals : []));
  const equations = sheet.lines.flatMap(({ statement: s }) =>
    s?.kind === 'equation' ? [{ target: s.target, expr: s.expr }] : [],
  );
  return { inputs: of('in'), outputs: of('out'), equations };
}

const whole = { from: 0, to: 0 };
const place = (s: Signal): readonly Place[] => [atText(s.at ?? whole)];

function check(d: Declarations): Finding[] {
  const made = new Map<string, Equation>();
  const findings: Finding[] = [...checkTwice(d)];
  const inputs = new Set(d.inputs.map((s) => s.name));
  for (const equation of d.equations) {
    const { target } = equation;
    if (inputs.has(target.name)) findings.push(finding('sheet/input-defined', place(target), { name: target.name }));
    else if (made.has(target.name)) findings.push(finding('sheet/defined-twice', place(target), { name: target.name }));
    else made.set(target.name, equation);
  }
  const known = new Set([...inputs, ...made.keys()]);
  const declared = new Set([...known, ...d.outputs.map((s) => s.name)]);
  for (const output of d.outputs)
    if (!known.has(output.name)) findings.push(finding('sheet/output-undefined', place(output), { name: output.name }));
  findings.push(...checkUnknown(d, declared));
  findings.push(...checkLoops(made));
  if (d.outputs.length === 0) findings.push(finding('sheet/no-output', [atText(whole)], {}));
  return findings;
}

function* checkTwice(d: Declarations): Generator<Finding> {
  const seen = new Set<string>();
  for (const signal of [...d.inputs, ...d.outputs]) {
    if (seen.has(signal.name)) yield finding('sheet/declared-twice', place(signal), { name: signal.name });
    seen.add(signal.name);
  }
}

function checkUnknown(d: Declarations, known: ReadonlySet<string>): Finding[] {
  const findings: Finding[] = [];
  const byLower = new Map([...known].map((name) => [name.toLowerCase(), name]));
  for (const { expr } of d.equations) {
    eachName(expr, (name, at) => {
      if (known.has(name)) return;
      const near = byLower.get(name.toLowerCase());
      const hint = near === undefined ? '' : ` Did you mean ${near}?`;
      findings.push(finding('sheet/unknown-signal', [atText(at ?? whole)], { name, hint }));
    });
  }
  return findings;
}

/** Names each signal that an expression reads. */
export function namesIn(expr: Expr): string[] {
  const names: string[] = [];
  eachName(expr, (name) => names.push(name));
  return names;
}

/** Depth-first search with an explicit stack (sheets may chain thousands of equations). */
function checkLoops(made: ReadonlyMap<string, Equation>): Finding[] {
  const done = new Set<string>();
  const findings: Finding[] = [];
  for (const start of made.keys()) {
    const path: string[] = [];
    const onPath = new Set<string>();
    const todo: (string | null)[] = [start];
    while (todo.length > 0) {
      const name = todo.pop() as string | null;
      if (name === null) {
        const left = path.pop() as string;
        onPath.delete(left);
        done.add(left);
      } else if (onPath.has(name)) findings.push(loopFinding(made.get(name) as Equation, path));
      else if (!done.has(name)) {
        const equation = made.get(name);
        if (!equation) continue;
        path.push(name);
        onPath.add(name);
        todo.push(null, ...namesIn(equation.expr));
      }
      if (findings.length > 0) return findings;
    }
  }
  return findings;
}

function loopFinding({ target }: Equation, path: readonly string[]): Finding {
  const loop = [...path.slice(path.indexOf(target.name)), target.name];
  const shown = loop.length > 6 ? [...loop.slice(0, 3), '…', ...loop.slice(-2)] : loop;
  return finding('sheet/loop', place(target), { name: target.name, path: shown.join(' ← ') });
}

function* checkUnused(d: Declarations): Generator<Finding> {
  if (d.outputs.length === 0) return;
  const made = new Map(d.equations.map((e) => [e.target.name, e]));
  const used = new Set<string>();
  const todo = d.outputs.map((s) => s.name);
  while (todo.length > 0) {
    const name = todo.pop() as string;
    if (used.has(name)) continue;
    used.add(name);
    const equation = made.get(name);
    if (equation) todo.push(...namesIn(equation.expr));
  }
  for (const s of d.inputs) if (!used.has(s.name)) yield finding('sheet/unused-input', place(s), { name: s.name });
  for (const { target } of d.equations)
    if (!used.has(target.name)) yield finding('sheet/unused-signal', place(target), { name: target.name });
}

function byPlace(findings: readonly Finding[]): Finding[] {
  const start = (f: Finding): number => (f.places[0]?.kind === 'text' ? f.places[0].span.from : 0);
  return [...findings].sort((a, b) => start(a) - start(b));
}
