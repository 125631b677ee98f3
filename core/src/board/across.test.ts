import { readdirSync, readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { type Inner, innerOf, typeOf } from '../catalogue';
import { readJobFile } from '../job-reader';
import { cutPin, extractNets } from '.';
import { crossingsFrom, type InnerPath } from './across';

const folder = `${import.meta.dirname}/../../../samples`;
const boards = readdirSync(folder)
  .filter((name) => name.endsWith('.json'))
  .map((name) => {
    const read = readJobFile(readFileSync(`${folder}/${name}`, 'utf8'));
    return [name, read.ok ? read.job.board : expect.fail(name)] as const;
  });
const kinds: Readonly<Record<string, (inner: Inner) => readonly InnerPath[]>> = {
  resistors: ({ resistors }) => resistors,
  contacts: ({ contacts }) => contacts,
  devices: ({ devices }) => devices,
};

describe.each(boards)('paths across the parts of %s', (_, board) => {
  const nets = extractNets(board);

  it.each(Object.entries(kinds))('%s: each path is met from both its ends, and only from them', (_, pathsOf) => {
    const met = nets.nets.flatMap(({ index }) =>
      crossingsFrom(board, nets, index, pathsOf).map(({ part, from, to, net }) => {
        expect(nets.ofPin.get(from)).toBe(index);
        expect(cutPin(from).ref).toBe(part.ref);
        expect(nets.ofPin.get(to)).toBe(net);
        return `${from} ${to}`;
      }),
    );
    const asSeated = Object.values(board.parts).flatMap((part) =>
      pathsOf(innerOf(typeOf(part))).flatMap(({ a, b }) => {
        const [p, q] = [`${part.ref}.${a}`, `${part.ref}.${b}`];
        return [
          [p, q],
          [q, p],
        ]
          .filter(([from = '']) => nets.ofPin.has(from))
          .map((ends) => ends.join(' '));
      }),
    );
    expect(met.sort()).toEqual(asSeated.sort());
  });
});
