import { readdirSync, readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { extractNets, leadsOf, printHole } from '../board';
import { readDesign, typeOf } from '../catalogue';
import { readJobFile } from '../job/file';
import { interlockSheet, laidOut } from '../testing/interlock';
import { buildCard } from './card';
import { wireColours } from './lines';

const folder = `${import.meta.dirname}/../../../samples`;
const samples = readdirSync(folder).filter((name) => name.endsWith('.json'));

describe('the lines that a board is built by', () => {
  it('name every hole of every part and wire of the samples, and each chip which way round', () => {
    for (const name of samples) {
      const read = readJobFile(readFileSync(`${folder}/${name}`, 'utf8'));
      if (!read.ok) return expect.fail(name);
      const { board, packing } = read.job;
      if (!packing) continue;
      const { netlist } = readDesign(read.job.sheet).design;
      if (!netlist) continue;
      const { lines } = buildCard(board, packing, netlist);
      for (const part of Object.values(board.parts)) {
        const line = lines[part.ref] ?? expect.fail(`${name} ${part.ref}`);
        const holes = leadsOf(part).flatMap(({ hole }) => (hole ? [printHole(hole)] : []));
        const isChip = typeOf(part)?.kind === 'chip';
        if (isChip) expect(line).toMatch(/: pin 1 in \S+, notch to the (left|right|top|bottom)$/);
        else if (holes.length <= 12) for (const hole of holes) expect(line, `${name} ${part.ref}`).toContain(hole);
        expect(line).not.toMatch(/undefined|null|\[object/);
      }
      for (const { id, from, to } of Object.values(board.jumpers))
        expect(lines[id]).toMatch(new RegExp(`^${from} to ${to}`.replace(/[.+]/g, '\\$&')));
    }
  });

  it('say anode and cathode, the switch of each signal, and colours that a kit has', async () => {
    const { job, packing, netlist } = await laidOut(interlockSheet);
    const all = Object.values(buildCard(job.board, packing, netlist).lines);
    expect(all).toContainEqual(
      expect.stringMatching(/^LED, 5 mm, red for G: anode in b1\.\S+ \(G\) and cathode in b1\.\S+$/),
    );
    expect(all).toContainEqual(
      expect.stringMatching(/^slide switch, one pole for K: feed in \S+ \(\+5 V\) and signal in \S+ \(K\)$/),
    );
    expect(all).toContainEqual(expect.stringMatching(/, red, carries \+5 V$/));
    expect(all).toContainEqual(expect.stringMatching(/, black, carries 0 V$/));
  });

  it('give one signal one colour, supply red and ground black; a colour that a person chose stays', async () => {
    const { job } = await laidOut(interlockSheet);
    const nets = extractNets(job.board);
    const signal = (hole: string): string | undefined => (nets.nets.length > 0 ? hole.slice(0, 4) : undefined);
    const colours = wireColours(job.board, signal);
    const seen = new Map<string, string>();
    for (const { id, from } of Object.values(job.board.jumpers)) {
      const [own, known] = [colours.get(id), seen.get(signal(from) ?? '')];
      if (known !== undefined) expect(own).toBe(known);
      if (own !== undefined) seen.set(signal(from) ?? '', own);
    }
    const [first] = Object.values(job.board.jumpers);
    const chosen = {
      ...job.board,
      jumpers: { ...job.board.jumpers, [first?.id ?? '']: { ...first, colour: 'violet' } },
    };
    expect(wireColours(chosen as never, signal).get(first?.id ?? '')).toBe('violet');
  });
});
