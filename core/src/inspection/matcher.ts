import { type Board, byNumber, cutPin, labelledPlaces, type Nets, pinOf, shownPin } from '../board';
import { type PartType, standsIn, typeOf } from '../catalogue';
import { elementAt } from '../element-at';
import {
  areEqual,
  choosable,
  drivenBy,
  dutyText,
  isGateUnit,
  type Package,
  type Packing,
  type UnitUse,
} from '../packing';
import { GROUND, SUPPLY } from '../planning';

/** A unit on the board that a gate may sit on: its chip, and what its pins are on. */
interface Seat {
  readonly ref: string;
  readonly type: PartType;
  readonly unit: number;
  readonly inputs: readonly string[];
  readonly output: string;
  /** Whether its output leads anywhere. */
  readonly leads: boolean;
}

/** A gate and the unit that the packing has it on. */
export interface Meant {
  readonly use: UnitUse;
  readonly ref: string;
  readonly type: PartType;
  readonly unit: number;
}

/** Finds the gates of a packing on the units of a board; used once. See `matched`. */
export class Matcher {
  private readonly uses: readonly Meant[];
  private readonly seats: readonly Seat[];
  /** The seats by their place, `U1.0`. */
  private readonly byPlace: ReadonlyMap<string, Seat>;
  private readonly free: Set<Seat>;
  /** Where each signal is found, as far as that is known. */
  private readonly found = new Map<string, string>();
  /** Where the LEDs want outputs. */
  private readonly shown = new Map<string, string>();
  private readonly labels: ReadonlyMap<number, string>;
  /** What each free seat does, the free seats by what they do, and the first net on which each such thing was found: nets that carry the same are one. */
  private does = new Map<Seat, string>();
  private doing = new Map<string, Set<Seat>>();
  private readonly first = new Map<string, string>();
  private readonly same = new Map<string, string>();

  constructor(
    private readonly packing: Packing,
    private readonly board: Board,
    private readonly nets: Nets,
  ) {
    this.labels = railLabels(board, nets);
    this.uses = usesOf(packing);
    this.seats = this.allSeats();
    this.byPlace = new Map(this.seats.map((seat) => [`${seat.ref}.${seat.unit}`, seat]));
    this.free = new Set(this.seats);
    this.found.set(SUPPLY, SUPPLY).set(GROUND, GROUND);
    const netOfOutput = new Map(packing.outputs.map((o) => [o.name, o.net]));
    for (const { signal, pin } of labelledPlaces(board, 'give'))
      if (packing.inputs.includes(signal)) this.found.set(signal, this.labelOf(pin));
    for (const place of labelledPlaces(board, 'show')) {
      const net = netOfOutput.get(place.signal);
      if (net !== undefined) this.shown.set(net, this.labelOf(shownPin(board, nets, place)));
    }
    // What is no plain gate keeps its place.
    for (const { use, ref, type, unit } of this.uses)
      if (!this.seatAt(ref, unit))
        for (const [k, net] of drivenBy(use).entries())
          this.found.set(net, this.labelOf(pinOf(ref, type.units[unit]?.outputs[k] ?? '')));
  }

  /** Whether every gate is wired just so in its own place. */
  isInPlace(): boolean {
    const found = new Map(this.found);
    for (const { use, ref, unit } of this.uses) {
      const seat = this.seatAt(ref, unit);
      if (seat) found.set(use.output, seat.output);
    }
    for (const [net, at] of this.shown) if (found.has(net) && found.get(net) !== at) return false;
    return this.uses.every((one) => {
      const seat = this.seatAt(one.ref, one.unit);
      if (!seat) return this.wrongPins(one, found) === 0;
      return one.use.inputs.every((net, k) => found.get(net) === seat.inputs[k]);
    });
  }

  /** Pins of a unit that is no gate, in its own place, that carry something else than they should; none where it is not seated. */
  private wrongPins({ use, ref, type, unit }: Meant, found: ReadonlyMap<string, string>): number {
    if (!this.board.parts[ref]) return 0;
    const inputs = type.units[unit]?.inputs ?? [];
    return use.inputs.filter((net, k) => found.get(net) !== this.labelOf(pinOf(ref, inputs[k] ?? ''))).length;
  }

  /** What is wired otherwise once everything is placed: pins of gates, of other units, and of what lamps show. */
  wrong(): { wrongPins: number; wrong: readonly Meant[] } {
    const wrong = this.uses.filter((one) => !this.seatAt(one.ref, one.unit) && this.isAstray(one));
    let wrongPins = this.wrongInGates;
    for (const one of wrong) wrongPins += this.wrongPins(one, this.found);
    for (const [net, at] of this.shown) if (this.found.has(net) && this.found.get(net) !== at) wrongPins++;
    return { wrongPins, wrong };
  }

  /** Whether a unit that is no gate has pins that are wired otherwise, or an output that another lamp shows. */
  private isAstray(one: Meant): boolean {
    return (
      this.wrongPins(one, this.found) > 0 ||
      drivenBy(one.use).some((net) => this.shown.has(net) && this.shown.get(net) !== this.found.get(net))
    );
  }

  private wrongInGates = 0;

  place(): Packing {
    this.seeWhatSeatsDo();
    let waiting = this.uses.filter(({ ref, unit }) => this.seatAt(ref, unit));
    // Gates in packages that are not seated cannot be found.
    const lost = this.uses.filter(({ ref, unit }) => !this.seatAt(ref, unit));
    const placed = new Map<string, UnitUse>();
    const put = (one: Meant, seat: Seat): void => {
      const { use } = one;
      this.free.delete(seat);
      this.doing.get(this.does.get(seat) ?? '')?.delete(seat);
      this.found.set(use.output, seat.output);
      const does = this.does.get(seat) ?? '';
      const before = this.first.get(does);
      if (before === undefined) this.first.set(does, seat.output);
      else this.same.set(seat.output, before);
      if (before !== undefined) this.seeWhatSeatsDo();
      const inputs = this.asWired(one, seat);
      this.wrongInGates += inputs.filter((net, k) => this.found.get(net) !== seat.inputs[k]).length;
      placed.set(`${seat.ref}.${seat.unit}`, { ...use, inputs });
    };
    while (waiting.length > 0) {
      const ready = waiting.filter(({ use }) => use.inputs.every((net) => this.found.has(net)));
      const rest = ready.length > 0 ? ready : waiting;
      const now = new Set<Meant>();
      for (const one of rest) {
        const seat = this.exactFor(one);
        if (!seat) continue;
        put(one, seat);
        now.add(one);
      }
      if (now.size === 0) {
        const chosen = this.best(rest);
        if (!chosen) return this.packing;
        put(chosen.one, chosen.seat);
        now.add(chosen.one);
      }
      waiting = waiting.filter((w) => !now.has(w));
    }
    return this.withUses(placed, new Set(lost.map(({ ref, unit }) => `${ref}.${unit}`)));
  }

  /** Units of plain gates on the board: those of the packing's chips where its own parts are seated, and of other chips there. */
  private allSeats(): Seat[] {
    const meantFor = new Map(this.packing.packages.map((p) => [p.ref, p]));
    return Object.values(this.board.parts)
      .sort((a, b) => byNumber(a.ref, b.ref))
      .flatMap((part) => {
        const type = typeOf(part);
        const meant = meantFor.get(part.ref);
        if (!type || !choosable.includes(type.id) || (meant && !isServedBy(meant, type))) return [];
        return type.units.flatMap((u, unit): Seat[] => {
          const inputs = u.inputs.map((pin) => this.labelOf(pinOf(part.ref, pin)));
          if (!isGateUnit(type, unit)) return [];
          const out = pinOf(part.ref, u.outputs[0] ?? '');
          const net = this.nets.nets[this.nets.ofPin.get(out) ?? -1];
          const leads = (net?.pins.length ?? 0) > 1;
          return [{ ref: part.ref, type, unit, inputs, output: this.labelOf(out), leads }];
        });
      });
  }

  private seeWhatSeatsDo(): void {
    this.does = new Map();
    this.doing = new Map();
    for (const seat of this.free) {
      const inputs = seat.inputs.map((l) => this.one(l));
      const does = dutyText(seat.type, seat.unit, inputs);
      if (does === null) continue;
      this.does.set(seat, does);
      const seats = this.doing.get(does);
      if (seats) seats.add(seat);
      else this.doing.set(does, new Set([seat]));
    }
  }

  /** One name for nets that carry the same. */
  private one(label: string): string {
    return this.same.get(label) ?? label;
  }

  private foundOne(net: string): string {
    const label = this.found.get(net);
    return label === undefined ? `nowhere ${net}` : this.one(label);
  }

  private seatAt(ref: string, unit: number): Seat | undefined {
    return this.byPlace.get(`${ref}.${unit}`);
  }

  /** A net as text: the rails by their level, an open pin by itself. */
  private labelOf(pin: string): string {
    const net = this.nets.ofPin.get(pin);
    return net === undefined ? `open ${pin}` : (this.labels.get(net) ?? `n${net}`);
  }

  /** A free seat that is wired to do what a gate does: its own first, then one whose output goes where it is shown. */
  private exactFor({ use, ref, type, unit }: Meant): Seat | undefined {
    const wanted = dutyText(
      type,
      unit,
      use.inputs.map((net) => this.foundOne(net)),
    );
    const all = [...(this.doing.get(wanted ?? '') ?? [])];
    // Spare units tied down do something too.
    const fits = all.some((s) => s.leads) ? all.filter((s) => s.leads) : all;
    const shown = this.shown.get(use.output);
    // Of gates that do the same, each is where its own lamp is, and none where another's is.
    const open = fits.filter((s) => !this.isShownFor(s.output, use.output));
    const own = open.find((s) => s.ref === ref && s.unit === unit);
    if (own && (shown === undefined || own.output === shown)) return own;
    return fits.find((s) => s.output === shown) ?? own ?? open[0] ?? fits[0];
  }

  /** Whether a lamp shows what is at a place under another name than the given one. */
  private isShownFor(output: string, net: string): boolean {
    for (const [shown, at] of this.shown) if (at === output && shown !== net) return true;
    return false;
  }

  /** The free seat like its own where the most is right; its own when others are no better. */
  private nearestFor(one: Meant): Seat | undefined {
    const { ref, type, unit } = one;
    const like = [...this.free].filter(
      (s) => s.type.units[s.unit]?.like === type.units[unit]?.like && s.type.id === type.id,
    );
    const own = like.find((s) => s.ref === ref && s.unit === unit);
    const [best] = [...(own ? [own] : []), ...like].sort((a, b) => this.right(one, b) - this.right(one, a));
    return best;
  }

  private best(rest: readonly Meant[]): { one: Meant; seat: Seat } | undefined {
    const all = rest.flatMap((one) => {
      const seat = this.nearestFor(one);
      return seat ? [{ one, seat }] : [];
    });
    return all.sort((a, b) => this.right(b.one, b.seat) - this.right(a.one, a.seat))[0];
  }

  /** How much of a gate is wired right on a seat: its inputs, and its output where an LED shows it. */
  private right(one: Meant, seat: Seat): number {
    const { use } = one;
    const wired = this.asWired(one, seat);
    const inputs = wired.filter((net, k) => this.found.get(net) === seat.inputs[k]).length;
    return 2 * inputs + Number(this.shown.get(use.output) === seat.output);
  }

  /** The nets of a gate in the order in which a seat has them, as far as its inputs are equal. */
  private asWired({ use, ...own }: Meant, seat: Seat): readonly string[] {
    const unit = seat.type.units[seat.unit];
    const signalAt = (label: string): string | undefined => {
      if (label === SUPPLY || label === GROUND) return label;
      const named = use.inputs.find((net) => this.found.get(net) === label);
      if (named !== undefined || !use.inputs.some((net) => this.foundOne(net) === this.one(label))) return named;
      // Another signal that carries the same.
      return [...this.found].find(([, at]) => at === label)?.[0];
    };
    const all = seat.inputs.map(signalAt);
    const wanted = dutyText(
      own.type,
      own.unit,
      use.inputs.map((net) => this.foundOne(net)),
    );
    const exact = all.every((net) => net !== undefined) ? (all as string[]) : null;
    if (!unit || use.inputs.length !== seat.inputs.length) return exact ?? use.inputs;
    const does =
      exact &&
      dutyText(
        seat.type,
        seat.unit,
        exact.map((net) => this.foundOne(net)),
      );
    if (exact && (wanted === null || does === wanted)) return exact;
    const order = [...use.inputs];
    for (const k of order.keys()) {
      if (this.found.get(elementAt(order, k)) === seat.inputs[k]) continue;
      const j = order.findIndex(
        (net, i) =>
          i !== k &&
          areEqual(unit, i, k) &&
          this.found.get(net) === seat.inputs[k] &&
          this.found.get(net) !== seat.inputs[i],
      );
      if (j >= 0) [order[k], order[j]] = [elementAt(order, j), elementAt(order, k)];
    }
    return order;
  }

  private withUses(placed: ReadonlyMap<string, UnitUse>, lost: ReadonlySet<string>): Packing {
    const known = new Set(this.packing.packages.map((p) => p.ref));
    const others = [...new Set([...placed.keys()].map((at) => cutPin(at).ref))].filter((r) => !known.has(r));
    const added = others.flatMap((ref): Package[] => {
      const part = this.board.parts[ref];
      const type = part && typeOf(part);
      return type ? [{ ref, part: part.part, units: type.units.map(() => null) }] : [];
    });
    const packages = [...this.packing.packages, ...added].map((p) => ({
      ...p,
      units: p.units.map((use, unit) => {
        const at = `${p.ref}.${unit}`;
        return placed.get(at) ?? (lost.has(at) ? use : null);
      }),
    }));
    return { ...this.packing, packages };
  }
}

function isServedBy(meant: Package, type: PartType): boolean {
  const wanted = typeOf(meant);
  return wanted !== null && standsIn(wanted, type);
}

function usesOf(packing: Packing): Meant[] {
  return packing.packages.flatMap(({ units, ...named }) => {
    const type = typeOf(named);
    return units.flatMap((use, unit) => (use && type ? [{ use, ref: named.ref, type, unit }] : []));
  });
}

function railLabels(board: Board, nets: Nets): Map<number, string> {
  const labels = new Map<number, string>();
  for (const part of Object.values(board.parts)) {
    if (typeOf(part)?.kind !== 'supply') continue;
    for (const [pin, label] of [
      ['+', SUPPLY],
      ['-', GROUND],
    ] as const) {
      const net = nets.ofPin.get(pinOf(part.ref, pin));
      if (net !== undefined) labels.set(net, label);
    }
  }
  return labels;
}
