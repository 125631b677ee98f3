import { delaysOf, readPartNumber, typeOf, type Unit } from '../catalogue';
import { elementAt } from '../element-at';
import { drivenBy, type Packing } from './packing';

/** Flip-flops that clock one another: how many from a clock on, and how long the last of them is behind it, in ns, typically and at most. */
export interface Ripple {
  readonly stages: number;
  readonly typicalNs: number;
  readonly mostNs: number;
}

/** What a net follows from: nets before it, with the flip-flops and the time that this adds. */
interface Follows extends Ripple {
  readonly from: readonly string[];
}

const NONE: Ripple = { stages: 0, typicalNs: 0, mostNs: 0 };

/**
 * The longest chain of flip-flops of a packing of which each is clocked by the one before, within a chip or from chip to chip; gates between them count for
 * their time. Null where none clocks another. Delays are those of the chips' data sheets, from a clock pin to each output.
 */
export function rippleOf({ packages, outputs }: Packing): Ripple | null {
  const follows = new Map<string, Follows>();
  for (const { units, ...named } of packages) {
    const type = typeOf(named);
    const family = readPartNumber(named.part)?.family ?? 'HC';
    for (const [u, use] of units.entries()) {
      const unit = type?.units[u];
      if (!type || !unit || !use) continue;
      // What ends the pulse of a one-shot stands behind the inputs that are pins, and has no net.
      const netOf = new Map(use.inputs.map((net, i) => [elementAt(unit.behaviour.inputs, i), net]));
      for (const [o, net] of drivenBy(use).entries()) {
        const output = elementAt(unit.behaviour.outputs, o);
        const { rise, fall } = delaysOf(type, family, output.name);
        const clock = clockOf(unit, output.net);
        const pins = clock ? clock.pins : unit.behaviour.stored.length > 0 ? [] : unit.behaviour.inputs;
        follows.set(net, {
          from: pins.flatMap((pin) => netOf.get(pin) ?? []),
          stages: clock?.stages ?? 0,
          typicalNs: Math.max(rise.typical, fall.typical),
          mostNs: Math.max(rise.most, fall.most),
        });
      }
    }
  }
  const known = new Map<string, Ripple>();
  const at = (net: string): Ripple => {
    const before = known.get(net);
    const step = follows.get(net);
    if (before || !step) return before ?? NONE;
    // A loop counts for nothing: it is no chain.
    known.set(net, NONE);
    const from = step.from.map(at).reduce((a, b) => (b.typicalNs > a.typicalNs ? b : a), NONE);
    const isChain = step.stages > 0 || from.stages > 0;
    const reached = isChain
      ? {
          stages: from.stages + step.stages,
          typicalNs: from.typicalNs + step.typicalNs,
          mostNs: from.mostNs + step.mostNs,
        }
      : NONE;
    known.set(net, reached);
    return reached;
  };
  // Outputs of a counter that nobody reads are not waited for.
  const read = [...outputs.map((o) => o.net), ...packages.flatMap((p) => p.units.flatMap((use) => use?.inputs ?? []))];
  const longest = read.map(at).reduce((a, b) => (b.stages > a.stages ? b : a), NONE);
  return longest.stages > 1 ? longest : null;
}

/** The clock pins that a stored signal of a unit follows, and through how many of its flip-flops; null for a net that stores nothing. */
function clockOf(
  { behaviour }: Unit,
  net: string,
): { readonly stages: number; readonly pins: readonly string[] } | null {
  const gates = new Map(behaviour.gates.map((gate) => [gate.output, gate.inputs]));
  const stored = new Map(behaviour.stored.map((s) => [s.name, s]));
  /** The pins and stored signals that a net is made of. */
  const made = (one: string): string[] => gates.get(one)?.flatMap(made) ?? [one];
  const [own] = made(net).filter((name) => stored.has(name));
  const first = own === undefined ? undefined : stored.get(own);
  if (!first || first.edge === 'while') return null;
  let stages = 1;
  let control = made(first.control);
  for (let n = 0; n < behaviour.stored.length; n++) {
    const inner = control.map((name) => stored.get(name)).find((s) => s !== undefined);
    // A clock that is gated by what is stored is one all the same.
    if (!inner || control.some((name) => !stored.has(name))) break;
    stages++;
    control = made(inner.control);
  }
  return { stages, pins: control.filter((name) => !stored.has(name)) };
}

/** A ripple in words: how many flip-flops, and how late the last of them is. */
export function rippleText({ stages, typicalNs, mostNs }: Ripple): string {
  return `${stages} flip-flops clock one another: the last changes ${typicalNs.toFixed(0)} ns after the clock, at most ${mostNs.toFixed(0)}.`;
}
