import fc from 'fast-check';
import type { Declarations, Sheet } from '../design';
import { elementAt } from '../element-at';
import type { Connective, Expr } from '../logic';

/** Names that random sheets use; short, and none of them a keyword. */
const inputNames = ['A', 'B', 'C', 'D', 'E5', 'F_'];
const connectives: readonly Connective[] = ['and', 'or', 'xor', 'nand', 'nor', 'xnor'];

/** A random expression over the given names; constants are rare. */
export function arbitraryExpr(names: readonly string[], depth = 3): fc.Arbitrary<Expr> {
  const leaf: fc.Arbitrary<Expr> = fc.oneof(
    { weight: 12, arbitrary: fc.constantFrom(...names).map((name): Expr => ({ kind: 'name', name })) },
    { weight: 1, arbitrary: fc.constantFrom(0 as const, 1 as const).map((value): Expr => ({ kind: 'const', value })) },
  );
  if (depth === 0) return leaf;
  const below = arbitraryExpr(names, depth - 1);
  const gate = fc
    .tuple(fc.constantFrom(...connectives), fc.array(below, { minLength: 2, maxLength: 5 }), fc.boolean())
    .map(([gate, of, infix]): Expr => {
      const hasInfix = gate === 'and' || gate === 'or' || gate === 'xor';
      return { kind: 'gate', gate, of, infix: infix && hasInfix };
    });
  return fc.oneof(
    { weight: 2, arbitrary: leaf },
    { weight: 1, arbitrary: below.map((of): Expr => ({ kind: 'not', of })) },
    { weight: 4, arbitrary: gate },
  );
}

/** A random design without errors: two to six inputs, one to four outputs, some signals between. */
export const arbitrarySheet: fc.Arbitrary<Sheet> = fc
  .tuple(fc.integer({ min: 2, max: 6 }), fc.integer({ min: 0, max: 2 }), fc.integer({ min: 1, max: 4 }))
  .chain(([inputs, inner, outputs]) => {
    const ins = inputNames.slice(0, inputs);
    const targets = [
      ...Array.from({ length: inner }, (_, i) => `m${i}`),
      ...Array.from({ length: outputs }, (_, i) => `Y${i}`),
    ];
    const exprs = targets.map((_, i) => arbitraryExpr([...ins, ...targets.slice(0, i)]));
    return fc.tuple(...exprs).map((made) => sheetOf(ins, targets, made));
  });

function sheetOf(inputs: readonly string[], targets: readonly string[], exprs: readonly Expr[]): Sheet {
  const outputs = targets.filter((t) => t.startsWith('Y'));
  return {
    lines: [
      { comment: '# made at random' },
      { statement: { kind: 'in', signals: inputs.map((name) => ({ name, label: `input ${name}` })) } },
      { statement: { kind: 'out', signals: outputs.map((name) => ({ name })) }, comment: '# what is shown' },
      {},
      ...targets.map((name, i) => ({
        statement: { kind: 'equation' as const, target: { name }, expr: elementAt(exprs, i) },
      })),
    ],
  };
}

/** The value of an expression, by definition: the plain recursive evaluation that tests hold others to. */
export function truthOf(e: Expr, env: ReadonlyMap<string, boolean>): boolean {
  if (e.kind === 'const') return e.value === 1;
  if (e.kind === 'name') return env.get(e.name) === true;
  if (e.kind === 'not') return !truthOf(e.of, env);
  const values = e.of.map((x) => truthOf(x, env));
  const odd = values.filter(Boolean).length % 2 === 1;
  const plain = { and: values.every(Boolean), or: values.some(Boolean), xor: odd };
  if (e.gate === 'nand') return !plain.and;
  if (e.gate === 'nor') return !plain.or;
  return e.gate === 'xnor' ? !plain.xor : plain[e.gate];
}

/** The values of a design's outputs for one row of its inputs, by definition. */
export function outputsOf(design: Declarations, row: number): boolean[] {
  const env = new Map<string, boolean>();
  design.inputs.forEach(({ name }, i) => {
    env.set(name, ((row >>> (design.inputs.length - 1 - i)) & 1) === 1);
  });
  const known = (name: string): void => {
    if (env.has(name)) return;
    const equation = design.equations.find((q) => q.target.name === name);
    if (!equation) throw new Error(`nothing makes ${name}`);
    namesOf(equation.expr).forEach(known);
    env.set(name, truthOf(equation.expr, env));
  };
  for (const { name } of design.outputs) known(name);
  return design.outputs.map(({ name }) => env.get(name) === true);
}

function namesOf(e: Expr): string[] {
  if (e.kind === 'name') return [e.name];
  if (e.kind === 'not') return namesOf(e.of);
  return e.kind === 'gate' ? e.of.flatMap(namesOf) : [];
}

/** The text of a sheet of random gates over many inputs: each reads what was made shortly before; what nothing reads is an output. */
export const arbitraryNetwork = (gates: number, inputs: number): fc.Arbitrary<string> =>
  fc
    .array(
      fc.tuple(
        fc.constantFrom('and', 'or', 'nand', 'nor', 'xor', 'not', 'and', 'nand'),
        fc.array(fc.nat({ max: 13 }), { minLength: 3, maxLength: 3 }),
      ),
      { minLength: gates, maxLength: gates },
    )
    .map((list) => {
      const names = Array.from({ length: inputs }, (_, i) => `I${i}`);
      const read = new Set<string>();
      const lines = list.map(([kind, back], g) => {
        const width = kind === 'not' ? 1 : kind === 'xor' ? 2 : 2 + Number(elementAt(back, 2) < 4);
        const of = [...new Set(back.map((b) => elementAt(names, names.length - 1 - (b % names.length))))];
        const used =
          of.length < width ? [...of, ...names.slice(0, 3)].slice(0, Math.max(width, 1)) : of.slice(0, width);
        const own = [...new Set(used)];
        for (const x of own) read.add(x);
        names.push(`g${g}`);
        return `g${g} = ${own.length === 1 ? 'not' : kind}(${own.join(', ')})`;
      });
      const outputs = names.slice(inputs).filter((n) => !read.has(n));
      return `in ${names.slice(0, inputs).join(' ')}\nout ${outputs.join(' ')}\n${lines.join('\n')}`;
    });
