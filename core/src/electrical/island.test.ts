import { describe, expect, it } from 'vitest';
import { type Element, resistor } from './elements';
import { type Drive, IslandModel, MOST_NODES, type OutputModel } from './island';

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
  low: resistor(node, 0, 50),
  high: resistor(1, node, 50),
});
const all = (drive: Drive) => () => drive;
const never = (): boolean => false;

describe('an island', () => {
  it('keeps its points by how its contacts and outputs stand, and gives the same again', () => {
    const contact = { actuator: 'S1', on: true, element: resistor(2, 0, 0.05) };
    const island = new IslandModel([2], [resistor(1, 2, 1000)], [contact], [output(2)]);
    const ask = (isOn: boolean, drive: Drive) => island.pointAt(() => isOn, all(drive), volts(3), positive);
    expect(ask(false, 'off')).toBe(ask(false, 'off'));
    expect(ask(false, 'off').most[0]).toBeCloseTo(5, 6);
    expect(ask(true, 'off').most[0]).toBeLessThan(0.001);
    expect(ask(false, 'low').most[0]).toBeCloseTo((5 * 50) / 1050, 6);
    expect(ask(false, 'low').supplyA).toBeCloseTo(5 / 1050, 8);
  });

  it('with unknown outputs has the corners that they can make', () => {
    const island = new IslandModel([2, 3], [resistor(2, 3, 1000), resistor(3, 0, 1000)], [], [output(2)]);
    const { least, most, lost } = island.pointAt(never, all('unknown'), volts(4), positive);
    expect([least[1], lost[1]]).toEqual([expect.closeTo(0, 6), 0]);
    expect(most[1]).toBeCloseTo((5 * 1000) / 2050, 6);
  });

  it('is lost with an output of a chip without supply, with too many unknown, and beyond what is solved', () => {
    const one = new IslandModel([2], [resistor(1, 2, 1000)], [], [output(2)]);
    expect([...one.pointAt(never, all('dead'), volts(3), positive).lost]).toEqual([1]);
    const many = new IslandModel(
      [2],
      [resistor(1, 2, 1000)],
      [],
      Array.from({ length: 7 }, () => output(2)),
    );
    expect([...many.pointAt(never, all('unknown'), volts(3), positive).lost]).toEqual([1]);
    const free = Array.from({ length: MOST_NODES + 1 }, (_, i) => i + 2);
    const chain = free.slice(1).map((node): Element => resistor(node - 1, node, 1000));
    const large = new IslandModel(free, chain, [], []).pointAt(never, all('off'), volts(MOST_NODES + 3), positive);
    expect(large.lost.every((lost) => lost === 1)).toBe(true);
    expect(large.least.every(Number.isFinite)).toBe(true);
  });

  it('of as many nodes as are solved is solved', () => {
    const free = Array.from({ length: MOST_NODES }, (_, i) => i + 2);
    const chain = [resistor(1, 2, 1000), ...free.slice(1).map((node): Element => resistor(node - 1, node, 1000))];
    const end = resistor(MOST_NODES + 1, 0, 1000);
    const { most, lost, floats } = new IslandModel(free, [...chain, end], [], []).pointAt(
      never,
      all('off'),
      volts(MOST_NODES + 2),
      positive,
    );
    expect([lost.includes(1), floats.includes(1)]).toEqual([false, false]);
    expect(most[MOST_NODES / 2 - 1]).toBeCloseTo(2.5, 2);
  });

  it('whose node nothing holds floats', () => {
    const { floats } = new IslandModel([2, 3], [resistor(2, 3, 1000)], [], []).pointAt(
      never,
      all('off'),
      volts(4),
      positive,
    );
    expect([...floats]).toEqual([1, 1]);
  });
});
