import { type Board, byNumber, labelPlacesOf, type SeatedPart, typeOf } from '@saddlebag/core';
import { memo, useMemo } from 'react';
import { useJobView } from '../base/job-context';
import { useLatest } from '../base/use-latest';
import { shownValue } from '../base/words';
import { LongList } from '../kit/LongList';
import { Panel } from '../kit/Panel';

interface ThingsPanelProps {
  readonly chosen: ReadonlySet<string>;
  readonly onChoose: (ref: string) => void;
}

interface Thing {
  readonly id: string;
  readonly what: string;
  readonly signal?: string | undefined;
  readonly at: string;
}

const idOf = ({ id }: Thing): string => id;

/** The signals that a part is labelled with, as a list. */
function signalsOf(part: SeatedPart): string | undefined {
  const all = labelPlacesOf(part).flatMap((p) => p.signal ?? []);
  return all.length > 0 ? all.join(' ') : part.signal;
}

function thingsOn({ parts, jumpers, notes = {} }: Board): Thing[] {
  return [
    ...Object.values(parts)
      .sort((a, b) => byNumber(a.ref, b.ref))
      .map((p) => ({
        id: p.ref,
        what: `${p.part}${shownValue(typeOf(p)?.kind ?? '', p.value)}${p.fixed ? ', fixed' : ''}`,
        signal: signalsOf(p),
        at: p.at,
      })),
    ...Object.values(jumpers)
      .sort((a, b) => byNumber(a.id, b.id))
      .map((j) => ({ id: j.id, what: 'jumper', at: `${j.from} > ${j.to}` })),
    ...Object.values(notes)
      .sort((a, b) => byNumber(a.id, b.id))
      .map((n) => ({ id: n.id, what: n.text, at: n.at })),
  ];
}

/** Rows are plain elements, styled from here. */
const list = {
  '& button': {
    display: 'grid',
    gridTemplateColumns: '44px 1fr auto',
    alignItems: 'center',
    gap: '8px',
    width: '100%',
    height: '100%',
    padding: '0 12px',
    textAlign: 'left',
    cursor: 'pointer',
  },
  '& button[aria-pressed=true]': { background: 'wash' },
  '& b': { fontFamily: 'heading', fontWeight: '600' },
  '& span': { overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' },
  '& code': { fontFamily: 'mono', fontSize: '12px', color: 'soft' },
  '& button[aria-pressed=true] code': { color: 'ink' },
  '& span code': { fontSize: 'inherit', color: 'inherit' },
} as const;

/** Everything on the board: parts with their places, then jumpers. Choosing one here chooses it on the board. */
export function ThingsPanel({ chosen, onChoose }: ThingsPanelProps) {
  const { board } = useJobView().job;
  const things = useMemo(() => thingsOn(board), [board]);
  const choose = useLatest(onChoose);
  // The list follows what is chosen on the board, as long as it is one thing.
  const inView = useMemo(
    () => (chosen.size === 1 ? things.findIndex(({ id }) => chosen.has(id)) : -1),
    [things, chosen],
  );
  return (
    <Panel
      title="On the board"
      hint={`${Object.keys(board.parts).length} parts, ${Object.keys(board.jumpers).length} jumpers`}
      flex="1.15"
    >
      <LongList
        label="parts and jumpers"
        things={things}
        keyOf={idOf}
        row={(thing) => <ThingRow {...thing} isChosen={chosen.has(thing.id)} onChoose={choose} />}
        inView={inView}
        css={list}
      />
    </Panel>
  );
}

const ThingRow = memo(function ThingRow({
  id,
  what,
  signal,
  at,
  isChosen,
  onChoose,
}: Thing & { readonly isChosen: boolean; readonly onChoose: (id: string) => void }) {
  return (
    <button type="button" aria-pressed={isChosen} onClick={() => onChoose(id)}>
      <b>{id}</b>
      <span>
        {what} {signal && <code>{signal}</code>}
      </span>
      <code>{at}</code>
    </button>
  );
});
