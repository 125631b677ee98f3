import {
  type Board,
  byNumber,
  crossingsFrom,
  type LampFeed,
  labelOf,
  labelPlacesOf,
  lampFeed,
  type Nets,
  pinOf,
  type SeatedPart,
  spokenPin,
} from '../board';
import {
  type Contact,
  chipLibrary,
  clockHertz,
  type Drive,
  families,
  type Lamp as InnerLamp,
  innerName,
  innerOf,
  type PartType,
  readDesign,
  readPartNumber,
  segmentsOf,
  sharesWire,
  typeOf,
  type Unit,
} from '../catalogue';
import {
  canName,
  DISPLAY_SIGNALS,
  type Fitting,
  keywords,
  MOST_HERTZ,
  PULSE_S,
  printFitting,
  printSeconds,
} from '../design';
import { type FoundTimer, rhythmOf, timersOf } from '../electrical';
import { entryOf } from '../element-at';
import { type Finding, finding, type Place } from '../finding';
import { type Duty, dutyOfUnit, fingerprint, type Package, type Packing, type UnitUse, whatIsWrong } from '../packing';

/**
 * A design read off a board: the text of a sheet; the packing that the board is of it, null where units alone do not
 * make it (a lamp that is lit by a low net, an input that a switch makes low); and what on the board it cannot say.
 */
export interface Recovered {
  readonly sheet: string;
  readonly packing: Packing | null;
  readonly findings: readonly Finding[];
}

/**
 * Reads the design back from the wiring alone: switches are inputs, LEDs outputs, plain gates equations, other
 * chips are used by number. Labels of switches and LEDs are kept as names where they can be; nets that nobody
 * named are `n1`, `n2` … in the order of the chips. What has no meaning on a sheet is told and read as the chip
 * would read it.
 */
export function recover(board: Board, nets: Nets): Recovered {
  return new Reader(board, nets).read();
}

/** A chip's output on a net. */
interface Driver {
  readonly part: SeatedPart;
  readonly type: PartType;
  readonly unit: Unit;
  readonly pin: string;
  readonly drive: Drive | null;
}

/** A signal as it is declared: its name and label, and what it comes from or is shown on; each `group` stands on a line of its own. */
interface Declared {
  readonly name: string;
  readonly says: string;
  readonly fitting?: Fitting;
  readonly group?: string;
}

/** An output: the net that lights it, and whether a low one does. */
interface Lamp extends Declared {
  readonly net: number | null;
  readonly inverted: boolean;
}

class Reader {
  private readonly taken = new Set<string>([...keywords, 'of', 'end', 'others']);
  /** What a net carries, as an expression of the sheet. */
  private readonly carried = new Map<number, string>();
  private readonly findings: Finding[] = [];
  private readonly drivers = new Map<number, Driver[]>();
  private readonly parts: readonly { part: SeatedPart; type: PartType }[];
  private readonly inputs: Declared[] = [];
  private readonly timed: readonly FoundTimer[];
  private readonly packages: Package[] = [];

  constructor(
    private readonly board: Board,
    private readonly nets: Nets,
  ) {
    this.timed = timersOf(board, nets);
    this.parts = Object.values(board.parts)
      .sort((a, b) => byNumber(a.ref, b.ref))
      .flatMap((part) => {
        const type = typeOf(part);
        return type ? [{ part, type }] : [];
      });
  }

  read(): Recovered {
    this.findSwitched();
    const switching = new Set([...this.switched.values()].flatMap(({ through }) => through));
    const devices = this.parts
      .filter(({ part, type }) => innerOf(type).devices.length > 0 && !switching.has(part.ref))
      .map(({ part }) => part.ref);
    if (devices.length > 0) {
      const places = devices.map((ref): Place => ({ kind: 'part', ref }));
      this.findings.push(finding('recover/switching-device', places, { refs: devices.join(', ') }));
    }
    this.rails();
    this.switches();
    this.timers();
    const outputs = this.lamps();
    this.findDrivers();
    this.nameDriven(outputs);
    const lines = this.parts
      .filter(
        ({ part, type }) => type.kind === 'chip' && innerOf(type).devices.length === 0 && !this.running.has(part.ref),
      )
      .flatMap(({ part, type }) => this.chip(part, type));
    const shown = new Map<string, string>();
    const ends = outputs.flatMap(({ name, net, inverted }) => {
      const value = net === null ? '0' : this.valueOf(net);
      shown.set(name, inverted ? inverse(value ?? '0') : (value ?? '0'));
      if (net === null || value === null)
        this.findings.push(finding('recover/dark-lamp', [{ kind: 'part', ref: this.lampRef(name) }], { name }));
      const says = shown.get(name);
      return says === name ? [] : [`${name} = ${says}`];
    });
    const own = new Set(this.parts.flatMap(({ part }) => part.own ?? []));
    const text = [
      '# read back from the wiring',
      ...declarations('in', this.inputs),
      ...declarations('out', outputs),
      ...own,
      ...lines,
      ...ends,
    ];
    const sheet = `${text.join('\n')}\n`;
    return { sheet, packing: this.packing(sheet, shown), findings: this.findings };
  }

  /** Lamps and buzzers that a transistor switches to ground, as they are called, with where their signal comes from. */
  private readonly switched = new Map<string, LampFeed>();

  private findSwitched(): void {
    for (const { part } of this.parts)
      for (const place of labelPlacesOf(part)) {
        const feed = place.does === 'show' ? lampFeed(this.board, this.nets, place) : null;
        const isSwitched = feed?.through.some(
          (ref) => innerOf(typeOf(entryOf(this.board.parts, ref))).devices.length > 0,
        );
        if (feed && isSwitched) this.switched.set(place.called, feed);
      }
  }

  private netOf(pin: string): number | undefined {
    return this.nets.ofPin.get(pin);
  }

  private rails(): void {
    for (const { part, type } of this.parts) {
      if (type.kind !== 'supply') continue;
      for (const [pin, level] of [
        ['+', '1'],
        ['-', '0'],
      ] as const) {
        const net = this.netOf(pinOf(part.ref, pin));
        if (net !== undefined) this.carried.set(net, level);
      }
    }
  }

  private level(net: number | undefined): string | undefined {
    const value = net === undefined ? undefined : this.carried.get(net);
    return value === '0' || value === '1' ? value : undefined;
  }

  /** A name that the sheet can have and that is free: the wanted one, or one like it. */
  private free(wanted: string | undefined, otherwise: string): string {
    const stem = wanted !== undefined && canName(wanted) ? wanted : otherwise;
    let name = stem;
    for (let k = 2; this.taken.has(name); k++) name = `${stem}_${k}`;
    this.taken.add(name);
    return name;
  }

  private switches(): void {
    for (const { part, type } of this.parts) {
      const { contacts } = innerOf(type);
      for (const actuator of new Set(contacts.map((c) => c.actuator)))
        this.actuator(
          part,
          actuator,
          contacts.filter((c) => c.actuator === actuator),
        );
    }
  }

  /** Put on, an actuator joins its net to the rail that feeds it. Contacts that serve nothing are no inputs where a part has several. */
  private actuator(part: SeatedPart, actuator: string, contacts: readonly Contact[]): void {
    const called = innerName(part.ref, actuator);
    const on = contacts.find((c) => c.on) ?? contacts[0];
    const [a, b] = [this.netOf(pinOf(part.ref, on?.a ?? '')), this.netOf(pinOf(part.ref, on?.b ?? ''))];
    const fed = this.level(a) ?? this.level(b);
    const net = this.level(a) === undefined ? a : b;
    const idle = fed === undefined || net === undefined || this.carried.has(net);
    if (idle && actuator !== '') return;
    const label = labelOf(part, actuator);
    const name = this.free(label, called.replace('.', '_'));
    this.inputs.push({ name, says: label === name ? '' : `switch ${called}`, ...fittingOfStimulus(part) });
    if (idle) this.findings.push(finding('recover/idle-switch', [{ kind: 'part', ref: part.ref }], { ref: called }));
    else this.carried.set(net, fed === '1' ? name : `~${name}`);
  }

  /** The pulses of a part's one-shots as they stand behind it on a sheet; nothing where one of them has no length. */
  private pulses({ ref }: SeatedPart, type: PartType): string {
    const outputs = type.units.flatMap((u) => u.outputs.map((id) => pinOf(ref, id)));
    const count = chipLibrary(type.id)?.oneShots?.length ?? 0;
    const lengths = this.timed.flatMap(({ pin, kind, law, values }) => {
      const seconds = Number(rhythmOf(law, values).highS.toPrecision(DIGITS_OF_PULSES));
      const isLength = kind === 'pulse' && seconds >= PULSE_S.least && seconds <= PULSE_S.most;
      return isLength && outputs.includes(pin) ? [printSeconds(seconds)] : [];
    });
    return count > 0 && lengths.length === count ? ` for ${lengths.join(', ')}` : '';
  }

  /** Timers that are inputs, by reference. */
  private readonly running = new Set<string>();

  /** A timer that runs by itself gives a signal that no gate makes, and so does one that is labelled: they are inputs. */
  private timers(): void {
    const rates = new Map(
      this.timed.flatMap(({ pin, kind, law, values }) => {
        const { highS, lowS } = rhythmOf(law, values);
        return kind === 'astable' ? [[pin, Math.round(1 / (highS + (lowS ?? 0)))] as const] : [];
      }),
    );
    for (const { part, type } of this.parts) {
      const { runs, signalPin } = innerOf(type);
      const pin = pinOf(part.ref, signalPin ?? '');
      const hertz = rates.get(pin);
      const net = this.netOf(pin);
      if (!runs || net === undefined || (part.signal === undefined && hertz === undefined)) continue;
      this.running.add(part.ref);
      const name = this.free(part.signal, part.ref);
      const isRated = hertz !== undefined && hertz >= 1 && hertz <= MOST_HERTZ.timer;
      this.inputs.push({
        name,
        says: part.signal === name ? '' : `timer ${part.ref}`,
        ...(isRated && { fitting: { kind: 'timer', hertz }, group: part.ref }),
      });
      this.carried.set(net, name);
    }
  }

  /** Nets on the other side of resistors. */
  private across(net: number): number[] {
    return crossingsFrom(this.board, this.nets, net, ({ resistors }) => resistors).flatMap((x) =>
      x.net === undefined || x.net === net ? [] : [x.net],
    );
  }

  private readonly lampRefs = new Map<string, string>();

  private lampRef(name: string): string {
    return this.lampRefs.get(name) ?? name;
  }

  /** LEDs: lit by a high net when their cathode leads to ground, by a low one when their anode leads to supply. */
  private lamps(): Lamp[] {
    return this.parts.flatMap(({ part, type }): Lamp[] => {
      const all = type.kind === 'display' ? segmentsOf(type) : innerOf(type).lamps;
      const lamps = all.flatMap((lamp) =>
        this.lamp(part, lamp).map((read) => ({ ...read, ...fittingOfLamp(type, lamp) })),
      );
      // A whole digit is shown as such, its segments by the levels that light them.
      const isDigit = type.kind === 'display' && DISPLAY_SIGNALS.some((n) => n === lamps.length);
      const fitting: Fitting = { kind: 'display', low: lamps.every((l) => l.inverted) };
      return isDigit ? lamps.map((l) => ({ ...l, inverted: false, fitting, group: part.ref })) : lamps;
    });
  }

  /** Lamps that serve nothing are no outputs where a part has several. */
  private lamp(part: SeatedPart, inner: InnerLamp): Lamp[] {
    const called = innerName(part.ref, inner.name);
    const [anode, cathode] = [this.netOf(pinOf(part.ref, inner.anode)), this.netOf(pinOf(part.ref, inner.cathode))];
    const alone = (net: number | undefined): boolean => (this.nets.nets[net ?? -1]?.pins.length ?? 0) < 2;
    if (inner.name !== '' && (alone(anode) || alone(cathode))) return [];
    const label = labelOf(part, inner.name);
    const name = this.free(label, called.replace('.', '_'));
    this.lampRefs.set(name, part.ref);
    const leads = (net: number | undefined, to: string): boolean =>
      net !== undefined && (this.level(net) === to || this.across(net).some((n) => this.level(n) === to));
    const signal = (net: number | undefined, rail: string): number | null => {
      if (net === undefined) return null;
      if (this.level(net) !== undefined) return net;
      const all = [net, ...this.across(net)].filter((n) => this.level(n) !== rail);
      return all.find((n) => this.carried.has(n) || this.hasOutput(n)) ?? null;
    };
    const says = label === name ? '' : `LED ${called}`;
    const feed = this.switched.get(called);
    if (feed) return [{ name, says, net: this.netOf(feed.pin) ?? null, inverted: false }];
    if (leads(cathode, '0')) return [{ name, says, net: signal(anode, '0'), inverted: false }];
    if (leads(anode, '1')) return [{ name, says, net: signal(cathode, '1'), inverted: true }];
    return [{ name, says, net: null, inverted: false }];
  }

  private hasOutput(net: number): boolean {
    return (this.nets.nets[net]?.pins ?? []).some((pin) => {
      const role = this.nets.leads.get(pin)?.type.role;
      return role === 'output' || role === 'both';
    });
  }

  private findDrivers(): void {
    for (const { part, type } of this.parts) {
      if (type.kind !== 'chip' || this.running.has(part.ref)) continue;
      for (const unit of type.units)
        for (const [o, id] of unit.outputs.entries()) {
          if (unit.drives[o] === 'analogue-switch') continue;
          const pin = pinOf(part.ref, id);
          const net = this.netOf(pin);
          if (net === undefined || (this.nets.nets[net]?.pins.length ?? 0) < 2) continue;
          this.drivers.set(net, [
            ...(this.drivers.get(net) ?? []),
            { part, type, unit, pin, drive: unit.drives[o] ?? null },
          ]);
        }
    }
    for (const [net, all] of this.drivers) {
      if ((all.length < 2 || sharesWire(all.map((d) => d.drive))) && !this.carried.has(net)) continue;
      const places = all.map((d): Place => ({ kind: 'pin', pin: d.pin }));
      this.findings.push(finding('recover/joined', places, { pins: all.map((d) => spokenPin(d.pin)).join(', ') }));
    }
  }

  /** Names for the nets that chips drive: the name of an output that shows one, otherwise a number. */
  private nameDriven(outputs: readonly Lamp[]): void {
    let n = 0;
    for (const net of this.drivers.keys()) {
      if (this.carried.has(net)) continue;
      const shown = outputs.find((o) => o.net === net && !o.inverted);
      if (shown) this.carried.set(net, shown.name);
      else {
        do n++;
        while (this.taken.has(`n${n}`));
        this.taken.add(`n${n}`);
        this.carried.set(net, `n${n}`);
      }
    }
  }

  /** What a net carries: its name, or what pulls it; null when nothing does. */
  private valueOf(net: number): string | null {
    return this.carried.get(net) ?? this.across(net).flatMap((n) => this.level(n) ?? [])[0] ?? null;
  }

  /** What an input reads. An open one reads as its family does: high in TTL; in CMOS it is an input of its own. */
  private reads(part: SeatedPart, pin: string): string {
    const at = pinOf(part.ref, pin);
    const net = this.netOf(at);
    const value = net === undefined ? null : this.valueOf(net);
    if (value !== null) return value;
    const key = net ?? -1;
    const high = families[readPartNumber(part.part)?.family ?? 'HC'].openInput === 'high';
    this.findings.push(
      finding('recover/open-input', [{ kind: 'pin', pin: at }], {
        pin: spokenPin(at),
        reads: high ? 'high' : 'anything',
      }),
    );
    const name = high ? '1' : this.free(undefined, `open_${part.ref}_${pin}`);
    if (!high) this.inputs.push({ name, says: `${spokenPin(at)} is open` });
    if (key >= 0) this.carried.set(key, name);
    return name;
  }

  private chip(part: SeatedPart, type: PartType): string[] {
    const driversAt = (id: string): readonly Driver[] => this.drivers.get(this.netOf(pinOf(part.ref, id)) ?? -1) ?? [];
    const isShared = (id: string): boolean => driversAt(id).length > 1 && sharesWire(driversAt(id).map((d) => d.drive));
    const leads = (id: string): boolean => driversAt(id)[0]?.pin === pinOf(part.ref, id) || isShared(id);
    const isUsed = (u: Unit): boolean => u.outputs.some(leads);
    const uses: (UnitUse | null)[] = type.units.map(() => null);
    this.packages.push({
      ref: part.ref,
      part: part.part,
      ...(part.own !== undefined && { own: part.own }),
      units: uses,
    });
    const used = type.units.filter(isUsed);
    if (used.length === 0) return [];
    const made = (id: string): string => this.carried.get(this.netOf(pinOf(part.ref, id)) ?? -1) ?? '';
    const gates = type.units.map((u, k) => dutyOfUnit(type, k, u.inputs));
    // Outputs that share a wire say how they do so by their part's number.
    if (used.every((u) => gates[type.units.indexOf(u)] && !u.outputs.some(isShared)))
      return type.units.flatMap((u, k) => {
        if (!isUsed(u)) return [];
        const inputs = u.inputs.map((pin) => this.reads(part, pin));
        const output = made(u.outputs[0] ?? '');
        const does = dutyOfUnit(type, k, inputs);
        uses[k] = { gate: output, part: 'whole', inputs, output };
        return does ? [`${output} = ${gateText(does.duty, does.nets)}`] : [];
      });
    const nameOf = (id: string): string => type.pins.find((p) => p.id === id)?.name ?? id;
    // A pin that is an output too is left to itself where nothing is joined to it.
    const isLeft = (id: string): boolean =>
      type.units.some((u) => u.outputs.includes(id)) &&
      (this.nets.nets[this.netOf(pinOf(part.ref, id)) ?? -1]?.pins.length ?? 0) < 2;
    const read = type.units.flatMap((u) => u.inputs).filter((id) => !isLeft(id));
    const inputs = new Map(read.map((id) => [id, this.reads(part, id)]));
    const outs = used.flatMap((u) => u.outputs.filter(leads)).map((id): [string, string] => [id, made(id)]);
    const ref = this.free(undefined, part.ref);
    for (const [k, u] of type.units.entries()) {
      const [output = '', ...others] = u.outputs.map((id) => (leads(id) ? made(id) : pinOf(ref, nameOf(id))));
      const readBy = u.inputs.map((id) => inputs.get(id) ?? (isLeft(id) ? pinOf(ref, nameOf(id)) : '0'));
      const use = { gate: ref, part: 'whole' as const, inputs: readBy, output };
      uses[k] = others.length > 0 ? { ...use, others } : use;
    }
    const joins = [...inputs, ...outs].map(([id, value]) => `${nameOf(id)} = ${value}`);
    return [`use ${type.ownName ?? type.id} as ${ref} (${joins.join(', ')})${this.pulses(part, type)}`];
  }

  /** The packing that the board is, checked against the sheet; null where the sheet has more than the board's units make. */
  private packing(sheet: string, ends: ReadonlyMap<string, string>): Packing | null {
    const { netlist } = readDesign(sheet).design;
    if (!netlist) return null;
    const packing: Packing = {
      packages: this.packages,
      inputs: netlist.inputs,
      outputs: netlist.outputs.map(({ name }) => ({ name, net: ends.get(name) ?? name })),
      proved: false,
      proof: 'best',
      design: fingerprint(netlist),
    };
    return whatIsWrong(netlist, packing) === null ? packing : null;
  }
}

/** Digits of a pulse that is read back: parts of a bench are no more exact. */
const DIGITS_OF_PULSES = 2;

/** What a person's signal comes from, where it is no switch. */
function fittingOfStimulus(part: SeatedPart): Pick<Declared, 'fitting' | 'group'> {
  const kind = typeOf(part)?.kind;
  if (kind === 'push-button') return { fitting: { kind: 'button' }, group: 'button' };
  const hertz = clockHertz(part);
  return hertz === null ? {} : { fitting: { kind: 'clock', hertz }, group: part.ref };
}

/** What a signal is shown on, where it is no red lamp. */
function fittingOfLamp({ kind, id }: PartType, { colour = 'red' }: InnerLamp): Pick<Declared, 'fitting' | 'group'> {
  if (kind === 'buzzer') return { fitting: { kind: 'buzzer' }, group: id };
  if (kind === 'led-bar') return { fitting: { kind: 'bar' }, group: 'bar' };
  return colour === 'red' || colour === 'sound' ? {} : { fitting: { kind: 'lamp', colour }, group: colour };
}

/** The lines that declare signals: those of one group together, as long as they follow one another. */
function declarations(kind: 'in' | 'out', all: readonly Declared[]): string[] {
  const lines: Declared[][] = [];
  for (const one of all) {
    const last = lines.at(-1);
    if (last?.[0] && last[0].group === one.group && one.fitting?.kind !== 'buzzer') last.push(one);
    else lines.push([one]);
  }
  return lines.map((line) => {
    const names = line.map(({ name, says }) => (says === '' ? name : `${name} ${JSON.stringify(says)}`));
    const fitting = line[0]?.fitting;
    return [kind, ...names, ...(fitting ? [printFitting(fitting)] : [])].join(' ');
  });
}

const inverse = (value: string): string => {
  if (value === '0' || value === '1') return value === '0' ? '1' : '0';
  return value.startsWith('~') ? value.slice(1) : `~${value}`;
};

/** What a unit does as the sheet writes it; of exclusive ors constants are taken out. */
function gateText(duty: Duty, nets: readonly string[]): string {
  const [only = '0'] = nets;
  switch (duty.kind) {
    case 'not':
      return inverse(only);
    case 'and':
    case 'or':
      return nets.join(duty.kind === 'and' ? ' & ' : ' | ');
    case 'nand':
    case 'nor':
      return `${duty.kind}(${nets.join(', ')})`;
    case 'aoi': {
      const sides = [nets.slice(0, duty.width), nets.slice(duty.width)];
      return `~(${sides.map((s) => [...new Set(s)].join(' & ')).join(' | ')})`;
    }
    default: {
      const rest = nets.filter((n) => n !== '0' && n !== '1');
      const inverts = (nets.filter((n) => n === '1').length % 2 === 1) === (duty.kind === 'xor');
      if (rest.length > 1) return `${inverts ? 'xnor' : 'xor'}(${rest.join(', ')})`;
      return inverts ? inverse(rest[0] ?? '0') : (rest[0] ?? '0');
    }
  }
}
