import { describe, expect, it } from 'vitest';
import { type Element, resistor } from './elements';
import {
  DRIVES,
  type Drive,
  IslandModel,
  type IslandParts,
  type IslandPoint,
  MOST_NODES,
  type OutputModel,
} from './island';

/** Node 0 is ground, node 1 supply. */
const volts = (nodes: number): Float64Array => {
  const all = new Float64Array(nodes);
  all[1] = 5;
  return all;
};
const positive = new Set([1]);
const output = (node: number): OutputModel => ({
  pin: `U1.${node}`,
  ref: 'U1',
  node,
  can: ['low', 'high'],
  low: resistor(node, 0, 50),
  high: resistor(1, node, 50),
});
const island = (free: readonly number[], lasting: readonly Element[], more: Partial<IslandParts> = {}): IslandModel =>
  new IslandModel(free, { lasting, contacts: [], outputs: [], capacitors: [], dials: [], ...more });
/** The point with all outputs doing one thing. */
const pointOf = (model: IslandModel, drive: Drive, nodes: number): IslandPoint => {
  model.parts.outputs.forEach((_, i) => {
    model.setOutput(i, DRIVES.indexOf(drive));
  });
  return model.point(volts(nodes), positive);
};

describe('an island', () => {
  it('keeps its points by how its contacts and outputs stand, and gives the same again', () => {
    const contact = { actuator: 'S1', on: true, element: resistor(2, 0, 0.05) };
    const model = island([2], [resistor(1, 2, 1000)], { contacts: [contact], outputs: [output(2)] });
    const ask = (isClosed: boolean, drive: Drive): IslandPoint => {
      model.setContact(0, isClosed);
      return pointOf(model, drive, 3);
    };
    expect(ask(false, 'off')).toBe(ask(false, 'off'));
    expect(ask(false, 'off').most[0]).toBeCloseTo(5, 6);
    expect(ask(true, 'off').most[0]).toBeLessThan(0.001);
    expect(ask(false, 'low').most[0]).toBeCloseTo((5 * 50) / 1050, 6);
    expect(ask(false, 'low').supplyA).toBeCloseTo(5 / 1050, 8);
    expect(model.setOutput(0, DRIVES.indexOf('low'))).toBe(false);
  });

  it('with unknown outputs has the corners that they can make', () => {
    const model = island([2, 3], [resistor(2, 3, 1000), resistor(3, 0, 1000)], { outputs: [output(2)] });
    const { least, most, lost } = pointOf(model, 'unknown', 4);
    expect([least[1], lost[1]]).toEqual([expect.closeTo(0, 6), 0]);
    expect(most[1]).toBeCloseTo((5 * 1000) / 2050, 6);
  });

  it('is lost with an output of a chip without supply, with too many unknown, and beyond what is solved', () => {
    const one = island([2], [resistor(1, 2, 1000)], { outputs: [output(2)] });
    expect([...pointOf(one, 'dead', 3).lost]).toEqual([1]);
    const many = island([2], [resistor(1, 2, 1000)], { outputs: Array.from({ length: 7 }, () => output(2)) });
    expect([...pointOf(many, 'unknown', 3).lost]).toEqual([1]);
    const free = Array.from({ length: MOST_NODES + 1 }, (_, i) => i + 2);
    const chain = free.map((node): Element => resistor(node - 1, node, 1000));
    const large = pointOf(island(free, chain), 'off', MOST_NODES + 3);
    expect(large.lost.every((lost) => lost === 1)).toBe(true);
    expect(large.least.every(Number.isFinite)).toBe(true);
  });

  it('of as many nodes as are solved is solved', () => {
    const free = Array.from({ length: MOST_NODES }, (_, i) => i + 2);
    const chain = [resistor(1, 2, 1000), ...free.slice(1).map((node): Element => resistor(node - 1, node, 1000))];
    const end = resistor(MOST_NODES + 1, 0, 1000);
    const { most, lost, floats } = pointOf(island(free, [...chain, end]), 'off', MOST_NODES + 2);
    expect([lost.includes(1), floats.includes(1)]).toEqual([false, false]);
    expect(most[MOST_NODES / 2 - 1]).toBeCloseTo(2.5, 2);
  });

  it('whose node nothing holds floats', () => {
    const { floats } = pointOf(island([2, 3], [resistor(2, 3, 1000)]), 'off', 4);
    expect([...floats]).toEqual([1, 1]);
  });
});
