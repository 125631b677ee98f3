import { type Board, extractNets, nextFree, type SeatedPart } from '../board';
import { applyEdit, type Command, freeSeat, newJob, readCommand } from '../job';

/** Rails of a `wired` board, as they are typed. */
export const PLUS = 'b1.top+';
/** The minus rail of a `wired` board. */
export const MINUS = 'b1.top-';

/**
 * A board wired by typed commands, each of which must work; it begins with a supply on its rails. A `lying resistor`, or
 * `lying capacitor`, has both its leads in strips of their own, where one that is seated stands with an end in a rail.
 */
export function wired(...commands: string[]): Board {
  const start = ['seat supply b1.top+3', 'b1.top-61 > b1.bottom-61', 'b1.top+60 > b1.bottom+60', ...commands];
  return start.reduce((job, text) => {
    const [, kind] = /^lying (resistor|capacitor)$/.exec(text) ?? [];
    const command = kind ? lying(job.board, kind) : readCommand(job.board, text);
    const applied = command.ok ? applyEdit(job, command.edit) : null;
    if (applied?.ok) return applied.job;
    throw new Error(`${text}: ${JSON.stringify([command, applied])}`);
  }, newJob('bench')).board;
}

function lying(board: Board, kind: string): Command {
  const ref = nextFree(kind === 'resistor' ? 'R' : 'C', board.parts);
  const wanted: SeatedPart = { ref, part: kind, at: '', rotation: 90, value: 1000 };
  const part = kind === 'resistor' ? freeSeat(board, wanted) : inOwnStrips(board, wanted);
  if (!part) throw new Error(`no place for a ${kind}`);
  return { ok: true, edit: { kind: 'seat', part } };
}

/** A part of two leads in two strips that nothing else is in. */
function inOwnStrips(board: Board, wanted: SeatedPart): SeatedPart | null {
  for (let column = 60; column > 1; column--) {
    const part = { ...wanted, at: `b1.h${column}` };
    const seated = applyEdit({ ...newJob('bench'), board }, { kind: 'seat', part });
    if (!seated.ok) continue;
    const { nets, ofPin } = extractNets(seated.job.board);
    const isAlone = (lead: string): boolean => nets[ofPin.get(`${part.ref}.${lead}`) ?? -1]?.pins.length === 1;
    if (isAlone('1') && isAlone('2')) return part;
  }
  return null;
}

/** A resistor between two places; `n` is its number. */
export const resistor = (n: number, ohms: string, from: string, to: string): string[] => [
  'lying resistor',
  `value R${n} ${ohms}`,
  `R${n}.1 > ${from}`,
  `R${n}.2 > ${to}`,
];

/** A capacitor between two places; `n` is its number. */
export const capacitor = (n: number, farads: string, from: string, to: string): string[] => [
  'lying capacitor',
  `value C${n} ${farads}`,
  `C${n}.1 > ${from}`,
  `C${n}.2 > ${to}`,
];

/** Switches to supply, each pulled down by the resistor of its number: `S1.2` gives its level. */
export const switches = (count: number): string[] =>
  Array.from({ length: count }, (_, i) => i + 1).flatMap((i) => [
    'seat switch',
    `S${i}.1 > ${PLUS}`,
    ...resistor(i, '10k', `S${i}.2`, MINUS),
  ]);

/**
 * An inverter of an NPN, the `n`-th transistor: its emitter at ground, a resistor of `base` from `input` to its base and one of
 * `load` from supply to its collector, `Q1.3`; `r` and the number after it are those of the resistors.
 */
export const inverter = (
  n: number,
  r: number,
  input: string,
  { base = '10k', load = '1k' }: { readonly base?: string; readonly load?: string } = {},
): string[] => [
  'seat npn',
  `Q${n}.1 > ${MINUS}`,
  ...resistor(r, base, input, `Q${n}.2`),
  ...resistor(r + 1, load, `Q${n}.3`, PLUS),
];
