import {
  type Board,
  type Breadboard,
  breadboardOf,
  checkCorners,
  emptyBoard,
  hasPlaceFor,
  type Jumper,
  parseHole,
} from '../board';
import { partType, readDesign, typeOf } from '../catalogue';
import { type Finding, finding } from '../finding';
import { choosable, fingerprint, type Packing, type UnitUse, whatIsUnsound, whatIsWrong } from '../packing';
import { checkShape, type FieldProblem, type JobFileDto } from './dto';
import type { Job } from './job';
import { upgraded } from './upgrade';
import { FILE_VERSION } from './write';

/** Bounds on what is read: bytes of text, and levels of nesting. */
export const MAX_FILE_BYTES = 8 * 1024 * 1024;
const MAX_DEPTH = 32;

/** A job read, with what was left out of it; or the findings that say why there is none. */
export type JobRead =
  | { readonly ok: true; readonly job: Job; readonly findings: readonly Finding[] }
  | { readonly ok: false; readonly findings: readonly Finding[] };

/**
 * Reads the text of a job file. Everything is bounded and checked before a job is made of it; whatever
 * is wrong comes back as findings, and nothing throws.
 */
export function readJobFile(text: string): JobRead {
  if (text.length > MAX_FILE_BYTES) return fail(tooBig());
  if (nesting(text) > MAX_DEPTH) return fail(finding('file/too-deep', [], { limit: MAX_DEPTH }));
  let plain: unknown;
  try {
    plain = JSON.parse(text.replace(/^\ufeff/, ''));
  } catch (e) {
    return fail(finding('file/not-json', [], { detail: e instanceof Error ? e.message : 'it cannot be read' }));
  }
  return readPlain(plain);
}

/** The refusal of a file by its size alone, for callers that know it before reading. */
export function tooBig(limit = MAX_FILE_BYTES): Finding {
  return finding('file/too-big', [], { limit });
}

const fail = (...findings: Finding[]): JobRead => ({ ok: false, findings });

function readPlain(plain: unknown): JobRead {
  if (typeof plain !== 'object' || plain === null || Array.isArray(plain))
    return fail(finding('file/not-a-job', [], {}));
  let file = plain as Record<string, unknown>;
  const strange = strangeKey(plain, '');
  if (strange) return fail(fieldFinding(strange));
  if (file.format !== 'saddlebag-job') return fail(finding('file/not-a-job', [], {}));
  if (typeof file.version === 'number' && file.version > FILE_VERSION)
    return fail(finding('file/newer', [], { version: file.version, known: FILE_VERSION }));
  file = upgraded(file);
  const checked = checkShape(file);
  const problems = Array.isArray(checked) ? checked : checkSense(checked);
  if (problems.length > 0) return fail(...problems.slice(0, 20).map(fieldFinding));
  return { ok: true, ...withSoundPacking(jobOf(checked as JobFileDto)) };
}

/** Names that every object has already: a file that uses them as a field means no good, and no checker copes with them. */
const STRANGE: ReadonlySet<string> = new Set(['__proto__', 'constructor', 'prototype']);

function strangeKey(value: unknown, path: string): FieldProblem | null {
  if (typeof value !== 'object' || value === null) return null;
  for (const [key, inner] of Object.entries(value)) {
    const at = Array.isArray(value) ? `${path}[${key}]` : path === '' ? key : `${path}.${key}`;
    if (STRANGE.has(key)) return { path: at, detail: 'no field has that name' };
    const below = strangeKey(inner, at);
    if (below) return below;
  }
  return null;
}

/** Sources up to which a packing from a file is checked in all rows. */
const CHECKED_ROWS = 14;

/**
 * The job, without its packing where that does not hold together or does not compute the sheet it says it was made for: later stages rely
 * on both. The board stays as it is.
 */
function withSoundPacking(job: Job): { job: Job; findings: Finding[] } {
  const { packing } = job;
  if (!packing) return { job, findings: [] };
  const why = whatIsUnsound(packing) ?? againstSheet(job.sheet, packing);
  if (why === null) return { job, findings: [] };
  const left = finding('file/packing-left-out', [{ kind: 'field', path: 'packing' }], { why });
  return { job: { ...job, packing: null }, findings: [left] };
}

function againstSheet(sheet: string, packing: Packing): string | null {
  const { netlist } = readDesign(sheet).design;
  if (!netlist || fingerprint(netlist) !== packing.design) return null;
  const names = (list: readonly string[]): string => JSON.stringify([...list].sort());
  const same =
    names(netlist.inputs) === names(packing.inputs) &&
    names(netlist.outputs.map((o) => o.name)) === names(packing.outputs.map((o) => o.name));
  return same ? whatIsWrong(netlist, packing, CHECKED_ROWS) : 'its inputs and outputs are not those of the sheet';
}

function fieldFinding({ path, detail }: FieldProblem): Finding {
  return finding('file/bad-field', [{ kind: 'field', path }], { path, detail });
}

/** What shapes alone cannot say: names used once, boards in order, holes that exist, units that exist. */
function checkSense(file: JobFileDto): FieldProblem[] {
  const problems: FieldProblem[] = [];
  const { breadboards, parts, jumpers, notes = [] } = file.board;
  const laid: Breadboard[] = [];
  for (const [i, { id, type }] of breadboards.entries()) {
    const path = `board.breadboards[${i}]`;
    const own = breadboardOf(id);
    if (own?.type !== type)
      problems.push({ path: `${path}.type`, detail: `${id} is the id of a board of another kind` });
    else if (!hasPlaceFor({ ...emptyBoard, breadboards: laid }, id))
      problems.push({ path: `${path}.id`, detail: `${id} lies where another board is` });
    else laid.push(own);
  }
  if (breadboards.length === 0) problems.push({ path: 'board.breadboards', detail: 'there must be at least one' });
  problems.push(
    ...repeated(parts, 'ref', 'board.parts'),
    ...repeated(jumpers, 'id', 'board.jumpers'),
    ...repeated(notes, 'id', 'board.notes'),
  );
  const hole = (text: string, path: string): void => {
    const parsed = parseHole(text);
    if (!parsed || !breadboards.some((b) => b.id === parsed.board))
      problems.push({ path, detail: `there is no hole ${text}` });
  };
  parts.forEach((p, i) => {
    hole(p.at, `board.parts[${i}].at`);
  });
  jumpers.forEach((j, i) => {
    hole(j.from, `board.jumpers[${i}].from`);
    hole(j.to, `board.jumpers[${i}].to`);
    const { route, corners = [] } = j;
    if (corners.length === 0) return;
    const path = `board.jumpers[${i}].corners`;
    if (route) problems.push({ path, detail: 'a straight jumper has none' });
    if (checkCorners({ ...emptyBoard, breadboards: laid }, j.id, corners).length > 0)
      problems.push({ path, detail: 'they must lie on the mat with the boards' });
  });
  notes.forEach((n, i) => {
    hole(n.at, `board.notes[${i}].at`);
  });
  const rows = 2 ** (file.ownTable?.inputs.length ?? 0);
  file.ownTable?.outputs.forEach(({ marks }, i) => {
    if (marks.length === rows) return;
    problems.push({ path: `ownTable.outputs[${i}].marks`, detail: `it must have ${rows} marks, one for each row` });
  });
  return [...problems, ...packageProblems(file), ...lockProblems(file)];
}

function repeated<K extends string>(list: readonly Record<K, string>[], key: K, path: string): FieldProblem[] {
  const seen = new Set<string>();
  return list.flatMap((item, i) => {
    const again = seen.has(item[key]);
    seen.add(item[key]);
    return again ? [{ path: `${path}[${i}].${key}`, detail: `${item[key]} stands there twice` }] : [];
  });
}

function packageProblems({ packing }: JobFileDto): FieldProblem[] {
  return (packing?.packages ?? []).flatMap(({ units, ...named }, i) => {
    const { part } = named;
    const type = typeOf(named);
    const path = `packing.packages[${i}]`;
    if (type?.kind !== 'chip') return [{ path: `${path}.part`, detail: `no chip is known as ${part}` }];
    return units.flatMap((use, u) => {
      const unit = type.units[use.unit - 1];
      const fits = unit && unit.inputs.length === use.inputs.length;
      return fits ? [] : [{ path: `${path}.units[${u}]`, detail: `a ${part} has no such unit` }];
    });
  });
}

/** What is held must be possible: units that exist, one gate to a unit, one part to a reference. */
function lockProblems({ locks }: JobFileDto): FieldProblem[] {
  if (!locks) return [];
  const parts = new Map<string, string>();
  const units = new Set<string>();
  const nets = new Set<string>();
  const check = (ref: string, part: string, path: string): FieldProblem[] => {
    const other = parts.get(ref) ?? part;
    parts.set(ref, part);
    if (!choosable.includes(part)) return [{ path, detail: `${part} is no chip that a packing chooses` }];
    return other === part ? [] : [{ path, detail: `${ref} is a ${other} already` }];
  };
  const added = locks.added.flatMap(({ ref, part }, i) => check(ref, part, `held.added[${i}].part`));
  const pins = locks.pins.flatMap(({ net, ref, part, unit, inputs }, i): FieldProblem[] => {
    const path = `held.pins[${i}]`;
    const place = `${ref}.${unit}`;
    const wanted = partType(part)?.units[unit - 1]?.inputs.length;
    const taken = units.has(place) || nets.has(net);
    units.add(place);
    nets.add(net);
    const problems = check(ref, part, `${path}.part`);
    if (problems.length === 0 && wanted !== inputs.length) return [{ path, detail: `a ${part} has no such unit` }];
    return taken ? [{ path, detail: `${net} or ${place} is pinned already` }] : problems;
  });
  return [...added, ...pins];
}

function jobOf(file: JobFileDto): Job {
  const { breadboards, parts, jumpers, notes } = file.board;
  const board: Board = {
    breadboards: breadboards.map(({ id, type }) => ({ id, type })),
    parts: Object.fromEntries(parts.map((p) => [p.ref, { ...p }])),
    jumpers: Object.fromEntries(jumpers.map((j) => [j.id, jumperOf(j)])),
    ...(notes && notes.length > 0 && { notes: Object.fromEntries(notes.map((n) => [n.id, { ...n }])) }),
  };
  const { name, family, sheet, ownTable, excluded, locks, silenced, trace } = file;
  const pins = locks?.pins.map((p) => ({ ...p, unit: p.unit - 1 })) ?? [];
  const table = ownTable && { inputs: ownTable.inputs, outputs: ownTable.outputs.map((o) => ({ ...o })) };
  return {
    name,
    family,
    sheet,
    packing: packingOf(file),
    board,
    ...(table && { ownTable: table }),
    ...(excluded && { excluded }),
    ...(silenced && { silenced: silenced.map((s) => ({ ...s })) }),
    ...(trace && { trace: { ...trace, numbers: trace.numbers.map((n) => ({ ...n })) } }),
    ...(locks && { locks: { pins, added: locks.added.map((a) => ({ ...a })) } }),
  };
}

const jumperOf = ({ corners, ...jumper }: JobFileDto['board']['jumpers'][number]): Jumper => ({
  ...jumper,
  ...(corners && { corners: corners.map(({ x, y }) => ({ x, y })) }),
});

function packingOf({ packing }: JobFileDto): Packing | null {
  if (!packing) return null;
  const packages = packing.packages.map(({ units, ...named }) => {
    const uses = new Map(units.map(({ unit, ...use }) => [unit, { ...use } as UnitUse]));
    return { ...named, units: (typeOf(named)?.units ?? []).map((_, i) => uses.get(i + 1) ?? null) };
  });
  const outputs = packing.outputs.map(({ name, net }) => ({ name, net }));
  const { inputs, proved, design, strategy, proof, bound } = packing;
  const known = { ...(strategy && { strategy }), ...(proof && { proof }), ...(bound !== undefined && { bound }) };
  return { packages, inputs, outputs, proved, design, ...known };
}

/** Deepest nesting of brackets outside strings, counted before the text is parsed. */
function nesting(text: string): number {
  let depth = 0;
  let deepest = 0;
  let inString = false;
  for (let i = 0; i < text.length; i++) {
    const c = text.charCodeAt(i);
    if (inString) {
      if (c === 92) i++;
      else if (c === 34) inString = false;
    } else if (c === 34) inString = true;
    else if (c === 91 || c === 123) deepest = Math.max(deepest, ++depth);
    else if (c === 93 || c === 125) depth--;
  }
  return deepest;
}
