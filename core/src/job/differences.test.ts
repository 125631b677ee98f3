import { describe, expect, it } from 'vitest';
import { interlockSheet, laidOut } from '../testing/interlock';
import { differences } from './differences';
import { applyEdit, type Edit } from './edit';
import type { Job } from './job';

const { job } = await laidOut(interlockSheet);
const edited = (edit: Edit, from: Job = job): Job => {
  const applied = applyEdit(from, edit);
  return applied.ok ? applied.job : expect.fail(JSON.stringify(applied.findings));
};

describe('what differs between two versions of a job', () => {
  it('is nothing between a job and itself', () => {
    expect(differences(job, job)).toEqual({ lines: [], things: [] });
  });

  it('is each line of the sheet that only one has, with its number there', () => {
    const other = edited({
      kind: 'write-sheet',
      text: interlockSheet.replace('W = ~(U | L)', '# bell\nW = nor(U, L)'),
    });
    expect(differences(job, other).lines).toEqual([
      { kind: 'removed', line: 7, text: 'W = ~(U | L)' },
      { kind: 'added', line: 7, text: '# bell' },
      { kind: 'added', line: 8, text: 'W = nor(U, L)' },
    ]);
  });

  it('is each part, jumper and note that is new, gone, or otherwise', () => {
    const [first] = Object.values(job.board.jumpers);
    const pulled = edited({ kind: 'pull-jumper', id: first?.id ?? '' } as Edit);
    expect(differences(job, pulled).things).toEqual([
      { about: first?.id, says: `gone: ${first?.from} to ${first?.to}` },
    ]);
    expect(differences(pulled, job).things).toEqual([
      { about: first?.id, says: `new: ${first?.from} to ${first?.to}` },
    ]);
    const named = edited({ kind: 'rename', name: 'upper landing' });
    expect(differences(job, named).things).toEqual([{ about: 'the job', says: 'name test becomes upper landing' }]);
  });

  it('of one to the other is the reverse of the other to the one', () => {
    const other = edited({ kind: 'write-sheet', text: 'in A\nout Y\nY = A' }, edited({ kind: 'clear-board' }));
    const [there, back] = [differences(job, other), differences(other, job)];
    const turned = { added: 'removed', removed: 'added' } as const;
    const sorted = (lines: typeof there.lines) => lines.map((l) => JSON.stringify(l)).sort();
    expect(sorted(back.lines)).toEqual(sorted(there.lines.map((l) => ({ ...l, kind: turned[l.kind] }))));
    expect(back.things.map(({ about }) => about)).toEqual(there.things.map(({ about }) => about));
  });

  it('of sheets that have nothing in common is all of both, however long they are', () => {
    const long = (word: string): string => Array.from({ length: 4000 }, (_, i) => `# ${word} ${i}`).join('\n');
    const { lines } = differences({ ...job, sheet: long('a') }, { ...job, sheet: long('b') });
    expect(lines).toHaveLength(8000);
  });
});
