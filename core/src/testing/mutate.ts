import { elementAt } from '../element-at';
import { onceFor } from '../memo';

/** A seeded stream of whole numbers below a bound (Steele and Vigna 2014, SplitMix32). */
export function drawing(seed: number): (below: number) => number {
  let state = seed >>> 0;
  return (below) => {
    state = (state + 0x9e3779b9) >>> 0;
    let z = state;
    z = Math.imul(z ^ (z >>> 16), 0x21f0aaad);
    z = Math.imul(z ^ (z >>> 15), 0x735a2d97);
    return ((z ^ (z >>> 15)) >>> 0) % Math.max(1, below);
  };
}

type Step = string | number;
type Tree = Record<Step, unknown>;

/** Values that files should not hold, and some that they should. */
const odd: readonly unknown[] = [
  null,
  0,
  -1,
  1.5,
  1e300,
  '',
  'x',
  'b1.e17',
  'U1',
  'U2',
  '0',
  '1',
  [],
  {},
  true,
  '\u0000',
  '74HC00',
];

/**
 * A JSON document with a few of its values changed: replaced by another value of the document or by an odd one, left out, doubled, two
 * exchanged, a number moved by one. The same seed gives the same document.
 */
export function mutated(document: object, seed: number, changes = 1 + (seed % 3)): unknown {
  const draw = drawing(seed);
  const copy = structuredClone(document) as Tree;
  const paths = pathsIn(document);
  const pick = (): readonly Step[] => elementAt(paths, draw(paths.length));
  for (let n = 0; n < changes; n++) change(copy, pick(), pick(), draw);
  return copy;
}

function change(copy: Tree, path: readonly Step[], other: readonly Step[], draw: (below: number) => number): void {
  const [at, key] = placeOf(copy, path);
  const [there, otherKey] = placeOf(copy, other);
  if (!at || key === undefined) return;
  const value = at[key];
  switch (draw(7)) {
    case 0:
      at[key] = structuredClone(there?.[otherKey as Step]);
      break;
    case 1:
      at[key] = odd[draw(odd.length)];
      break;
    case 2:
      if (Array.isArray(at)) at.splice(Number(key), 1);
      else delete at[key];
      break;
    case 3:
      if (Array.isArray(at)) at.push(structuredClone(value));
      break;
    case 4:
      if (there && otherKey !== undefined && typeof value === typeof there[otherKey])
        [at[key], there[otherKey]] = [structuredClone(there[otherKey]), structuredClone(value)];
      break;
    case 5:
      if (typeof value === 'number') at[key] = value + (draw(2) === 0 ? 1 : -1);
      else if (typeof value === 'string' && value !== '') {
        const i = draw(value.length);
        at[key] = value.slice(0, i) + String.fromCharCode(33 + draw(94)) + value.slice(i + 1);
      }
      break;
    default:
      if (typeof value === 'string')
        at[key] = typeof there?.[otherKey as Step] === 'string' ? there[otherKey as Step] : value;
  }
}

/** The object or list that holds the value at a path, and its key there; nothing where an earlier change has taken it away. */
function placeOf(root: Tree, path: readonly Step[]): [Tree | null, Step | undefined] {
  let at: unknown = root;
  for (const step of path.slice(0, -1)) {
    if (typeof at !== 'object' || at === null) return [null, undefined];
    at = (at as Tree)[step];
  }
  return typeof at === 'object' && at !== null ? [at as Tree, path.at(-1)] : [null, undefined];
}

/** The paths of all that a document holds, which is not changed. */
const pathsIn = onceFor((document: object) => pathsOf(document));

function pathsOf(value: unknown, at: readonly Step[] = []): (readonly Step[])[] {
  if (typeof value !== 'object' || value === null) return [at];
  const below = Object.entries(value).flatMap(([k, v]) => pathsOf(v, [...at, Array.isArray(value) ? Number(k) : k]));
  return at.length > 0 ? [at, ...below] : below;
}
