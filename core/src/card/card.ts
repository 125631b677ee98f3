import {
  type Board,
  breadboardKinds,
  breadboardTitles,
  byNumber,
  cutPin,
  extractNets,
  isRailStrip,
  type LabelPlace,
  labelledPlaces,
  lampFeed,
  leadsOf,
  type Nets,
  parseHole,
  pinOf,
  type SeatedPart,
  spokenPin,
  stripOf,
} from '../board';
import { innerOf, shownValue, typeOf, type Unit } from '../catalogue';
import type { Netlist } from '../design';
import { entryOf } from '../element-at';
import { isBuiltOtherwise } from '../inspection';
import type { Behaviour } from '../logic';
import { buildOrder, drivenBy, isPlain, type Packing, type UnitUse } from '../packing';
import { type Expectation, expectationOf, nameNets, shownSignal, sourcesOf, timerPinsOf } from '../planning';
import { type PlannedTour, plannedTour } from '../simulation';
import { type Trial, trialOf } from '../workflow/trial';
import { jumperStages } from './jumper-stages';
import { buildLines, wireColours } from './lines';

/**
 * A stage of the build: what to seat (references), which jumpers to lay (ids, in order), and what to
 * try before going on. `trial` is the pin to look at with the rows that make it high and low.
 */
export interface Stage {
  readonly title: string;
  readonly kind: 'supply' | 'chip' | 'switches' | 'gate' | 'led' | 'rest';
  readonly parts: readonly string[];
  readonly jumpers: readonly string[];
  readonly test: string;
  readonly trial: Trial | null;
}

/** A line of the parts list: how many, of what, and their references. */
export interface PartsLine {
  readonly count: number;
  readonly what: string;
  readonly refs: readonly string[];
  /** What is to be known beside; of wires how many of each colour. */
  readonly beside?: string;
}

/** A chip with what each of its pins carries, as people see it; `—` for pins that carry nothing. */
export interface PinList {
  readonly ref: string;
  readonly part: string;
  readonly title: string;
  readonly pins: readonly { readonly id: string; readonly name: string; readonly carries: string }[];
}

/** What the build card prints: the stages of building in order, the parts to lay out, and the pins of every chip with what they carry. */
export interface BuildCard {
  readonly stages: readonly Stage[];
  readonly parts: readonly PartsLine[];
  readonly pins: readonly PinList[];
  /** The presses that lead through all states of a clocked design, with what must be seen; null where nothing is stored. */
  readonly tour: PlannedTour | null;
  /** What to do with each part and jumper, by its reference or id (see `buildLines`). */
  readonly lines: Readonly<Record<string, string>>;
}

/** A capacitor is seated with the chip that it lies beside, at most so many columns away. */
const CAPACITOR_COLUMNS = 10;
/** Presses of a tour that are printed. */
const MOST_PRESSES = 120;

/**
 * Makes the build card of a board: supply and ground before anything else, then the switches, then
 * gate by gate in an order in which each gate's inputs are there already, its LED right behind it. With the `behaviour` of a clocked
 * design a tour of its states is on it.
 */
export function buildCard(
  board: Board,
  packing: Packing,
  netlist: Netlist,
  behaviour: Behaviour | null = null,
): BuildCard {
  const nets = extractNets(board);
  const names = nameNets(nets, sourcesOf(packing, board));
  const stages = new Stager(board, packing, netlist, nets).stages();
  const carries = (pin: string): string => {
    const net = nets.ofPin.get(pin);
    const name = net === undefined ? undefined : names.get(net);
    return name === undefined ? '—' : shownSignal(name);
  };
  const tour = behaviour && plannedTour(behaviour, MOST_PRESSES);
  const named = (net: number | undefined): string | undefined => (net === undefined ? undefined : names.get(net));
  const signalAt = (hole: string): string | undefined => {
    const at = parseHole(hole);
    return at ? named(nets.ofStrip.get(stripOf(at))) : undefined;
  };
  const lines = buildLines(board, { pin: (pin) => named(nets.ofPin.get(pin)), hole: signalAt });
  return { stages, parts: partsList(board, wireColours(board, signalAt)), pins: pinLists(board, carries), tour, lines };
}

/** What stands on the board when the given stages are done. */
export function boardAfter(board: Board, stages: readonly Stage[]): Board {
  const done = new Set(stages.flatMap((s) => [...s.parts, ...s.jumpers]));
  const kept = <T>(record: Readonly<Record<string, T>>): Record<string, T> =>
    Object.fromEntries(Object.entries(record).filter(([key]) => done.has(key)));
  return { ...board, parts: kept(board.parts), jumpers: kept(board.jumpers) };
}

type Draft = { -readonly [K in keyof Stage]: Stage[K] } & { readonly jumpers: string[] };

class Stager {
  private readonly drafts: Draft[] = [];
  /** The strips that each stage must have joined to their signals, stage by stage. */
  private readonly claims: string[][] = [];
  private readonly placed = new Set<string>();
  private readonly seated: readonly SeatedPart[];
  private readonly expected: Expectation;

  constructor(
    private readonly board: Board,
    private readonly packing: Packing,
    private readonly netlist: Netlist,
    private readonly nets: Nets,
  ) {
    this.expected = expectationOf(packing, board, nets);
    this.seated = Object.values(board.parts).sort((a, b) => byNumber(a.ref, b.ref));
  }

  stages(): Stage[] {
    const boards = this.board.breadboards.length;
    const sources = this.refs('supply');
    const measure = 'Measure 5 V between every + rail in use and every − rail, then switch off again.';
    this.stage('supply', boards > 1 ? `Supply on ${boards} boards` : 'Supply', { parts: sources, test: measure });
    this.chips();
    this.switches();
    this.timers();
    // Gates of transistors are on no unit of a chip: there is nothing to try pin by pin.
    const isOtherwise = isBuiltOtherwise(this.board, this.packing);
    if (!isOtherwise) this.gates();
    const rest = this.seated.map((p) => p.ref).filter((ref) => !this.placed.has(ref));
    const title = isOtherwise ? 'Transistors, diodes and lamps' : 'What remains';
    this.stage('rest', title, { parts: rest, test: 'Power up and walk the table.' });
    const stages = jumperStages(this.board, this.claims, this.drafts.length);
    for (const id of Object.keys(this.board.jumpers).sort(byNumber)) this.drafts[stages.get(id) ?? 0]?.jumpers.push(id);
    return this.drafts.filter((s) => s.parts.length > 0 || s.jumpers.length > 0 || s.trial);
  }

  private refs(kind: string): string[] {
    return this.seated.filter((p) => typeOf(p)?.kind === kind).map((p) => p.ref);
  }

  private stage(
    kind: Stage['kind'],
    title: string,
    {
      parts,
      test,
      trial,
    }: { readonly parts: readonly string[]; readonly test: string; readonly trial?: Trial | null | undefined },
  ): void {
    for (const ref of parts) this.placed.add(ref);
    this.drafts.push({ kind, title, parts, jumpers: [], test, trial: trial ?? null });
  }

  /** Notes that the newest stage needs the strips of some pins. */
  private claim(pins: readonly string[]): void {
    const strips = pins.flatMap((pin) => {
      const { ref, id } = cutPin(pin);
      const part = this.board.parts[ref];
      const hole = part && leadsOf(part).find((l) => l.type.id === id)?.hole;
      return hole ? [stripOf(hole)] : [];
    });
    this.claims[this.drafts.length - 1] = strips;
  }

  private chips(): void {
    const capacitors = this.refs('capacitor').filter((ref) => this.isAcrossRails(ref));
    for (const part of this.seated) {
      const type = typeOf(part);
      if (type?.kind !== 'chip') continue;
      const free = capacitors.filter((ref) => !this.placed.has(ref) && this.columnsTo(part, ref) <= CAPACITOR_COLUMNS);
      const near = free.sort((a, b) => this.columnsTo(part, a) - this.columnsTo(part, b)).slice(0, 1);
      const id = (role: string): string => type.pins.find((p) => p.role === role)?.id ?? '?';
      const test = `Notch to the left. Measure 5 V from pin ${id('ground')} to pin ${id('supply')} of ${part.ref}.`;
      this.stage('chip', `${part.ref} ${part.part}, powered`, { parts: [part.ref, ...near], test });
      const unused = type.pins.filter((p) => p.role === 'input' && !this.expected.has(pinOf(part.ref, p.id)));
      const supplies = type.pins.filter((p) => p.role === 'supply' || p.role === 'ground');
      this.claim([...supplies, ...unused].map((p) => pinOf(part.ref, p.id)));
    }
  }

  /** Whether all leads of a part are joined to rails: so are capacitors of the supply, and not those that time something. */
  private isAcrossRails(ref: string): boolean {
    const nets = leadsOf(entryOf(this.board.parts, ref)).map(
      ({ pin }) => this.nets.nets[this.nets.ofPin.get(pin) ?? -1],
    );
    return nets.every((net) => net?.strips.some(isRailStrip));
  }

  /** How many columns lie between a chip's first pin and a part of its board; Infinity where it is of another. */
  private columnsTo(chip: SeatedPart, ref: string): number {
    const [a, b] = [parseHole(chip.at), parseHole(this.board.parts[ref]?.at ?? '')];
    return a !== null && b !== null && a.board === b.board ? Math.abs(a.column - b.column) : Number.POSITIVE_INFINITY;
  }

  private switches(): void {
    const switches = this.seated.filter((p) => innerOf(typeOf(p)).contacts.length > 0).map((p) => p.ref);
    if (switches.length === 0) return;
    const strips = new Set(switches.flatMap((ref) => this.stripsOf(ref)));
    const pullDowns = [...this.refs('resistor'), ...this.refs('resistor-network')].filter((ref) =>
      this.stripsOf(ref).some((s) => strips.has(s)),
    );
    const test = 'Each signal reads 0 V with its switch off and 5 V with it on.';
    this.stage('switches', 'Switches and their pull-downs', { parts: [...switches, ...pullDowns], test });
    this.claim(switches.flatMap((ref) => leadsOf(entryOf(this.board.parts, ref)).map((lead) => lead.pin)));
  }

  /** Timers that give a signal, each with the parts that set its rate. */
  private timers(): void {
    for (const part of this.seated) {
      const pins = part.signal !== undefined && innerOf(typeOf(part)).runs ? timerPinsOf(part) : null;
      if (!pins) continue;
      const timing = this.besidePins([pins.ends, pins.empties]);
      const test = `${part.signal} goes high and low by itself, on ${spokenPin(pins.output)}.`;
      this.stage('switches', `Timer for ${part.signal}`, { parts: timing, test });
      const ends = timing.flatMap((ref) => leadsOf(entryOf(this.board.parts, ref)).map((lead) => lead.pin));
      this.claim([...Object.values(pins), ...ends]);
    }
  }

  /** Whether a unit serves a gate of the design, and not a part that the sheet uses by number. */
  private isOfDesign(use: UnitUse): boolean {
    return this.netlist.gates.some((g) => g.output === use.gate);
  }

  private stripsOf(ref: string): string[] {
    const part = this.board.parts[ref];
    return part ? leadsOf(part).flatMap(({ hole }) => (hole && hole.row.length === 1 ? [stripOf(hole)] : [])) : [];
  }

  private gates(): void {
    for (const net of ['0', '1', ...this.packing.inputs]) this.leds(net);
    for (const { ref, unit, use } of buildOrder(this.packing)) {
      if (!isPlain(unit) || (!this.isOfDesign(use) && use.output !== use.gate)) {
        this.usedUnit(ref, unit, use);
        continue;
      }
      const [out = ''] = unit.outputs;
      const gate = this.netlist.gates.find((g) => g.output === use.gate);
      const trial = gate && use.output === use.gate ? trialOf(this.netlist, use.output, pinOf(ref, out)) : null;
      const title = `${use.output}: ${ref} unit ${unit.name}${use.part === 'whole' ? '' : `, for ${use.gate}`}`;
      const means = gate?.says === use.output ? '' : ` = ${gate?.says}`;
      const test =
        gate && trial
          ? `${use.output}${means}, on ${ref} pin ${out}.`
          : gate || unit.gate?.kind !== 'not'
            ? `It is one step of ${gate ? use.gate : use.gate.replace(/\.\w+$/, '')}.`
            : `It is low where ${use.inputs[0]} is high, on ${ref} pin ${out}: pins that act low need it.`;
      this.stage('gate', title, { parts: [], test, trial });
      this.claim([out, ...unit.inputs].map((id) => pinOf(ref, id)));
      this.leds(use.output);
    }
  }

  /** A unit of a part that the sheet uses by number: all its pins, then what its outputs show. */
  private usedUnit(ref: string, unit: Unit, use: UnitUse): void {
    const pins = [...new Set([...unit.inputs, ...unit.outputs])];
    const analogue = this.analoguePins(ref, unit);
    const timing = this.besidePins(analogue);
    const many =
      unit.outputs.length > 1 ? `outputs on pins ${unit.outputs.join(', ')}` : `output on pin ${unit.outputs[0]}`;
    if (use.part === 'block') this.block(ref, unit, use);
    else
      this.stage('gate', `${use.gate}: ${ref} unit ${unit.name}`, {
        parts: timing,
        test: `Its ${many}: compare with its datasheet.`,
        trial: null,
      });
    const ends = timing.flatMap((r) => leadsOf(entryOf(this.board.parts, r)).map((lead) => lead.pin));
    this.claim([...pins.map((id) => pinOf(ref, id)), ...analogue, ...ends]);
    for (const net of drivenBy(use)) {
      const pullUps = this.refs('resistor').filter((r) => !this.placed.has(r) && this.board.parts[r]?.signal === net);
      if (pullUps.length > 0) {
        this.stage('rest', `Pull-up of ${net}`, {
          parts: pullUps,
          test: `${net} reads high while nothing pulls it low.`,
        });
        this.claim(pullUps.flatMap((r) => [`${r}.1`, `${r}.2`]));
      }
      this.leds(net);
    }
  }

  /** The pins at which a unit's pulses are timed; none where its chip is not on the board. */
  private analoguePins(ref: string, { timers, outputs }: Unit): string[] {
    const seated = this.board.parts[ref];
    const type = seated && typeOf(seated);
    const timed = timers.flatMap(({ law }) => [law.resistor, law.capacitor]);
    const emptied = type?.chip?.dividers?.flatMap(({ pulse }) => pulse?.empties ?? []) ?? [];
    return (type?.pins ?? [])
      .filter(({ id, name }) => timed.includes(name) || (emptied.includes(name) && outputs.includes(id)))
      .map(({ id }) => pinOf(ref, id));
  }

  /** Resistors and capacitors in the nets of some pins that are not placed yet. */
  private besidePins(pins: readonly string[]): string[] {
    const nets = new Set(pins.map((pin) => this.nets.ofPin.get(pin)));
    const isBeside = (ref: string): boolean =>
      leadsOf(entryOf(this.board.parts, ref)).some(({ pin }) => nets.has(this.nets.ofPin.get(pin)));
    return [...this.refs('resistor'), ...this.refs('capacitor')].filter((r) => !this.placed.has(r) && isBeside(r));
  }

  /** A larger block that the packing chose: what it makes, and a trial of the first of that. */
  private block(ref: string, unit: Unit, use: UnitUse): void {
    const made = drivenBy(use).flatMap((net, k) => {
      const gate = this.netlist.gates.find((g) => g.output === net);
      return gate ? [{ net, gate, pin: unit.outputs[k] ?? '' }] : [];
    });
    const [first] = made;
    const says = made.map(({ net, gate, pin }) => `${net}${gate.says === net ? '' : ` = ${gate.says}`} on pin ${pin}`);
    const trial = first ? trialOf(this.netlist, first.net, pinOf(ref, first.pin)) : null;
    const nets = made.map((m) => m.net).join(', ') || use.gate;
    const what = typeOf({ part: this.board.parts[ref]?.part ?? '' })?.title ?? 'larger block';
    this.stage('gate', `${nets}: ${ref}, ${what}`, {
      parts: [],
      test: `${says.join('; ') || `It is one step of ${use.gate}`}.`,
      trial,
    });
  }

  /** The lamps that show a net, with what stands before and behind them. */
  private leds(net: string): void {
    const names = this.packing.outputs.filter((o) => o.net === net).map((o) => o.name);
    for (const place of labelledPlaces(this.board, 'show')) {
      if (!names.includes(place.signal)) continue;
      const { ref, called, signal, inverted } = place;
      const beside = this.besideLamp(place);
      const kind = typeOf(entryOf(this.board.parts, ref))?.kind;
      const sounds = kind === 'buzzer' ? 'sounds while' : inverted ? 'is lit while' : 'shows';
      const state = kind === 'buzzer' ? ' is high' : inverted ? ' is low' : '';
      this.stage('led', kind === 'led' ? `${signal} on LED ${ref}` : `${signal} on ${called}`, {
        parts: [ref, ...beside].filter((r) => !this.placed.has(r)),
        test: `${called} ${sounds} ${signal}${state}. Try it before going on.`,
        trial: trialOf(this.netlist, net, place.pin),
      });
      const pins = beside.flatMap((r) => leadsOf(entryOf(this.board.parts, r)).map((lead) => lead.pin));
      this.claim([place.pin, ...(place.other === null ? [] : [place.other]), ...pins]);
    }
  }

  /** Resistors in the strips of a lamp, and what its signal comes through: a resistor, or a transistor with that of its base. */
  private besideLamp(place: LabelPlace): string[] {
    const before = lampFeed(this.board, this.nets, place).through;
    const ends = leadsOf(entryOf(this.board.parts, place.ref)).filter(
      ({ pin }) => pin === place.pin || pin === place.other,
    );
    const strips = new Set([...ends.map((lead) => lead.strip), ...before.flatMap((r) => this.stripsOf(r))]);
    const kinds = ['resistor', 'resistor-network'];
    const near = kinds.flatMap((kind) => this.refs(kind)).filter((r) => this.stripsOf(r).some((s) => strips.has(s)));
    return [...new Set([...before, ...near])].filter((r) => !this.placed.has(r));
  }
}

function partsList(board: Board, colours: ReadonlyMap<string, string>): PartsLine[] {
  const lines = new Map<string, string[]>();
  for (const part of Object.values(board.parts).sort((a, b) => byNumber(a.ref, b.ref))) {
    const type = typeOf(part);
    const title = type?.kind === 'chip' ? `${part.part}, ${type.title}` : (type?.title ?? part.part);
    const plain = title.replace(/, 5 V$/, '');
    const what = `${plain}${shownValue(type?.kind ?? '', part.value)}`;
    lines.set(what, [...(lines.get(what) ?? []), part.ref]);
  }
  const list: PartsLine[] = [...lines].map(([what, refs]) => ({ count: refs.length, what, refs }));
  const wires = Object.keys(board.jumpers).length;
  for (const kind of breadboardKinds) {
    const refs = board.breadboards.filter((b) => b.type === kind).map((b) => b.id);
    if (refs.length > 0) list.push({ count: refs.length, what: breadboardTitles[kind], refs });
  }
  if (wires > 0) list.push({ count: wires, what: 'jumper wires', refs: [], beside: byColour(colours) });
  return list;
}

/** How many wires of each colour there are, most first: `11 red, 4 green`. */
function byColour(colours: ReadonlyMap<string, string>): string {
  const counts = new Map<string, number>();
  for (const colour of colours.values()) counts.set(colour, (counts.get(colour) ?? 0) + 1);
  return [...counts]
    .sort(([, a], [, b]) => b - a)
    .map(([colour, count]) => `${count} ${colour}`)
    .join(', ');
}

function pinLists(board: Board, carries: (pin: string) => string): PinList[] {
  return Object.values(board.parts)
    .sort((a, b) => byNumber(a.ref, b.ref))
    .flatMap((seated) => {
      const { ref, part } = seated;
      const type = typeOf(seated);
      if (type?.kind !== 'chip') return [];
      const pins = type.pins.map(({ id, name }) => ({ id, name, carries: carries(pinOf(ref, id)) }));
      return [{ ref, part, title: type.title, pins }];
    });
}
