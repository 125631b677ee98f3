import { type Edit, isBare, noLocks, type Recovered } from '@saddlebag/core';
import { useJobView } from '../base/job-context';
import { says } from '../base/words';
import { stages } from '../workers/stages';
import { tell } from './notices';
import { TipButton } from './Tip';

/** Reads the design back from the wiring of the board; what it says takes the sheet's place, and undo brings that back. */
export function ReadBackButton() {
  const { job, session } = useJobView();
  const taken = ({ sheet, packing, findings: told }: Recovered): void => {
    const edits: Edit[] = [
      { kind: 'write-sheet', text: sheet },
      { kind: 'lock', locks: noLocks },
      ...(packing ? [{ kind: 'take-packing' as const, packing }] : []),
    ];
    session.dispatch({ kind: 'all', says: 'reading the board', edits });
    tell([...told.map(says), 'The sheet says what the board is wired to do. Undo brings yours back.'].join(' '));
  };
  const readBack = (): void => {
    stages()
      .readBack(job.board)
      .then(taken)
      .catch((e: unknown) => tell(`The board could not be read: ${String(e)}`));
  };
  return (
    <TipButton disabled={isBare(job.board)} tip="Read the design back from the wiring of the board" onClick={readBack}>
      From the board
    </TipButton>
  );
}
