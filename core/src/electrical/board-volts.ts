import { type Board, byNumber, type Nets, pinOf, type SeatedPart } from '../board';
import {
  closingsOf,
  type FamilyId,
  families,
  innerName,
  innerOf,
  type LampColour,
  loadsOf,
  type Drive as OutputDrive,
  readPartNumber,
  supplyMa,
  type TimerDivider,
  typeOf,
  type Unit,
} from '../catalogue';
import { elementAt, entryOf } from '../element-at';
import { bipolars, junctions, ledJunctions, mosfets, SUPPLY_V, supplyLimitMaOf, zener } from './devices';
import { type BipolarElement, bipolar, breakdown, type Element, junction, mosfet, resistor } from './elements';
import {
  type CapacitorModel,
  type ContactModel,
  DIAL_END,
  DIAL_MIDDLE,
  type DialModel,
  DRIVES,
  type Drive,
  IslandModel,
  type IslandParts,
  type OutputModel,
} from './island';
import { inputElement, outputStage, type PinNodes, type Thresholds } from './pin-models';
import {
  OperatingPoint,
  type PinReader,
  type PinTable,
  type SeatedChip,
  type Tap,
  thresholdsOf,
} from './point-of-board';

/** How a board stands: which actuators are on, by name (`S1`, `S2.3`), and what each output pin of a chip does (`U1.3`). */
export interface Standing {
  readonly isOn: (actuator: string) => boolean;
  readonly driveOf: (pin: string) => Drive;
}

/** An open analogue switch carries nothing: what it leaks, at most 0.1 µA by its data sheet, is not looked at. */
const OPEN_OHMS = Number.POSITIVE_INFINITY;
/** Closed contacts and thin metal, in ohms. */
const CONTACT_OHMS = 0.05;
/** Under so many volts between its supply pins a chip does nothing that can be relied on. Source: the least supply of any family, 2 V. */
export const LEAST_SUPPLY_V = 2;
/** Of the supply current that a data sheet allows a TTL chip, its typical figure is about half. Source: The TTL Data Book, ICC. */
const TYPICAL_SHARE = 0.5;

/**
 * The volts of a board. Built once for a board and its nets; `solve` gives the operating point for each way it may stand. Nodes are nets,
 * by their index in `Nets`. Chips are their pins' models: what they compute is the caller's, who says what their outputs do.
 */
export class BoardVolts implements PinTable {
  /** Volts of the nets that supplies hold, by net, and the nets of positive leads. */
  readonly fixed = new Map<number, number>();
  readonly supplyV: number;
  readonly readers: ReadonlyMap<string, PinReader>;
  readonly readersOf: ReadonlyMap<number, readonly PinReader[]>;
  readonly lamps = new Map<string, Element>();
  /** Lamps are contacts that open when they are destroyed: their actuator is this before their name. */
  static readonly lampActuator = 'lamp ';
  /** The colour of each lamp, by its name. */
  readonly lampColours = new Map<string, LampColour>();
  /** The bipolar transistors by their references. */
  readonly transistors = new Map<string, BipolarElement>();
  readonly chips: readonly SeatedChip[];
  readonly islands: readonly IslandModel[];
  /** Nets of the positive leads of supplies. */
  readonly positive: ReadonlySet<number>;
  /** What the supplies give at the most, in milliamperes: of several the least. */
  readonly limitMa: number;
  /** Whether supply leads of different volts are on one net. */
  readonly isMiswired: boolean;
  /** For each node: its island, -1 where a supply holds it, and its index there. */
  readonly islandOf: Int32Array;
  readonly rowOf: Int32Array;
  /** Volts by node, where the search for an operating point begins. */
  readonly volts: Float64Array;

  constructor(
    { parts: seated }: Board,
    readonly nets: Nets,
  ) {
    const parts = Object.values(seated).sort((a, b) => byNumber(a.ref, b.ref));
    this.isMiswired = !this.holdSupplies(parts);
    this.positive = new Set(
      parts.flatMap(({ ref, part }) => (typeOf({ part })?.kind === 'supply' ? (this.node(ref, '+') ?? []) : [])),
    );
    this.limitMa = supplyLimitMaOf(parts.filter((part) => typeOf(part)?.kind === 'supply'));
    this.supplyV = Math.max(...this.fixed.values(), 0) || SUPPLY_V;
    this.chips = parts.flatMap((part) => this.chipOf(part) ?? []);
    this.readers = new Map(this.chips.flatMap((chip) => this.readersOn(chip)));
    this.readersOf = grouped(this.readers.values());
    this.islands = islandsOf(nets.nets.length, this.fixed, {
      lasting: [
        ...parts.flatMap((part) => this.elementsOf(part)),
        ...this.inputElements(),
        ...this.chips.flatMap((chip) => this.dividersOf(chip)),
      ],
      contacts: parts.flatMap((part) => [...this.contactsOf(part), ...this.lampsOf(part)]),
      outputs: this.chips.flatMap((chip) => this.outputsOf(chip)),
      capacitors: this.capacitors(parts),
      dials: parts.flatMap((part) => this.dialsOf(part)),
    });
    this.islandOf = new Int32Array(nets.nets.length).fill(-1);
    this.rowOf = new Int32Array(nets.nets.length).fill(-1);
    this.islands.forEach(({ free }, i) => {
      free.forEach((node, row) => {
        this.islandOf[node] = i;
        this.rowOf[node] = row;
      });
    });
    this.volts = new Float64Array(nets.nets.length);
    for (const [node, volts] of this.fixed) this.volts[node] = volts;
  }

  private node(ref: string, id: string): number | undefined {
    return this.nets.ofPin.get(pinOf(ref, id));
  }

  /** False when two supply leads on one net disagree. */
  private holdSupplies(parts: readonly SeatedPart[]): boolean {
    let agree = true;
    const hold = (node: number | undefined, volts: number): void => {
      if (node === undefined) return;
      if ((this.fixed.get(node) ?? volts) !== volts) agree = false;
      this.fixed.set(node, volts);
    };
    for (const { ref, part, value = SUPPLY_V } of parts) {
      if (typeOf({ part })?.kind !== 'supply') continue;
      hold(this.node(ref, '-'), 0);
      hold(this.node(ref, '+'), value);
    }
    return agree;
  }

  /** Families by net, of chips with an output on it; a timer's output is taken for TTL, whose levels it keeps. */
  private readonly drivenBy = new Map<number, FamilyId>();

  judgeOf(net: number): FamilyId {
    return this.drivenBy.get(net) ?? 'HC';
  }

  private chipOf(seated: SeatedPart): SeatedChip | null {
    const type = typeOf(seated);
    if (type?.kind !== 'chip') return null;
    const at = (role: string): number => this.node(seated.ref, type.pins.find((p) => p.role === role)?.id ?? '') ?? -1;
    const family = readPartNumber(seated.part)?.family ?? 'HC';
    return { ref: seated.ref, part: seated.part, type, family, supply: at('supply'), ground: at('ground') };
  }

  private readersOn(chip: SeatedChip): [string, PinReader][] {
    const { ref, part, type, family } = chip;
    const data = type.chip;
    const pulled = data?.pulledUp?.split(' ') ?? [];
    return type.pins
      .filter((pin) => pin.role === 'input' || pin.role === 'both')
      .map(({ id, name }) => {
        const opensHigh = pulled.includes(name) || families[family].openInput === 'high';
        const divider = data?.dividers?.find(({ compares }) => name in compares);
        const levels = data?.levelsV?.[name];
        return [
          pinOf(ref, id),
          {
            pin: pinOf(ref, id),
            net: this.node(ref, id) ?? null,
            chip,
            loads: loadsOf(readPartNumber(part)?.base ?? '', family, name),
            opensHigh,
            hasHysteresis: data?.schmitt === true,
            ...(levels && { levels: { low: levels[0], high: levels[1] } }),
            ...(divider && { compares: { tap: this.tapOf(chip, divider), share: entryOf(divider.compares, name) } }),
          },
        ];
      });
  }

  /** The node of a divider's tap; where its pin is in no hole, the share of the supply that it has then. */
  private tapOf({ ref, type }: SeatedChip, { tap, aboveOhms, belowOhms }: TimerDivider): Tap {
    const node = this.node(ref, type.pins.find((p) => p.name === tap)?.id ?? '');
    return { node: node ?? null, shareOfSupply: belowOhms / (aboveOhms + belowOhms) };
  }

  /** The divider inside a timer, where its tap is wired to something. */
  private dividersOf(chip: SeatedChip): Element[] {
    if (!hasRails(chip)) return [];
    return (chip.type.chip?.dividers ?? []).flatMap((divider) => {
      const { node } = this.tapOf(chip, divider);
      if (node === null) return [];
      return [resistor(chip.supply, node, divider.aboveOhms), resistor(node, chip.ground, divider.belowOhms)];
    });
  }

  /** Capacitors that something can charge, but for those across the supply pins of a chip, which smooth; those side by side are one. */
  private capacitors(parts: readonly SeatedPart[]): CapacitorModel[] {
    const all = new Map<string, CapacitorModel>();
    for (const { ref, part, value = 100 } of parts) {
      const type = typeOf({ part });
      const [a, b] = [this.node(ref, '1'), this.node(ref, '2')];
      if (type?.kind !== 'capacitor' || a === undefined || b === undefined || a === b) continue;
      if (this.fixed.has(a) && this.fixed.has(b)) continue;
      if (this.chips.some(({ supply, ground }) => (a === supply && b === ground) || (b === supply && a === ground)))
        continue;
      const [from, to] = [Math.min(a, b), Math.max(a, b)];
      const before = all.get(`${from} ${to}`);
      all.set(`${from} ${to}`, {
        ref: before?.ref ?? ref,
        a: from,
        b: to,
        farads: (before?.farads ?? 0) + value * 1e-9,
      });
    }
    return [...all.values()];
  }

  /** The elements that a part is, whatever stands how. Leads in no hole make none. */
  private elementsOf(seated: SeatedPart): Element[] {
    const { ref, value = UNVALUED_OHMS } = seated;
    const { resistors: all, devices } = innerOf(typeOf(seated));
    const resistors = isDial(seated) ? [] : all;
    const between = (a: string, b: string, make: (a: number, b: number) => Element): Element[] => {
      const [p, q] = [this.node(ref, a), this.node(ref, b)];
      return p === undefined || q === undefined || p === q ? [] : [make(p, q)];
    };
    return [
      ...resistors.flatMap(({ a, b, share }) =>
        between(a, b, (p, q) => resistor(p, q, Math.max(CONTACT_OHMS, value * share))),
      ),
      ...devices.flatMap(({ kind, a, b }) => (kind === 'zener' ? between(a, b, (p, q) => breakdown(q, p, zener)) : [])),
      ...devices.flatMap(({ kind, a, b, control }): Element[] => {
        // Analogue switches are moved by the outputs of their chips.
        if (kind === 'analogue-switch') return [];
        const steer = control === null ? undefined : this.node(ref, control);
        return between(a, b, (p, q) => {
          if (kind === 'diode' || kind === 'zener') return junction(p, q, junctions.diode);
          // A control lead in no hole: nothing steers the device, which then is open.
          if (steer === undefined) return resistor(p, q, 1e12);
          if (kind === 'nmos' || kind === 'pmos')
            return mosfet({ drain: p, gate: steer, source: q }, kind === 'nmos' ? 1 : -1, mosfets[kind]);
          const legs = { collector: p, base: steer, emitter: q };
          const element = bipolar(legs, kind === 'npn' ? 1 : -1, bipolars[kind]);
          this.transistors.set(ref, element);
          return element;
        });
      }),
    ];
  }

  /** A potentiometer, whose wiper parts its ohms. Without a wiper in a hole it is one resistor. */
  private dialsOf(seated: SeatedPart): DialModel[] {
    if (!isDial(seated)) return [];
    const { ref, value = UNVALUED_OHMS } = seated;
    const [first, wiper, last] = innerOf(typeOf(seated)).resistors.flatMap(({ a, b }, i) =>
      (i === 0 ? [a, b] : [b]).map((id) => this.node(ref, id)),
    );
    const between = (a: number | undefined, b: number | undefined, share: number): Element[] =>
      a === undefined || b === undefined || a === b ? [] : [resistor(a, b, Math.max(CONTACT_OHMS, share * value))];
    const made: (readonly Element[] | undefined)[] = [];
    const at = (position: number): readonly Element[] => {
      const share = position / DIAL_END;
      made[position] ??=
        wiper === undefined
          ? between(first, last, 1)
          : [...between(first, wiper, share), ...between(wiper, last, 1 - share)];
      return made[position];
    };
    return at(0).length > 0 ? [{ ref, at }] : [];
  }

  private contactsOf(seated: SeatedPart): ContactModel[] {
    const { ref } = seated;
    return innerOf(typeOf(seated)).contacts.flatMap(({ actuator, a, b, on }) => {
      const [p, q] = [this.node(ref, a), this.node(ref, b)];
      if (p === undefined || q === undefined || p === q) return [];
      return [{ actuator: innerName(ref, actuator), on, element: resistor(p, q, CONTACT_OHMS) }];
    });
  }

  private lampsOf(seated: SeatedPart): ContactModel[] {
    const { ref } = seated;
    return innerOf(typeOf(seated)).lamps.flatMap(({ name, anode, cathode, colour = 'red' }) => {
      const [p, q] = [this.node(ref, anode), this.node(ref, cathode)];
      if (p === undefined || q === undefined || p === q) return [];
      const called = innerName(ref, name);
      const element = junction(p, q, ledJunctions[colour]);
      this.lamps.set(called, element);
      this.lampColours.set(called, colour);
      return [{ actuator: BoardVolts.lampActuator + called, on: false, element, isLamp: true }];
    });
  }

  private inputElements(): Element[] {
    return [...this.readers.values()].flatMap(({ net, chip, loads }) =>
      net === null || !hasRails(chip) ? [] : (inputElement(chip.family, loads, { ...rails(chip), pin: net }) ?? []),
    );
  }

  private outputsOf(chip: SeatedChip): OutputModel[] {
    return chip.type.units.flatMap((unit) =>
      unit.outputs.flatMap((id, o): OutputModel[] => {
        const drive = unit.drives[o] ?? 'push-pull';
        if (drive === 'analogue-switch') return this.analogueSwitch(chip, unit, id);
        const pin = this.node(chip.ref, id);
        if (pin === undefined) return [];
        this.drivenBy.set(pin, chip.type.chip?.own ? '74' : chip.family);
        // The stages of a chip whose supply pins are in no hole are never asked for: it is dead.
        const nodes = { ...(hasRails(chip) ? rails(chip) : { supply: pin, ground: pin }), pin };
        const stage = (isHigh: boolean): Element => outputStage(chip.type, chip.family, isHigh, nodes);
        const can = canDrive[drive];
        return [{ pin: pinOf(chip.ref, id), ref: chip.ref, node: pin, can, low: stage(false), high: stage(true) }];
      }),
    );
  }

  /** The level of a node that a supply holds; null for others. */
  private railAt(node: number | undefined): 0 | 1 | null {
    if (node === undefined || !this.fixed.has(node)) return null;
    return this.positive.has(node) ? 1 : 0;
  }

  /** An analogue switch as an output that is a resistor between two nodes: a small one while its unit says 1, none while it says 0. */
  private analogueSwitch({ ref, type }: SeatedChip, unit: Unit, id: string): OutputModel[] {
    const other = innerOf(type).devices.find((device) => device.a === id)?.b ?? '';
    const [a, b] = [this.node(ref, id), this.node(ref, other)];
    const ohms = type.chip?.contacts?.ohms;
    if (a === undefined || b === undefined || a === b || ohms === undefined) return [];
    const o = unit.outputs.indexOf(id);
    const tied = unit.inputs.map((input) => this.railAt(this.node(ref, input)));
    const joint = { unit: `${ref} ${unit.name}`, ways: closingsOf(unit, tied).map((closed) => closed[o] === true) };
    const [low, high] = [resistor(a, b, OPEN_OHMS), resistor(a, b, ohms)];
    return [{ pin: pinOf(ref, id), ref, node: a, can: ['low', 'high'], low, high, joint }];
  }

  /**
   * The operating point of the board as it stands, its capacitors charged. Nothing is known while supply and ground are joined, by metal or
   * by what takes more than a supply gives. Chips whose supply does not reach them have outputs that are unknown, with all that these reach.
   */
  solve({ isOn, driveOf }: Standing): OperatingPoint {
    const shorted = (): OperatingPoint => new OperatingPoint(this, { isShorted: true });
    if (this.isMiswired) return shorted();
    let dead: ReadonlySet<string> = new Set(this.chips.flatMap((chip) => (hasRails(chip) ? [] : [chip.ref])));
    for (;;) {
      const found = new OperatingPoint(this);
      let amps = 0;
      for (const island of this.islands) {
        const { contacts, outputs } = island.parts;
        contacts.forEach(({ actuator, on }, i) => {
          island.setContact(i, isOn(actuator) === on);
        });
        outputs.forEach(({ ref, pin }, i) => {
          island.setOutput(i, DRIVES.indexOf(dead.has(ref) ? 'dead' : driveOf(pin)));
        });
        const point = island.point(this.volts, this.positive);
        found.take(island.free, point);
        amps += point.supplyA;
      }
      if (1000 * amps > this.limitMa) return shorted();
      found.supplyMa = 1000 * amps + this.quietMa((ref) => !dead.has(ref));
      const now = new Set(this.chips.flatMap((chip) => (found.supplyOf(chip) < LEAST_SUPPLY_V ? [chip.ref] : [])));
      for (const ref of dead) now.add(ref);
      if (now.size === dead.size) return found;
      dead = now;
    }
  }

  /** The levels of an input pin while its chip has the board's supply; null for pins that are none. */
  thresholdsAt(pin: string): Thresholds | null {
    const reader = this.readers.get(pin);
    return reader ? thresholdsOf(reader, (node) => this.fixed.get(node) ?? 0) : null;
  }

  /** The supply pin of the first chip that no supply reaches at an operating point; null where all have theirs. */
  unpowered(point: OperatingPoint): string | null {
    const chip = this.chips.find((one) => point.supplyOf(one) < LEAST_SUPPLY_V);
    const pin = chip?.type.pins.find((p) => p.role === 'supply');
    return chip && pin ? pinOf(chip.ref, pin.id) : null;
  }

  /** What the chips that have power take for themselves, in milliamperes, typically; 0 for those without a figure. */
  quietMa(isPowered: (ref: string) => boolean): number {
    return this.chips.reduce((sum, { ref, part, family }) => {
      const most = isPowered(ref) ? (supplyMa(part, family) ?? 0) : 0;
      return sum + most * (families[family].technology === 'TTL' ? TYPICAL_SHARE : 0);
    }, 0);
  }
}

const canDrive: Readonly<Record<Exclude<OutputDrive, 'analogue-switch'>, readonly Drive[]>> = {
  'push-pull': ['low', 'high'],
  'open-collector': ['low', 'off'],
  'three-state': ['low', 'high', 'off'],
};

const hasRails = ({ supply, ground }: SeatedChip): boolean => supply >= 0 && ground >= 0 && supply !== ground;
const rails = ({ supply, ground }: SeatedChip): Omit<PinNodes, 'pin'> => ({ supply, ground });

/** Readers by the net that they are on. */
function grouped(readers: Iterable<PinReader>): ReadonlyMap<number, readonly PinReader[]> {
  const byNet = new Map<number, PinReader[]>();
  for (const reader of readers) {
    if (reader.net === null) continue;
    const there = byNet.get(reader.net);
    if (there) there.push(reader);
    else byNet.set(reader.net, [reader]);
  }
  return byNet;
}

/** What a part has whose value is not given, in ohms. */
const UNVALUED_OHMS = 1000;

/** Whether a part is turned: it is no pair of resistors then, but a dial. */
const isDial = (part: SeatedPart): boolean => typeOf(part)?.kind === 'potentiometer';

/** What hangs together through nodes that are not fixed, every contact counted as closed; what lies between fixed nodes alone is one more. */
function islandsOf(nodes: number, fixed: ReadonlyMap<number, number>, all: IslandParts): IslandModel[] {
  const parent = Int32Array.from({ length: nodes }, (_, i) => i);
  const root = (node: number): number => {
    let at = node;
    while (parent[at] !== at) {
      parent[at] = elementAt(parent, elementAt(parent, at));
      at = elementAt(parent, at);
    }
    return at;
  };
  const freeOf = (between: readonly number[]): number[] => between.filter((node) => !fixed.has(node));
  const endsOf = ({ a, b }: CapacitorModel): number[] => [a, b];
  const stages = all.outputs.flatMap(({ low, high }) => [low, high]);
  const dials = all.dials.flatMap((dial) => dial.at(DIAL_MIDDLE));
  const elements = [...all.lasting, ...all.contacts.map((c) => c.element), ...stages, ...dials];
  for (const between of [...elements.map((e) => e.nodes), ...all.capacitors.map(endsOf)]) {
    const [first, ...others] = freeOf(between);
    for (const node of others) parent[root(node)] = root(first as number);
  }
  const rooms = new Map<
    number,
    { free: number[] } & { -readonly [K in keyof IslandParts]: IslandParts[K][number][] }
  >();
  const roomOf = (key: number) => {
    const room = rooms.get(key) ?? { free: [], lasting: [], contacts: [], outputs: [], capacitors: [], dials: [] };
    rooms.set(key, room);
    return room;
  };
  const roomFor = (between: readonly number[]) => {
    const [first] = freeOf(between);
    return roomOf(first === undefined ? -1 : root(first));
  };
  for (let node = 0; node < nodes; node++) if (!fixed.has(node)) roomOf(root(node)).free.push(node);
  for (const element of all.lasting) roomFor(element.nodes).lasting.push(element);
  for (const contact of all.contacts) roomFor(contact.element.nodes).contacts.push(contact);
  for (const output of all.outputs) roomFor(output.low.nodes).outputs.push(output);
  for (const dial of all.dials) roomFor(dial.at(DIAL_MIDDLE).flatMap((e) => e.nodes)).dials.push(dial);
  for (const capacitor of all.capacitors) roomFor(endsOf(capacitor)).capacitors.push(capacitor);
  return [...rooms.values()].map(({ free, ...parts }) => new IslandModel(free, parts));
}
