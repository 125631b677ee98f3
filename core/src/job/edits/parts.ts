import type { Draft } from 'immer';
import { type Board, checkSeat, labelPlacesOf, partOf, type SeatedPart } from '../../board';
import { innerName, type PartName, type PartType, typeOf } from '../../catalogue';
import { entryOf } from '../../element-at';
import { type Finding, finding } from '../../finding';
import { type Move, moved } from '../move';
import { type Shift, shifted } from '../shift';
import type { EditKinds } from './kind';
import { isName } from './names';

/** The most milliamperes that a supply's limit can be set to. */
const MOST_LIMIT_MA = 10_000;
/** The most characters of a signal's label. */
const MAX_LABEL = 120;

/** Edits of seated parts. In `move`, `follow` takes the jumpers along that end in the part's own strips. */
export type PartEdit =
  | { readonly kind: 'seat'; readonly part: SeatedPart }
  | ({ readonly kind: 'move' } & Move)
  | ({ readonly kind: 'shift' } & Shift)
  | { readonly kind: 'label'; readonly ref: string; readonly signal: string; readonly of?: string }
  | { readonly kind: 'pull-part'; readonly ref: string }
  | { readonly kind: 'set-value'; readonly ref: string; readonly value: number }
  | { readonly kind: 'set-span'; readonly ref: string; readonly span: number }
  | { readonly kind: 'set-limit'; readonly ref: string; readonly ma: number }
  | { readonly kind: 'fix'; readonly refs: readonly string[]; readonly fixed: boolean }
  | { readonly kind: 'replace'; readonly ref: string; readonly by: PartName };

/** Edits of seated parts: seated, taken out, moved, turned, given values and labels. */
export const partEdits: EditKinds<PartEdit> = {
  seat: {
    refuses: ({ board }, { part }) =>
      partOf(board, part.ref) ? [finding('hand/ref-taken', [], { ref: part.ref })] : checkSeat(board, part),
    apply: ({ board }, { part }) => {
      board.parts[part.ref] = part as Draft<SeatedPart>;
    },
    says: ({ part }) => `seat ${part.ref}`,
  },
  move: {
    refuses: ({ board }, edit) => findingsIn(moved(board, edit)),
    apply: (draft, edit, { board }) => {
      draft.board = moved(board, edit) as Draft<Board>;
    },
    says: ({ ref }) => `move ${ref}`,
  },
  shift: {
    refuses: ({ board }, edit) => findingsIn(shifted(board, edit)),
    apply: (draft, edit, { board }) => {
      draft.board = shifted(board, edit) as Draft<Board>;
    },
    says: ({ what }) => `move ${what.length} things`,
  },
  label: {
    refuses: ({ board }, { ref, signal, of }) =>
      signal !== '' && !isName(signal, MAX_LABEL)
        ? [finding('hand/no-name', [], { most: MAX_LABEL })]
        : cannotLabel(board, ref, of),
    apply: ({ board }, { ref, signal, of }) => setLabel(entryOf(board.parts, ref), signal, of),
    says: ({ ref }) => `label ${ref}`,
  },
  'pull-part': {
    refuses: ({ board }, { ref }) => missing(board, [ref]),
    apply: ({ board }, { ref }) => {
      delete board.parts[ref];
    },
    says: ({ ref }) => `pull ${ref}`,
  },
  'set-value': {
    refuses: ({ board }, { ref }) => missing(board, [ref]),
    apply: ({ board }, { ref, value }) => {
      entryOf(board.parts, ref).value = value;
    },
    says: ({ ref }) => `value of ${ref}`,
  },
  'set-span': {
    refuses: ({ board }, { ref, span }) => cannotBend(board, ref, span),
    apply: ({ board }, { ref, span }) => {
      entryOf(board.parts, ref).span = span;
    },
    says: ({ ref }) => `leads of ${ref}`,
  },
  'set-limit': {
    refuses: ({ board }, { ref, ma }) => cannotLimit(board, ref, ma),
    apply: ({ board }, { ref, ma }) => {
      entryOf(board.parts, ref).limit = ma;
    },
    says: ({ ref }) => `limit of ${ref}`,
  },
  fix: {
    refuses: ({ board }, { refs }) => missing(board, refs),
    apply: ({ board }, { refs, fixed }) => {
      for (const ref of refs) {
        const part = entryOf(board.parts, ref);
        if (fixed) part.fixed = true;
        else delete part.fixed;
      }
    },
    says: ({ refs, fixed }) => `${fixed ? 'fix' : 'unfix'} ${refs.join(', ')}`,
  },
  replace: {
    refuses: ({ board }, { ref, by }) => cannotReplace(board, ref, by),
    apply: ({ board }, { ref, by }) => {
      const { own: _, ...part } = entryOf(board.parts, ref);
      board.parts[ref] = { ...part, ...by } as Draft<SeatedPart>;
    },
    says: ({ ref }) => `replace ${ref}`,
  },
};

const findingsIn = (next: Board | Finding[]): readonly Finding[] => (Array.isArray(next) ? next : []);

/** A finding for each part that is not there. */
function missing(board: Board, refs: readonly string[]): Finding[] {
  return refs.flatMap((ref) => (partOf(board, ref) ? [] : [finding('hand/no-such-part', [], { ref })]));
}

/** A part with several contacts or lamps is labelled at one of them. */
function cannotLabel(board: Board, ref: string, of = ''): Finding[] {
  const part = partOf(board, ref);
  if (!part) return [finding('hand/no-such-part', [], { ref })];
  const names = labelPlacesOf(part).map((p) => p.name);
  if (of === '' ? names.length === 0 || names.includes('') : names.includes(of)) return [];
  const [first = '', last = ''] = [names[0], names.at(-1)].map((n) => innerName(ref, n ?? ''));
  return [finding('hand/no-such-place', [{ kind: 'part', ref }], { at: innerName(ref, of), first, last })];
}

function setLabel(part: Draft<SeatedPart>, signal: string, of = ''): void {
  if (of !== '') {
    const others = (part.labels ?? []).filter((l) => l.of !== of);
    part.labels = signal === '' ? others : [...others, { of, signal }];
    if (part.labels.length === 0) delete part.labels;
  } else if (signal === '') delete part.signal;
  else part.signal = signal;
}

/** Leads reach as far as they are long, and into holes that are free. */
function cannotBend(board: Board, ref: string, span: number): Finding[] {
  const part = partOf(board, ref);
  if (!part) return [finding('hand/no-such-part', [], { ref })];
  const [least, most] = typeOf(part)?.spans ?? [];
  if (least === undefined || most === undefined) return [finding('hand/stiff-leads', [{ kind: 'part', ref }], { ref })];
  if (!Number.isInteger(span) || span < least || span > most)
    return [finding('hand/no-span', [{ kind: 'part', ref }], { ref, least, most })];
  const { [ref]: _, ...parts } = board.parts;
  return checkSeat({ ...board, parts }, { ...part, span });
}

/** Bench supplies have a current limit; a battery gives what it can. */
function cannotLimit(board: Board, ref: string, ma: number): Finding[] {
  const part = partOf(board, ref);
  if (!part) return [finding('hand/no-such-part', [], { ref })];
  if (part.part !== 'supply') return [finding('hand/no-limit', [{ kind: 'part', ref }], { ref })];
  const isPossible = Number.isInteger(ma) && ma >= 1 && ma <= MOST_LIMIT_MA;
  return isPossible ? [] : [finding('hand/limit-range', [{ kind: 'part', ref }], { ref, most: MOST_LIMIT_MA })];
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
