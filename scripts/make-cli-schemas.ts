/**
 * Writes docs/cli-json.schema.json (after `npm run build`): the shape of what each command prints with `--json`, worked out from what it prints for the samples. What is in every answer is
 * required; objects whose keys are references or holes are given by their values.
 */
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { invocations } from '../cli/src/testing/invocations';

interface Schema {
  type?: string | string[];
  properties?: Record<string, Schema>;
  required?: string[];
  additionalProperties?: Schema;
  items?: Schema;
  description?: string;
  $ref?: string;
}

const root = join(import.meta.dirname, '..');
const samples = join(root, 'samples');
const scratch = mkdtempSync(join(tmpdir(), 'saddlebag-schemas-'));
const sample = readFileSync(join(samples, 'lock-interlock.saddlebag.json'), 'utf8');
const wrong = JSON.parse(sample) as { board: { jumpers: unknown[] } };
wrong.board.jumpers.splice(9, 3);
writeFileSync(join(scratch, 'wrong.saddlebag.json'), JSON.stringify(wrong));

/** Findings are alike everywhere. */
const findings: Schema = { type: 'array', items: { $ref: '#/$defs/finding' } };

/** Keys that name things on a board or in a design, not fields. */
const isName = (key: string): boolean => /\d/.test(key) || /^[A-Z]\w{0,3}n?$/.test(key);

function shapeOf(value: unknown): Schema {
  if (value === null) return { type: ['null'] };
  if (Array.isArray(value))
    return value.length === 0 ? { type: 'array' } : { type: 'array', items: value.map(shapeOf).reduce(merged) };
  if (typeof value !== 'object') return { type: typeof value };
  const entries = Object.entries(value).map(
    ([key, inner]) => [key, key === 'findings' ? findings : shapeOf(inner)] as const,
  );
  if (entries.length > 0 && entries.every(([key]) => isName(key)))
    return { type: 'object', additionalProperties: entries.map(([, inner]) => inner).reduce(merged) };
  return { type: 'object', properties: Object.fromEntries(entries), required: entries.map(([key]) => key) };
}

const typesOf = ({ type = [] }: Schema): string[] => [type].flat();

function merged(a: Schema, b: Schema): Schema {
  if (a === findings || b === findings) return findings;
  const types = [...new Set([...typesOf(a), ...typesOf(b)])];
  const result: Schema = { type: types.sort() };
  const both = <T>(x: T | undefined, y: T | undefined, join: (x: T, y: T) => T): T | undefined =>
    x === undefined ? y : y === undefined ? x : join(x, y);
  const items = both(a.items, b.items, merged);
  if (items) result.items = items;
  const more = both(a.additionalProperties, b.additionalProperties, merged);
  if (more) result.additionalProperties = more;
  const properties = both(a.properties, b.properties, (x, y) =>
    Object.fromEntries(
      [...new Set([...Object.keys(x), ...Object.keys(y)])].map((key) => [key, both(x[key], y[key], merged) ?? {}]),
    ),
  );
  if (properties) result.properties = properties;
  const required = both(a.required, b.required, (x, y) => x.filter((key) => y.includes(key)));
  if (required && required.length > 0) result.required = required;
  return result;
}

/** A schema as it is written: one type by itself, and none where only null was seen, which says nothing of what else there may be. */
function written({ type = [], properties, items, additionalProperties, ...rest }: Schema): Schema {
  const types = [type].flat();
  const own = types.length === 1 ? types[0] : types;
  return {
    ...(own !== undefined && own !== 'null' && types.length > 0 && { type: own }),
    ...(properties && { properties: Object.fromEntries(Object.entries(properties).map(([k, v]) => [k, written(v)])) }),
    ...(items && { items: written(items) }),
    ...(additionalProperties && { additionalProperties: written(additionalProperties) }),
    ...rest,
  };
}

/** Answers that have nothing in common are one shape or the other. */
function oneOf(shapes: readonly Schema[]): object {
  const kinds: Schema[] = [];
  for (const shape of shapes) {
    const alike = kinds.findIndex((kind) => kind.required?.some((key) => shape.required?.includes(key)));
    if (alike < 0) kinds.push(shape);
    else kinds[alike] = merged(kinds[alike] as Schema, shape);
  }
  const [only, ...more] = kinds.map(written);
  return more.length === 0 ? { ...only } : { anyOf: [only, ...more] };
}

const place = { type: 'object', description: 'A hole, pin, part, jumper, or a stretch of the sheet.' };
const $defs: Record<string, Schema> = {
  finding: {
    description: 'What is wrong, what to do, and where.',
    type: 'object',
    properties: {
      code: { type: 'string', description: 'The same for the same mistake in every version.' },
      severity: { type: 'string', description: 'error, warning or note' },
      says: { type: 'string' },
      todo: { type: 'string' },
      places: { type: 'array', items: place },
      fix: { type: 'string', description: 'A line to the board that does it, where one can.' },
    },
    required: ['code', 'severity', 'says', 'todo', 'places'],
  },
};
for (const [command, ways] of Object.entries(invocations)) {
  const shapes: Schema[] = [];
  for (const args of ways) {
    const named = args.map((arg) => arg.replaceAll('@', samples).replace('%', scratch));
    const made = spawnSync(process.execPath, [join(root, 'cli/dist/main.js'), command, ...named, '--json'], {
      encoding: 'utf8',
      maxBuffer: 1 << 28,
    });
    shapes.push(shapeOf(JSON.parse(made.stdout)));
  }
  $defs[command] = { description: `What saddlebag ${command} --json prints.`, ...oneOf(shapes) };
}
const schema = {
  $schema: 'https://json-schema.org/draft/2020-12/schema',
  title: 'What the commands of saddlebag print with --json',
  description: 'One shape for each command, under $defs. Fields that are not listed may be added later.',
  $defs,
};
writeFileSync(join(root, 'docs/cli-json.schema.json'), `${JSON.stringify(schema, null, 2)}\n`);
console.log(Object.keys($defs).length - 1, 'commands');
