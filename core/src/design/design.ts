import { elementAt } from '../element-at';
import { atText, type Finding, finding, isError, type Place } from '../finding';
import { type Behaviour, eachName } from '../logic';
import { behaviourOf } from './behaviour';
import { withoutConsequences } from './consequences';
import { elaborate, type Library, noLibrary } from './elaborate';
import { expressionsOf, namesIn, type Reads, readsOf } from './equation';
import { checkFights } from './fights';
import { type Netlist, netlistOf } from './netlist';
import { type OwnPart, ownPartsOf, withOwnParts } from './own-part';
import { parseSheet } from './parser';
import type { Declarations, Equation, Sheet, Signal } from './sheet';
import { unusedIn } from './unused';

/**
 * A design: what the sheet declares, written out; its gates, stored signals and used parts; and what it
 * does, parts included. `netlist` and `behaviour` are null while the sheet has an error, so nothing
 * downstream can be computed from half a design.
 */
export interface Design extends Declarations {
  readonly netlist: Netlist | null;
  readonly behaviour: Behaviour | null;
}

/** The outcome of reading a sheet: always a sheet, a design and the findings, which may be errors. */
export interface Reading {
  readonly sheet: Sheet;
  readonly design: Design;
  /** The parts that the sheet defines itself, those alone whose names and pins are right. */
  readonly ownParts: readonly OwnPart[];
  readonly findings: readonly Finding[];
  /** The sheet as far as it is made, while outputs are missing and nothing else. */
  readonly draft?: Draft;
}

/**
 * A sheet that is sound but for outputs that nothing makes yet, with each of these as a table of don't-cares, so that it can be drawn, and
 * edited in the diagram and the table. `source` is the sheet itself, `text` the sheet with a line for each of the `open` outputs.
 */
export interface Draft {
  readonly source: string;
  readonly text: string;
  readonly reading: Reading;
  readonly open: ReadonlyMap<string, string>;
}

/**
 * Reads the text of a sheet, checks what it says and makes its gates. `library` knows the parts that
 * may be used by number. Never throws for bad text.
 */
export function readSheet(text: string, library: Library = noLibrary): Reading {
  const { sheet, findings } = parseSheet(text);
  const { parts, findings: ofParts } = ownPartsOf(sheet, library);
  for (const part of parts.values()) ofParts.push(...checkPart(part, library));
  const read = designOf({ text, sheet }, withOwnParts(library, parts), [...findings, ...ofParts]);
  return { ...read, ownParts: [...parts.values()] };
}

/** What is wrong with the behaviour of a part of the sheet's own, each at its place in the sheet. */
function checkPart(part: OwnPart, library: Library): Finding[] {
  const { findings } = designOf({ text: '', sheet: part.sheet }, library, []);
  return findings.map((f) => {
    if (f.code === 'sheet/no-output')
      return finding('sheet/part-makes-nothing', [atText(part.at)], { name: part.name });
    return f;
  });
}

/** What sheets without parts of their own come to; `before` is what is known to be wrong already. */
function designOf(
  { text, sheet }: { readonly text: string; readonly sheet: Sheet },
  library: Library,
  before: readonly Finding[],
): Omit<Reading, 'ownParts'> {
  const { declared: whole, findings: written } = elaborate(sheet, library, true);
  const reads: ReadsOf = new Map(whole.equations.map((e) => [e, readsOf(e)]));
  const wrong = withoutConsequences({ text, sheet }, [...before, ...written], check(whole, reads));
  // What is unused is known only once everything else is right.
  const all = wrong.some(isError) ? wrong : [...wrong, ...checkUnused(whole, reads)];
  const declared = sheet.lines.some((l) => l.statement?.kind === 'use')
    ? elaborate(sheet, library, false).declared
    : whole;
  const nothing = { sheet, design: { ...declared, netlist: null, behaviour: null } };
  if (all.some(isError)) return { ...nothing, findings: byPlace(all) };
  const { netlist, findings: more } = netlistOf(declared);
  if (more.length > 0) return { ...nothing, findings: byPlace([...all, ...more]) };
  const wholeNetlist = declared === whole ? netlist : netlistOf(whole).netlist;
  const behaviour = behaviourOf(whole, wholeNetlist);
  const unused = unusedIn(behaviour);
  const marked = unused ? { ...netlist, unused } : netlist;
  const findings = byPlace([...all, ...checkFights(whole, wholeNetlist)]);
  return { sheet, design: { ...declared, netlist: marked, behaviour }, findings };
}

const start = { from: 0, to: 0 };
const place = (s: Signal): readonly Place[] => [atText(s.at ?? start)];

/** What each equation reads, worked out once. */
type ReadsOf = ReadonlyMap<Equation, Reads>;

function check(d: Declarations, reads: ReadsOf): Finding[] {
  const made = new Map<string, Equation[]>();
  const findings: Finding[] = [...checkTwice(d)];
  const inputs = new Set(d.inputs.map((s) => s.name));
  for (const equation of d.equations) {
    const { target } = equation;
    const others = made.get(target.name);
    if (inputs.has(target.name)) findings.push(finding('sheet/input-defined', place(target), { name: target.name }));
    else if (!others) made.set(target.name, [equation]);
    else if (shares(equation, elementAt(others, 0))) others.push(equation);
    else findings.push(finding('sheet/defined-twice', place(target), { name: target.name }));
  }
  const known = new Set([...inputs, ...made.keys()]);
  const declared = new Set([...known, ...d.outputs.map((s) => s.name)]);
  for (const output of d.outputs)
    if (!known.has(output.drivenBy ?? output.name))
      findings.push(finding('sheet/output-undefined', place(output), { name: output.name }));
  findings.push(...checkUnknown(d, reads, declared));
  findings.push(...checkLoops(made, reads));
  if (d.outputs.length === 0) findings.push(finding('sheet/no-output', [atText(start)], {}));
  return findings;
}

/** Whether two equations may make one signal: outputs that share a wire. */
const shares = (a: Equation, b: Equation): boolean =>
  (a.when !== undefined && b.when !== undefined) || (a.open === true && b.open === true);

function* checkTwice(d: Declarations): Generator<Finding> {
  const seen = new Set<string>();
  for (const signal of [...d.inputs, ...d.outputs]) {
    if (signal.drivenBy) continue;
    if (seen.has(signal.name)) yield finding('sheet/declared-twice', place(signal), { name: signal.name });
    seen.add(signal.name);
  }
}

function checkUnknown(d: Declarations, reads: ReadsOf, known: ReadonlySet<string>): Finding[] {
  const findings: Finding[] = [];
  const isKnown = (name: string): boolean => known.has(name);
  const wrong = d.equations.filter((e) => {
    const { sure, cares } = reads.get(e) as Reads;
    return !sure.every(isKnown) || !cares.every(isKnown);
  });
  const byLower = new Map([...known].map((name) => [name.toLowerCase(), name]));
  for (const expr of [...wrong.flatMap((e) => expressionsOf(e)), ...d.never]) {
    eachName(expr, (name, at) => {
      if (known.has(name)) return;
      const near = byLower.get(name.toLowerCase());
      const hint = near === undefined ? '' : ` Did you mean ${near}?`;
      findings.push(finding('sheet/unknown-signal', [atText(at ?? start)], { name, hint }));
    });
  }
  return findings;
}

/** Depth-first search with an explicit stack (sheets may chain thousands of equations). */
function checkLoops(made: ReadonlyMap<string, readonly Equation[]>, reads: ReadsOf): Finding[] {
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
      } else if (onPath.has(name)) findings.push(loopFinding(elementAt(made.get(name) ?? [], 0), path));
      else if (!done.has(name)) {
        // What is stored may depend on itself: its clock or its gate breaks the loop.
        const equations = made.get(name)?.filter((e) => !e.storage) ?? [];
        if (equations.length === 0) continue;
        path.push(name);
        onPath.add(name);
        todo.push(null);
        for (const e of equations) todo.push(...(reads.get(e) as Reads).sure);
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

function* checkUnused(d: Declarations, reads: ReadsOf): Generator<Finding> {
  if (d.outputs.length === 0) return;
  const making = new Map<string, Equation[]>();
  for (const e of d.equations) {
    const others = making.get(e.target.name);
    if (others) others.push(e);
    else making.set(e.target.name, [e]);
  }
  const used = new Set<string>(namesIn(...d.never));
  const todo = d.outputs.map((s) => s.drivenBy ?? s.name);
  while (todo.length > 0) {
    const name = todo.pop() as string;
    if (used.has(name)) continue;
    used.add(name);
    for (const e of making.get(name) ?? []) {
      const { sure, cares } = reads.get(e) as Reads;
      todo.push(...sure, ...cares);
    }
  }
  for (const s of d.inputs) if (!used.has(s.name)) yield finding('sheet/unused-input', place(s), { name: s.name });
  for (const { target } of d.equations)
    if (!used.has(target.name) && !target.name.includes('.'))
      yield finding('sheet/unused-signal', place(target), { name: target.name });
}

function byPlace(findings: readonly Finding[]): Finding[] {
  const start = (f: Finding): number => (f.places[0]?.kind === 'text' ? f.places[0].span.from : 0);
  return [...findings].sort((a, b) => start(a) - start(b));
}
