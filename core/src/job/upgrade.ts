/** A job file before it is checked: any JSON object. */
type Plain = Readonly<Record<string, unknown>>;

/**
 * `upgrades[v]` takes a file of version v to version v + 1; each is kept for good. What is not as that version has it stays as it is,
 * for the check of the current shape to tell.
 */
const upgrades: Readonly<Record<number, (file: Plain) => Plain>> = {
  // Version 2 has the words of the glossary: what is excluded and locked, strategies, proofs, rotations and routes.
  1: (file) => ({
    ...renamed(file, { struck: 'excluded', held: 'locks' }),
    ...(isPlain(file.packing) && { packing: renamed(file.packing, { way: 'strategy', sure: 'proof' }) }),
    ...(isPlain(file.board) && {
      board: {
        ...file.board,
        ...(Array.isArray(file.board.parts) && { parts: each(file.board.parts, { turn: 'rotation' }) }),
        ...(Array.isArray(file.board.jumpers) && { jumpers: each(file.board.jumpers, { way: 'route' }) }),
      },
    }),
    version: 2,
  }),
};

/** The file in the current version, as far as there are upgrades from its own. */
export function upgraded(file: Plain): Plain {
  const step = typeof file.version === 'number' ? upgrades[file.version] : undefined;
  return step ? upgraded(step(file)) : file;
}

const isPlain = (value: unknown): value is Plain =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** An object with some of its fields under new names, each in its place. Where it has the new name already, both stay for the check to tell. */
function renamed(object: Plain, names: Readonly<Record<string, string>>): Plain {
  const nameOf = (key: string): string => {
    const name = Object.hasOwn(names, key) ? names[key] : undefined;
    return name === undefined || Object.hasOwn(object, name) ? key : name;
  };
  return Object.fromEntries(Object.entries(object).map(([key, value]) => [nameOf(key), value]));
}

const each = (list: readonly unknown[], names: Readonly<Record<string, string>>): unknown[] =>
  list.map((one) => (isPlain(one) ? renamed(one, names) : one));
