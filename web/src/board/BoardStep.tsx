import { Box, Button, Flex, Input, NativeSelect, Text } from '@chakra-ui/react';
import {
  benchParts,
  chips,
  type Edit,
  isBare,
  isOutdated,
  leadsOf,
  type Packing,
  partNumber,
  printHole,
  readCommand,
  remedy,
  says,
} from '@saddlebag/core';
import { useMemo, useRef, useState } from 'react';
import { useJobView } from '../app/job-context';
import { isWriting, useKeys } from '../app/keys';
import { BoardDrawing } from '../kit/board/BoardDrawing';
import { BoardMat } from '../kit/board/BoardMat';
import type { BoardScene } from '../kit/board/scene';
import { type Spot, spotsAt, spotsOfThings } from '../kit/board/spots';
import { gatesByPin, useScene } from '../kit/board/use-scene';
import { pin } from '../kit/follow';
import { BoardsMenu } from './BoardsMenu';
import { ChosenPanel } from './ChosenPanel';
import { Ghost } from './Ghost';
import { idleHands } from './hand';
import { LeadGhost } from './LeadGhost';
import { LeadPanel } from './LeadPanel';
import { Pictures } from './Pictures';
import { SignalsPanel } from './SignalsPanel';
import { ThingsPanel } from './ThingsPanel';
import { useHands } from './use-hands';
import { type LayingOut, useLayOut } from './use-lay-out';
import { useLead } from './use-lead';

/** The board under the person's hands: by mouse, by key, and by typing pins. */
export default function BoardStep() {
  const { job, board, colours, reading } = useJobView();
  const scene = useScene(board);
  const gateAt = useMemo(() => gatesByPin(board.wired), [board.wired]);
  const { hands, setHands, command, refusal, setRefusal, svg, dispatch, take, handlers } = useHands();
  const [focused, setFocused] = useState(false);
  const [led, setLed] = useState(false);
  const next = useLead(led);
  const layNext = (): boolean => next?.step != null && dispatch(next.step.edit);
  const line = useRef<HTMLInputElement>(null);
  const region = useRef<HTMLDivElement>(null);
  useKeys((e) => {
    const onBoard = e.target === region.current || e.target === document.body;
    if (isWriting(e.target) || e.altKey) return false;
    if (e.ctrlKey || e.metaKey) return onBoard && command(e.key.toLowerCase());
    if (e.key === '/') {
      line.current?.focus();
      return true;
    }
    if (e.key.toLowerCase() === 'f') {
      pin(signalAt(hands.chosen, hands.cursor, board) ?? null);
      return true;
    }
    if (!onBoard && (e.key === 'Enter' || e.key.startsWith('Arrow'))) return false;
    if (e.key === 'Enter' && led && hands.laying === null) {
      layNext();
      return true;
    }
    return take({ kind: 'key', key: e.key, shift: e.shiftKey });
  });
  const choose = (what: string): void => setHands({ ...idleHands, cursor: hands.cursor, chosen: what });
  const chosen = useMemo(
    () => new Set(hands.chosen === null ? [] : [hands.chosen, ...hands.others]),
    [hands.chosen, hands.others],
  );
  const inSight = useMemo(
    () => sightOf(scene, chosen, hands.cursor, next?.step?.edit ?? null),
    [scene, chosen, hands.cursor, next],
  );
  const say = (text: string): boolean => {
    const read = readCommand(
      job.board,
      text,
      reading?.ownParts.map((p) => p.text),
    );
    if (read.ok) return dispatch(read.edit);
    setRefusal(`${says(read.finding)} ${remedy(read.finding)}`);
    return false;
  };
  return (
    <Flex direction="column" flex="1" minW="0" minH="0" gap="10px">
      <BoardMat
        scene={scene}
        inSight={inSight}
        onPinch={() => take({ kind: 'key', key: 'Escape', shift: false })}
        tools={
          <BoardTools
            onSay={say}
            line={line}
            refusal={refusal}
            onDispatch={dispatch}
            led={led}
            onLead={() => setLed(!led)}
          />
        }
      >
        <Box
          ref={region}
          h="100%"
          position="relative"
          touchAction="none"
          tabIndex={0}
          role="application"
          aria-label="board; arrows move the cursor, Enter lays a jumper, N steps through the parts"
          onFocus={() => setFocused(true)}
          onBlur={() => setFocused(false)}
          {...handlers}
        >
          <BoardDrawing
            scene={scene}
            colours={colours}
            svgRef={svg}
            title="board"
            overlay={{
              gateAt,
              chosen,
              above: (
                <>
                  <LeadGhost job={job} next={next} />
                  <Ghost hands={hands} job={job} showCursor={focused} />
                </>
              ),
            }}
          />
          {isBare(job.board) && !led && <BareBoard onLead={() => setLed(true)} />}
        </Box>
      </BoardMat>
      <Flex gap="10px" h="200px" flexShrink={0}>
        {led ? (
          <LeadPanel next={next} onLay={layNext} onLeave={() => setLed(false)} />
        ) : (
          <ThingsPanel chosen={chosen} onChoose={choose} />
        )}
        <ChosenPanel hands={hands} onDispatch={dispatch} onSay={say} />
        <SignalsPanel />
      </Flex>
    </Flex>
  );
}

/** What should be in view: what comes next when the person is led, otherwise what is chosen, otherwise the cursor. */
function sightOf(scene: BoardScene, chosen: ReadonlySet<string>, cursor: string, next: Edit | null): Spot[] {
  const holes = (...all: string[]): Spot[] =>
    spotsAt(
      all.map((hole) => ({ kind: 'hole', hole })),
      scene,
    );
  if (next?.kind === 'lay-jumper') return holes(next.jumper.from, next.jumper.to);
  if (next?.kind === 'seat') return holes(...leadsOf(next.part).flatMap(({ hole }) => (hole ? [printHole(hole)] : [])));
  return chosen.size > 0 ? spotsOfThings(chosen, scene) : holes(cursor);
}

/** The signal of what is chosen, or of the strip at the cursor. */
function signalAt(
  chosen: string | null,
  cursor: string,
  { board, nets, names }: ReturnType<typeof useJobView>['board'],
): string | undefined {
  const jumper = chosen === null ? undefined : board.jumpers[chosen];
  const part = chosen === null ? undefined : board.parts[chosen];
  if (part) return part.signal ?? part.labels?.[0]?.signal;
  const strip = (jumper?.from ?? cursor).replace(
    /\.([a-j])(\d+)$/,
    (_, row: string, column: string) => `.${column}${row <= 'e' ? 'e' : 'f'}`,
  );
  const net = nets.ofStrip.get(strip);
  return net === undefined ? undefined : names.get(net);
}

interface BoardToolsProps {
  readonly onSay: (text: string) => boolean;
  readonly onDispatch: ReturnType<typeof useHands>['dispatch'];
  readonly line: React.RefObject<HTMLInputElement | null>;
  readonly refusal: string | null;
  readonly led: boolean;
  readonly onLead: () => void;
}

function BoardTools({ onSay, onDispatch, line, refusal, led, onLead }: BoardToolsProps) {
  const { job } = useJobView();
  const packing = usePackingToLay();
  const [text, setText] = useState('');
  const laying = useLayOut();
  return (
    <>
      <form
        onSubmit={(e) => {
          e.preventDefault();
          if (onSay(text)) setText('');
        }}
      >
        <Input
          ref={line}
          aria-label="type to the board"
          placeholder="U1.8 > U3.2"
          _placeholder={{ color: 'soft' }}
          value={text}
          onChange={(e) => setText(e.target.value)}
          fontFamily="mono"
          fontSize="13px"
          h="28px"
          w="190px"
          bg="card"
          borderColor="line"
          maxLength={80}
        />
      </form>
      <SeatMenu onSeat={(part) => onSay(`seat ${part}`)} />
      <BoardsMenu onSay={onSay} />
      {!isBare(job.board) && packing && (
        <>
          {isOutdated(job, packing) && (
            <Button variant="solid" onClick={laying.update}>
              Bring up to date
            </Button>
          )}
          <Button onClick={laying.afresh}>Lay out afresh</Button>
        </>
      )}
      {packing && (
        <Button variant={led ? 'solid' : 'outline'} aria-pressed={led} onClick={onLead}>
          Lead me
        </Button>
      )}
      {!isBare(job.board) && <Button onClick={() => onDispatch({ kind: 'clear-board' })}>Clear</Button>}
      <Pictures />
      <Progress laying={laying} />
      <Text role="status" fontSize="12.5px" color="bad" truncate title={refusal ?? undefined} minW="0">
        {refusal}
      </Text>
    </>
  );
}

const seatable = [
  ...benchParts.map((p) => ({ name: p.id, title: p.title })),
  ...chips.map((c) => ({ name: partNumber(c.base, 'HC'), title: c.title })),
];

function SeatMenu({ onSeat }: { readonly onSeat: (part: string) => void }) {
  return (
    <NativeSelect.Root size="xs" width="112px">
      <NativeSelect.Field
        aria-label="seat a part"
        value=""
        bg="card"
        borderColor="line"
        h="28px"
        fontSize="13px"
        onChange={(e) => onSeat(e.target.value)}
      >
        <option value="">Seat a …</option>
        {seatable.map(({ name, title }) => (
          <option key={name} value={name}>
            {name === title ? name : `${name}: ${title}`}
          </option>
        ))}
      </NativeSelect.Field>
    </NativeSelect.Root>
  );
}

/** How far a layout is, with a way to stop it. */
function Progress({ laying: { share, stop } }: { readonly laying: LayingOut }) {
  if (share === null) return null;
  return (
    <Flex align="center" gap="6px" role="status">
      <Text fontSize="12.5px">laying out {Math.round(100 * share)} %</Text>
      <Button onClick={stop}>Stop</Button>
    </Flex>
  );
}

/** The packing, once the sheet has something to lay out. */
function usePackingToLay(): Packing | null {
  const { packing, reading } = useJobView();
  return (reading?.design.outputs.length ?? 0) > 0 ? packing : null;
}

/** What to do with an empty board. */
function BareBoard({ onLead }: { readonly onLead: () => void }) {
  const ready = usePackingToLay() !== null;
  const laying = useLayOut();
  return (
    <Flex position="absolute" inset="0" align="center" justify="center" pointerEvents="none">
      <Box
        bg="card"
        borderWidth="1px"
        borderColor="line"
        rounded="10px"
        p="18px 22px"
        textAlign="center"
        pointerEvents="auto"
        onPointerDown={(e) => e.stopPropagation()}
      >
        <Text fontFamily="heading" fontWeight="600" fontSize="18px">
          The board is bare
        </Text>
        <Text color="soft" mb="12px" maxW="360px">
          {ready
            ? 'Have everything laid out, be led through it, or seat parts and lay jumpers yourself.'
            : 'Write a sheet first, or seat parts and lay jumpers yourself.'}
        </Text>
        <Flex gap="8px" justify="center">
          <Button size="md" variant="solid" disabled={!ready || laying.share !== null} onClick={laying.afresh}>
            Lay it all out
          </Button>
          <Button size="md" disabled={!ready} onClick={onLead}>
            Lead me wire by wire
          </Button>
          <Progress laying={laying} />
        </Flex>
      </Box>
    </Flex>
  );
}
