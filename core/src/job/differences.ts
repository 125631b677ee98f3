import { diffLines } from 'diff';
import { byNumber } from '../board';
import { typeOf } from '../catalogue';
import type { Job } from './job';

/** A line of the sheet that is only in one of two versions; `line` counts from 1 in the version that has it. */
export interface LineDifference {
  readonly kind: 'added' | 'removed';
  readonly line: number;
  readonly text: string;
}

/** What differs between two versions of a job: lines of the sheet, and everything else in a sentence each, by what it is about. */
export interface Differences {
  readonly lines: readonly LineDifference[];
  readonly things: readonly { readonly about: string; readonly says: string }[];
}

/** So many edits apart lines are matched; beyond that all of a sheet counts as another. */
const MOST_EDITS = 2000;

/** What differs in `after` from `before`: the sheet line by line, then name, family, chips of the packing, parts, jumpers and notes. */
export function differences(before: Job, after: Job): Differences {
  const things = [
    ...changed('the job', 'name', before.name, after.name),
    ...changed('the job', 'family', before.family, after.family),
    ...ofRecords(packages(before), packages(after)),
    ...ofRecords(parts(before), parts(after)),
    ...ofRecords(jumpers(before), jumpers(after)),
    ...ofRecords(notes(before), notes(after)),
  ];
  return { lines: linesOf(before.sheet, after.sheet), things };
}

function linesOf(before: string, after: string): LineDifference[] {
  const changes = diffLines(before, after, { maxEditLength: MOST_EDITS }) ?? [
    { value: before, removed: true, added: false },
    { value: after, added: true, removed: false },
  ];
  const found: LineDifference[] = [];
  let [from, to] = [1, 1];
  for (const { value, added, removed } of changes) {
    const texts = value.replace(/\n$/, '').split('\n');
    if (removed) found.push(...texts.map((text, i) => ({ kind: 'removed' as const, line: from + i, text })));
    if (added) found.push(...texts.map((text, i) => ({ kind: 'added' as const, line: to + i, text })));
    if (!added) from += texts.length;
    if (!removed) to += texts.length;
  }
  return found;
}

type Things = ReadonlyMap<string, string>;

const packages = ({ packing }: Job): Things =>
  new Map((packing?.packages ?? []).map((p) => [`package ${p.ref}`, p.part]));

const parts = ({ board }: Job): Things =>
  new Map(
    Object.values(board.parts).map((part) => [
      part.ref,
      [
        typeOf(part)?.kind === 'chip' ? part.part : (typeOf(part)?.title ?? part.part),
        ...(part.value === undefined ? [] : [String(part.value)]),
        ...(part.signal === undefined ? [] : [`for ${part.signal}`]),
        `in ${part.at}`,
        ...(part.rotation === 0 ? [] : [`rotated by ${part.rotation}`]),
      ].join(' '),
    ]),
  );

const jumpers = ({ board }: Job): Things =>
  new Map(
    Object.values(board.jumpers).map(({ id, from, to, colour }) => [
      id,
      `${from} to ${to}${colour === undefined ? '' : `, ${colour}`}`,
    ]),
  );

const notes = ({ board }: Job): Things =>
  new Map(Object.values(board.notes ?? {}).map(({ id, at, text }) => [`note ${id}`, `at ${at}: ${text}`]));

function ofRecords(before: Things, after: Things): Differences['things'] {
  const about = [...new Set([...before.keys(), ...after.keys()])].sort(byNumber);
  return about.flatMap((one) => {
    const [was, is] = [before.get(one), after.get(one)];
    if (was === is) return [];
    if (was === undefined) return [{ about: one, says: `new: ${is}` }];
    return [{ about: one, says: is === undefined ? `gone: ${was}` : `${was} becomes ${is}` }];
  });
}

function changed(about: string, what: string, before: string, after: string): Differences['things'] {
  return before === after ? [] : [{ about, says: `${what} ${before} becomes ${after}` }];
}
