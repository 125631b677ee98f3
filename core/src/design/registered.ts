import { editLines, lineMaking } from './line-edit';
import { parseSheet } from './parser';
import type { Sheet, Storage } from './sheet';

/** The sheet with a signal taken from a flip-flop, and the clock that it then changes with. */
export interface Registered {
  readonly text: string;
  readonly clock: string;
}

/**
 * The sheet with a signal taken from a flip-flop, so that pulses between two edges of its clock are not seen: `Y = A & B` becomes `Y = A & B at rise CLK`. The
 * clock is one that the sheet has, or a new input. Null where no equation of the sheet's own makes the signal, or it is stored already.
 */
export function registered(text: string, name: string): Registered | null {
  const { sheet } = parseSheet(text);
  const line = lineMaking(sheet, name);
  const statement = sheet.lines[line]?.statement;
  if (statement?.kind !== 'equation' || statement.clauses) return null;
  const own = clockOf(sheet);
  const clock = own?.name ?? freeName(text);
  const storage: Storage = own?.storage ?? { kind: 'rise', clock: { kind: 'name', name: clock } };
  const stored = editLines(text, [{ line, statements: [{ ...statement, clauses: { storage } }] }]);
  if (own) return { text: stored, clock };
  const first = sheet.lines.findIndex((l) => l.statement?.kind === 'in');
  const declared = { kind: 'in', signals: [{ name: clock }] } as const;
  if (first < 0) return { text: `in ${clock}\n${stored}`, clock };
  return { text: editLines(stored, [{ line: first, statements: [declared], after: true }]), clock };
}

/** The first clock of a sheet that is a signal by itself. */
function clockOf({ lines }: Sheet): { readonly name: string; readonly storage: Storage } | null {
  for (const { statement } of lines) {
    const storage = statement?.kind === 'equation' ? statement.clauses?.storage : undefined;
    if (storage && storage.kind !== 'while' && storage.clock.kind === 'name')
      return { name: storage.clock.name, storage };
  }
  return null;
}

/** A name for a clock that stands nowhere in the sheet. */
function freeName(text: string): string {
  const taken = new Set(text.match(/[A-Za-z_]\w*/g) ?? []);
  for (let i = 0; ; i++) {
    const name = i === 0 ? 'CLK' : `CLK${i}`;
    if (!taken.has(name)) return name;
  }
}
