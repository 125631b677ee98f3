import {
  type Board,
  byNumber,
  extractNets,
  type Jumper,
  type LabelPlace,
  labelledPlaces,
  labelPlacesOf,
  lampFeed,
  leadsOf,
  type Nets,
  nextFree,
  parseHole,
  type SeatedPart,
  stripOf,
} from '../board';
import { innerOf, isIndicator, isStimulus, typeOf } from '../catalogue';
import { type FittedSignals, fittingWords, type Netlist } from '../design';
import { elementAt } from '../element-at';
import type { Finding } from '../finding';
import { matched } from '../inspection';
import { applyEdit, newJob } from '../job';
import { type Locks, noLocks, type Package, type Packing } from '../packing';
import { expectationOf, GROUND, type LayoutBoardKind, SUPPLY, timerNets } from '../planning';
import { isFitted } from './fitted';
import { nextStepOf } from './guide';
import { mistimed, timingPartsOf } from './timer-parts';

/**
 * A board brought up to a packing, with the packing on the units as they are wired: what was taken off and what was put
 * on, by reference and id. `stopped` says why it could not be finished: then the board is not to be used.
 */
export interface Update {
  readonly packing: Packing;
  readonly board: Board;
  readonly taken: readonly string[];
  readonly added: readonly string[];
  readonly stopped: Finding | null;
}

/** The most things that are added; a board takes no more. */
const MOST_STEPS = 5000;

/**
 * Brings a board up to a packing of a design that has changed, and keeps what it can: parts that still serve stay
 * where they are, jumpers that join nothing wrong stay; then what is missing is added as a person would be led.
 * `tell` is called with the share that is done.
 */
export function broughtUpTo(
  board: Board,
  packing: Packing,
  netlist: Netlist,
  {
    kind = 'full',
    tell,
  }: { readonly kind?: LayoutBoardKind; readonly tell?: ((share: number) => void) | undefined } = {},
): Update {
  const kept = withoutWrong(board, withFixedChips(packing, board), netlist.fittings);
  // What was kept was kept for these units: another match of the half-empty board might choose others.
  const { wired } = kept;
  let job = { ...newJob('update'), board: kept.board };
  let stopped: Finding | null = null;
  for (let n = 0; n < MOST_STEPS; n++) {
    const next = nextStepOf(job.board, wired, netlist, kind);
    tell?.(next.done / Math.max(1, next.total));
    stopped = next.stopped;
    if (!next.step) break;
    const applied = applyEdit(job, next.step.edit);
    if (!applied.ok) {
      stopped = applied.findings[0] ?? null;
      break;
    }
    job = applied.job;
  }
  const names = (b: Board): string[] => [...Object.keys(b.parts), ...Object.keys(b.jumpers)].sort(byNumber);
  const [before, after] = [new Set(names(board)), new Set(names(job.board))];
  const same = (id: string): boolean =>
    JSON.stringify([board.parts[id], board.jumpers[id]]) ===
    JSON.stringify([job.board.parts[id], job.board.jumpers[id]]);
  return {
    packing: wired,
    board: job.board,
    taken: [...before].filter((id) => !after.has(id) || !same(id)),
    added: [...after].filter((id) => !before.has(id) || !same(id)),
    stopped,
  };
}

/** Whether a board has parts that a person fixed. */
export function hasFixed({ parts }: Board): boolean {
  return Object.values(parts).some((p) => p.fixed);
}

/**
 * A packing laid out around the parts that a person fixed: they stay, with the boards there are, and everything else
 * is seated and wired anew. Fixed chips are taken for packages of their number. What has to stay as `held` says keeps its name.
 */
export function laidAround(
  board: Board,
  packing: Packing,
  netlist: Netlist,
  {
    locks = noLocks,
    kind = 'full',
    tell,
  }: {
    readonly locks?: Locks;
    readonly kind?: LayoutBoardKind;
    readonly tell?: ((share: number) => void) | undefined;
  } = {},
): Update {
  const parts = Object.fromEntries(Object.entries(board.parts).filter(([, part]) => part.fixed));
  const update = broughtUpTo({ ...board, parts, jumpers: {} }, namedAfter(packing, parts, locks), netlist, {
    kind,
    tell,
  });
  const taken = [...Object.keys(board.parts), ...Object.keys(board.jumpers)].filter((id) => !parts[id]);
  return { ...update, taken };
}

/** The packing with the fixed chips that it has no package for: they are supplied, and their inputs tied, like any other. */
function withFixedChips(packing: Packing, { parts }: Board): Packing {
  const names = new Set(packing.packages.map((p) => p.ref));
  const idle = Object.values(parts).flatMap(({ ref, part, own, fixed }): Package[] => {
    const type = typeOf({ part, ...(own !== undefined && { own }) });
    if (!fixed || names.has(ref) || type?.kind !== 'chip') return [];
    return [{ ref, part, ...(own !== undefined && { own }), units: type.units.map(() => null) }];
  });
  return idle.length === 0 ? packing : { ...packing, packages: [...packing.packages, ...idle] };
}

/** The packing with its packages named after chips of their number that are seated already. */
function namedAfter(packing: Packing, parts: Board['parts'], locks: Locks): Packing {
  const bound = new Set([...locks.pins.map((p) => p.ref), ...locks.added.map((a) => a.ref)]);
  const names = packing.packages.map((p) => p.ref);
  const chips = Object.values(parts).filter((part) => typeOf(part)?.kind === 'chip');
  const isGood = (i: number): boolean => parts[names[i] ?? '']?.part === packing.packages[i]?.part;
  for (const { ref, part } of chips) {
    if (bound.has(ref)) continue;
    const i = packing.packages.findIndex((p, k) => p.part === part && !isGood(k) && !bound.has(names[k] ?? ''));
    if (names.some((n, k) => n === ref && isGood(k))) continue;
    const other = names.indexOf(ref);
    const spare = nextFree('U', { ...parts, ...Object.fromEntries(names.map((n) => [n, true])) });
    // A package that has the name of another chip gets a free one.
    if (other >= 0) names[other] = i >= 0 && i !== other ? elementAt(names, i) : spare;
    if (i >= 0) names[i] = ref;
  }
  return { ...packing, packages: packing.packages.map((p, i) => ({ ...p, ref: elementAt(names, i) })) };
}

/** The board without parts that no longer serve and jumpers that would join what must not be joined, and the units that it was held to. */
function withoutWrong(
  board: Board,
  packing: Packing,
  fittings: readonly FittedSignals[],
): { board: Board; wired: Packing } {
  const parts = servingParts(board, packing, fittings);
  const bare = { ...board, parts };
  const wired = matched(packing, bare, extractNets(bare));
  const labels = new Labels(bare, wired, extractNets(board));
  const jumpers: Record<string, Jumper> = {};
  const loose = (j: Jumper): boolean => [j.from, j.to].some((end) => labels.isDeserted(end, board));
  for (const jumper of Object.values(board.jumpers).sort((a, b) => byNumber(a.id, b.id)))
    if (!loose(jumper) && labels.join(jumper.from, jumper.to)) jumpers[jumper.id] = jumper;
  return { board: { ...bare, jumpers }, wired };
}

/**
 * Parts that stay: chips that the packing has under their name, switches and lamps of signals that are left and may come from them or be shown on them,
 * and what has no label. Of parts with several labels those that answer nothing are taken off.
 */
function servingParts(board: Board, packing: Packing, fittings: readonly FittedSignals[]): Record<string, SeatedPart> {
  const chips = new Map(packing.packages.map((p) => [p.ref, p.part]));
  const outputs = new Set(packing.outputs.map((o) => o.name));
  // A signal that is input and output may have one of either kind.
  const [given, shown] = ([fittingWords.in, fittingWords.out] as const).map((kinds: readonly string[]) => {
    const some = fittings.filter((f) => kinds.includes(f.fitting.kind));
    return new Map(some.flatMap((f) => f.signals.map((name) => [name, f] as const)));
  });
  const serves = (part: SeatedPart, signal: string, of: string): boolean => {
    const gives = isStimulus(typeOf(part));
    const fitted = (gives ? given : shown)?.get(signal);
    const isThere = gives ? packing.inputs.includes(signal) : outputs.has(signal);
    return isThere && (!fitted || isFitted(part, of, fitted, signal));
  };
  const kept = Object.values(board.parts).map((part) => {
    const labels = part.labels?.filter((l) => part.fixed || serves(part, l.signal, l.of));
    return labels && labels.length > 0 ? { ...part, labels } : part;
  });
  const gone = kept.filter((part) => {
    const type = typeOf(part);
    if (part.fixed) return false;
    if (part.signal !== undefined && innerOf(type).runs) return !serves(part, part.signal, '');
    if (type?.kind === 'chip') return chips.get(part.ref) !== part.part;
    if (part.labels !== undefined) return part.labels.every((l) => !serves(part, l.signal, l.of));
    if (part.signal === undefined) return false;
    return (isStimulus(type) || isIndicator(type)) && !serves(part, part.signal, '');
  });
  const nets = extractNets(board);
  const strips = new Set(gone.filter((p) => typeOf(p)?.kind !== 'chip').flatMap(stripsOf));
  // The parts of a timer go with it, or where they make another rate.
  const hertzOf = (signal: string): number | undefined => {
    const fitting = given?.get(signal)?.fitting;
    return fitting?.kind === 'timer' ? fitting.hertz : undefined;
  };
  const timers = gone.filter((part) => innerOf(typeOf(part)).runs);
  const untimed = [
    ...timers.flatMap((part) => timingPartsOf(board, nets, part)),
    ...mistimed(board, nets, hertzOf).flatMap(({ timer }) => [...timer.resistors, timer.capacitor]),
  ];
  // The resistors of switches and lamps that go, go with them, and the transistor of a buzzer; those of segments that lose their label too.
  const left = new Set(kept.flatMap((part) => (gone.includes(part) ? [] : labelPlacesOf(part).map(labelledAs))));
  const dark = labelledPlaces(board, 'show').filter((place) => !left.has(labelledAs(place)));
  const feeds = dark.flatMap((place) => lampFeed(board, nets, place).through);
  const refs = new Set([
    ...gone.map((p) => p.ref),
    ...[...feeds, ...untimed].filter((ref) => !board.parts[ref]?.fixed),
  ]);
  return Object.fromEntries(
    kept
      .map((part) => [part.ref, part] as const)
      .filter(([ref, part]) => {
        const with_ = innerOf(typeOf(part)).resistors.length > 0 && stripsOf(part).some((s) => strips.has(s));
        return !refs.has(ref) && !with_;
      }),
  );
}

const labelledAs = ({ called, signal }: LabelPlace): string => `${called} ${signal}`;

function stripsOf(part: SeatedPart): string[] {
  return leadsOf(part).flatMap(({ hole }) => (hole && hole.row.length === 1 ? [stripOf(hole)] : []));
}

/** Before the name of an unused output, as what its strip carries. */
const SPARE = 'spare ';

/** What each group of joined strips must carry; groups of two different signals are never joined. */
class Labels {
  private readonly parent = new Map<string, string>();
  private readonly label = new Map<string, string>();
  private readonly inUse = new Set<string>();

  /** `nets` are those of the board with all its jumpers: lamps show what comes to them through them. */
  constructor(board: Board, packing: Packing, nets: Nets) {
    const timers = Object.values(board.parts).filter((p) => p.signal !== undefined && innerOf(typeOf(p)).runs);
    const joined = timers.flatMap((timer) => [...timerNets(timer)]);
    const expected = new Map([...expectationOf(packing, board, nets), ...joined]);
    for (const part of Object.values(board.parts))
      for (const { pin, type, hole } of leadsOf(part)) {
        if (!hole) continue;
        const strip = stripOf(hole);
        this.inUse.add(strip);
        const rail = this.railOf(part, type.role, type.id);
        // A spare input is tied to ground, a spare output to nothing.
        const spare = type.role === 'output' ? `${SPARE}${pin}` : type.role === 'input' ? GROUND : undefined;
        const own = rail ?? expected.get(pin) ?? spare;
        if (own !== undefined && !this.label.has(strip)) this.label.set(strip, own);
      }
  }

  private railOf(part: SeatedPart, role: string, id: string): string | undefined {
    if (role === 'supply' || (part.part === 'supply' && id === '+')) return SUPPLY;
    return role === 'ground' || (part.part === 'supply' && id === '-') ? GROUND : undefined;
  }

  private find(strip: string): string {
    let at = strip;
    for (let up = this.parent.get(at); up !== undefined; up = this.parent.get(at)) at = up;
    return at;
  }

  /** Whether an end was in a strip of a part that is gone, where nothing is left to be joined. */
  isDeserted(end: string, before: Board): boolean {
    const hole = parseHole(end);
    if (!hole || hole.row.length > 1) return false;
    const strip = stripOf(hole);
    if (this.inUse.has(strip)) return false;
    return Object.values(before.parts).some((part) => stripsOf(part).includes(strip));
  }

  /** Joins the strips of two holes; false when they must carry different signals. */
  join(from: string, to: string): boolean {
    const [a, b] = [parseHole(from), parseHole(to)];
    if (!a || !b) return false;
    const [p, q] = [this.find(stripOf(a)), this.find(stripOf(b))];
    if (p === q) return true;
    const [one, other] = [this.label.get(p), this.label.get(q)];
    if (one !== undefined && other !== undefined && one !== other) return false;
    // What an unused gate gives goes nowhere.
    if (one?.startsWith(SPARE) || other?.startsWith(SPARE)) return false;
    this.parent.set(q, p);
    if (one === undefined && other !== undefined) this.label.set(p, other);
    return true;
  }
}
