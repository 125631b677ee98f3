import { type Board, cutPin, type Nets, pinOf, type SeatedPart } from '../board';
import {
  type FamilyId,
  families,
  innerName,
  innerOf,
  type PartType,
  readPartNumber,
  supplyMa,
  typeOf,
} from '../catalogue';
import { bipolars, junctions, mosfets, SUPPLY_V } from './devices';
import { bipolar, type Element, junction, mosfet, resistor } from './elements';
import { currentsAt, type Island, resistancesAt, solveIsland } from './operating-point';
import { inputElement, outputStage, type PinNodes, type Thresholds, thresholdsAt } from './pin-models';

/** What a chip's output does to its pin. `unknown`: one of the others, and nobody knows which. */
export type Drive = 'low' | 'high' | 'off' | 'unknown';

/** How a board stands: which actuators are on, by name (`S1`, `S2.3`), and what each output pin of a chip does (`U1.3`). */
export interface Standing {
  readonly isOn: (actuator: string) => boolean;
  readonly driveOf: (pin: string) => Drive;
}

/** What a pin reads: low, high, or nobody knows. */
export type ReadLevel = '0' | '1' | '?';

/** Closed contacts and thin metal, in ohms. */
const CONTACT_OHMS = 0.05;
/** Unknown outputs of one island whose corners are tried; of more, all that they reach is unknown. */
const MOST_UNKNOWN = 6;
/** Behind more ohms than these a node counts as floating: an insulation, not a path. */
const FLOATING_OHMS = 1e8;
/** Under so many volts between its supply pins a chip does nothing that can be relied on. Source: the least supply of any family, 2 V. */
const LEAST_SUPPLY_V = 2;
/** Of the supply current that a data sheet allows a TTL chip, its typical figure is about half. Source: The TTL Data Book, ICC. */
const TYPICAL_SHARE = 0.5;

/** A chip as its pins see it. */
interface SeatedChip {
  readonly ref: string;
  readonly part: string;
  readonly type: PartType;
  readonly family: FamilyId;
  readonly supply: number;
  readonly ground: number;
}

/**
 * The volts of a board. Built once for a board and its nets; `solve` gives the operating point for each way it may stand. Nodes are nets,
 * by their index in `Nets`. Chips are their pins' models: what they compute is the caller's, who says what their outputs do.
 */
export class BoardVolts {
  private readonly chips: readonly SeatedChip[];
  private readonly lasting: readonly Element[];
  private readonly contacts: readonly { readonly actuator: string; readonly on: boolean; readonly element: Element }[];
  private readonly outputs: readonly { readonly pin: string; readonly chip: SeatedChip; readonly node: number }[];
  private readonly lampElements = new Map<string, Element>();
  /** Volts of the nets that supplies hold, by net. */
  private readonly fixed = new Map<number, number>();
  private readonly positive = new Set<number>();
  /** Whether supply leads of different volts are on one net. */
  readonly isShorted: boolean;
  /** The volts found last, from which the next search begins: a circuit with memory stays in its state. */
  private readonly volts: Float64Array;

  constructor(
    { parts: seated }: Board,
    private readonly nets: Nets,
  ) {
    const parts = Object.values(seated);
    this.isShorted = !this.holdSupplies(parts);
    this.chips = parts.flatMap((part) => this.chipOf(part) ?? []);
    this.lasting = [...parts.flatMap((part) => this.elementsOf(part)), ...this.chips.flatMap((c) => this.inputsOf(c))];
    this.contacts = parts.flatMap((part) => this.contactsOf(part));
    this.outputs = this.chips.flatMap((chip) =>
      chip.type.units.flatMap((unit) =>
        unit.outputs.flatMap((id) => {
          const node = this.node(chip.ref, id);
          return node === undefined ? [] : [{ pin: pinOf(chip.ref, id), chip, node }];
        }),
      ),
    );
    this.volts = new Float64Array(nets.nets.length);
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
      if (part !== 'supply') continue;
      hold(this.node(ref, '-'), 0);
      hold(this.node(ref, '+'), value);
      const plus = this.node(ref, '+');
      if (plus !== undefined) this.positive.add(plus);
    }
    return agree;
  }

  private chipOf(seated: SeatedPart): SeatedChip | null {
    const type = typeOf(seated);
    if (type?.kind !== 'chip') return null;
    const at = (role: string): number => this.node(seated.ref, type.pins.find((p) => p.role === role)?.id ?? '') ?? -1;
    const family = readPartNumber(seated.part)?.family ?? 'HC';
    return { ref: seated.ref, part: seated.part, type, family, supply: at('supply'), ground: at('ground') };
  }

  /** The elements that a part is, whatever stands how. Leads in no hole make none. */
  private elementsOf(seated: SeatedPart): Element[] {
    const { ref, value = 1000 } = seated;
    const { resistors, lamps, devices } = innerOf(typeOf(seated));
    const between = (a: string, b: string, make: (a: number, b: number) => Element): Element[] => {
      const [p, q] = [this.node(ref, a), this.node(ref, b)];
      return p === undefined || q === undefined || p === q ? [] : [make(p, q)];
    };
    return [
      ...resistors.flatMap(({ a, b, share }) =>
        between(a, b, (p, q) => resistor(p, q, Math.max(CONTACT_OHMS, value * share))),
      ),
      ...lamps.flatMap(({ name, anode, cathode }) =>
        between(anode, cathode, (p, q) => {
          const lamp = junction(p, q, junctions.redLed);
          this.lampElements.set(innerName(ref, name), lamp);
          return lamp;
        }),
      ),
      ...devices.flatMap(({ kind, a, b, control }): Element[] => {
        const steer = control === null ? undefined : this.node(ref, control);
        return between(a, b, (p, q) => {
          if (kind === 'diode') return junction(p, q, junctions.diode);
          // A control lead in no hole: nothing steers the device, which then is open.
          if (steer === undefined) return resistor(p, q, 1e12);
          if (kind === 'nmos') return mosfet({ drain: p, gate: steer, source: q }, 1, mosfets.nmos);
          const legs = { collector: p, base: steer, emitter: q };
          return bipolar(legs, kind === 'npn' ? 1 : -1, bipolars[kind]);
        });
      }),
    ];
  }

  private contactsOf(seated: SeatedPart) {
    const { ref } = seated;
    return innerOf(typeOf(seated)).contacts.flatMap(({ actuator, a, b, on }) => {
      const [p, q] = [this.node(ref, a), this.node(ref, b)];
      if (p === undefined || q === undefined || p === q) return [];
      return [{ actuator: innerName(ref, actuator), on, element: resistor(p, q, CONTACT_OHMS) }];
    });
  }

  private inputsOf(chip: SeatedChip): Element[] {
    if (!hasRails(chip)) return [];
    const pins = new Set(chip.type.units.flatMap((unit) => unit.inputs));
    return [...pins].flatMap((id) => {
      const pin = this.node(chip.ref, id);
      return pin === undefined ? [] : (inputElement(chip.family, 1, { ...rails(chip), pin }) ?? []);
    });
  }

  /**
   * The operating point of the board as it stands. Nothing is known while supply and ground are joined. Chips whose supply does not reach them
   * have outputs that are unknown, with all that these reach.
   */
  solve(standing: Standing): OperatingPoint {
    const elements = [...this.lasting];
    for (const { actuator, on, element } of this.contacts) if (standing.isOn(actuator) === on) elements.push(element);
    const isShorted = this.isShorted || elements.some((e) => this.joinsSupplies(e));
    let dead: ReadonlySet<string> = new Set(this.chips.flatMap((chip) => (hasRails(chip) ? [] : [chip.ref])));
    for (;;) {
      const found = this.solveWith(elements, standing, dead, isShorted);
      const now = new Set(this.chips.flatMap(({ ref }) => (found.supplyOf(ref) < LEAST_SUPPLY_V ? [ref] : [])));
      for (const ref of dead) now.add(ref);
      if (isShorted || now.size === dead.size) return found;
      dead = now;
    }
  }

  private joinsSupplies({ nodes: [a = -1, b = -1] }: Element): boolean {
    const [p, q] = [this.fixed.get(a), this.fixed.get(b)];
    return (
      p !== undefined &&
      q !== undefined &&
      p !== q &&
      this.contacts.some((c) => c.element.nodes[0] === a && c.element.nodes[1] === b)
    );
  }

  private solveWith(
    lasting: readonly Element[],
    { driveOf }: Standing,
    dead: ReadonlySet<string>,
    isShorted: boolean,
  ): OperatingPoint {
    const found = new OperatingPoint(this.nets, this.chips, this.fixed, this.lampElements);
    found.isShorted = isShorted;
    if (isShorted) return found;
    const elements = [...lasting];
    const unknown: (readonly [Element, Element])[] = [];
    const silent = new Set<number>();
    for (const { pin, chip, node } of this.outputs) {
      const drive = driveOf(pin);
      const nodes = { ...rails(chip), pin: node };
      const stage = (isHigh: boolean): Element => outputStage(chip.type, chip.family, isHigh, nodes);
      if (dead.has(chip.ref)) silent.add(node);
      else if (drive === 'unknown') unknown.push([stage(false), stage(true)]);
      else if (drive !== 'off') elements.push(stage(drive === 'high'));
    }
    for (const [node, volts] of this.fixed) this.volts[node] = volts;
    for (const island of islandsOf(this.nets.nets.length, elements, unknown, this.fixed))
      found.take(island, this.volts, silent);
    found.supplyMa = 1000 * this.givenBySupplies(elements) + this.quietMa(dead);
    return found;
  }

  /** Amperes that flow out of the positive leads. */
  private givenBySupplies(elements: readonly Element[]): number {
    const amps = currentsAt(elements, this.volts);
    return [...this.positive].reduce((sum, node) => sum + (amps[node] ?? 0), 0);
  }

  /** What the chips take for themselves, in milliamperes, typically; 0 for those without a figure. */
  private quietMa(dead: ReadonlySet<string>): number {
    return this.chips.reduce((sum, { ref, part, family }) => {
      const most = dead.has(ref) ? 0 : (supplyMa(part, family) ?? 0);
      return sum + most * (families[family].technology === 'TTL' ? TYPICAL_SHARE : 0);
    }, 0);
  }
}

const hasRails = ({ supply, ground }: SeatedChip): boolean => supply >= 0 && ground >= 0 && supply !== ground;
const rails = ({ supply, ground }: SeatedChip): Omit<PinNodes, 'pin'> => ({ supply, ground });

/** Elements that hang together through nodes whose volts are not fixed, with the unknown outputs on them. */
interface OpenIsland extends Island {
  readonly unknown: readonly (readonly [low: Element, high: Element])[];
}

function islandsOf(
  nodes: number,
  elements: readonly Element[],
  unknown: readonly (readonly [Element, Element])[],
  fixed: ReadonlyMap<number, number>,
): OpenIsland[] {
  const parent = Int32Array.from({ length: nodes }, (_, i) => i);
  const root = (node: number): number => {
    let at = node;
    while (parent[at] !== at) {
      parent[at] = parent[parent[at] as number] as number;
      at = parent[at] as number;
    }
    return at;
  };
  const freeOf = (element: Element): number[] => element.nodes.filter((node) => !fixed.has(node));
  for (const element of [...elements, ...unknown.flat()]) {
    const [first, ...others] = freeOf(element);
    for (const node of others) parent[root(node)] = root(first as number);
  }
  const islands = new Map<number, { free: number[]; elements: Element[]; unknown: (readonly [Element, Element])[] }>();
  for (let node = 0; node < nodes; node++) {
    if (fixed.has(node)) continue;
    const island = islands.get(root(node));
    if (island) island.free.push(node);
    else islands.set(root(node), { free: [node], elements: [], unknown: [] });
  }
  for (const element of elements) {
    const [first] = freeOf(element);
    if (first !== undefined) islands.get(root(first))?.elements.push(element);
  }
  for (const stages of unknown) {
    const [first] = stages.flatMap(freeOf);
    if (first !== undefined) islands.get(root(first))?.unknown.push(stages);
  }
  return [...islands.values()];
}

/** The volts of a board as it stands, by net, each with the least and the most that they can be. */
export class OperatingPoint {
  private readonly least: Float64Array;
  private readonly most: Float64Array;
  /** Nets that nothing holds, and nets of which nothing is known: unstable, not found, or too much unknown. */
  private readonly floating = new Set<number>();
  private readonly lost = new Set<number>();
  /** What the supplies give, in milliamperes. */
  supplyMa = 0;
  /** Whether supply and ground are joined, so that nothing is known. */
  isShorted = false;

  constructor(
    private readonly nets: Nets,
    private readonly chips: readonly SeatedChip[],
    private readonly fixed: ReadonlyMap<number, number>,
    private readonly lampElements: ReadonlyMap<string, Element>,
  ) {
    this.least = new Float64Array(nets.nets.length);
    this.most = new Float64Array(nets.nets.length);
    for (const [node, volts] of fixed) {
      this.least[node] = volts;
      this.most[node] = volts;
    }
  }

  /** Takes up an island: its corners where outputs on it are unknown, of which the last one stays in `volts`. */
  take({ free, elements, unknown }: OpenIsland, volts: Float64Array, silent: ReadonlySet<number>): void {
    if (free.some((node) => silent.has(node))) for (const node of free) this.lost.add(node);
    if (elements.length === 0 && unknown.length === 0) {
      for (const node of free) this.floating.add(node);
      return;
    }
    const corners = unknown.length > MOST_UNKNOWN ? 1 : 2 ** unknown.length;
    const start = free.map((node) => volts[node] as number);
    for (let corner = 0; corner < corners; corner++) {
      const chosen = unknown.map(([low, high], i) => ((corner >> i) & 1 ? high : low));
      const island = { free, elements: [...elements, ...chosen] };
      free.forEach((node, i) => {
        volts[node] = start[i] as number;
      });
      const { found, isStable } = solveIsland(island, volts);
      const ohms = corner === 0 ? resistancesAt(island, volts) : null;
      for (const node of free) {
        const v = volts[node] as number;
        this.least[node] = corner === 0 ? v : Math.min(this.least[node] as number, v);
        this.most[node] = corner === 0 ? v : Math.max(this.most[node] as number, v);
        if (ohms && (ohms[node] as number) > FLOATING_OHMS) this.floating.add(node);
        if (!found || !isStable || unknown.length > MOST_UNKNOWN) this.lost.add(node);
      }
    }
  }

  /** The volts of a pin, the middle where they are not known for sure; null for a pin in no hole. */
  voltsAt(pin: string): number | null {
    const net = this.nets.ofPin.get(pin);
    return net === undefined ? null : this.middle(net);
  }

  /** Whether the volts of a pin are known: something holds them, and nothing that is unknown moves them. */
  isKnown(pin: string): boolean {
    const net = this.nets.ofPin.get(pin);
    return net !== undefined && !this.floating.has(net) && !this.lost.has(net) && !this.isWide(net) && !this.isShorted;
  }

  /** Whether nothing holds a pin's net at any volts. */
  isFloating(pin: string): boolean {
    const net = this.nets.ofPin.get(pin);
    return net === undefined || this.floating.has(net);
  }

  /** Volts between the supply pins of a chip; 0 where one of them is in no hole. */
  supplyOf(ref: string): number {
    const chip = this.chipOf(ref);
    if (!chip || !hasRails(chip)) return 0;
    return this.middle(chip.supply) - this.middle(chip.ground);
  }

  /**
   * What a pin reads. An input of a chip reads by its own thresholds at the supply that reaches it, and open as its family, or the chip
   * itself, has it. Any other pin is told as most inputs on its net read it: as an HC input where there is none.
   */
  levelAt(pin: string): ReadLevel {
    const { ref, id } = cutPin(pin);
    const chip = this.chipOf(ref);
    const isInput = chip?.type.pins.some((p) => p.id === id && p.role === 'input');
    if (chip && isInput) return this.readBy(chip, pin);
    const net = this.nets.nets[this.nets.ofPin.get(pin) ?? -1];
    const readers = (net?.pins ?? []).filter((other) => other !== pin && this.isInput(other));
    const levels = new Set(readers.map((other) => this.levelAt(other)));
    if (levels.size === 1) return [...levels][0] ?? '?';
    return levels.size === 0 ? this.between(pin, thresholdsAt(chip?.family ?? 'HC', SUPPLY_V), false) : '?';
  }

  private isInput(pin: string): boolean {
    const { ref, id } = cutPin(pin);
    return this.chipOf(ref)?.type.pins.some((p) => p.id === id && p.role === 'input') === true;
  }

  private readBy(chip: SeatedChip, pin: string): ReadLevel {
    const name = chip.type.pins.find((p) => p.id === cutPin(pin).id)?.name ?? '';
    const isPulled = chip.type.chip?.pulledUp?.split(' ').includes(name) === true;
    const opensHigh = isPulled || families[chip.family].openInput === 'high';
    return this.between(pin, thresholdsAt(chip.family, this.supplyOf(chip.ref)), opensHigh, chip.ground);
  }

  private between(pin: string, { low, high }: Thresholds, opensHigh: boolean, ground = -1): ReadLevel {
    const net = this.nets.ofPin.get(pin);
    if (this.isShorted || (net !== undefined && this.lost.has(net))) return '?';
    if (net === undefined || this.floating.has(net)) return opensHigh ? '1' : '?';
    const zero = ground < 0 ? 0 : this.middle(ground);
    return (this.most[net] as number) - zero <= low ? '0' : (this.least[net] as number) - zero >= high ? '1' : '?';
  }

  private chipOf(ref: string): SeatedChip | undefined {
    return this.chips.find((chip) => chip.ref === ref);
  }

  private middle(node: number): number {
    return ((this.least[node] as number) + (this.most[node] as number)) / 2;
  }

  /** The current through a lamp, by its name, in milliamperes; 0 for one whose leads are in no hole. */
  lampMa(name: string): number {
    const lamp = this.lampElements.get(name);
    return lamp ? 1000 * lamp.amps(Float64Array.from(this.least, (_, node) => this.middle(node))) : 0;
  }

  /** Whether the volts at both leads of a lamp are known. */
  isLampKnown(name: string): boolean {
    const lamp = this.lampElements.get(name);
    return !this.isShorted && !lamp?.nodes.some((node) => this.lost.has(node) || this.isWide(node));
  }

  private isWide(node: number): boolean {
    return !this.fixed.has(node) && (this.most[node] as number) - (this.least[node] as number) > 0.1;
  }
}
