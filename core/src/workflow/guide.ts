import {
  type Board,
  checkSeat,
  extractNets,
  type Hole,
  isRailStrip,
  type LabelPlace,
  labelledPlaces,
  labelPlacesOf,
  leadsOf,
  type Nets,
  nextFree,
  pinOf,
  railsOf,
  type SeatedPart,
  shownPin,
  spokenPin,
} from '../board';
import { innerOf, type PartType, typeOf } from '../catalogue';
import type { Netlist } from '../design';
import type { Finding } from '../finding';
import { CAPACITOR_REACH, matched } from '../inspection';
import type { Edit } from '../job';
import { buildOrder, drivenBy, isPlain, looseNets, type Packing } from '../packing';
import {
  baseOhms,
  GROUND,
  type LayoutBoardKind,
  LED_OHMS,
  PULL_DOWN_OHMS,
  SUPPLY,
  type Timing,
  timingsOf,
} from '../planning';
import { GuideSite, type GuideStep, type Want } from './guide-site';
import { TimerBuild } from './guide-timer';
import { type Trial, trialOf } from './trial';

export type { GuideStep } from './guide-site';

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
  const { fittings, pulses } = netlist;
  const siteFor = (used: Packing): GuideSite => new GuideSite(board, nets, used, { kind, fittings, pulses });
  const asPacked = siteFor(packing);
  if (asPacked.conflicts() === 0) return nextStep(new Builder(asPacked, netlist));
  // What looks wrong may be right on other units or inputs than the packing's: a half-built board is matched only then.
  const asWired = siteFor(matched(packing, board, nets));
  return nextStep(new Builder(asWired.conflicts() < asPacked.conflicts() ? asWired : asPacked, netlist));
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

/** The stages of a build in order, each with what must be so when it is finished. */
class Builder {
  private readonly board: Board;
  private readonly nets: Nets;

  constructor(
    readonly site: GuideSite,
    private readonly netlist: Netlist,
  ) {
    this.board = site.board;
    this.nets = site.nets;
  }

  stages(): GuideStage[] {
    const { packages, inputs } = this.site.packing;
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
      ...inputs.map(
        (name) => this.timerFor(name) ?? { title: `Switch for ${name}`, wants: this.switch(name), trial: null },
      ),
      ...lamps([GROUND, SUPPLY, ...inputs]),
      ...buildOrder(this.site.packing).flatMap(({ ref, unit, use }) => {
        const wants = [...unit.inputs, ...unit.outputs].map((id) => this.site.carries(pinOf(ref, id)));
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
    const boards = this.site.planned.breadboards.map(({ id }): Want => {
      const edit: Edit = { kind: 'add-breadboard', id };
      return () =>
        this.board.breadboards.some((b) => b.id === id) || this.hasParts()
          ? null
          : { edit, says: `Lay breadboard ${id} down.` };
    });
    const rails = this.board.breadboards.flatMap(({ id }) =>
      railsOf(id).flatMap((rail): Want[] => (rail.row === 'bottom+' ? [] : [this.site.railFed(rail)])),
    );
    return [
      ...boards,
      this.site.seated(
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

  private chip(ref: string): Want[] {
    const type = typeOf(this.site.planned.parts[ref] ?? { part: '' });
    const pins = type?.pins ?? [];
    const expected = this.site.expected();
    const spare = pins.filter((p) => p.role === 'input' && !expected.has(pinOf(ref, p.id)));
    const used = this.site.packing.packages.find((p) => p.ref === ref);
    return [
      this.site.seated(ref, false, type?.title ?? 'a chip'),
      this.capacitor(ref),
      ...(used ? timingsOf(used, this.netlist.pulses, looseNets(this.site.packing)) : []).flatMap((t) =>
        this.timing(ref, t),
      ),
      ...this.powered(ref, type),
      ...spare.map((p) => this.site.carries(pinOf(ref, p.id), GROUND)),
    ];
  }

  /** The resistor and the capacitor of a one-shot, or of a timer, whose capacitor goes to ground. */
  private timing(chip: string, { charged, far, ohms, nanofarads }: Timing): Want[] {
    const at = pinOf(chip, charged);
    const other = far === null ? null : pinOf(chip, far);
    const what = `the capacitor of the pulse at ${spokenPin(at)}`;
    const netOf = (pin: string): number => this.nets.ofPin.get(pin) ?? -1;
    const leads = ({ ref }: SeatedPart): string[] => ['1', '2'].map((id) => pinOf(ref, id));
    // One that stands with an end at either pin, or with both ends free.
    const isFree = (pin: string): boolean => this.nets.nets[netOf(pin)]?.pins.length === 1;
    const isAt = (pin: string, part: SeatedPart): boolean => leads(part).some((lead) => netOf(lead) === netOf(pin));
    const capacitors = Object.values(this.board.parts).filter((p) => typeOf(p)?.kind === 'capacitor');
    const own =
      capacitors.find((p) => isAt(at, p) || (other !== null && isAt(other, p))) ??
      capacitors.find((p) => p.value === nanofarads && leads(p).every(isFree));
    const planned = Object.values(this.site.planned.parts).find(
      (p) => typeOf(p)?.kind === 'capacitor' && p.value === nanofarads && !p.at.includes('+'),
    );
    const ends = planned?.part === 'electrolytic' ? ['1', '2'] : ['2', '1'];
    /** The lead that is still to be joined, as the first or the second end of the capacitor. */
    const loose = (part: SeatedPart, i: number): string => {
      const free = leads(part).find((lead, k) => isFree(lead) && (part.part !== 'electrolytic' || k === i));
      return free ?? pinOf(part.ref, ends[i] ?? '1');
    };
    const joins =
      (pin: string, i: number): Want =>
      () =>
        !own || isAt(pin, own) ? null : this.site.joined(loose(own, i), netOf(pin), what);
    const grounds: Want = () =>
      !own || leads(own).some((lead) => this.site.isGround(lead)) ? null : this.site.carries(loose(own, 1), GROUND)();
    return [
      () => this.site.series(at, `the resistor of the pulse at ${spokenPin(at)}`, ohms),
      () => this.site.carries(this.site.resistorOn(netOf(at))?.other ?? '', SUPPLY)(),
      () => (own || !planned ? null : this.site.seatedNext(planned.ref, what)),
      joins(at, 0),
      other === null ? grounds : joins(other, 1),
    ];
  }

  private capacitor(chip: string): Want {
    return () => {
      const at = this.site.supplyPinOf(chip);
      const all = Object.values(this.board.parts).filter((p) => typeOf(p)?.kind === 'capacitor' && !this.isTiming(p));
      if (!at || all.some((p) => isNear(at, leadsOf(p)[0]?.hole ?? null))) return null;
      const value = Object.values(this.site.planned.parts).find((p) => p.part === 'capacitor')?.value ?? 100;
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

  /** Whether a capacitor is joined to something else than supply and ground. */
  private isTiming(part: SeatedPart): boolean {
    const nets = leadsOf(part).map(({ pin }) => this.nets.nets[this.nets.ofPin.get(pin) ?? -1]);
    return nets.some((net) => (net?.pins.length ?? 0) > 1 && !net?.strips.some(isRailStrip));
  }

  private switch(name: string): Want[] {
    const planned = this.site.plannedPlace('give', name);
    const stimulus = this.placeOf('give', name);
    const kind = typeOf(this.board.parts[stimulus?.ref ?? ''] ?? { part: '' })?.kind;
    const ends = { clock: ['1', '2'], 'change-over': ['1', '3'] }[kind as 'clock'] ?? [];
    const resistor = planned && this.site.plannedBeside(planned.pin, 'resistor');
    // A change-over has its two ends for supply and ground, and needs no pull-down.
    const feed: Want = () => (stimulus?.other ? this.site.carries(stimulus.other, SUPPLY)() : null);
    return [
      this.site.seated(planned?.ref ?? 'S1', stimulus !== undefined, `the switch for ${name}`),
      feed,
      ...ends.map((id, i) => this.site.carries(pinOf(stimulus?.ref ?? '', id), i === 0 ? SUPPLY : GROUND)),
      this.site.resistor({ planned: resistor, ohms: PULL_DOWN_OHMS }, `the pull-down of ${name}`, () =>
        stimulus?.other ? (this.nets.ofPin.get(this.site.sources.get(name) ?? '') ?? null) : null,
      ),
    ];
  }

  /** The timer that gives an input, where the plan has one; null otherwise. */
  private timerFor(name: string): GuideStage | null {
    const { site } = this;
    const planned = site.planned.parts[site.plannedPlace('give', name)?.ref ?? ''];
    if (!planned || !innerOf(typeOf(planned)).runs) return null;
    const seated = this.board.parts[this.placeOf('give', name)?.ref ?? ''];
    const { ref } = seated ?? planned;
    return {
      title: `Timer for ${name}`,
      wants: [
        site.seated(planned.ref, seated !== undefined, `the timer for ${name}`),
        this.capacitor(ref),
        ...this.powered(ref, typeOf(seated ?? planned)),
        ...(seated ? new TimerBuild(site, seated, planned).wants() : []),
      ],
      trial: null,
    };
  }

  /** Supply and ground of a chip. */
  private powered(ref: string, type: PartType | null): Want[] {
    const pins = type?.pins.filter((p) => p.role === 'supply' || p.role === 'ground') ?? [];
    return pins.map((p) => this.site.carries(pinOf(ref, p.id), p.role === 'supply' ? SUPPLY : GROUND));
  }

  private lampStages(net: string): GuideStage[] {
    const names = this.site.packing.outputs.filter((o) => o.net === net).map((o) => o.name);
    return names.map((name) => {
      const planned = this.site.plannedPlace('show', name);
      const indicator = this.placeOf('show', name);
      const part = this.board.parts[indicator?.ref ?? ''] ?? this.site.planned.parts[planned?.ref ?? ''];
      const what = typeOf(part ?? { part: '' })?.kind ?? 'led';
      const title = shownTitles[what] ?? 'its LED';
      const trial = () => trialOf(this.netlist, net, indicator?.pin ?? planned?.pin ?? 'D1.A');
      if (what === 'buzzer')
        return { title: `${name} on ${title}`, wants: this.buzzer(name, net, { planned, indicator }), trial };
      const resistor = planned?.other ? this.site.plannedBeside(planned.other, 'resistor') : undefined;
      // The plan's network serves a bar that stands where the plan has it; one elsewhere gets single resistors.
      const isAsPlanned = part?.at === this.site.planned.parts[planned?.ref ?? '']?.at;
      const network =
        planned?.other && isAsPlanned ? this.site.plannedBeside(planned.other, 'network-common') : undefined;
      const pin = indicator && shownPin(this.board, this.nets, indicator);
      const anode: Want = () => (pin === undefined ? null : this.site.carries(pin, net)());
      // A lamp of its own has its resistor behind it; one that shares an end with others, or has it already, before it.
      const shares = this.sharesItsEnd(indicator);
      const before = shares || (pin !== undefined && pin !== indicator?.pin);
      const cathode = (): number | null =>
        !indicator?.other || before ? null : (this.nets.ofPin.get(indicator.other) ?? null);
      const back: Want = () =>
        before && indicator?.other ? this.site.carries(indicator.other, indicator.inverted ? SUPPLY : GROUND)() : null;
      return {
        title: `${name} on ${title}`,
        wants: [
          this.site.seated(
            planned?.ref ?? 'D1',
            indicator !== undefined,
            `the ${what === 'led' ? 'LED' : title} for ${name}`,
          ),
          ...(network ? [this.network(network.ref, cathode)] : []),
          this.site.resistor({ planned: resistor, ohms: LED_OHMS }, `the resistor of the LED for ${name}`, cathode),
          ...(shares && indicator && pin === indicator.pin
            ? [() => this.site.series(indicator.pin, `the resistor of ${indicator.called}`, LED_OHMS)]
            : []),
          back,
          anode,
        ],
        trial,
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

  /** The network of a bar, where the plan has it, unless the lamp has a resistor already. */
  private network(ref: string, cathode: () => number | null): Want {
    return () => {
      const net = cathode();
      if (net === null || this.site.resistorOn(net)) return null;
      return this.site.seatedAsPlanned(ref, 'the network of its resistors');
    };
  }

  /** A buzzer that a transistor joins to ground, and the resistor of its base. */
  private buzzer(
    name: string,
    net: string,
    { planned, indicator }: { readonly planned: LabelPlace | undefined; readonly indicator: LabelPlace | undefined },
  ): Want[] {
    const below = (): number => this.nets.ofPin.get(indicator?.other ?? '') ?? -1;
    const transistors = Object.values(this.board.parts).filter((p) => p.part === 'npn');
    const netOf = (ref: string, pin: string): number => this.nets.ofPin.get(pinOf(ref, pin)) ?? -1;
    const isAlone = ({ ref }: SeatedPart): boolean => this.nets.nets[netOf(ref, '3')]?.pins.length === 1;
    const own = transistors.find((p) => netOf(p.ref, '3') === below()) ?? transistors.find(isAlone);
    const ref = own?.ref ?? Object.values(this.site.planned.parts).find((p) => p.part === 'npn')?.ref ?? 'Q1';
    const ohms = baseOhms(this.site.packing, net);
    const base = `the resistor of the base of ${ref}`;
    return [
      this.site.seated(planned?.ref ?? 'Z1', indicator !== undefined, `the buzzer for ${name}`),
      () => this.site.carries(indicator?.pin ?? '', SUPPLY)(),
      () => (own ? null : this.site.seatedNext(ref, `the transistor that switches ${indicator?.called}`)),
      () => (own && netOf(own.ref, '3') !== below() ? this.site.joined(`${ref}.3`, below(), 'the buzzer') : null),
      () => this.site.carries(`${ref}.1`, GROUND)(),
      () => this.site.series(`${ref}.2`, base, ohms),
      () => this.site.carries(this.site.resistorOn(netOf(ref, '2'))?.other ?? '', net)(),
    ];
  }

  private pullUp(net: string): Want[] {
    const part = Object.values(this.site.planned.parts).find((p) => p.part === 'resistor' && p.signal === net);
    if (!part) return [];
    const there = (): SeatedPart | undefined =>
      Object.values(this.board.parts).find((p) => p.part === 'resistor' && p.signal === net);
    return [
      this.site.seated(part.ref, there() !== undefined, `the pull-up of ${net}`),
      () => this.site.carries(`${there()?.ref}.1`, SUPPLY)(),
      () => this.site.carries(`${there()?.ref}.2`, net)(),
    ];
  }
}

/** What a signal is shown on, in words, by the kind of the part. */
const shownTitles: Readonly<Record<string, string>> = {
  __proto__: null as never,
  'led-bar': 'its lamp of a bar',
  display: 'its segment',
  buzzer: 'its buzzer',
};

const isNear = (a: Hole, b: Hole | null): boolean =>
  b !== null && a.board === b.board && Math.abs(a.column - b.column) <= CAPACITOR_REACH;
