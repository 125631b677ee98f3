import {
  type Board,
  freeHoles,
  type Hole,
  holesOfStrip,
  leadsOf,
  nextFree,
  pinOf,
  printHole,
  type SeatedPart,
  unusableHoles,
} from '../board';
import { E12, valuesOf } from '../catalogue';
import type { FoundTimer } from '../electrical';
import { type Finding, finding } from '../finding';
import { type Edit, freeSeat } from '../job';
import { FARADS } from './timer-values';

/** How many times as fast a timer runs while its fast switch is open. */
export const TIMES_FASTER = 100;

/** In which order places for the second capacitor are tried: beside each other in two strips, to the right or to the left. */
const ROTATIONS = [90, 270, 0, 180] as const;

/**
 * A fast switch for a timer, as one edit: its capacitor becomes one of a hundredth, and a second of its old value lies beside it behind a
 * switch. Closed, the timer runs as before (a hundredth slower); open, a hundred times as fast. A finding where there is no
 * room, or the timer is too fast already.
 */
export function fastSwitch(board: Board, timer: FoundTimer): { readonly edit: Edit } | { readonly finding: Finding } {
  const part = board.parts[timer.capacitor];
  const small = timer.values.farads / TIMES_FASTER;
  if (!part || small < FARADS.least) return refusal('timer/too-fast', timer);
  const nanofarads = Number((nearest(small) * 1e9).toPrecision(4));
  const site = new Site(board);
  const own = site.insteadOf(part, nanofarads);
  const large = site.seat({ ...part, ref: nextFree('C', board.parts) }, ROTATIONS);
  const contact = site.seat({ ref: nextFree('S', board.parts), part: 'switch', at: part.at, rotation: 0 });
  const isWired =
    own &&
    large &&
    contact &&
    site.wire([part.ref, '1'], [large.ref, '1']) &&
    site.wire([large.ref, '2'], [contact.ref, '1']) &&
    site.wire([contact.ref, '2'], [part.ref, '2']);
  if (!isWired) return refusal('timer/no-room', timer);
  return { edit: { kind: 'all', says: `fast switch ${contact.ref} for the timer at ${timer.pin}`, edits: site.edits } };
}

const refusal = (code: 'timer/too-fast' | 'timer/no-room', { pin }: FoundTimer) => ({
  finding: finding(code, [{ kind: 'pin', pin }], { pin }),
});

/** The value of the series E12 nearest to one, in farads. */
function nearest(farads: number): number {
  const off = (value: number): number => Math.abs(Math.log(value / farads));
  const values = valuesOf(E12, FARADS).map((f) => Number(f.toPrecision(3)));
  return values.reduce((best, value) => (off(value) < off(best) ? value : best));
}

/** A board to which parts and jumpers are added, with the edits that add them. */
class Site {
  readonly edits: Edit[] = [];

  constructor(private board: Board) {}

  /** A capacitor with a hundredth: an electrolytic gives way to a ceramic one in the same holes, for so small there are none. */
  insteadOf(part: SeatedPart, nanofarads: number): boolean {
    if (part.part !== 'electrolytic') {
      this.put({ ...part, value: nanofarads }, { kind: 'set-value', ref: part.ref, value: nanofarads });
      return true;
    }
    const at = (seated: SeatedPart): string =>
      leadsOf(seated)
        .map(({ hole }) => (hole ? printHole(hole) : ''))
        .join();
    const wanted = at(part);
    for (const rotation of ROTATIONS)
      for (let span = 1; span <= 5; span++) {
        const ceramic: SeatedPart = { ...part, part: 'capacitor', rotation, span, value: nanofarads };
        if (at(ceramic) !== wanted) continue;
        this.edits.push({ kind: 'pull-part', ref: part.ref });
        this.put(ceramic, { kind: 'seat', part: ceramic });
        return true;
      }
    return false;
  }

  /** Seats a part in strips that hold nothing yet, turned as it fits; null where there is no room. */
  seat(part: SeatedPart, rotations: readonly SeatedPart['rotation'][] = [part.rotation]): SeatedPart | null {
    for (const rotation of rotations) {
      const seated = freeSeat(this.board, { ...part, rotation }, part.part === 'switch' ? undefined : 'c');
      if (!seated || !this.isApart(seated)) continue;
      this.put(seated, { kind: 'seat', part: seated });
      return seated;
    }
    return null;
  }

  /** Lays a jumper between the strips of two leads; whether there was a free hole in both. */
  wire(from: readonly [ref: string, pin: string], to: readonly [ref: string, pin: string]): boolean {
    const [a, b] = [this.holeOf(from), this.holeOf(to)];
    const taken = unusableHoles(this.board);
    const [start] = a && b ? freeHoles(taken, a, b) : [];
    const [end] = a && b ? freeHoles(taken, b, a) : [];
    if (!start || !end) return false;
    const jumper = { id: nextFree('w', this.board.jumpers), from: printHole(start), to: printHole(end) };
    this.board = { ...this.board, jumpers: { ...this.board.jumpers, [jumper.id]: jumper } };
    this.edits.push({ kind: 'lay-jumper', jumper });
    return true;
  }

  private put(part: SeatedPart, edit: Edit): void {
    this.board = { ...this.board, parts: { ...this.board.parts, [part.ref]: part } };
    this.edits.push(edit);
  }

  /** Whether the leads of a part lie in strips of their own, in which nothing else is. */
  private isApart(part: SeatedPart): boolean {
    const taken = unusableHoles(this.board);
    const strips = leadsOf(part).map(({ hole }) => (hole ? holesOfStrip(hole).map(printHole) : []));
    const apart = new Set(strips.flat()).size === strips.flat().length;
    return apart && strips.every((holes) => holes.length > 0 && holes.every((hole) => !taken.has(hole)));
  }

  private holeOf([ref, pin]: readonly [string, string]): Hole | null {
    const part = this.board.parts[ref];
    const lead = part && leadsOf(part).find(({ type }) => pinOf(ref, type.id) === pinOf(ref, pin));
    return lead?.hole ?? null;
  }
}
