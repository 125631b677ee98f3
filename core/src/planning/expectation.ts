import { type Board, labelledPlaces, type Nets, pinOf, shownPin } from '../board';
import { standsIn, typeOf } from '../catalogue';
import { elementAt } from '../element-at';
import { drivenBy, type Packing } from '../packing';

/** Net names of the rails in a design: `1` is supply and `0` is ground. */
export const SUPPLY = '1';
/** The net of the minus rail in a design. */
export const GROUND = '0';

/**
 * What each pin should carry by the packing: pin (`U1.3`) to the design's net name, `1` and `0` for
 * inputs tied to a rail. Pins of spare units and pins that lead nowhere are absent. Switches and LEDs
 * are expected at the signal they are labelled with.
 */
export type Expectation = ReadonlyMap<string, string>;

/**
 * Works out what the pins of chips, switches and LEDs should carry. With the nets given, a lamp behind a resistor is
 * expected to have its signal at that resistor's far end.
 */
export function expectationOf(packing: Packing, board: Board, nets?: Nets): Expectation {
  const expected = new Map<string, string>();
  for (const { units, ...named } of packing.packages) {
    const { ref } = named;
    const type = typeOf(named);
    units.forEach((use, i) => {
      const unit = type?.units[i];
      if (!use || !unit) return;
      for (const [k, pin] of unit.inputs.entries()) expected.set(pinOf(ref, pin), elementAt(use.inputs, k));
      for (const [k, net] of drivenBy(use).entries()) expected.set(pinOf(ref, elementAt(unit.outputs, k)), net);
    });
  }
  const netOfOutput = new Map(packing.outputs.map((o) => [o.name, o.net]));
  for (const { signal, pin } of labelledPlaces(board, 'give'))
    if (packing.inputs.includes(signal)) expected.set(pin, signal);
  for (const place of labelledPlaces(board, 'show')) {
    const net = netOfOutput.get(place.signal);
    if (net !== undefined) expected.set(nets ? shownPin(board, nets, place) : place.pin, net);
  }
  for (const seated of Object.values(board.parts)) {
    const { ref, signal } = seated;
    if (signal === undefined) continue;
    if (typeOf(seated)?.kind === 'resistor') expected.set(`${ref}.2`, signal);
  }
  return expected;
}

/**
 * The pin that gives each net of the design: a unit's output, or the signal pin of a switch. Where another part sits in the place of a
 * package, its pins give something else: what that package drives comes from nowhere.
 */
export function sourcesOf(packing: Packing, board: Board): ReadonlyMap<string, string> {
  const sources = new Map<string, string>();
  for (const { units, ...named } of packing.packages) {
    const { ref } = named;
    const type = typeOf(named);
    const seated = board.parts[ref];
    const there = seated && typeOf(seated);
    if (type && there && !standsIn(there, type)) continue;
    units.forEach((use, i) => {
      for (const [k, net] of (use ? drivenBy(use) : []).entries())
        if (!sources.has(net)) sources.set(net, pinOf(ref, type?.units[i]?.outputs[k] ?? ''));
    });
  }
  for (const { signal, pin } of labelledPlaces(board, 'give')) if (!sources.has(signal)) sources.set(signal, pin);
  return sources;
}

/**
 * Names for the nets of a board, by net index: the rails' nets, and nets that hold the source of a
 * signal. A net that no source reaches carries nothing and has no name, whatever is expected of it.
 */
export function nameNets(nets: Nets, sources: ReadonlyMap<string, string>): Map<number, string> {
  const names = new Map<number, string>();
  const name = (pin: string, signal: string): void => {
    const net = nets.ofPin.get(pin);
    if (net !== undefined && !names.has(net)) names.set(net, signal);
  };
  for (const [pin, lead] of nets.leads) {
    if (lead.type.id === '+') name(pin, SUPPLY);
    if (lead.type.id === '-') name(pin, GROUND);
  }
  for (const [signal, pin] of sources) name(pin, signal);
  return names;
}

/**
 * Names for the nets of a board that no design names, by net index, beside those in `names`: the signal that one of its switches or lamps is
 * labelled with, the switch itself, the chip output that gives it (`U1.3`), or `n1`, `n2` … in the order of their strips. Nets that join nothing
 * have none.
 */
export function ownNames(board: Board, nets: Nets, names: ReadonlyMap<number, string>): Map<number, string> {
  const made = new Map<number, string>();
  const taken = new Set(names.values());
  const label = (net: number | undefined, name: string): void => {
    if (net === undefined || names.has(net) || made.has(net) || taken.has(name)) return;
    made.set(net, name);
    taken.add(name);
  };
  const joins = (net: number): boolean =>
    (nets.nets[net]?.pins.length ?? 0) + (nets.nets[net]?.jumpers.length ?? 0) > 1;
  for (const does of ['give', 'show'] as const)
    for (const { signal, pin } of labelledPlaces(board, does)) label(nets.ofPin.get(pin), signal);
  for (const [pin, { type, ref }] of nets.leads) {
    const net = nets.ofPin.get(pin);
    if (net === undefined || !joins(net)) continue;
    if (type.role === 'output') label(net, pin);
    else if (type.name === 'signal') label(net, ref);
  }
  let n = 0;
  for (const { index } of nets.nets) {
    if (!joins(index) || names.has(index) || made.has(index)) continue;
    do n++;
    while (taken.has(`n${n}`));
    made.set(index, `n${n}`);
  }
  return made;
}

/** How a net's name is shown: `+5 V` and `0 V` for the rails, the signal's name otherwise. */
export function shownSignal(name: string): string {
  return name === SUPPLY ? '+5 V' : name === GROUND ? '0 V' : name;
}
