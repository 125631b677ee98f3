import { Box, Button, Flex, Text, Textarea } from '@chakra-ui/react';
import { type BoardNote, type Edit, type Jumper, jumperColours, jumperOf } from '@saddlebag/core';
import { useJobView } from '../base/job-context';
import { Choice } from '../kit/Choice';
import { Panel } from '../kit/Panel';
import { Tag } from '../kit/Tag';
import { TipButton } from '../kit/Tip';
import { pullAll } from './selection';

/** What a card may do: give an edit, or say a line as it could be typed. */
export interface CardProps {
  readonly onDispatch: (edit: Edit) => boolean;
  readonly onSay: (text: string) => boolean;
}

/** Several things at once. */
export function ManyCard({ what, onDispatch }: CardProps & { readonly what: readonly string[] }) {
  const { board } = useJobView().job;
  const ids = what.filter((id) => jumperOf(board, id));
  const pull = (): void => {
    const edit = pullAll(board, what);
    if (edit) onDispatch(edit);
  };
  return (
    <Panel title={`${what.length} chosen`} flex="1.3" actions={<Button onClick={pull}>Pull out</Button>}>
      <Box px="12px" overflowY="auto" tabIndex={0} aria-label="chosen" role="region">
        <Text fontFamily="mono" fontSize="12px" mb="6px">
          {what.join(' ')}
        </Text>
        {ids.length > 0 && <ColourField ids={ids} onDispatch={onDispatch} />}
        <Text color="soft" fontSize="12.5px" mt="6px">
          Drag one of them, or use the arrows, to move all; Ctrl C copies, Ctrl V pastes, here or in another job.
        </Text>
      </Box>
    </Panel>
  );
}

function ColourField({
  ids,
  onDispatch,
}: {
  readonly ids: readonly string[];
  readonly onDispatch: (e: Edit) => boolean;
}) {
  const { board } = useJobView().job;
  const own = [...new Set(ids.map((id) => board.jumpers[id]?.colour ?? ''))];
  return (
    <Flex align="center" gap="8px">
      <span aria-hidden="true">colour</span>
      <Choice
        label="colour"
        value={own.length === 1 ? (own[0] ?? '') : ''}
        width="150px"
        onChange={(to) => onDispatch({ kind: 'colour', ids, colour: jumperColours.find((c) => c === to) ?? null })}
      >
        <option value="">that of its signal</option>
        {jumperColours.map((c) => (
          <option key={c} value={c}>
            {c}
          </option>
        ))}
      </Choice>
    </Flex>
  );
}

/** A jumper: its ends, signal, colour and way. */
export function JumperCard({ jumper, onDispatch, onSay }: CardProps & { readonly jumper: Jumper }) {
  const { id, from, to, route, corners = [] } = jumper;
  return (
    <Panel title={id} hint="jumper" flex="1.3" actions={<Button onClick={() => onSay(`pull ${id}`)}>Pull out</Button>}>
      <Flex px="12px" gap="12px" align="center" wrap="wrap">
        <Text fontFamily="mono">
          {from} &gt; {to}
        </Text>
        <JumperSignal id={id} />
      </Flex>
      <Flex px="12px" pt="8px" gap="16px" align="center">
        <ColourField ids={[id]} onDispatch={onDispatch} />
        <Flex as="label" align="center" gap="6px">
          <input
            type="checkbox"
            checked={route === 'straight'}
            onChange={(e) => onDispatch({ kind: 'straighten', ids: [id], straight: e.target.checked })}
          />
          straight
        </Flex>
        {corners.length > 0 && (
          <TipButton tip="let it find its own way again" onClick={() => onSay(`bend ${id}`)}>
            Unbend
          </TipButton>
        )}
      </Flex>
      <Text px="12px" pt="6px" color="soft" fontSize="12.5px">
        Press one of its ends and then a free hole to plug it elsewhere. Drag it aside to bend it, or type where it
        turns: bend {id} b1.c17 b1.c24.
      </Text>
    </Panel>
  );
}

/** A note, to be written anew or taken away. */
export function NoteCard({ note, onDispatch }: CardProps & { readonly note: BoardNote }) {
  const write = (text: string): void => {
    if (text.trim() !== note.text) onDispatch({ kind: 'note', note: { ...note, text: text.trim() } });
  };
  return (
    <Panel title={`Note at ${note.at}`} flex="1.3" actions={<Button onClick={() => write('')}>Remove</Button>}>
      <Box px="12px">
        <Textarea
          key={note.text}
          aria-label="text of the note"
          defaultValue={note.text}
          maxLength={400}
          rows={3}
          bg="paper"
          borderColor="line"
          onBlur={(e) => write(e.target.value)}
        />
      </Box>
    </Panel>
  );
}

function JumperSignal({ id }: { readonly id: string }) {
  const { board } = useJobView();
  const net = board.nets.nets.find((n) => n.jumpers.includes(id));
  const signal = net && board.names.get(net.index);
  return signal === undefined ? (
    <Text color="soft">It carries nothing that the design names.</Text>
  ) : (
    <Tag signal={signal} />
  );
}
