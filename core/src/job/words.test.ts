import { describe, expect, it } from 'vitest';
import { extractNets } from '../board';
import { interlockSheet, laidOut } from '../testing/interlock';
import { readCommand } from './commands';
import { applyEdit } from './edit';

const { job } = await laidOut(interlockSheet);

/** The ends of the jumper that a typed line lays, as the nets that it joins. */
function joins(text: string) {
  const command = readCommand(job.board, text);
  if (!command.ok || command.edit.kind !== 'lay-jumper') return expect.fail(`${text}: ${JSON.stringify(command)}`);
  expect(applyEdit(job, command.edit).ok, text).toBe(true);
  const { from, to } = command.edit.jumper;
  const { ofStrip, ofPin } = extractNets(job.board);
  const rail = (hole: string): string => hole.replace(/\d+$/, '');
  return { rails: [from, to].filter((h) => /top|bottom/.test(h)).map(rail), ofStrip, ofPin };
}

describe('rails by the words that people have for them', () => {
  it.each(['GND > U1.7', 'U1.7 > gnd', '0V > U1.7', 'U1.7 > ground', '- > U1.7'])(
    '%s goes to ground, nearby',
    (text) => {
      const { rails, ofStrip, ofPin } = joins(text);
      expect(rails).toEqual(['b1.bottom-']);
      expect(ofStrip.get(rails[0] ?? '')).toBe(ofPin.get('P1.-'));
    },
  );

  it.each(['U1.14 > VCC', 'vdd > U1.14', '+5V > U1.14', 'U1.14 > supply'])('%s goes to supply that is fed', (text) => {
    const { rails, ofStrip, ofPin } = joins(text);
    expect(rails).toEqual(['b1.top+']);
    expect(ofStrip.get(rails[0] ?? '')).toBe(ofPin.get('P1.+'));
  });

  it('a rail without its board is that of the board where the other end is', () => {
    expect(joins('U1.7 > bottom-').rails).toEqual(['b1.bottom-']);
    expect(joins('top+ > U1.14').rails).toEqual(['b1.top+']);
  });

  it('a part that is replaced by a bare number keeps its family', () => {
    const command = readCommand(job.board, 'replace U2 7428');
    const kept = readCommand(job.board, 'replace U1 7420');
    expect(kept).toMatchObject({ ok: true, edit: { by: { part: '74HC20' } } });
    // Not made in HC: then as it is written.
    expect(command).toMatchObject({ ok: true });
  });
});
