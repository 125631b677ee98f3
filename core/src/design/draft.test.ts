import { describe, expect, it } from 'vitest';
import { chipLibrary, readDesign } from '../catalogue';
import { isError } from '../finding';
import { tableOf } from '../logic';
import { editDraftGate, withoutDraft } from './draft';
import { withCell } from './table-edit';

const draftFor = (text: string) => readDesign(text).draft ?? expect.fail('no draft');
const errors = (text: string) =>
  readDesign(text)
    .findings.filter(isError)
    .map((f) => f.code);

describe('a sheet whose outputs are not made yet', () => {
  const text = 'in A B\nout Y Z\n';

  it('can be drawn and listed: what is open is off in every row', () => {
    const { reading, open } = draftFor(text);
    expect([...open.keys()]).toEqual(['Y', 'Z']);
    expect(reading.design.netlist?.outputs.map((o) => o.name)).toEqual(['Y', 'Z']);
    expect(tableOf(reading.design.behaviour ?? expect.fail()).rows).toBe(4);
  });

  it('takes a gate under the name of an output, and leaves the others open', () => {
    const made = editDraftGate(
      draftFor(text),
      { act: 'add', kind: 'nand', inputs: ['A', 'B'], name: 'Y' },
      chipLibrary,
    );
    if (!made.ok) return expect.fail(made.finding.code);
    expect(made.text.trim()).toBe('in A B\nout Y Z\nY = nand(A, B)');
    expect(errors(made.text)).toEqual(['sheet/output-undefined']);
    const other = editDraftGate(
      draftFor(made.text),
      { act: 'add', kind: 'not', inputs: ['Y'], name: 'Z' },
      chipLibrary,
    );
    expect(other.ok && errors(other.text)).toEqual([]);
    const inner = editDraftGate(draftFor(text), { act: 'add', kind: 'or', inputs: ['A', 'B'], name: 'M' }, chipLibrary);
    expect(inner.ok && inner.text.trim()).toBe('in A B\nout Y Z\nM = A | B');
  });

  it('is filled in cell by cell, the sheet following', () => {
    const draft = draftFor(text);
    const table = tableOf(draft.reading.design.behaviour ?? expect.fail());
    const next = withoutDraft(draft, withCell(draft.text, ['A', 'B'], 'Y', { table, output: 0, row: 3, mark: '1' }));
    expect(next.trim()).toBe('in A B\nout Y Z\ntable Y of A B : ---1');
    expect(errors(next)).toEqual(['sheet/output-undefined']);
  });

  it('is none where there is another mistake, or no mistake', () => {
    expect(readDesign('in A\nout Y\nY = = A').draft).toBeUndefined();
    expect(readDesign('in A\nout Y\nY = A').draft).toBeUndefined();
  });
});
