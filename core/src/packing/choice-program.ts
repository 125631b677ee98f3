import { findChip, rarity } from '../catalogue';
import { elementAt } from '../element-at';
import type { BlockUse, Frame } from './blocks';
import { type Candidate, type Duty, dutyKey } from './candidate';
import { classOf, type FunctionNet, inverse, type Literal } from './functions';
import { serves, type UnitKind } from './units';

/** What is to be least, before anything else. */
export type Goal = 'packages' | 'rarity' | 'units' | 'pins' | 'jumpers' | 'lacking';

/** A literal that a unit of one kind (by its number) must make, because its gate is pinned there. */
export interface PinnedLiteral {
  readonly literal: Literal;
  readonly kind: number;
}

/** A covering problem: functions wanted, candidates that make them, units that candidates take, and how many of each chip there are. */
export interface ChoiceProblem {
  readonly functions: FunctionNet;
  readonly roots: readonly Literal[];
  readonly candidates: readonly Candidate[];
  readonly kinds: readonly UnitKind[];
  /** Packages of each base number that may be used; absent means any number. */
  readonly stock: ReadonlyMap<string, number>;
  /** Whether the stock may be gone beyond; what is lacking then counts. */
  readonly soft: boolean;
  readonly pins: readonly PinnedLiteral[];
  /** Larger blocks that may be used. */
  readonly frames: readonly Frame[];
  /** Packages of each base number that there must be at least. */
  readonly least: ReadonlyMap<string, number>;
}

const inverter: Duty = { kind: 'not', width: 1 };

/** Names of the program's columns: way j, inverter to a literal, literal made, duty on unit kind, packages of a chip. */
const column = {
  strategy: (j: number): string => `x${j}`,
  inverter: (l: Literal): string => `i${l}`,
  made: (l: Literal): string => `y${l}`,
  service: (duty: Duty, k: number): string => `z_${dutyKey(duty)}_${k}`,
  packages: (number: string): string => `p_${number}`,
  /** Packages of frame f; its use u; output k of that use. */
  lacking: (number: string): string => `q_${number}`,
  frame: (f: number): string => `b${f}`,
  use: (f: number, u: number): string => `o${f}_${u}`,
  output: (f: number, u: number, k: number): string => `m${f}_${u}_${k}`,
};

/** A use of a larger block in the program: where it stands, what it reads with the others, and what it can make. */
interface Block {
  readonly f: number;
  readonly u: number;
  readonly reads: readonly Literal[];
  readonly makes: readonly Literal[];
}

/** A solution: candidates and inverters taken, and how often each kind of unit does each duty. */
export interface Choice {
  readonly ways: readonly Candidate[];
  readonly inverters: readonly Literal[];
  readonly service: ReadonlyMap<string, readonly UnitKind[]>;
  /** Packages of larger blocks, each with its uses; of their outputs those that are taken. */
  readonly blocks?: readonly { readonly frame: Frame; readonly uses: readonly BlockUse[] }[];
}

/**
 * Technology mapping as an integer program: a cover of the wanted functions by candidates, with units bound to packages. Its constraints: a literal that is needed
 * is made by one candidate, or by an inverter from its complement, which a candidate then makes; what a chosen candidate reads is needed; each
 * candidate and inverter takes a unit that can do its duty; units come in whole packages. It makes `goal` least within the limits given; without
 * the whole numbers (`relaxed`) it gives a lower bound.
 */
export class ChoiceProgram {
  private readonly chips: readonly string[];
  private readonly duties: ReadonlyMap<string, Duty>;
  private readonly reachable: ReadonlySet<number>;
  private readonly blocks: readonly Block[];

  constructor(private readonly problem: ChoiceProblem) {
    const usable = (duty: Duty): boolean => problem.kinds.some((k) => serves(k, duty));
    const inverts = usable(inverter);
    const all = problem.frames.flatMap(({ shared, uses }, f) =>
      uses.map(
        ({ reads, makes }, u): Block => ({
          f,
          u,
          reads: [...shared.values(), ...reads.values()],
          makes: [...makes.values()],
        }),
      ),
    );
    const reached = reachableWays(problem, all, usable, inverts);
    this.reachable = reached.ways;
    this.blocks = reached.blocks;
    const numbers = this.blocks.map((b) => elementAt(problem.frames, b.f).part.id);
    this.chips = [...new Set([...problem.kinds.map((k) => k.part.id), ...numbers])];
    const duties = new Map<string, Duty>(inverts ? [[dutyKey(inverter), inverter]] : []);
    for (const j of this.reachable) {
      const { duty } = elementAt(problem.candidates, j);
      duties.set(dutyKey(duty), duty);
    }
    this.duties = duties;
  }

  /** How many candidates are offered to the solver. */
  get size(): number {
    return this.reachable.size + this.blocks.length;
  }

  /** LP text; `relaxed` leaves the whole numbers out, which gives a bound. */
  text(goal: Goal, limits: Partial<Record<Goal, number>>, relaxed = false): string {
    const rows = [...this.makingRows(), ...this.unitRows(), ...this.blockRows(), ...this.limitRows(limits)];
    const { ways, inverters } = this.columns();
    const services = this.services();
    const frames = [...new Set(this.blocks.map((b) => b.f))];
    const integers = [...this.chips.map(column.packages), ...frames.map(column.frame)];
    const binaries = [
      ...ways.map((j) => column.strategy(j)),
      ...inverters.map(column.inverter),
      ...this.blocks.flatMap(({ f, u, makes }) => [column.use(f, u), ...makes.map((_, k) => column.output(f, u, k))]),
    ];
    const bounds = [
      ...this.literals().map((l) => ` 0 <= ${column.made(l)} <= 1`),
      ...this.chips.map((n) => {
        const stock = this.problem.soft ? 1000 : (this.problem.stock.get(n) ?? 1000);
        const [least, most] = [this.problem.least.get(n) ?? 0, stock];
        return ` ${Math.min(least, most)} <= ${column.packages(n)} <= ${most}`;
      }),
      ...(relaxed ? binaries.map((b) => ` 0 <= ${b} <= 1`) : []),
      ...services.map((s) => ` ${s.name} >= 0`),
      ...(this.problem.soft ? this.chips.map((n) => ` ${column.lacking(n)} >= 0`) : []),
    ];
    const types = relaxed
      ? []
      : ['General', ...integers.map((n) => ` ${n}`), 'Binary', ...binaries.map((n) => ` ${n}`)];
    return [
      'Minimize',
      ` cost: ${this.costOf(goal)}`,
      'Subject To',
      ...rows.map((r, i) => ` r${i}: ${r}`),
      'Bounds',
      ...bounds,
      ...types,
      'End',
    ].join('\n');
  }

  /** What a solution chooses. */
  choice(values: Readonly<Record<string, number>>): Choice {
    const on = (name: string): boolean => (values[name] ?? 0) > 0.5;
    const { ways, inverters } = this.columns();
    const service = new Map<string, UnitKind[]>();
    for (const { duty, kind, name } of this.services()) {
      const count = Math.round(values[name] ?? 0);
      const list = service.get(dutyKey(duty)) ?? [];
      for (let i = 0; i < count; i++) list.push(kind);
      service.set(dutyKey(duty), list);
    }
    return {
      ways: ways.filter((j) => on(column.strategy(j))).map((j) => elementAt(this.problem.candidates, j)),
      inverters: inverters.filter((l) => on(column.inverter(l))),
      service,
      blocks: this.blockPackages(on),
    };
  }

  /** The packages of larger blocks: uses of one frame together, as many as it has slots. */
  private blockPackages(on: (name: string) => boolean): NonNullable<Choice['blocks']> {
    const taken = new Map<number, BlockUse[]>();
    for (const { f, u } of this.blocks) {
      const use = this.problem.frames[f]?.uses[u];
      if (!use) continue;
      const makes = [...use.makes].filter((_, k) => on(column.output(f, u, k)));
      if (makes.length > 0) taken.set(f, [...(taken.get(f) ?? []), { reads: use.reads, makes: new Map(makes) }]);
    }
    return [...taken].flatMap(([f, uses]) => {
      const frame = elementAt(this.problem.frames, f);
      const packages: { frame: Frame; uses: BlockUse[] }[] = [];
      for (let i = 0; i < uses.length; i += frame.slots) packages.push({ frame, uses: uses.slice(i, i + frame.slots) });
      return packages;
    });
  }

  /** The sum that a goal makes least, in a solution; of a relaxed one it is no whole number. */
  valueOf(goal: Goal, values: Readonly<Record<string, number>>): number {
    return this.terms(goal).reduce((sum, { weight, name }) => sum + weight * (values[name] ?? 0), 0);
  }

  private pinsOf(j: number): number {
    return elementAt(this.problem.candidates, j).inputs.length + 1;
  }

  private costOf(goal: Goal): string {
    const terms = this.terms(goal).map(({ weight, name }) => (weight === 1 ? name : `${weight} ${name}`));
    return terms.length > 0 ? terms.join(' + ') : '0 none';
  }

  private terms(goal: Goal): { weight: number; name: string }[] {
    const of = (weight: number, names: readonly string[]) => names.map((name) => ({ weight, name }));
    if (goal === 'packages') return of(1, this.chips.map(column.packages));
    if (goal === 'rarity') return this.chips.map((n) => ({ weight: rarity(n), name: column.packages(n) }));
    if (goal === 'lacking') return of(1, this.chips.map(column.lacking));
    // A jumper to every input of a package, used or tied, and two for its supply.
    if (goal === 'jumpers') return this.chips.map((n) => ({ weight: 2 + inputPins(n), name: column.packages(n) }));
    const { ways, inverters } = this.columns();
    const inverting = inverters.map(column.inverter);
    const uses = this.blocks.map(({ f, u }) => column.use(f, u));
    if (goal === 'units') return of(1, [...ways.map((j) => column.strategy(j)), ...inverting, ...uses]);
    return [
      ...this.blockPins(),
      ...ways.map((j) => ({ weight: this.pinsOf(j), name: column.strategy(j) })),
      ...of(2, inverting),
      // Supply and ground of a package are two wires more.
      ...of(2, this.chips.map(column.packages)),
    ];
  }

  /** Pins of larger blocks: every input of a package that is one unit, however few of its slots are used; outputs that are. */
  private blockPins(): { weight: number; name: string }[] {
    const frames = new Map<string, number>();
    const terms = this.blocks.flatMap(({ f, u, makes }) => {
      const { part, slots, shared, uses } = elementAt(this.problem.frames, f);
      const reads = uses[u]?.reads.size ?? 0;
      if (part.units.length === 1) frames.set(column.frame(f), shared.size + slots * reads);
      const outputs = makes.map((_, k) => ({ weight: 1, name: column.output(f, u, k) }));
      return part.units.length === 1 ? outputs : [...outputs, { weight: reads, name: column.use(f, u) }];
    });
    return [...terms, ...[...frames].map(([name, weight]) => ({ weight, name }))];
  }

  private columns(): { ways: number[]; inverters: Literal[] } {
    const ways = [...this.reachable];
    const inverters = this.duties.has(dutyKey(inverter))
      ? this.literals().filter((l) => !this.isGiven(l) && mayMake(this.problem, l, inverter))
      : [];
    return { ways, inverters };
  }

  private isGiven(l: Literal): boolean {
    const c = classOf(l);
    return c === 0 || (this.problem.functions.isSource(c) && (l & 1) === 0);
  }

  /** Literals that a way makes or reads, or that are wanted, and their complements. */
  private literals(): Literal[] {
    const all = new Set<Literal>();
    const add = (l: Literal): void => {
      if (classOf(l) !== 0) all.add(l).add(inverse(l));
    };
    for (const j of this.reachable) {
      const { makes, inputs } = elementAt(this.problem.candidates, j);
      add(makes);
      inputs.forEach(add);
    }
    for (const { reads, makes } of this.blocks) [...reads, ...makes].forEach(add);
    this.wanted().forEach(add);
    return [...all].sort((a, b) => a - b);
  }

  /** What must be made: the roots, and what is pinned. */
  private wanted(): Literal[] {
    return [...this.problem.roots, ...this.problem.pins.map((p) => p.literal)];
  }

  private makingRows(): string[] {
    const { ways, inverters } = this.columns();
    const { candidates } = this.problem;
    const makers = new Map<Literal, number[]>();
    for (const j of ways) {
      const { makes } = elementAt(candidates, j);
      makers.set(makes, [...(makers.get(makes) ?? []), j]);
    }
    const outputs = new Map<Literal, string[]>();
    for (const { f, u, makes } of this.blocks)
      for (const [k, l] of makes.entries()) outputs.set(l, [...(outputs.get(l) ?? []), column.output(f, u, k)]);
    const inverted = new Set(inverters);
    const rows: string[] = [];
    for (const l of this.literals()) {
      if (this.isGiven(l)) {
        rows.push(`${column.made(l)} = 1`);
        continue;
      }
      const own = [...(makers.get(l) ?? []).map((j) => column.strategy(j)), ...(outputs.get(l) ?? [])];
      const from = inverse(l);
      const all = inverted.has(l) ? [...own, column.inverter(l)] : own;
      rows.push(`${[...all, `-1 ${column.made(l)}`].join(' + ').replaceAll('+ -', '- ')} = 0`);
      if (inverted.has(l) && !this.isGiven(from)) {
        const direct = [...(makers.get(from) ?? []).map((j) => column.strategy(j)), ...(outputs.get(from) ?? [])];
        const source = direct.map((name) => ` - ${name}`).join('');
        rows.push(`${column.inverter(l)}${source} <= 0`);
      }
      // Whatever a way to this literal reads is made.
      const readers = new Map<Literal, string[]>();
      for (const j of makers.get(l) ?? [])
        for (const m of new Set(elementAt(candidates, j).inputs))
          if (!this.isGiven(m)) readers.set(m, [...(readers.get(m) ?? []), column.strategy(j)]);
      for (const [m, names] of readers) rows.push(`${names.join(' + ')} - ${column.made(m)} <= 0`);
    }
    for (const l of new Set(this.wanted())) if (!this.isGiven(l)) rows.push(`${column.made(l)} = 1`);
    return rows;
  }

  private services(): { duty: Duty; kind: UnitKind; name: string }[] {
    return [...this.duties.values()].flatMap((duty) =>
      this.problem.kinds.flatMap((kind, k) =>
        serves(kind, duty) ? [{ duty, kind, name: column.service(duty, k) }] : [],
      ),
    );
  }

  private unitRows(): string[] {
    const { ways, inverters } = this.columns();
    const services = this.services();
    const asked = new Map<string, string[]>();
    for (const j of ways) {
      const key = dutyKey(elementAt(this.problem.candidates, j).duty);
      asked.set(key, [...(asked.get(key) ?? []), column.strategy(j)]);
    }
    if (inverters.length > 0) asked.set(dutyKey(inverter), inverters.map(column.inverter));
    const rows = [...asked].map(([key, names]) => {
      const done = services.filter((s) => dutyKey(s.duty) === key).map((s) => s.name);
      return `${done.join(' + ')} - ${names.join(' - ')} = 0`;
    });
    rows.push(...this.pinRows(services));
    if (this.problem.soft)
      for (const n of this.chips)
        rows.push(`${column.packages(n)} - ${column.lacking(n)} <= ${this.problem.stock.get(n) ?? 0}`);
    this.problem.kinds.forEach((kind) => {
      const used = services.filter((s) => s.kind === kind).map((s) => s.name);
      if (used.length > 0)
        rows.push(`${used.join(' + ')} - ${kind.units.length} ${column.packages(kind.part.id)} <= 0`);
    });
    return rows;
  }

  /** Outputs of a block only where it is used, what it reads made, uses in slots, and frames in packages. */
  private blockRows(): string[] {
    const rows: string[] = [];
    const frames = new Map<number, string[]>();
    for (const { f, u, reads, makes } of this.blocks) {
      const use = column.use(f, u);
      for (const k of makes.keys()) rows.push(`${column.output(f, u, k)} - ${use} <= 0`);
      for (const l of new Set(reads)) if (!this.isGiven(l)) rows.push(`${use} - ${column.made(l)} <= 0`);
      frames.set(f, [...(frames.get(f) ?? []), use]);
    }
    const packages = new Map<string, string[]>();
    for (const [f, uses] of frames) {
      const { slots, part } = elementAt(this.problem.frames, f);
      rows.push(`${uses.join(' + ')} - ${slots} ${column.frame(f)} <= 0`);
      packages.set(part.id, [...(packages.get(part.id) ?? []), column.frame(f)]);
    }
    for (const [number, names] of packages) rows.push(`${names.join(' + ')} - ${column.packages(number)} <= 0`);
    return rows;
  }

  /** A pinned literal takes a unit of its own kind, whatever makes it. */
  private pinRows(services: readonly { duty: Duty; kind: UnitKind; name: string }[]): string[] {
    const { ways, inverters } = this.columns();
    return services.flatMap(({ duty, kind, name }) => {
      const here = this.problem.pins.filter((p) => this.problem.kinds[p.kind] === kind).map((p) => p.literal);
      if (here.length === 0) return [];
      const made = ways.filter((j) => {
        const c = elementAt(this.problem.candidates, j);
        return here.includes(c.makes) && dutyKey(c.duty) === dutyKey(duty);
      });
      const inverted = duty.kind === 'not' ? inverters.filter((l) => here.includes(l)) : [];
      const names = [...made.map((j) => column.strategy(j)), ...inverted.map(column.inverter)];
      return names.length > 0 ? [`${name} - ${names.join(' - ')} >= 0`] : [];
    });
  }

  private limitRows(limits: Partial<Record<Goal, number>>): string[] {
    return (Object.entries(limits) as [Goal, number][]).map(([goal, most]) => `${this.costOf(goal)} <= ${most}`);
  }
}

const inputPins = (number: string): number => findChip(number)?.pins.filter((p) => p.role === 'input').length ?? 0;

/** A choice without what nothing wanted reads: a solver broken off by the clock may leave some in. */
export function pruned(choice: Choice, wanted: readonly Literal[]): Choice {
  const { ways, inverters, blocks = [], service } = choice;
  const needed = new Set<Literal>();
  const todo = [...wanted];
  const need = (inputs: Iterable<Literal>): void => {
    todo.push(...inputs);
  };
  for (let l = todo.pop(); l !== undefined; l = todo.pop()) {
    if (needed.has(l)) continue;
    needed.add(l);
    for (const strategy of ways) if (strategy.makes === l) need(strategy.inputs);
    if (inverters.includes(l)) need([inverse(l)]);
    for (const { frame, uses } of blocks)
      for (const use of uses)
        if ([...use.makes.values()].includes(l)) need([...frame.shared.values(), ...use.reads.values()]);
  }
  return {
    ways: ways.filter((w) => needed.has(w.makes)),
    inverters: inverters.filter((l) => needed.has(l)),
    service,
    blocks: blocks.flatMap(({ frame, uses }) => {
      const left = uses.flatMap((use) => {
        const makes = [...use.makes].filter(([, l]) => needed.has(l));
        return makes.length > 0 ? [{ reads: use.reads, makes: new Map(makes) }] : [];
      });
      return left.length > 0 ? [{ frame, uses: left }] : [];
    }),
  };
}

/** Whether a literal may be made by a duty: if it is pinned, its unit must be able to do it. */
function mayMake({ pins, kinds }: ChoiceProblem, l: Literal, duty: Duty): boolean {
  return pins.every((p) => p.literal !== l || (kinds[p.kind] !== undefined && serves(elementAt(kinds, p.kind), duty)));
}

/** Presolve: the candidates and uses of blocks that units can take, whose inputs can all be made in turn, and that something wanted may read. */
function reachableWays(
  problem: ChoiceProblem,
  all: readonly Block[],
  usable: (duty: Duty) => boolean,
  inverts: boolean,
): { ways: Set<number>; blocks: Block[] } {
  const { candidates, functions } = problem;
  const roots = [...problem.roots, ...problem.pins.map((p) => p.literal)];
  const able = candidates.map(({ makes, duty }) => usable(duty) && mayMake(problem, makes, duty));
  // What is pinned is made by its unit, not by a block.
  const locks = new Set(problem.pins.map((p) => p.literal));
  const offered = all.filter((b) => !b.makes.some((l) => locks.has(l)));
  const makable = new Set<Literal>([0, 1]);
  const add = (l: Literal): void => {
    makable.add(l);
    if (inverts) makable.add(inverse(l));
  };
  const ready = (reads: readonly Literal[]): boolean => reads.every((l) => makable.has(l));
  for (let i = 0; i < functions.sources.length; i++) add(2 * (i + 1));
  for (let grown = true; grown; ) {
    const before = makable.size;
    candidates.forEach(({ makes, inputs }, j) => {
      if (able[j] && !makable.has(makes) && ready(inputs)) add(makes);
    });
    for (const { reads, makes } of offered) if (ready(reads)) makes.forEach(add);
    grown = makable.size > before;
  }
  const makers = new Map<number, number[]>();
  candidates.forEach(({ makes, inputs }, j) => {
    if (!able[j] || !ready(inputs)) return;
    const c = classOf(makes);
    makers.set(c, [...(makers.get(c) ?? []), j]);
  });
  const blocksOf = new Map<number, Block[]>();
  for (const block of offered)
    if (ready(block.reads))
      for (const l of block.makes) blocksOf.set(classOf(l), [...(blocksOf.get(classOf(l)) ?? []), block]);
  const wanted = new Set<number>();
  const todo = roots.map(classOf);
  const ways = new Set<number>();
  const blocks = new Set<Block>();
  for (let c = todo.pop(); c !== undefined; c = todo.pop()) {
    if (wanted.has(c)) continue;
    wanted.add(c);
    for (const j of makers.get(c) ?? []) {
      ways.add(j);
      todo.push(...elementAt(candidates, j).inputs.map(classOf));
    }
    for (const block of blocksOf.get(c) ?? []) {
      blocks.add(block);
      todo.push(...block.reads.map(classOf));
    }
  }
  return { ways: new Set([...ways].sort((a, b) => a - b)), blocks: all.filter((b) => blocks.has(b)) };
}
