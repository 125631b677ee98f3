import { readFileSync } from 'node:fs';
import { parseHole, stripOf } from '@saddlebag/core';
import { readJobFile } from '@saddlebag/core/job-reader';
import { describe, expect, it } from 'vitest';
import { readBoard } from '../base/job-context';
import { spokenHole, spokenThing, type Told } from './spoken';

const read = readJobFile(readFileSync(`${import.meta.dirname}/../../../samples/lock-interlock.saddlebag.json`, 'utf8'));
if (!read.ok) throw new Error('no sample');
const { job } = read;
const view = readBoard(job.board, job.packing ?? null);
const told = (levelOf: Told['levelOf'] = () => null): Told => ({
  board: view.board,
  nets: view.nets,
  names: view.names,
  levelOf,
});
/** The hole that a pin is in. */
const holeOf = (pin: string): string => {
  const at = view.nets.leads.get(pin)?.hole ?? expect.fail(pin);
  return `${at.board}.${at.row}${at.column}`;
};

describe('the board for those who do not see it', () => {
  it('says of a hole where it is, what is in it, what its strip carries, what else is in that, and what is free', () => {
    const words = spokenHole(told(), holeOf('U1.1'));
    expect(words).toMatch(/^b1, row e, column \d+; in it U1 pin 1 1A; carries K; with jumper w\d+.*; free: /);
    expect(spokenHole(told(), 'b1.a60')).toBe('b1, row a, column 60; nothing in it; free: a, b, c, d, e');
    expect(spokenHole(told(), 'b1.top+21')).toMatch(
      /^b1, top\+ rail, hole 21; .*; carries \+5 V; \d+ other leads in the rail; \d+ free holes$/,
    );
  });

  it('says the level while the power is on', () => {
    const words = spokenHole(
      told(() => 'high, 4.95 volts'),
      holeOf('U1.1'),
    );
    expect(words).toContain('; carries K; high, 4.95 volts; ');
  });

  it('says of a part what it is and where, of a jumper its ends and its signal', () => {
    expect(spokenThing(told(), 'U1')).toMatch(/^U1, 74HC21, two 4-input ANDs; first pin in b1\.e\d+$/);
    expect(spokenThing(told(), 'D1')).toMatch(/^D1, .*; first pin in b1\.c\d+; anode to G; cathode to nothing named$/);
    const jumper = Object.values(job.board.jumpers).find((j) => view.nets.ofPin.get('U1.1') === netAt(j.from));
    expect(spokenThing(told(), jumper?.id ?? '')).toBe(
      `jumper ${jumper?.id} from ${jumper?.from} to ${jumper?.to}; carries K`,
    );
  });

  it('has words for every hole, part and jumper of a board', () => {
    for (const { ref } of Object.values(job.board.parts))
      expect(spokenThing(told(), ref)).not.toMatch(/undefined|null/);
    for (const { id, from, to } of Object.values(job.board.jumpers))
      for (const words of [spokenThing(told(), id), spokenHole(told(), from), spokenHole(told(), to)])
        expect(words).not.toMatch(/undefined|null|;\s*;/);
  });
});

/** The net of a hole. */
function netAt(hole: string): number | undefined {
  const at = parseHole(hole);
  return at ? view.nets.ofStrip.get(stripOf(at)) : undefined;
}
