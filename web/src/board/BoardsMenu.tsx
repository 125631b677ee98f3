import { breadboardKinds, breadboardTitles, hasBareBoard, nextBreadboard } from '@saddlebag/core';
import { useJobView } from '../base/job-context';
import { Choice } from '../kit/Choice';

/** Boards of every kind to add, below or beside, and bare ones to remove. Each entry is what one would type. */
export function BoardsMenu({ onSay }: { readonly onSay: (text: string) => boolean }) {
  const { job } = useJobView();
  const { board } = job;
  const beside = breadboardKinds.filter((kind) => nextBreadboard(board, kind, true) !== null);
  const bare = board.breadboards.filter((b) => board.breadboards.length > 1 && hasBareBoard(board, b.id));
  return (
    <Choice label="boards" value="" width="98px" onChange={onSay}>
      <option value="">Boards …</option>
      <optgroup label="add below">
        {breadboardKinds.map((kind) => (
          <option key={kind} value={`board ${kind}`}>
            {breadboardTitles[kind].replace('breadboard, ', '')}
          </option>
        ))}
      </optgroup>
      {beside.length > 0 && (
        <optgroup label="add on the right">
          {beside.map((kind) => (
            <option key={kind} value={`board ${kind} right`}>
              {breadboardTitles[kind].replace('breadboard, ', '')}
            </option>
          ))}
        </optgroup>
      )}
      {bare.length > 0 && (
        <optgroup label="remove">
          {bare.map(({ id }) => (
            <option key={id} value={`pull ${id}`}>
              {id}
            </option>
          ))}
        </optgroup>
      )}
    </Choice>
  );
}
