import {
  type Board,
  byNumber,
  crossingsFrom,
  type InnerPath,
  isRailStrip,
  type Lead,
  labelledPlaces,
  leadsOf,
  type Nets,
  type Occupancy,
  occupancyOf,
  pinOf,
  type SeatedPart,
  spokenPin as spoken,
} from '../board';
import {
  type Drive,
  type FamilyId,
  type Inner,
  innerName,
  innerOf,
  type PartKind,
  type PartType,
  typeOf,
} from '../catalogue';
import { BoardVolts, inputUaOf, type OperatingPoint, type PinLimits, pinLimitsOf } from '../electrical';
import { onceFor } from '../memo';
import type { Packing } from '../packing';
import { type Expectation, expectationOf, GROUND, nameNets, SUPPLY, shownSignal, sourcesOf } from '../planning';

export { spoken };

/** What sets the level of a net directly. */
export interface Feeds {
  readonly supply: boolean;
  readonly ground: boolean;
  readonly outputs: readonly string[];
  readonly switches: readonly string[];
}

/** A resistor on a net that leads to another one: whose it is, where it leads, and its ohms. */
export interface NetResistor {
  readonly ref: string;
  readonly to: number;
  readonly ohms: number;
}

/** An actuator that closes contacts; `name` is its part's reference, or `S2.3` where a part has several. */
export interface Actuator {
  readonly ref: string;
  readonly name: string;
  readonly contacts: readonly { readonly a: string; readonly b: string; readonly on: boolean }[];
}

/** A seated part with its type and its leads. */
export interface Known {
  readonly seated: SeatedPart;
  readonly type: PartType;
  readonly leads: readonly Lead[];
  /** A pin by its number as it is named on the board: `8` is `U1.8`. */
  readonly named: (id: string) => string;
}

/** What is known of a part stays: it is the same object from one edit to the next. Null when its type is not known. */
const knownOf: (seated: SeatedPart) => Known | null = onceFor((seated) => {
  const type = typeOf(seated);
  if (!type) return null;
  const names = new Map(type.pins.map(({ id }) => [id, pinOf(seated.ref, id)]));
  const named = (id: string): string => names.get(id) ?? pinOf(seated.ref, id);
  return { seated, type, leads: leadsOf(seated), named };
});

/** The parts of a board as the rules ask for them. */
interface Seated {
  readonly known: readonly Known[];
  readonly byRef: ReadonlyMap<string, Known>;
  readonly byKind: ReadonlyMap<PartKind, readonly Known[]>;
  readonly hasDevices: boolean;
}

/** Parts stay the same object while jumpers come and go. */
const seatedOn: (parts: Board['parts']) => Seated = onceFor((parts) => {
  const known = Object.values(parts)
    .sort((a, b) => byNumber(a.ref, b.ref))
    .flatMap((seated) => knownOf(seated) ?? []);
  const byKind = new Map<PartKind, Known[]>();
  for (const k of known) byKind.set(k.type.kind, [...(byKind.get(k.type.kind) ?? []), k]);
  return {
    known,
    byRef: new Map(known.map((k) => [k.seated.ref, k])),
    byKind,
    hasDevices: known.some(({ type }) => innerOf(type).devices.length > 0),
  };
});

/**
 * What the rules look at: the board, its nets, and what the packing expects, with the questions that
 * several rules ask. Made once for an inspection; rules only read it.
 */
export class Context {
  readonly expected: Expectation;
  readonly sources: ReadonlyMap<string, string>;
  readonly names: ReadonlyMap<number, string>;
  readonly known: readonly Known[];
  private readonly byRef: ReadonlyMap<string, Known>;
  private readonly byKind: ReadonlyMap<PartKind, readonly Known[]>;
  private readonly feeds = new Map<number, Feeds>();
  private readonly resistors = new Map<number, readonly NetResistor[]>();
  private holes: Occupancy | null = null;
  private readonly rails = new Map<string, string | undefined>();
  private readonly hasDevices: boolean;

  readonly packing: Packing | null;
  readonly family: FamilyId;
  /** Whether the board does without the chips of its packing, which is then left out. */
  readonly isOtherwise: boolean;

  constructor(
    readonly board: Board,
    readonly nets: Nets,
    {
      packing,
      family,
      isOtherwise = false,
    }: { readonly packing: Packing | null; readonly family: FamilyId; readonly isOtherwise?: boolean },
  ) {
    this.packing = packing;
    this.family = family;
    this.isOtherwise = isOtherwise;
    this.expected = packing ? expectationOf(packing, board, nets) : new Map();
    this.sources = packing ? sourcesOf(packing, board) : new Map();
    this.names = nameNets(nets, this.sources);
    const { known, byRef, byKind, hasDevices } = seatedOn(board.parts);
    [this.known, this.byRef, this.byKind, this.hasDevices] = [known, byRef, byKind, hasDevices];
  }

  /** Who is in each hole. */
  get occupancy(): Occupancy {
    this.holes ??= occupancyOf(this.board);
    return this.holes;
  }

  of(kind: PartKind): readonly Known[] {
    return this.byKind.get(kind) ?? [];
  }

  lead(pin: string): Lead | undefined {
    return this.nets.leads.get(pin);
  }

  netOf(pin: string): number | undefined {
    return this.nets.ofPin.get(pin);
  }

  pinsOn(net: number): readonly string[] {
    return this.nets.nets[net]?.pins ?? [];
  }

  /** The seated part that a pin belongs to, with its type. */
  partAt(pin: string): Known | undefined {
    const lead = this.nets.leads.get(pin);
    return lead && this.byRef.get(lead.ref);
  }

  /** The kind of part that a pin belongs to. */
  kindOf(pin: string): PartKind | undefined {
    return this.partAt(pin)?.type.kind;
  }

  /** The limits of the chip that a pin belongs to: those of the family printed on it, and its own. */
  limitsAt(pin: string): PinLimits {
    return pinLimitsOf(this.partAt(pin)?.seated.part ?? '', this.family);
  }

  /** The most current of an input, in microamperes: out of it when low, into it when high. */
  loadUaAt(pin: string): PinLimits['inputUa'] {
    const part = this.partAt(pin)?.seated.part ?? '';
    return inputUaOf(part, this.lead(pin)?.type.name ?? '', this.family);
  }

  /** The strip of a pin, for showing; `no hole` when it has none. */
  stripOf(pin: string): string {
    return this.lead(pin)?.strip ?? 'no hole';
  }

  /** What feeds a net directly: rails, outputs of chips, switches. */
  feedsOf(net: number): Feeds {
    const made = this.feeds.get(net);
    if (made) return made;
    const pins = this.pinsOn(net);
    const feeds = {
      supply: pins.some((pin) => this.isSupplyLead(pin, '+')),
      ground: pins.some((pin) => this.isSupplyLead(pin, '-')),
      outputs: pins.filter((pin) => this.driveOf(pin) !== null),
      switches: pins.filter((pin) => this.isContact(pin)),
    };
    this.feeds.set(net, feeds);
    return feeds;
  }

  /** How an output pin drives its net; null for pins that are no outputs. */
  driveOf(pin: string): Drive | null {
    const { ref, type } = this.lead(pin) ?? {};
    if (!ref || (type?.role !== 'output' && type?.role !== 'both')) return null;
    for (const unit of this.byRef.get(ref)?.type.units ?? []) {
      const o = unit.outputs.indexOf(type.id);
      if (o >= 0) return unit.drives[o] ?? null;
    }
    return null;
  }

  private isSupplyLead(pin: string, id: string): boolean {
    return this.lead(pin)?.type.id === id && this.kindOf(pin) === 'supply';
  }

  /** Whether a net includes a rail, fed or not. */
  isOnRail(net: number | undefined): boolean {
    return net !== undefined && this.nets.nets[net]?.strips.some(isRailStrip) === true;
  }

  /** Nets at the other end of the resistors on a net. */
  throughResistors(net: number): number[] {
    return this.resistorsOn(net).map((r) => r.to);
  }

  /** The resistors on a net that lead to another one. */
  resistorsOn(net: number): readonly NetResistor[] {
    const made =
      this.resistors.get(net) ??
      this.across(net, ({ resistors }) => resistors).map(
        ({ part: { ref, value = 1000 }, path: { share }, net: to }) => ({
          ref,
          to,
          ohms: value * share,
        }),
      );
    this.resistors.set(net, made);
    return made;
  }

  /** Nets at the other end of the transistors and diodes on a net: where it leads while they conduct. */
  throughDevices(net: number): number[] {
    return this.hasDevices ? this.across(net, ({ devices }) => devices).map((x) => x.net) : [];
  }

  /** Nets at the other end of the analogue switches on a net: where it leads while they are closed. */
  throughAnalogueSwitches(net: number): number[] {
    if (!this.hasDevices) return [];
    const found = this.across(net, ({ devices }) => devices.filter(({ kind }) => kind === 'analogue-switch'));
    return found.map((x) => x.net);
  }

  /** Nets at the other end of the contacts on a net: where it leads while they are closed. */
  throughContacts(net: number): number[] {
    return this.across(net, ({ contacts }) => contacts).map((x) => x.net);
  }

  /** Paths of a kind that lead from a net to another one. */
  private across<P extends InnerPath>(net: number, pathsOf: (inner: Inner) => readonly P[]) {
    return crossingsFrom(this.board, this.nets, net, pathsOf).flatMap((crossing) =>
      crossing.net === undefined || crossing.net === net ? [] : [{ ...crossing, net: crossing.net }],
    );
  }

  /** The volts of the board with every switch off and no output driving: what resistors and inputs make of it by themselves. */
  get atRest(): OperatingPoint {
    this.rest ??= this.volts.solve({ isOn: () => false, driveOf: () => 'off' });
    return this.rest;
  }

  /** The electrical room's view of the board. */
  get volts(): BoardVolts {
    this.inVolts ??= new BoardVolts(this.board, this.nets);
    return this.inVolts;
  }

  private inVolts: BoardVolts | null = null;

  private rest: OperatingPoint | null = null;

  /** Whether a switch or lamp, by its name (`S1`, `H1.a`), is labelled with a signal. */
  isLabelled(name: string): boolean {
    this.labelled ??= new Set(
      (['give', 'show'] as const).flatMap((does) => labelledPlaces(this.board, does).map((p) => p.called)),
    );
    return this.labelled.has(name);
  }

  private labelled: ReadonlySet<string> | null = null;

  /** Actuators of switches, buttons and clocks, each with its contacts by pin (`S1.2`). */
  actuators(): readonly Actuator[] {
    return this.known.flatMap(({ seated: { ref }, type }) => {
      const { contacts } = innerOf(type);
      return [...new Set(contacts.map((c) => c.actuator))].map((actuator) => ({
        ref,
        name: innerName(ref, actuator),
        contacts: contacts
          .filter((c) => c.actuator === actuator)
          .map(({ a, b, on }) => ({ a: pinOf(ref, a), b: pinOf(ref, b), on })),
      }));
    });
  }

  private isContact(pin: string): boolean {
    const { contacts } = innerOf(this.partAt(pin)?.type);
    if (contacts.length === 0) return false;
    const id = this.lead(pin)?.type.id;
    return contacts.some((c) => c.a === id || c.b === id);
  }

  /** Whether a net is a rail's: supply or ground by itself. */
  isFed(net: number | undefined): boolean {
    return net !== undefined && (this.feedsOf(net).supply || this.feedsOf(net).ground);
  }

  /** Whether anything at all gives a net a level, switches counted as open, analogue switches as closed. */
  hasLevel(net: number): boolean {
    const gives = (n: number): boolean => {
      const feeds = this.feedsOf(n);
      return feeds.supply || feeds.ground || feeds.outputs.length > 0;
    };
    const near = [net, ...this.throughAnalogueSwitches(net)];
    return near.some((n) => gives(n) || this.throughResistors(n).some(gives));
  }

  /** Whether a chip's input belongs to a gate in use: the design says so, or its output goes somewhere. */
  isInputInUse({ type, named }: Known, pinId: string): boolean {
    if (this.expected.has(named(pinId))) return true;
    const unit = type.units.find((u) => u.inputs.includes(pinId));
    return (unit?.outputs ?? []).some((out) => {
      const net = this.netOf(named(out));
      return net !== undefined && this.pinsOn(net).length > 1;
    });
  }

  /** A net's name as people see it, or what is known of it. */
  shown(net: number): string {
    const name = this.names.get(net);
    if (name !== undefined) return shownSignal(name);
    const [output] = this.feedsOf(net).outputs;
    return output === undefined ? 'nothing known' : `the output ${spoken(output)}`;
  }

  /** The pin or rail from which a signal is to be had, as it can be typed. */
  sourceOf(signal: string): string | undefined {
    if (signal !== SUPPLY && signal !== GROUND) return this.sources.get(signal);
    return signal === SUPPLY ? this.railOf('+') : this.railOf('-');
  }

  /** A rail that carries supply (`+`) or ground (`-`), as it can be typed. */
  railOf(mark: '+' | '-'): string | undefined {
    if (!this.rails.has(mark)) this.rails.set(mark, this.findRail(mark));
    return this.rails.get(mark);
  }

  private findRail(mark: '+' | '-'): string | undefined {
    const net = this.nets.nets.find((n) => this.feedsOf(n.index)[mark === '+' ? 'supply' : 'ground']);
    return net?.strips.find(isRailStrip);
  }
}
