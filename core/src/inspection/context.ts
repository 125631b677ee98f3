import {
  type Board,
  byNumber,
  isRailStrip,
  type Lead,
  type Nets,
  type Occupancy,
  occupancyOf,
  type SeatedPart,
  stripOf,
} from '../board';
import {
  type Drive,
  type Family,
  type FamilyId,
  families,
  innerName,
  innerOf,
  type PartKind,
  type PartType,
  readPartNumber,
  typeOf,
} from '../catalogue';
import type { Packing } from '../packing';
import { type Expectation, expectationOf, GROUND, nameNets, SUPPLY, shownSignal, sourcesOf } from '../planning';

/** What sets the level of a net directly. */
export interface Feeds {
  readonly supply: boolean;
  readonly ground: boolean;
  readonly outputs: readonly string[];
  readonly switches: readonly string[];
}

/** A lever that closes contacts; `name` is its part's reference, or `S2.3` where a part has several. */
export interface Lever {
  readonly ref: string;
  readonly name: string;
  readonly contacts: readonly { readonly a: string; readonly b: string; readonly on: boolean }[];
}

/** A seated part with its type. */
export interface Known {
  readonly seated: SeatedPart;
  readonly type: PartType;
}

/**
 * What the rules look at: the board, its nets, and what the packing expects, with the questions that
 * several rules ask. Made once for an inspection; rules only read it.
 */
export class Context {
  readonly occupancy: Occupancy;
  readonly expected: Expectation;
  readonly sources: ReadonlyMap<string, string>;
  readonly names: ReadonlyMap<number, string>;
  readonly known: readonly Known[];
  private readonly byRef: ReadonlyMap<string, Known>;
  private readonly feeds = new Map<number, Feeds>();
  private readonly rails = new Map<string, string | undefined>();

  constructor(
    readonly board: Board,
    readonly nets: Nets,
    readonly packing: Packing | null,
    readonly family: FamilyId,
  ) {
    this.occupancy = occupancyOf(board);
    this.expected = packing ? expectationOf(packing, board, nets) : new Map();
    this.sources = packing ? sourcesOf(packing, board) : new Map();
    this.names = nameNets(nets, this.sources);
    this.known = Object.values(board.parts)
      .sort((a, b) => byNumber(a.ref, b.ref))
      .flatMap((seated) => {
        const type = typeOf(seated);
        return type ? [{ seated, type }] : [];
      });
    this.byRef = new Map(this.known.map((k) => [k.seated.ref, k]));
  }

  of(kind: PartKind): readonly Known[] {
    return this.known.filter((k) => k.type.kind === kind);
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
  private partAt(pin: string): Known | undefined {
    return this.byRef.get(pin.slice(0, pin.indexOf('.')));
  }

  /** The kind of part that a pin belongs to. */
  kindOf(pin: string): PartKind | undefined {
    return this.partAt(pin)?.type.kind;
  }

  /** The logic family of the chip that a pin belongs to, as printed on it. */
  familyAt(pin: string): Family {
    const part = this.partAt(pin)?.seated.part ?? '';
    return families[readPartNumber(part)?.family ?? this.family];
  }

  /** The strip of a pin, for showing; `no hole` when it has none. */
  stripOf(pin: string): string {
    const hole = this.lead(pin)?.hole;
    return hole ? stripOf(hole) : 'no hole';
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

  /** The resistors on a net that lead to another one: whose they are, where they lead, and their ohms. */
  resistorsOn(net: number): { readonly ref: string; readonly to: number; readonly ohms: number }[] {
    return this.pinsOn(net).flatMap((pin) => {
      const dot = pin.indexOf('.');
      const [ref, id] = [pin.slice(0, dot), pin.slice(dot + 1)];
      const known = this.byRef.get(ref);
      return innerOf(known?.type).resistors.flatMap(({ a, b, share }) => {
        const to = id === a ? this.netOf(`${ref}.${b}`) : id === b ? this.netOf(`${ref}.${a}`) : undefined;
        return to === undefined || to === net ? [] : [{ ref, to, ohms: (known?.seated.value ?? 1000) * share }];
      });
    });
  }

  /** Levers of switches, buttons and clocks, each with its contacts by pin (`S1.2`). */
  levers(): readonly Lever[] {
    return this.known.flatMap(({ seated: { ref }, type }) => {
      const { contacts } = innerOf(type);
      return [...new Set(contacts.map((c) => c.lever))].map((lever) => ({
        ref,
        name: innerName(ref, lever),
        contacts: contacts
          .filter((c) => c.lever === lever)
          .map(({ a, b, on }) => ({ a: `${ref}.${a}`, b: `${ref}.${b}`, on })),
      }));
    });
  }

  private isContact(pin: string): boolean {
    const dot = pin.indexOf('.');
    const { contacts } = innerOf(this.byRef.get(pin.slice(0, dot))?.type);
    if (contacts.length === 0) return false;
    const id = pin.slice(dot + 1);
    return contacts.some((c) => c.a === id || c.b === id);
  }

  /** Whether a net is a rail's: supply or ground by itself. */
  isFed(net: number | undefined): boolean {
    return net !== undefined && (this.feedsOf(net).supply || this.feedsOf(net).ground);
  }

  /** Whether anything at all gives a net a level, switches counted as open. */
  hasLevel(net: number): boolean {
    const gives = (n: number): boolean => {
      const feeds = this.feedsOf(n);
      return feeds.supply || feeds.ground || feeds.outputs.length > 0;
    };
    return gives(net) || this.throughResistors(net).some(gives);
  }

  /** Whether a chip's input belongs to a gate in use: the design says so, or its output goes somewhere. */
  isInputInUse({ seated, type }: Known, pinId: string): boolean {
    if (this.expected.has(`${seated.ref}.${pinId}`)) return true;
    const unit = type.units.find((u) => u.inputs.includes(pinId));
    return (unit?.outputs ?? []).some((out) => {
      const net = this.netOf(`${seated.ref}.${out}`);
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
    const net = this.nets.nets.find((n) => {
      const feeds = this.feedsOf(n.index);
      return mark === '+' ? feeds.supply : feeds.ground;
    });
    return net?.strips.find(isRailStrip);
  }
}

/** A pin in words: `U2 pin 5`. */
export function spoken(pin: string): string {
  return pin.replace('.', ' pin ');
}
