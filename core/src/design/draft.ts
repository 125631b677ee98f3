import { isError } from '../finding';
import type { Draft, Reading } from './design';
import type { Library } from './elaborate';
import { editGate, type GateEdit, type GateEdited } from './gate-edit';
import { parseSheet } from './parser';

/** Tables of don't-cares go up to so many inputs; beyond, an open output is drawn low. */
const MOST_INPUTS = 8;

/** The draft of a sheet; null where it has other mistakes, or none. `read` reads a text as this one was read. */
export function draftOf(source: string, reading: Reading, read: (text: string) => Reading): Draft | null {
  const errors = reading.findings.filter(isError);
  if (errors.length === 0 || errors.some((f) => f.code !== 'sheet/output-undefined')) return null;
  const inputs = reading.design.inputs.map((s) => s.name);
  const open = new Map(
    errors.map(({ facts }) => {
      const name = String(facts.name);
      const asTable = inputs.length > 0 && inputs.length <= MOST_INPUTS;
      const line = asTable ? `table ${name} of ${inputs.join(' ')} : ${'-'.repeat(2 ** inputs.length)}` : `${name} = 0`;
      return [name, line] as const;
    }),
  );
  const text = [source.replace(/\n*$/, ''), ...open.values(), ''].join('\n');
  const drafted = read(text);
  return drafted.design.netlist ? { source, text, reading: drafted, open } : null;
}

/** A text without the lines of a draft that are still as they were drafted. */
function without(text: string, lines: Iterable<string>): string {
  const drafted = new Set(lines);
  return text
    .split('\n')
    .filter((line) => !drafted.has(line.trim()))
    .join('\n');
}

/** Edits a gate of a draft's diagram; a new gate may take the name of an open output. What stays open is left out of the sheet again. */
export function editDraftGate(draft: Draft, edit: GateEdit, library: Library): GateEdited {
  const own = edit.act === 'add' ? draft.open.get(edit.name) : undefined;
  const text = own === undefined ? draft.text : without(draft.text, [own]);
  const reading = own === undefined ? draft.reading : { ...draft.reading, sheet: parseSheet(text).sheet };
  const edited = editGate(text, reading, edit, library);
  return edited.ok ? { ok: true, text: without(edited.text, draft.open.values()) } : edited;
}

/** A draft's text after an edit, without the lines of the outputs that are still open. */
export function withoutDraft(draft: Draft, text: string): string {
  return without(text, draft.open.values());
}
