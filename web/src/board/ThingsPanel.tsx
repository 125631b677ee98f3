import { Box } from '@chakra-ui/react';
import { type Board, byNumber, labelPlacesOf, type SeatedPart, shownValue, typeOf } from '@saddlebag/core';
import { memo, useMemo } from 'react';
import { useJobView } from '../app/job-context';
import { useLatest } from '../app/use-latest';
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

/** Rows are plain elements, styled from here: a full board has a thousand of them. */
const list = {
  '& li': { contentVisibility: 'auto', containIntrinsicSize: 'auto 24px' },
  '& button': {
    display: 'grid',
    gridTemplateColumns: '44px 1fr auto',
    gap: '8px',
    width: '100%',
    padding: '2px 12px',
    textAlign: 'left',
    cursor: 'pointer',
  },
  '& button[aria-pressed=true]': { background: 'wash' },
  '& b': { fontFamily: 'heading', fontWeight: '600' },
  '& span': { overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' },
  '& code': { fontFamily: 'mono', fontSize: '12px', color: 'soft' },
  '& span code': { fontSize: 'inherit', color: 'inherit' },
} as const;

/** Everything on the board: parts with their places, then jumpers. Choosing one here chooses it on the board. */
export function ThingsPanel({ chosen, onChoose }: ThingsPanelProps) {
  const { board } = useJobView().job;
  const things = useMemo(() => thingsOn(board), [board]);
  const choose = useLatest(onChoose);
  return (
    <Panel
      title="On the board"
      hint={`${Object.keys(board.parts).length} parts, ${Object.keys(board.jumpers).length} jumpers`}
      flex="1.15"
    >
      <Box as="ul" listStyleType="none" overflowY="auto" tabIndex={0} aria-label="parts and jumpers" css={list}>
        {things.map(({ id, what, signal, at }) => (
          <ThingRow key={id} id={id} what={what} signal={signal} at={at} isChosen={chosen.has(id)} onChoose={choose} />
        ))}
      </Box>
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
    <li>
      <button type="button" aria-pressed={isChosen} onClick={() => onChoose(id)}>
        <b>{id}</b>
        <span>
          {what} {signal && <code>{signal}</code>}
        </span>
        <code>{at}</code>
      </button>
    </li>
  );
});
