import {
  type Board,
  checkSeat,
  crossingsFrom,
  cutPin,
  emptyBoard,
  type Hole,
  holesOfStrip,
  holeXY,
  isRail,
  isRailStrip,
  type LabelPlace,
  labelledPlaces,
  leadsOf,
  markOf,
  type Nets,
  nextBreadboard,
  nextFree,
  parseHole,
  partOf,
  pinOf,
  printHole,
  type SeatedPart,
  spokenPin,
  stripNamed,
  stripOf,
  unusableHoles,
} from '../board';
import { type Inner, typeOf } from '../catalogue';
import { type Finding, finding } from '../finding';
import { clearSeat, type Edit } from '../job';
import type { Packing } from '../packing';
import {
  expectationOf,
  GROUND,
  type LayoutBoardKind,
  nameNets,
  type SeatOptions,
  SUPPLY,
  seatAll,
  shownSignal,
  sourcesOf,
  Wirer,
} from '../planning';

/** What to do next: an edit that does it, and what it is for in words. */
export interface GuideStep {
  readonly edit: Edit;
  readonly says: string;
}

/** A thing that must be so: null when it is, otherwise what makes it so, or what stands in the way. */
export type Want = () => GuideStep | Finding | null;

/**
 * A board as it is being built, beside the plan of a packing: what is there already, wherever it is, and how what is
 * missing is added. Knows nothing of the order of a build.
 */
export class GuideSite {
  readonly planned: Board;
  /** What pins of the plan are joined to where no label says it. */
  private readonly joins: ReadonlyMap<string, string>;
  private readonly kind: LayoutBoardKind;
  /** The pin that gives each signal. */
  readonly sources: ReadonlyMap<string, string>;
  /** What nets of the board carry. */
  readonly names: ReadonlyMap<number, string>;
  private readonly netOf: ReadonlyMap<string, number>;

  constructor(
    readonly board: Board,
    readonly nets: Nets,
    readonly packing: Packing,
    { kind = 'full', ...wanted }: SeatOptions,
  ) {
    this.kind = kind;
    const seated = seatAll(packing, { kind, ...wanted });
    this.planned = seated?.board ?? emptyBoard;
    this.joins = seated?.joins ?? new Map();
    this.sources = sourcesOf(packing, board);
    this.names = nameNets(nets, this.sources);
    this.netOf = new Map([...this.names].map(([net, name]) => [name, net]));
  }

  /** How many pins carry another signal than they should. */
  conflicts(): number {
    return [...this.expected()].filter(([pin, signal]) => {
      const carried = this.names.get(this.nets.ofPin.get(pin) ?? -1);
      return carried !== undefined && carried !== signal;
    }).length;
  }

  /** A rail is fed with what its mark says. */
  railFed(rail: Hole): Want {
    const strip = stripOf(rail);
    return () => {
      const wanted = markOf(strip) === '+' ? SUPPLY : GROUND;
      const home = this.netOf.get(wanted);
      if (home === undefined || this.nets.ofStrip.get(strip) === home) return null;
      const carried = this.names.get(this.nets.ofStrip.get(strip) ?? -1);
      if (carried !== undefined) return this.wrong(strip, carried, wanted);
      const free = this.freeHoles(holesOfStrip(rail));
      const there = this.freeHoles(
        this.stripsOf(home)
          .filter((h) => isRail(h.row))
          .flatMap(holesOfStrip),
      );
      const pair = nearestPair(free, there);
      return pair ? this.jumper(pair, `the ${strip} rail to ${shownSignal(wanted)}`) : null;
    };
  }

  /**
   * A resistor from the strip of a net to ground: any that is there serves. A new one is seated in that strip if it
   * can be, or else anywhere, and then wired; of so many ohms where the plan has none for it.
   */
  resistor(
    { planned, ohms }: { readonly planned: SeatedPart | undefined; readonly ohms: number },
    what: string,
    netOf: () => number | null,
  ): Want {
    return () => {
      const net = netOf();
      if (net === null) return null;
      const home = this.resistorOn(net);
      if (home) return this.carries(home.other, GROUND)();
      const value = planned?.value ?? ohms;
      const loose = this.looseResistor(planned?.ref ?? '', value);
      if (loose) return this.joined(`${loose.ref}.1`, net, what);
      const ref = planned && !partOf(this.board, planned.ref) ? planned.ref : nextFree('R', this.board.parts);
      const bare: SeatedPart = { ref, part: 'resistor', at: '', rotation: 0, value };
      const places = [
        ...(planned ? [planned.at] : []),
        ...this.stripsOf(net).flatMap((hole) => holesOfStrip(hole).map(printHole)),
      ];
      for (const at of places) {
        const part = { ...bare, at };
        const [first, second] = leadsOf(part);
        const fits = first?.hole && this.nets.ofStrip.get(stripOf(first.hole)) === net;
        const onGround = second?.hole && this.names.get(this.nets.ofStrip.get(stripOf(second.hole)) ?? -1) === GROUND;
        if (fits && onGround && checkSeat(this.board, part).length === 0)
          return { edit: { kind: 'seat', part }, says: `Seat ${ref}, ${what}, ${value} Ω.` };
      }
      const free = clearSeat(this.board, bare);
      return free
        ? { edit: { kind: 'seat', part: free }, says: `Seat ${ref}, ${what}, ${value} Ω.` }
        : this.moreRoom(what);
    };
  }

  /** A resistor, or one of a network, with one lead on a net and the other elsewhere. */
  resistorOn(net: number): { other: string } | null {
    const all = ({ resistors }: Inner) => resistors;
    const found = crossingsFrom(this.board, this.nets, net, all).find(({ part }) => part.signal === undefined);
    return found ? { other: found.to } : null;
  }

  /**
   * A resistor with one lead joined to a pin, the other free for something else: one that is there, or a loose one, or another. Null when it is
   * there.
   */
  series(pin: string, what: string, ohms: number): GuideStep | Finding | null {
    const own = this.nets.ofPin.get(pin);
    if (own === undefined || this.resistorOn(own)) return null;
    const loose = this.looseResistor('', ohms, true);
    if (loose) return this.joined(`${loose.ref}.1`, own, what);
    const ref = nextFree('R', this.board.parts);
    const part = clearSeat(this.board, { ref, part: 'resistor', at: '', rotation: 90, value: ohms });
    return part ? { edit: { kind: 'seat', part }, says: `Seat ${ref}, ${what}, ${ohms} Ω.` } : this.moreRoom(what);
  }

  /** The planned part that begins in the strip of a planned pin: the resistor of a switch or an LED. */
  plannedBeside(pin: string, part: string): SeatedPart | undefined {
    const { ref, id } = cutPin(pin);
    const on = this.planned.parts[ref];
    const strip = on && leadsOf(on).find((lead) => lead.type.id === id)?.strip;
    return Object.values(this.planned.parts).find(
      (p) => p.part === part && leadsOf(p).some((lead) => lead.strip !== null && lead.strip === strip),
    );
  }

  /** The part of the plan with one lead on a net of the plan, and the other on another or straight in a rail; `lead` is the index of the first. */
  plannedBetween(on: string, other: string): { readonly part: SeatedPart; readonly lead: number } | null {
    for (const part of Object.values(this.planned.parts)) {
      const nets = ['1', '2'].map((id) => this.joins.get(pinOf(part.ref, id)));
      const lead = nets.indexOf(on);
      if (lead >= 0 && typeOf(part)?.kind !== 'chip' && (nets[1 - lead] ?? SUPPLY) === other) return { part, lead };
    }
    return null;
  }

  /** The place of the plan that is labelled to give or show a signal. */
  plannedPlace(does: LabelPlace['does'], signal: string): LabelPlace | undefined {
    return labelledPlaces(this.planned, does).find((p) => p.signal === signal);
  }

  /** Whether a pin is joined to ground. */
  isGround(pin: string): boolean {
    return this.names.get(this.nets.ofPin.get(pin) ?? -1) === GROUND;
  }

  /**
   * A resistor that is joined to nothing with its first lead, and with its second to nothing or, unless `bothEnds`, to ground: the one by the planned
   * name, or any of the value.
   */
  looseResistor(planned: string, value: number, bothEnds = false): SeatedPart | null {
    const isAlone = (pin: string): boolean => {
      const net = this.nets.nets[this.nets.ofPin.get(pin) ?? -1];
      return (net?.pins.length ?? 0) < 2 && !net?.strips.some(isRailStrip);
    };
    const isLoose = (part: SeatedPart): boolean =>
      part.part === 'resistor' &&
      part.signal === undefined &&
      isAlone(`${part.ref}.1`) &&
      (isAlone(`${part.ref}.2`) || (!bothEnds && this.isGround(`${part.ref}.2`)));
    const loose = Object.values(this.board.parts).filter(isLoose);
    return loose.find((p) => p.ref === planned) ?? loose.find((p) => p.value === value) ?? null;
  }

  /** A part is there: by its name when it has no label, or any other that does the same. */
  seated(ref: string, served: boolean, what: string): Want {
    return () => {
      const planned = this.planned.parts[ref];
      const there = partOf(this.board, ref);
      // A lamp by the planned name may show something else: names of the plan shift when a signal is put before others.
      const isLabelled = planned?.signal !== undefined || planned?.labels !== undefined;
      const isNamed = !isLabelled && there?.part === planned?.part;
      if (isNamed && there && there.own !== planned?.own) return redefined(there, planned?.own);
      if (!planned || isNamed || served) return null;
      if (there && !isLabelled && typeOf(planned)?.kind === 'chip')
        return finding('guide/other-part', [{ kind: 'part', ref }], { ref, there: there.part, wanted: planned.part });
      return this.seatedNext(ref, what);
    };
  }

  /** Seats a part where the plan has it; null where it cannot be there. */
  seatedAsPlanned(ref: string, what: string): GuideStep | null {
    const step = this.seatedNext(ref, what);
    const isThere = 'edit' in step && step.edit.kind === 'seat' && step.edit.part.at === this.planned.parts[ref]?.at;
    return isThere ? step : null;
  }

  /** Seats a part of the plan where it stands there, or else anywhere; by the next free name of its kind where its own is taken. */
  seatedNext(ref: string, what: string): GuideStep | Finding {
    const planned = this.planned.parts[ref] ?? { ref, part: 'npn', at: '', rotation: 0 as const };
    const shown = new Set(labelledPlaces(this.board, 'show').map((p) => p.signal));
    const labels = planned.labels?.filter((l) => !shown.has(l.signal));
    const named = {
      ...planned,
      ...(labels && { labels }),
      ref: partOf(this.board, ref) ? nextFree(ref.replace(/\d+$/, ''), this.board.parts) : ref,
    };
    const fits = planned.at !== '' && checkSeat(this.board, named).length === 0 && this.isClear(named);
    const home = parseHole(planned.at)?.row;
    const part = fits ? named : clearSeat(this.board, named, home);
    return part
      ? { edit: { kind: 'seat', part }, says: `Seat ${part.ref}, ${what}, with its first pin in ${part.at}.` }
      : this.moreRoom(named.part);
  }

  /** One more breadboard of the plan's kind, when a part finds no place on those that are there. */
  moreRoom(what: string): GuideStep | Finding {
    const id = nextBreadboard(this.board, this.kind);
    return id
      ? { edit: { kind: 'add-breadboard', id }, says: `Lay breadboard ${id} down: ${what} has no place left.` }
      : finding('hand/no-seat', [], { part: what });
  }

  private expectation: ReturnType<typeof expectationOf> | undefined;

  /** What each pin should carry. */
  expected(): ReturnType<typeof expectationOf> {
    this.expectation ??= expectationOf(this.packing, this.board, this.nets);
    return this.expectation;
  }

  /** A pin carries what it should. */
  carries(pin: string, signal = this.expected().get(pin)): Want {
    return () => {
      if (signal === undefined || this.sources.get(signal) === pin) return null;
      const home = this.netOf.get(signal);
      const own = this.nets.ofPin.get(pin);
      if (home === undefined || own === undefined || own === home) return null;
      const carried = this.names.get(own);
      if (carried !== undefined) return this.wrong(pin, carried, signal);
      return this.joined(pin, home, shownSignal(signal));
    };
  }

  private wrong(at: string, carried: string, wanted: string): Finding {
    const facts = {
      at: at.replace(/^([A-Z]+\d+)\./, '$1 pin '),
      carried: shownSignal(carried),
      wanted: shownSignal(wanted),
    };
    return finding('guide/wrong-signal', at.startsWith('b') ? [] : [{ kind: 'pin', pin: at }], facts);
  }

  /** The jumper that joins a pin's strip to a net: to its nearest rail, or to its nearest strip with a hole left. */
  joined(pin: string, net: number, what: string): GuideStep | Finding {
    const hole = this.nets.leads.get(pin)?.hole;
    const { ref, id } = cutPin(pin);
    if (!hole) return finding('hand/lead-off-board', [], { ref, pin: id });
    const strips = this.stripsOf(net);
    const rails = strips.filter((h) => isRail(h.row));
    const says = `${spokenPin(pin)} to ${what}`;
    if (rails.length > 0) {
      const pair = nearestPair(
        outermost(this.freeHoles(holesOfStrip(hole))),
        this.freeHoles(rails.flatMap(holesOfStrip)),
      );
      return pair ? this.jumper(pair, says) : finding('plan/strip-full', [{ kind: 'pin', pin }], { signal: what });
    }
    const wirer = new Wirer(this.board);
    const near = wirer.nearestWithRoom(strips, hole);
    if (!near || wirer.freeCount(hole) === 0)
      return finding('plan/strip-full', [{ kind: 'pin', pin }], { signal: what });
    wirer.join(near, hole);
    const laid = Object.values(wirer.jumpers).at(-1);
    return laid
      ? this.jumper([laid.from, laid.to], says)
      : finding('plan/strip-full', [{ kind: 'pin', pin }], { signal: what });
  }

  private jumper([from, to]: readonly [string, string], says: string): GuideStep {
    const jumper = { id: nextFree('w', this.board.jumpers), from, to };
    return { edit: { kind: 'lay-jumper', jumper }, says: `Lay ${jumper.id} from ${from} to ${to}: ${says}.` };
  }

  /** One hole of every strip of a net. */
  private stripsOf(net: number): Hole[] {
    return (this.nets.nets[net]?.strips ?? []).flatMap((strip) => {
      const hole = stripNamed(strip);
      return hole ? [hole] : [];
    });
  }

  private occupied: ReadonlyMap<string, unknown> | undefined;

  private freeHoles(holes: readonly Hole[]): Hole[] {
    this.occupied ??= unusableHoles(this.board);
    return holes.filter((h) => !this.occupied?.has(printHole(h)));
  }

  /** The hole of a chip's supply pin. */
  supplyPinOf(ref: string): Hole | null {
    const part = partOf(this.board, ref);
    const lead = part && leadsOf(part).find((l) => l.type.role === 'supply');
    return lead?.hole ?? null;
  }

  /** Whether the strips that a part would have its leads in hold nothing yet; rails do not count. */
  private isClear(part: SeatedPart): boolean {
    return leadsOf(part).every(({ hole }) => !hole || isRail(hole.row) || !this.nets.ofStrip.has(stripOf(hole)));
  }
}

/** Rows e and f, beside the pins, only when nothing else is left. */
function outermost(holes: readonly Hole[]): readonly Hole[] {
  const out = holes.filter((h) => h.row !== 'e' && h.row !== 'f');
  return out.length > 0 ? out : holes;
}

/** The two holes that lie nearest to each other, one of each list. */
function nearestPair(from: readonly Hole[], to: readonly Hole[]): [string, string] | null {
  let best: [string, string] | null = null;
  let least = Number.POSITIVE_INFINITY;
  for (const a of from) {
    const p = holeXY(a);
    for (const b of to) {
      const q = holeXY(b);
      const away = Math.abs(p.x - q.x) + Math.abs(p.y - q.y);
      if (away < least) [least, best] = [away, [printHole(a), printHole(b)]];
    }
  }
  return best;
}

/** A part that the sheet defines is there as it was defined before: it is exchanged for one as it is now, such as a memory programmed anew. */
function redefined({ ref, part }: SeatedPart, own: string | undefined): GuideStep {
  const by = { part, ...(own !== undefined && { own }) };
  return { edit: { kind: 'replace', ref, by }, says: `Exchange ${ref} for a ${part} as the sheet defines it now.` };
}
