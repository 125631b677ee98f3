import { applyPatches, type Draft, enablePatches, type Patch, produceWithPatches } from 'immer';
import type { Finding } from '../finding';
import { type BreadboardEdit, breadboardEdits } from './edits/breadboards';
import { type DocumentEdit, documentEdits } from './edits/document';
import { type FindingsEdit, findingsEdits } from './edits/findings';
import { type JumperEdit, jumperEdits } from './edits/jumpers';
import type { EditKind, EditKinds } from './edits/kind';
import { type NoteEdit, noteEdits } from './edits/notes';
import { type PackingEdit, packingEdits } from './edits/packing';
import { type PartEdit, partEdits } from './edits/parts';
import { type TraceEdit, traceEdits } from './edits/trace';
import type { Job } from './job';

export { MAX_BREADBOARDS } from './edits/breadboards';
export { MAX_NOTES } from './edits/notes';

enablePatches();

/** An edit of one kind: what it does stands in the module of its subject in `edits/`. */
export type OneEdit =
  | DocumentEdit
  | PackingEdit
  | FindingsEdit
  | BreadboardEdit
  | PartEdit
  | JumperEdit
  | NoteEdit
  | TraceEdit;

/** Several changes that happen together or not at all, and what undoing applies. */
export type Edit =
  | OneEdit
  | { readonly kind: 'all'; readonly says: string; readonly edits: readonly Edit[] }
  | { readonly kind: 'restore'; readonly says: string; readonly patches: readonly Patch[] };

/** The next job and the edit that takes it back, or what stands in the way. */
export type Applied =
  | { readonly ok: true; readonly job: Job; readonly inverse: Edit }
  | { readonly ok: false; readonly findings: readonly Finding[] };

/** Every kind of edit: a kind of the union that is missing here does not compile. */
const kinds: EditKinds<OneEdit> = {
  ...documentEdits,
  ...packingEdits,
  ...findingsEdits,
  ...breadboardEdits,
  ...partEdits,
  ...jumperEdits,
  ...noteEdits,
  ...traceEdits,
};

/** The kind of an edit; the table above pairs each with its own. */
const kindOf = (edit: OneEdit): EditKind<OneEdit> => kinds[edit.kind] as EditKind<OneEdit>; // cast: each kind takes edits of its own

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
  const kind = kindOf(edit);
  const findings = kind.refuses(job, edit);
  if (findings.length > 0) return { ok: false, findings };
  return change(job, edit, (draft) => kind.apply(draft, edit, job));
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

/** What an edit does, for the undo button: `jumper w12`. */
export function saysEdit(edit: Edit): string {
  return edit.kind === 'all' || edit.kind === 'restore' ? edit.says : kindOf(edit).says(edit);
}
