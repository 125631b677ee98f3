import { type Board, extractNets, type Nets } from '../board';
import { BoardVolts } from '../electrical';
import { elementAt } from '../element-at';
import { type Circuit, compileCircuit } from './circuit';

/** A pin that a change comes to, and how long after the path's beginning, in nanoseconds, at the greatest delays. */
export interface PathStep {
  readonly pin: string;
  readonly ns: number;
}

/** The longest way through the gates of a board, from a switch or what is stored to an output or what stores. */
export interface LongestPath {
  readonly steps: readonly PathStep[];
  readonly typicalNs: number;
  readonly mostNs: number;
  /** Whether gates feed each other in a circle somewhere: such a way is looked at once around. */
  readonly hasLoops: boolean;
}

/** The latest that a driver changes after a path's beginning, and the driver before it on that path. */
interface Arrival {
  readonly typical: number;
  readonly most: number;
  readonly before: number | null;
}

/** The longest path of a board by the delays of its chips; null where it has no chip that drives anything. */
export function longestPath(board: Board, nets: Nets = extractNets(board)): LongestPath | null {
  const circuit = compileCircuit(board);
  const search = new PathSearch(circuit, feedersOf(circuit, new BoardVolts(board, nets), nets));
  let best: { driver: number; arrival: Arrival } | null = null;
  circuit.driverPin.forEach((_, driver) => {
    const arrival = search.arrivalAt(driver);
    if (!best || arrival.most > best.arrival.most) best = { driver, arrival };
  });
  const found = best as { driver: number; arrival: Arrival } | null;
  if (!found) return null;
  const steps: PathStep[] = [];
  for (let d: number | null = found.driver; d !== null; ) {
    const { most, before } = search.arrivalAt(d);
    steps.unshift({ pin: elementAt(circuit.driverPin, d), ns: most });
    d = before;
  }
  const { typical, most } = found.arrival;
  return { steps, typicalNs: typical, mostNs: most, hasLoops: search.hasLoops };
}

/** For each unit the drivers that its inputs hang on, through whatever lies between. */
function feedersOf(circuit: Circuit, volts: BoardVolts, nets: Nets): number[][] {
  const placeOf = (pin: string): number => {
    const net = nets.ofPin.get(pin) ?? -1;
    return net < 0 ? -1 : (volts.islandOf[net] ?? -1);
  };
  const byIsland = new Map<number, number[]>();
  circuit.driverPin.forEach((pin, driver) => {
    const island = placeOf(pin);
    if (island >= 0) byIsland.set(island, [...(byIsland.get(island) ?? []), driver]);
  });
  return circuit.units.map(({ inputPins }) => [
    ...new Set(inputPins.flatMap((pin) => byIsland.get(placeOf(pin)) ?? [])),
  ]);
}

class PathSearch {
  hasLoops = false;
  private readonly known = new Map<number, Arrival>();
  private readonly open = new Set<number>();
  private readonly unitOf: readonly number[];

  constructor(
    private readonly circuit: Circuit,
    private readonly feeders: readonly (readonly number[])[],
  ) {
    this.unitOf = circuit.units.flatMap(({ outputs }, u) => Array.from({ length: outputs }, () => u));
  }

  /** When a driver changes at the latest; what stores something begins a path, with the time from its clock. */
  arrivalAt(driver: number): Arrival {
    const known = this.known.get(driver);
    if (known) return known;
    this.open.add(driver);
    const u = elementAt(this.unitOf, driver);
    const { rise, fall } = elementAt(this.circuit.driverDelays, driver);
    const [typical, most] = [Math.max(rise.typical, fall.typical), Math.max(rise.most, fall.most)];
    const stores = elementAt(this.circuit.units, u).machine.stored.length > 0;
    let latest: Arrival | null = null;
    for (const before of stores ? [] : elementAt(this.feeders, u)) {
      if (this.open.has(before)) {
        this.hasLoops = true;
        continue;
      }
      const arrival = this.arrivalAt(before);
      if (!latest || arrival.most > latest.most) latest = { ...arrival, before };
    }
    const own = {
      typical: typical + (latest?.typical ?? 0),
      most: most + (latest?.most ?? 0),
      before: latest?.before ?? null,
    };
    this.open.delete(driver);
    this.known.set(driver, own);
    return own;
  }
}
