import { applyPatches, type Draft, enablePatches, type Patch, produceWithPatches } from 'immer';
import {
  type Board,
  type BoardNote,
  type Breadboard,
  breadboardOf,
  checkCorners,
  checkJumper,
  checkSeat,
  emptyBoard,
  hasPlaceFor,
  type Jumper,
  type JumperColour,
  jumperOf,
  labelPlacesOf,
  noteOf,
  occupancyOf,
  type Point,
  partOf,
  type SeatedPart,
  withEnds,
} from '../board';
import { type PartName, type PartType, typeOf } from '../catalogue';
import { type Finding, finding } from '../finding';
import { holdsNothing, type Locks, type Packing } from '../packing';
import { type Job, MAX_JOB_NAME, PLAIN_TEXT, type Silenced } from './job';
import { moved } from './move';
import type { OwnTable } from './own-table';
import { type Shift, shifted } from './shift';

enablePatches();

/**
 * A change of a job as a plain object. `restore` is what undoing applies; `all` is several changes
 * that happen together or not at all. In `move`, `follow` takes the jumpers along that end in the
 * part's own strips.
 */
export type Edit =
  | { readonly kind: 'rename'; readonly name: string }
  | { readonly kind: 'write-sheet'; readonly text: string }
  | { readonly kind: 'lay-out'; readonly packing: Packing; readonly board: Board }
  | { readonly kind: 'fill-table'; readonly table: OwnTable | null }
  | { readonly kind: 'take-packing'; readonly packing: Packing }
  | { readonly kind: 'strike'; readonly chips: readonly string[] }
  | { readonly kind: 'hold'; readonly held: Locks }
  | { readonly kind: 'silence'; readonly finding: Silenced }
  | { readonly kind: 'tell-again'; readonly code: string; readonly place: string }
  | { readonly kind: 'clear-board' }
  | { readonly kind: 'add-breadboard'; readonly id: string }
  | { readonly kind: 'remove-breadboard'; readonly id: string }
  | { readonly kind: 'seat'; readonly part: SeatedPart }
  | {
      readonly kind: 'move';
      readonly ref: string;
      readonly at: string;
      readonly turn: SeatedPart['turn'];
      readonly follow: boolean;
    }
  | { readonly kind: 'label'; readonly ref: string; readonly signal: string; readonly of?: string }
  | { readonly kind: 'pull-part'; readonly ref: string }
  | { readonly kind: 'set-value'; readonly ref: string; readonly value: number }
  | { readonly kind: 'fix'; readonly refs: readonly string[]; readonly fixed: boolean }
  | { readonly kind: 'replace'; readonly ref: string; readonly by: PartName }
  | ({ readonly kind: 'shift' } & Shift)
  | { readonly kind: 'lay-jumper'; readonly jumper: Jumper }
  | { readonly kind: 're-plug'; readonly id: string; readonly end: 'from' | 'to'; readonly hole: string }
  | { readonly kind: 'colour'; readonly ids: readonly string[]; readonly colour: JumperColour | null }
  | { readonly kind: 'straighten'; readonly ids: readonly string[]; readonly straight: boolean }
  | { readonly kind: 'bend'; readonly id: string; readonly corners: readonly Point[] }
  | { readonly kind: 'note'; readonly note: BoardNote }
  | { readonly kind: 'pull-jumper'; readonly id: string }
  | { readonly kind: 'all'; readonly says: string; readonly edits: readonly Edit[] }
  | { readonly kind: 'restore'; readonly says: string; readonly patches: readonly Patch[] };

/** The next job and the edit that takes it back, or what stands in the way. */
export type Applied =
  | { readonly ok: true; readonly job: Job; readonly inverse: Edit }
  | { readonly ok: false; readonly findings: readonly Finding[] };

/** The most notes a board may have. */
export const MAX_NOTES = 200;
/** The most characters of a signal's label. */
const MAX_LABEL = 120;
/** The most breadboards a job may have by hand. */
export const MAX_BREADBOARDS = 40;

/**
 * Applies an edit. Pure: the given job is left as it was, and comes back itself when nothing changes.
 * Asking without using the outcome answers "would this work?".
 */
export function applyEdit(job: Job, edit: Edit): Applied {
  if (edit.kind === 'restore')
    return change(job, edit, (draft) => {
      applyPatches(draft, [...edit.patches]);
    });
  if (edit.kind === 'all') return applyAll(job, edit);
  const refused = refusals(job, edit);
  if (refused.length > 0) return { ok: false, findings: refused };
  return change(job, edit, (draft) => {
    mutate(draft, job, edit);
  });
}

function change(job: Job, edit: Edit, recipe: (draft: Draft<Job>) => void): Applied {
  const [next, patches, inverse] = produceWithPatches(job, recipe);
  if (patches.length === 0) return { ok: true, job, inverse: { kind: 'restore', says: saysEdit(edit), patches: [] } };
  return { ok: true, job: next, inverse: { kind: 'restore', says: saysEdit(edit), patches: inverse } };
}

function applyAll(job: Job, edit: Extract<Edit, { kind: 'all' }>): Applied {
  let current = job;
  const inverses: Edit[] = [];
  for (const part of edit.edits) {
    const applied = applyEdit(current, part);
    if (!applied.ok) return applied;
    current = applied.job;
    inverses.unshift(applied.inverse);
  }
  return { ok: true, job: current, inverse: { kind: 'all', says: edit.says, edits: inverses } };
}

function refusals(job: Job, edit: Edit): Finding[] {
  const { board } = job;
  switch (edit.kind) {
    case 'rename':
      return isName(edit.name, MAX_JOB_NAME) ? [] : [finding('hand/no-name', [], { most: MAX_JOB_NAME })];
    case 'seat':
      if (partOf(board, edit.part.ref)) return [finding('hand/ref-taken', [], { ref: edit.part.ref })];
      return checkSeat(board, edit.part);
    case 'move': {
      const next = moved(board, edit);
      return Array.isArray(next) ? next : [];
    }
    case 'shift': {
      const next = shifted(board, edit);
      return Array.isArray(next) ? next : [];
    }
    case 'replace':
      return cannotReplace(board, edit.ref, edit.by);
    case 're-plug': {
      const jumper = jumperOf(board, edit.id);
      if (!jumper) return [finding('hand/no-such-jumper', [], { id: edit.id })];
      return checkJumper(board, { ...jumper, [edit.end]: edit.hole });
    }
    case 'colour':
    case 'straighten':
      return edit.ids.flatMap((id) => (jumperOf(board, id) ? [] : [finding('hand/no-such-jumper', [], { id })]));
    case 'bend':
      if (!jumperOf(board, edit.id)) return [finding('hand/no-such-jumper', [], { id: edit.id })];
      return checkCorners(board, edit.id, edit.corners);
    case 'note':
      if (edit.note.text === '' || Object.keys(board.notes ?? {}).length < MAX_NOTES || noteOf(board, edit.note.id))
        return [];
      return [finding('hand/too-many-notes', [], { most: MAX_NOTES })];
    case 'label':
      if (edit.signal !== '' && !isName(edit.signal, MAX_LABEL))
        return [finding('hand/no-name', [], { most: MAX_LABEL })];
      return checkLabel(board, edit.ref, edit.of);
    case 'fix':
      return edit.refs.flatMap((ref) => (partOf(board, ref) ? [] : [finding('hand/no-such-part', [], { ref })]));
    case 'set-value':
    case 'pull-part':
      return partOf(board, edit.ref) ? [] : [finding('hand/no-such-part', [], { ref: edit.ref })];
    case 'lay-jumper':
      if (jumperOf(board, edit.jumper.id)) return [finding('hand/ref-taken', [], { ref: edit.jumper.id })];
      return checkJumper(board, edit.jumper);
    case 'pull-jumper':
      return jumperOf(board, edit.id) ? [] : [finding('hand/no-such-jumper', [], { id: edit.id })];
    case 'add-breadboard':
      if (board.breadboards.length >= MAX_BREADBOARDS)
        return [finding('plan/no-room', [], { what: 'another board', boards: MAX_BREADBOARDS })];
      return hasPlaceFor(board, edit.id) ? [] : [finding('hand/no-place-for-board', [], { id: edit.id })];
    case 'remove-breadboard':
      return cannotRemove(board, edit.id);
    default:
      return [];
  }
}

const isName = (text: string, most: number): boolean =>
  text.trim() !== '' && text.length <= most && PLAIN_TEXT.test(text);

/** A part with several contacts or lamps is labelled at one of them. */
function checkLabel(board: Board, ref: string, of = ''): Finding[] {
  const part = partOf(board, ref);
  if (!part) return [finding('hand/no-such-part', [], { ref })];
  const names = labelPlacesOf(part).map((p) => p.name);
  if (of === '' ? names.length === 0 || names.includes('') : names.includes(of)) return [];
  const [first = '', last = ''] = [names[0], names.at(-1)].map((n) => `${ref}.${n}`);
  return [
    finding('hand/no-such-place', [{ kind: 'part', ref }], { at: of === '' ? ref : `${ref}.${of}`, first, last }),
  ];
}

function setLabel(part: Draft<SeatedPart>, signal: string, of = ''): void {
  if (of !== '') {
    const others = (part.labels ?? []).filter((l) => l.of !== of);
    part.labels = signal === '' ? others : [...others, { of, signal }];
    if (part.labels.length === 0) delete part.labels;
  } else if (signal === '') delete part.signal;
  else part.signal = signal;
}

/** A part gives way to one with the same pins at the same places: the jumpers then serve both. */
function cannotReplace(board: Board, ref: string, by: PartName): Finding[] {
  const part = partOf(board, ref);
  if (!part) return [finding('hand/no-such-part', [], { ref })];
  const [old, next] = [typeOf(part), typeOf(by)];
  if (!next) return [finding('hand/no-such-type', [], { part: by.part })];
  const places = (type: PartType): string => type.pins.map((p) => `${p.dx} ${p.dy}`).join();
  if (old && places(old) === places(next)) return [];
  return [finding('hand/other-pins', [{ kind: 'part', ref }], { ref, old: part.part, part: by.part })];
}

function cannotRemove(board: Board, id: string): Finding[] {
  if (!board.breadboards.some((b) => b.id === id)) return [finding('hand/no-such-board', [], { id })];
  if (board.breadboards.length === 1) return [finding('hand/last-board', [], { id })];
  const [on] = [...occupancyOf(board)].filter(([hole]) => hole.startsWith(`${id}.`));
  return on ? [finding('hand/board-in-use', [{ kind: 'hole', hole: on[0] }], { id, by: on[1].join(' and ') })] : [];
}

/** Changes a draft of `job`; the edit has been found possible. */
function mutate(draft: Draft<Job>, job: Job, edit: Edit): void {
  const board = draft.board;
  switch (edit.kind) {
    case 'rename':
      draft.name = edit.name;
      break;
    case 'write-sheet':
      draft.sheet = edit.text;
      break;
    case 'lay-out':
      draft.packing = edit.packing as Draft<Packing>;
      draft.board = edit.board as Draft<Board>;
      break;
    case 'fill-table':
      if (edit.table) draft.ownTable = edit.table as Draft<OwnTable>;
      else delete draft.ownTable;
      break;
    case 'take-packing':
      draft.packing = edit.packing as Draft<Packing>;
      break;
    case 'strike':
      if (edit.chips.length > 0) draft.struck = [...edit.chips];
      else delete draft.struck;
      break;
    case 'hold':
      if (holdsNothing(edit.held)) delete draft.held;
      else draft.held = edit.held as Draft<Locks>;
      break;
    case 'silence': {
      const { code, place } = edit.finding;
      draft.silenced = [...heard(draft.silenced ?? [], code, place), edit.finding];
      break;
    }
    case 'tell-again': {
      const left = heard(draft.silenced ?? [], edit.code, edit.place);
      if (left.length > 0) draft.silenced = left;
      else delete draft.silenced;
      break;
    }
    case 'clear-board':
      draft.board = emptyBoard as Draft<Board>;
      draft.packing = null;
      break;
    case 'add-breadboard':
      board.breadboards.push(breadboardOf(edit.id) as Draft<Breadboard>);
      break;
    case 'remove-breadboard':
      board.breadboards = board.breadboards.filter((b) => b.id !== edit.id);
      setNotes(board, (n) => !n.at.startsWith(`${edit.id}.`));
      break;
    case 'seat':
      board.parts[edit.part.ref] = edit.part as Draft<SeatedPart>;
      break;
    case 'move':
      draft.board = moved(job.board, edit) as Draft<Board>;
      break;
    case 'label':
      setLabel(board.parts[edit.ref] as Draft<SeatedPart>, edit.signal, edit.of);
      break;
    case 'pull-part':
      delete board.parts[edit.ref];
      break;
    case 'set-value':
      (board.parts[edit.ref] as Draft<SeatedPart>).value = edit.value;
      break;
    case 'fix':
      for (const ref of edit.refs) {
        const part = board.parts[ref] as Draft<SeatedPart>;
        if (edit.fixed) part.fixed = true;
        else delete part.fixed;
      }
      break;
    case 'replace': {
      const { own: _, ...part } = board.parts[edit.ref] as SeatedPart;
      board.parts[edit.ref] = { ...part, ...edit.by } as Draft<SeatedPart>;
      break;
    }
    case 'shift':
      draft.board = shifted(job.board, edit) as Draft<Board>;
      break;
    case 'lay-jumper':
      setJumper(board, edit.jumper);
      break;
    case 're-plug':
      setJumper(board, rePlugged(job.board.jumpers[edit.id] as Jumper, edit.end, edit.hole));
      break;
    case 'colour':
      for (const id of edit.ids) {
        const jumper = board.jumpers[id] as Draft<Jumper>;
        if (edit.colour) jumper.colour = edit.colour;
        else delete jumper.colour;
      }
      break;
    case 'straighten':
      for (const id of edit.ids) {
        const jumper = board.jumpers[id] as Draft<Jumper>;
        if (edit.straight) jumper.way = 'straight';
        else delete jumper.way;
        delete jumper.corners;
      }
      break;
    case 'bend': {
      const jumper = board.jumpers[edit.id] as Draft<Jumper>;
      delete jumper.way;
      jumper.corners = [...edit.corners];
      if (edit.corners.length === 0) delete jumper.corners;
      break;
    }
    case 'note': {
      const { note } = edit;
      if (note.text !== '') board.notes = { ...board.notes, [note.id]: note };
      setNotes(board, (n) => n.id !== note.id || note.text !== '');
      break;
    }
    case 'pull-jumper':
      delete board.jumpers[edit.id];
      break;
    default:
      throw new Error(`${edit.kind} is applied elsewhere`);
  }
}

function setJumper(board: Draft<Board>, jumper: Jumper): void {
  board.jumpers[jumper.id] = jumper as Draft<Jumper>;
}

const rePlugged = (jumper: Jumper, end: 'from' | 'to', hole: string): Jumper =>
  withEnds(jumper, end === 'from' ? hole : jumper.from, end === 'to' ? hole : jumper.to);

/** Keeps only some of a board's notes. */
function setNotes(board: Draft<Board>, keep: (note: BoardNote) => boolean): void {
  const left = Object.values(board.notes ?? {}).filter(keep);
  if (left.length > 0) board.notes = Object.fromEntries(left.map((n) => [n.id, n]));
  else delete board.notes;
}

/** What is silenced, without one finding. */
function heard<S extends Silenced>(all: readonly S[], code: string, place: string): S[] {
  return all.filter((s) => s.code !== code || s.place !== place);
}

/** What an edit does, for the undo button: `lay w12`. */
export function saysEdit(edit: Edit): string {
  switch (edit.kind) {
    case 'rename':
      return 'rename';
    case 'write-sheet':
      return 'writing';
    case 'lay-out':
      return 'layout';
    case 'fill-table':
      return edit.table ? 'table cell' : 'clearing your table';
    case 'take-packing':
      return 'another packing';
    case 'strike':
      return 'choice of chips';
    case 'hold':
      return 'packing by hand';
    case 'silence':
      return 'silencing a finding';
    case 'tell-again':
      return 'telling a finding again';
    case 'clear-board':
      return 'clearing the board';
    case 'add-breadboard':
      return `board ${edit.id}`;
    case 'remove-breadboard':
      return `taking ${edit.id} away`;
    case 'seat':
      return `seat ${edit.part.ref}`;
    case 'move':
      return `move ${edit.ref}`;
    case 'label':
      return `label ${edit.ref}`;
    case 'pull-part':
      return `pull ${edit.ref}`;
    case 'set-value':
      return `value of ${edit.ref}`;
    case 'fix':
      return `${edit.fixed ? 'fix' : 'unfix'} ${edit.refs.join(', ')}`;
    case 'replace':
      return `replace ${edit.ref}`;
    case 'shift':
      return `move ${edit.what.length} things`;
    case 're-plug':
      return `re-plug ${edit.id}`;
    case 'colour':
      return `colour of ${edit.ids.join(', ')}`;
    case 'straighten':
      return `way of ${edit.ids.join(', ')}`;
    case 'bend':
      return `way of ${edit.id}`;
    case 'note':
      return `note ${edit.note.id}`;
    case 'lay-jumper':
      return `jumper ${edit.jumper.id}`;
    case 'pull-jumper':
      return `pull ${edit.id}`;
    case 'all':
    case 'restore':
      return edit.says;
  }
}
