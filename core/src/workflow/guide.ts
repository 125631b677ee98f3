import {
  type Board,
  checkSeat,
  crossingsFrom,
  cutPin,
  emptyBoard,
  extractNets,
  type Hole,
  holesOfStrip,
  holeXY,
  isRail,
  isRailStrip,
  type LabelPlace,
  labelledPlaces,
  labelPlacesOf,
  leadsOf,
  markOf,
  type Nets,
  nextBreadboard,
  nextFree,
  partOf,
  pinOf,
  printHole,
  railNamed,
  railsOf,
  type SeatedPart,
  shownPin,
  stripOf,
  unusableHoles,
} from '../board';
import { type Inner, typeOf } from '../catalogue';
import type { Netlist } from '../design';
import { elementAt } from '../element-at';
import { type Finding, finding } from '../finding';
import { CAPACITOR_REACH, matched } from '../inspection';
import type { Edit } from '../job';
import { freeSeat } from '../job';
import { buildOrder, drivenBy, isPlain, type Packing } from '../packing';
import {
  expectationOf,
  GROUND,
  type LayoutBoardKind,
  nameNets,
  SUPPLY,
  seatAll,
  shownSignal,
  sourcesOf,
  Wirer,
} from '../planning';
import { type Trial, trialOf } from './trial';

/** What to do next: an edit that does it, and what it is for in words. */
export interface GuideStep {
  readonly edit: Edit;
  readonly says: string;
}

/** A stage that is finished: what to look at now, with the switch settings that must make it high and low. */
export interface Tested {
  readonly title: string;
  readonly trial: Trial | null;
}

/**
 * Where a person stands who builds wire by wire. `stage` names what is being built; `step` is null when nothing is left
 * or when `stopped` says why it cannot go on. `done` of `total` things are as they should be; `tested` is the stage
 * that was finished last.
 */
export interface NextStep {
  readonly stage: string;
  readonly step: GuideStep | null;
  readonly stopped: Finding | null;
  readonly tested: Tested | null;
  readonly done: number;
  readonly total: number;
}

/** A thing that must be so: null when it is, otherwise what makes it so, or what stands in the way. */
type Want = () => GuideStep | Finding | null;

interface GuideStage {
  readonly title: string;
  readonly wants: readonly Want[];
  /** What to try when it is finished; null when there is nothing. */
  readonly trial: (() => Trial | null) | null;
}

/**
 * Leads a person through the build of a packing, from whatever is on the board: what is there counts wherever it is,
 * on whichever equal units and inputs; the next step is what is missing first in build order. Stops where a pin
 * carries another signal than it should.
 */
export function nextStepOf(board: Board, packing: Packing, netlist: Netlist, kind: LayoutBoardKind = 'full'): NextStep {
  const nets = extractNets(board);
  const asPacked = new Builder(board, nets, { packing, netlist, kind });
  if (asPacked.conflicts() === 0) return nextStep(asPacked);
  // What looks wrong may be right on other units or inputs than the packing's: a half-built board is matched only then.
  const asWired = new Builder(board, nets, { packing: matched(packing, board, nets), netlist, kind });
  return nextStep(asWired.conflicts() < asPacked.conflicts() ? asWired : asPacked);
}

function nextStep(builder: Builder): NextStep {
  const stages = builder.stages();
  const total = stages.reduce((n, s) => n + s.wants.length, 0);
  let done = 0;
  let last: { title: string; trial: () => Trial | null } | null = null;
  const tested = (): Tested | null => last && { title: last.title, trial: last.trial() };
  for (const { title, wants, trial } of stages) {
    for (const want of wants) {
      const answer = want();
      if (answer === null) {
        done++;
        continue;
      }
      const stopped = 'code' in answer ? answer : null;
      return { stage: title, step: stopped ? null : (answer as GuideStep), stopped, tested: tested(), done, total };
    }
    last = trial ? { title, trial } : last;
  }
  return { stage: 'all is built', step: null, stopped: null, tested: tested(), done, total };
}

class Builder {
  private readonly planned: Board;
  private readonly names: ReadonlyMap<number, string>;
  private readonly sources: ReadonlyMap<string, string>;
  private readonly netOf: ReadonlyMap<string, number>;

  private readonly packing: Packing;
  private readonly netlist: Netlist;
  private readonly kind: LayoutBoardKind;

  constructor(
    private readonly board: Board,
    private readonly nets: Nets,
    {
      packing,
      netlist,
      kind,
    }: { readonly packing: Packing; readonly netlist: Netlist; readonly kind: LayoutBoardKind },
  ) {
    this.packing = packing;
    this.netlist = netlist;
    this.kind = kind;
    this.planned = seatAll(this.packing, kind) ?? emptyBoard;
    this.sources = sourcesOf(this.packing, board);
    this.names = nameNets(this.nets, this.sources);
    this.netOf = new Map([...this.names].map(([net, name]) => [name, net]));
  }

  /** How many pins carry another signal than they should. */
  conflicts(): number {
    return [...this.expected()].filter(([pin, signal]) => {
      const carried = this.names.get(this.nets.ofPin.get(pin) ?? -1);
      return carried !== undefined && carried !== signal;
    }).length;
  }

  stages(): GuideStage[] {
    const { packages, inputs } = this.packing;
    const shown = new Set<string>();
    const lamps = (nets: readonly string[]): GuideStage[] =>
      nets.flatMap((net) => {
        if (shown.has(net)) return [];
        shown.add(net);
        return this.lampStages(net);
      });
    return [
      { title: 'Supply', wants: this.supply(), trial: null },
      ...packages.map(({ ref, part }) => ({ title: `${ref} ${part}, powered`, wants: this.chip(ref), trial: null })),
      ...inputs.map((name) => ({ title: `Switch for ${name}`, wants: this.switch(name), trial: null })),
      ...lamps([GROUND, SUPPLY, ...inputs]),
      ...buildOrder(this.packing).flatMap(({ ref, unit, use }) => {
        const wants = [...unit.inputs, ...unit.outputs].map((id) => this.carries(pinOf(ref, id)));
        const driven = drivenBy(use);
        const [out = ''] = unit.outputs;
        const gate = this.netlist.gates.find((g) => g.output === use.output);
        const trial = isPlain(unit) && gate ? () => trialOf(this.netlist, use.output, pinOf(ref, out)) : null;
        const pullUps = driven.flatMap((net) => this.pullUp(net));
        const says = gate && gate.says !== use.output ? ` = ${gate.says}` : '';
        return [
          { title: `${use.output}${says}: ${ref} unit ${unit.name}`, wants: [...wants, ...pullUps], trial },
          ...lamps(driven),
        ];
      }),
    ];
  }

  /** The plan's boards, its supply, and every rail of those boards fed. */
  private supply(): Want[] {
    const boards = this.planned.breadboards.map(({ id }): Want => {
      const edit: Edit = { kind: 'add-breadboard', id };
      return () =>
        this.board.breadboards.some((b) => b.id === id) || this.hasParts()
          ? null
          : { edit, says: `Lay breadboard ${id} down.` };
    });
    const rails = this.board.breadboards.flatMap(({ id }) =>
      railsOf(id).flatMap((rail): Want[] => (rail.row === 'bottom+' ? [] : [this.railFed(rail)])),
    );
    return [
      ...boards,
      this.seated(
        'P1',
        Object.values(this.board.parts).some((p) => p.part === 'supply'),
        'the supply',
      ),
      ...rails,
    ];
  }

  /** Once chips are seated, boards are the person's own affair. */
  private hasParts(): boolean {
    return Object.values(this.board.parts).some((p) => typeOf(p)?.kind === 'chip');
  }

  private railFed(rail: Hole): Want {
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

  private chip(ref: string): Want[] {
    const type = typeOf(this.planned.parts[ref] ?? { part: '' });
    const pins = type?.pins ?? [];
    const expected = this.expected();
    const powered = pins.filter((p) => p.role === 'supply' || p.role === 'ground');
    const spare = pins.filter((p) => p.role === 'input' && !expected.has(pinOf(ref, p.id)));
    return [
      this.seated(ref, false, type?.title ?? 'a chip'),
      this.capacitor(ref),
      ...powered.map((p) => this.carries(pinOf(ref, p.id), p.role === 'supply' ? SUPPLY : GROUND)),
      ...spare.map((p) => this.carries(pinOf(ref, p.id), GROUND)),
    ];
  }

  private capacitor(chip: string): Want {
    return () => {
      const at = this.supplyPinOf(chip);
      const all = Object.values(this.board.parts).filter((p) => typeOf(p)?.kind === 'capacitor');
      if (!at || all.some((p) => isNear(at, leadsOf(p)[0]?.hole ?? null))) return null;
      const value = Object.values(this.planned.parts).find((p) => p.part === 'capacitor')?.value ?? 100;
      const ref = nextFree('C', this.board.parts);
      for (const off of [1, 2, 3, 4, 0, 5, -1, -2, -3, -4, -5]) {
        const part: SeatedPart = {
          ref,
          part: 'capacitor',
          at: `${at.board}.top+${at.column + off}`,
          rotation: 0,
          value,
        };
        if (checkSeat(this.board, part).length === 0)
          return { edit: { kind: 'seat', part }, says: `Seat ${ref}, ${value} nF, beside ${chip}.` };
      }
      return null;
    };
  }

  private switch(name: string): Want[] {
    const plannedSwitch = Object.values(this.planned.parts).find((p) => p.part === 'switch' && p.signal === name);
    const stimulus = this.placeOf('give', name);
    const number = plannedSwitch?.ref.slice(1) ?? '1';
    // A change-over has its two ends for supply and ground, and needs no pull-down.
    const feed: Want = () => (stimulus?.other ? this.carries(stimulus.other, SUPPLY)() : null);
    return [
      this.seated(`S${number}`, stimulus !== undefined, `the switch for ${name}`),
      feed,
      this.resistor(`R${number}`, `the pull-down of ${name}`, () =>
        stimulus?.other ? (this.nets.ofPin.get(this.sources.get(name) ?? '') ?? null) : null,
      ),
    ];
  }

  private lampStages(net: string): GuideStage[] {
    const names = this.packing.outputs.filter((o) => o.net === net).map((o) => o.name);
    return names.map((name) => {
      const plannedLed = Object.values(this.planned.parts).find((p) => p.part === 'led' && p.signal === name);
      const indicator = this.placeOf('show', name);
      const index = this.packing.outputs.findIndex((o) => o.name === name);
      const resistor = `R${this.packing.inputs.length + index + 1}`;
      const pin = indicator && shownPin(this.board, this.nets, indicator);
      const anode: Want = () => (pin === undefined ? null : this.carries(pin, net)());
      // A lamp of its own has its resistor behind it; one that shares an end with others, or has it already, before it.
      const shares = this.sharesItsEnd(indicator);
      const before = shares || (pin !== undefined && pin !== indicator?.pin);
      const cathode = (): number | null =>
        !indicator?.other || before ? null : (this.nets.ofPin.get(indicator.other) ?? null);
      const back: Want = () =>
        before && indicator?.other ? this.carries(indicator.other, indicator.inverted ? SUPPLY : GROUND)() : null;
      return {
        title: `${name} on its LED`,
        wants: [
          this.seated(plannedLed?.ref ?? 'D1', indicator !== undefined, `the LED for ${name}`),
          this.resistor(resistor, `the resistor of the LED for ${name}`, cathode),
          ...(shares && indicator && pin === indicator.pin ? [this.series(indicator)] : []),
          back,
          anode,
        ],
        trial: () => trialOf(this.netlist, net, indicator?.pin ?? `${plannedLed?.ref}.A`),
      };
    });
  }

  /** The place on the board that is labelled to give or show a signal. */
  private placeOf(does: LabelPlace['does'], signal: string): LabelPlace | undefined {
    return labelledPlaces(this.board, does).find((p) => p.signal === signal);
  }

  /** Whether a lamp has an end in common with others of its part. */
  private sharesItsEnd(place: LabelPlace | undefined): boolean {
    const part = place && this.board.parts[place.ref];
    return part !== undefined && labelPlacesOf(part).filter((p) => p.other === place?.other).length > 1;
  }

  /** A resistor between a lamp and its signal: one lead alone with the lamp's pin. */
  private series(place: LabelPlace): Want {
    return () => {
      const own = this.nets.ofPin.get(place.pin);
      const what = `the resistor of ${place.called}`;
      if (own === undefined) return null;
      const loose = this.looseResistor('', SERIES_OHMS, true);
      if (loose) return this.joined(`${loose.ref}.1`, own, what);
      const ref = nextFree('R', this.board.parts);
      const part = freeSeat(this.board, { ref, part: 'resistor', at: '', rotation: 90, value: SERIES_OHMS });
      return part
        ? { edit: { kind: 'seat', part }, says: `Seat ${ref}, ${what}, ${SERIES_OHMS} Ω.` }
        : this.moreRoom(what);
    };
  }

  private pullUp(net: string): Want[] {
    const part = Object.values(this.planned.parts).find((p) => p.part === 'resistor' && p.signal === net);
    if (!part) return [];
    const there = (): SeatedPart | undefined =>
      Object.values(this.board.parts).find((p) => p.part === 'resistor' && p.signal === net);
    return [
      this.seated(part.ref, there() !== undefined, `the pull-up of ${net}`),
      () => this.carries(`${there()?.ref}.1`, SUPPLY)(),
      () => this.carries(`${there()?.ref}.2`, net)(),
    ];
  }

  /**
   * A resistor from the strip of a net to ground: any that is there serves. A new one is seated in that strip if it
   * can be, or else anywhere, and then wired.
   */
  private resistor(plannedRef: string, what: string, netOf: () => number | null): Want {
    return () => {
      const net = netOf();
      if (net === null) return null;
      const home = this.resistorOn(net);
      if (home) return this.carries(home.other, GROUND)();
      const planned = this.planned.parts[plannedRef];
      const value = planned?.value ?? 1000;
      const loose = this.looseResistor(plannedRef, value);
      if (loose) return this.joined(`${loose.ref}.1`, net, what);
      const ref = partOf(this.board, plannedRef) ? nextFree('R', this.board.parts) : plannedRef;
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
      const free = freeSeat(this.board, bare);
      return free
        ? { edit: { kind: 'seat', part: free }, says: `Seat ${ref}, ${what}, ${value} Ω.` }
        : this.moreRoom(what);
    };
  }

  /** A resistor with one lead on a net and the other elsewhere. */
  private resistorOn(net: number): { other: string } | null {
    const firstOf = ({ resistors }: Inner) => resistors.slice(0, 1);
    const found = crossingsFrom(this.board, this.nets, net, firstOf).find(({ part }) => part.signal === undefined);
    return found ? { other: found.to } : null;
  }

  /** A resistor that is joined to nothing with its first lead, or with both: the one by the planned name, or any of the value. */
  private looseResistor(planned: string, value: number, bothEnds = false): SeatedPart | null {
    const isAlone = (pin: string): boolean => {
      const net = this.nets.nets[this.nets.ofPin.get(pin) ?? -1];
      return (net?.pins.length ?? 0) < 2 && !net?.strips.some(isRailStrip);
    };
    const isLoose = (part: SeatedPart): boolean =>
      part.part === 'resistor' &&
      part.signal === undefined &&
      isAlone(`${part.ref}.1`) &&
      (!bothEnds || isAlone(`${part.ref}.2`));
    const loose = Object.values(this.board.parts).filter(isLoose);
    return loose.find((p) => p.ref === planned) ?? loose.find((p) => p.value === value) ?? null;
  }

  /** A part is there: by its name when it has no label, or any other that does the same. */
  private seated(ref: string, served: boolean, what: string): Want {
    return () => {
      const planned = this.planned.parts[ref];
      const there = partOf(this.board, ref);
      // A lamp by the planned name may show something else: names of the plan shift when a signal is put before others.
      const isNamed = planned?.signal === undefined && there?.part === planned?.part;
      if (!planned || isNamed || served) return null;
      if (there && typeOf(planned)?.kind === 'chip')
        return finding('guide/other-part', [{ kind: 'part', ref }], { ref, there: there.part, wanted: planned.part });
      const named = { ...planned, ref: there ? nextFree(ref.replace(/\d+$/, ''), this.board.parts) : ref };
      const fits = checkSeat(this.board, named).length === 0 && this.isClear(named);
      const part = fits ? named : freeSeat(this.board, named);
      if (!part) return this.moreRoom(named.part);
      return { edit: { kind: 'seat', part }, says: `Seat ${part.ref}, ${what}, with its first pin in ${part.at}.` };
    };
  }

  /** One more breadboard of the plan's kind, when a part finds no place on those that are there. */
  private moreRoom(what: string): GuideStep | Finding {
    const id = nextBreadboard(this.board, this.kind);
    return id
      ? { edit: { kind: 'add-breadboard', id }, says: `Lay breadboard ${id} down: ${what} has no place left.` }
      : finding('hand/no-seat', [], { part: what });
  }

  private expectation: ReturnType<typeof expectationOf> | undefined;

  private expected(): ReturnType<typeof expectationOf> {
    this.expectation ??= expectationOf(this.packing, this.board, this.nets);
    return this.expectation;
  }

  /** A pin carries what it should. */
  private carries(pin: string, signal = this.expected().get(pin)): Want {
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
  private joined(pin: string, net: number, what: string): GuideStep | Finding {
    const hole = this.nets.leads.get(pin)?.hole;
    const { ref, id } = cutPin(pin);
    if (!hole) return finding('hand/lead-off-board', [], { ref, pin: id });
    const strips = this.stripsOf(net);
    const rails = strips.filter((h) => isRail(h.row));
    const says = `${pin.replace('.', ' pin ')} to ${what}`;
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
      const rail = isRailStrip(strip) ? railNamed(strip) : null;
      const m = /^(\w+)\.(\d+)([ef])$/.exec(strip);
      if (rail) return [rail];
      return m ? [{ board: elementAt(m, 1), column: Number(m[2]), row: m[3] as 'e' | 'f' }] : [];
    });
  }

  private occupied: ReadonlyMap<string, unknown> | undefined;

  private freeHoles(holes: readonly Hole[]): Hole[] {
    this.occupied ??= unusableHoles(this.board);
    return holes.filter((h) => !this.occupied?.has(printHole(h)));
  }

  private supplyPinOf(ref: string): Hole | null {
    const part = partOf(this.board, ref);
    const lead = part && leadsOf(part).find((l) => l.type.role === 'supply');
    return lead?.hole ?? null;
  }

  /** Whether the strips that a part would have its leads in hold nothing yet; rails do not count. */
  private isClear(part: SeatedPart): boolean {
    return leadsOf(part).every(({ hole }) => !hole || isRail(hole.row) || !this.nets.ofStrip.has(stripOf(hole)));
  }
}

/** Before a lamp that shares its other end: some 2 mA at 5 V. */
const SERIES_OHMS = 1000;

const isNear = (a: Hole, b: Hole | null): boolean =>
  b !== null && a.board === b.board && Math.abs(a.column - b.column) <= CAPACITOR_REACH;

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
