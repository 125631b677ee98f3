import { readdirSync, readFileSync } from 'node:fs';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { chipLibrary } from '../catalogue';
import { isError } from '../finding';
import { readSheet } from './design';
import { elaborate } from './elaborate';
import { ownPartsOf, withOwnParts } from './own-part';
import { parseSheet } from './parser';

const folder = new URL('../../../samples/', import.meta.url);
const samples = readdirSync(folder)
  .filter((name) => name.endsWith('.sheet'))
  .map((name): [string, string] => [name, readFileSync(new URL(name, folder), 'utf8')]);

/** Blocks that use blocks, a part of its own, a table in rows, buses, and a sample's worth of everything else. */
const everything = `in V[3:0] E
out Y[3:0] ANY LOW S P
block inner
in A
out B
B = ~A
end
block outer
in A
out B
use inner as i (A = A)
B = ~i.B
end
part VOTE
pins A B C GND NO Y NC VCC
Y = A & B | B & C | A & C
NO = ~Y
end
Y = V & E
ANY = or(V[3:0])
table LOW MID of V
  000- : 1 0
  01-- : 0 1
  others : 0 0
use outer as o (A = MID, B = S)
use VOTE as M (A = E, B = S, C = LOW)
P = M.Y | o.B`;

const errorsOf = (text: string) => readSheet(text, chipLibrary).findings.filter(isError);

describe('a line that cannot be read', () => {
  it.each([...samples, ['everything', everything]])('is all that is told, whichever it is: %s', (_, text) => {
    const lines = text.split('\n');
    const broken = lines.flatMap((line, i) =>
      // The head and end of a section say which lines are its own.
      /^\s*(#|$|block|part|end)/.test(line) ? [] : [[i, line.replace(/\s*(#.*)?$/, ' ? $1')] as const],
    );
    for (const [i, line] of broken) {
      const from = lines.slice(0, i).reduce((sum, l) => sum + l.length + 1, 0);
      const told = errorsOf(lines.with(i, line).join('\n'));
      expect(told.length, line).toBeGreaterThan(0);
      for (const { code, places } of told) {
        const at = places[0]?.kind === 'text' ? places[0].span.from : -1;
        expect(from <= at && at <= from + line.length, `${line}: ${code} at ${at}`).toBe(true);
      }
    }
  });

  it('is always told, whatever else is wrong', () => {
    const texts = [everything, ...samples.map(([, text]) => text)];
    const changed = fc
      .tuple(
        fc.constantFrom(...texts),
        fc.array(fc.tuple(fc.nat(), fc.constantFrom('', '[', ' ', '=', 'A', '3:0', '('))),
      )
      .map(([text, changes]) =>
        changes.reduce((t, [at, by]) => t.slice(0, at % t.length) + by + t.slice((at % t.length) + 1), text),
      );
    fc.assert(
      fc.property(changed, (text) => {
        const { sheet, findings } = parseSheet(text);
        const own = ownPartsOf(sheet, chipLibrary);
        const written = elaborate(sheet, withOwnParts(chipLibrary, own.parts), true);
        const isWrong = [...findings, ...own.findings, ...written.findings].some(isError);
        expect(errorsOf(text).length > 0 || !isWrong).toBe(true);
      }),
      { numRuns: 300 },
    );
  });

  it('hides nothing else: a signal that nothing makes is told beside it', () => {
    const text = 'in A\nout Y Z\nY = = A\nZ = A & B';
    expect(errorsOf(text).map((f) => f.code)).toEqual(['sheet/expected', 'sheet/unknown-signal']);
  });

  it('names all pins that a part does not have, and those that may be meant', () => {
    const [only, ...others] = errorsOf('in A\nout y\nuse 7404 as U (1A = A, 1y = y, 2An = 0, 9A = A)');
    expect(others).toEqual([]);
    expect(only?.facts).toMatchObject({ pin: '1y, 2An, 9A', hint: ' Did you mean 1Y for 1y, 2A for 2An?' });
  });
});
