import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { arbitraryCommands } from '../../testing/commands';
import { interlockSheet, laidOut } from '../../testing/interlock';
import { applyEdit } from '../edit';
import { type CommandWord, commandKinds, readCommand } from '.';

const { job } = await laidOut(interlockSheet);
const words = Object.keys(commandKinds) as CommandWord[];
const lines = arbitraryCommands(job);

describe('every command that can be typed', () => {
  it.each(words)('%s: an edit that can be undone, or a finding with a bounded text', (word) => {
    let done = 0;
    fc.assert(
      fc.property(lines[word], (line) => {
        const command = readCommand(job.board, line);
        if (!command.ok) {
          expect(JSON.stringify(command.finding).length, line).toBeLessThan(500);
          return;
        }
        const applied = applyEdit(job, command.edit);
        if (!applied.ok) return;
        done++;
        const back = applyEdit(applied.job, applied.inverse);
        expect(back.ok && back.job, line).toEqual(job);
      }),
      { seed: 15, numRuns: 300 },
    );
    expect(done).toBeGreaterThan(0);
  });

  it.each(words)('%s: its examples are understood, and stand in docs/board.md', (word) => {
    const doc = readFileSync(`${import.meta.dirname}/../../../../docs/board.md`, 'utf8');
    for (const line of commandKinds[word].usage) {
      const command = readCommand(job.board, line);
      expect(command.ok || command.finding.code, line).not.toBe('hand/not-understood');
      expect(doc).toContain(`\`${line}\``);
    }
  });

  it('a line of no command, or with too few or too many words, is not understood', () => {
    for (const line of [
      '',
      'toString',
      'constructor U1',
      'pull',
      'turn U1 U2',
      'move U1',
      'seat a b c',
      '>',
      'U1.1 > a > b',
    ])
      expect(readCommand(job.board, line), line).toMatchObject({ ok: false, finding: { code: 'hand/not-understood' } });
  });
});

describe('docs/board.md', () => {
  it('lists lines that are understood', () => {
    const doc = readFileSync(`${import.meta.dirname}/../../../../docs/board.md`, 'utf8');
    const table = doc.slice(doc.indexOf('By typing:'), doc.indexOf('*Seat a part*'));
    const listed = [...table.matchAll(/^\| (.+?) \|/gm)].flatMap(([, cell = '']) =>
      [...cell.matchAll(/`([^`]+)`/g)].map(([, line = '']) => line),
    );
    expect(listed.length).toBeGreaterThan(20);
    for (const line of listed)
      expect(readCommand(job.board, line), line).not.toMatchObject({ finding: { code: 'hand/not-understood' } });
  });
});
