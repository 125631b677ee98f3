import { Box, Flex } from '@chakra-ui/react';
import { type Edit, isBare, leadsOf, parseHole, printHole, readCommand, remedy, says, stripOf } from '@saddlebag/core';
import { useMemo, useRef, useState } from 'react';
import { useJobView } from '../base/job-context';
import { useShortcuts } from '../base/shortcuts';
import { BoardDrawing } from '../kit/board/BoardDrawing';
import { BoardMat } from '../kit/board/BoardMat';
import type { BoardScene } from '../kit/board/scene';
import { areasAt, areasOfThings, type TargetArea } from '../kit/board/target-areas';
import { ABOVE_PANELS } from '../kit/board/use-growing';
import { gatesByPin, useScene } from '../kit/board/use-scene';
import { pin } from '../kit/follow';
import { BareBoard } from './BareBoard';
import { BoardTools } from './BoardTools';
import { boardShortcuts } from './board-shortcuts';
import { ChosenPanel } from './ChosenPanel';
import { Ghost } from './Ghost';
import { GuideGhost } from './GuideGhost';
import { GuidePanel } from './GuidePanel';
import { idleHands } from './hand';
import { SignalsPanel } from './SignalsPanel';
import { ThingsPanel } from './ThingsPanel';
import { useGuide } from './use-guide';
import { useHands } from './use-hands';

/** The board under the person's hands: by mouse, by key, and by typing pins. */
export default function BoardStep() {
  const { job, board, colours } = useJobView();
  const scene = useScene(board);
  const gateAt = useMemo(() => gatesByPin(board.wired), [board.wired]);
  const { hands, setHands, command, refusal, setRefusal, svg, dispatch, take, handlers } = useHands();
  const [focused, setFocused] = useState(false);
  const [guided, setGuided] = useState(false);
  const next = useGuide(guided);
  const layNext = (): boolean => next?.step != null && dispatch(next.step.edit);
  const line = useRef<HTMLInputElement>(null);
  const region = useRef<HTMLDivElement>(null);
  useShortcuts(
    'On the board',
    boardShortcuts({
      take,
      command,
      isOnBoard: (target) => target === region.current || target === document.body,
      follow: () => pin(signalAt(hands.chosen, hands.cursor, board) ?? null),
      type: () => line.current?.focus(),
      layNext: guided && hands.laying === null ? layNext : null,
    }),
  );
  const choose = (what: string): void => setHands({ ...idleHands, cursor: hands.cursor, chosen: what });
  const chosen = useMemo(
    () => new Set(hands.chosen === null ? [] : [hands.chosen, ...hands.others]),
    [hands.chosen, hands.others],
  );
  const inView = useMemo(
    () => areasInView(scene, chosen, hands.cursor, next?.step?.edit ?? null),
    [scene, chosen, hands.cursor, next],
  );
  const say = useSaying({ dispatch, choose, refuse: setRefusal });
  return (
    <Flex direction="column" flex="1" minW="0" minH="0" gap="10px">
      <BoardMat
        scene={scene}
        inView={inView}
        onPinch={() => take({ kind: 'key', key: 'Escape', shift: false })}
        tools={
          <BoardTools
            onSay={say}
            line={line}
            refusal={refusal}
            onDispatch={dispatch}
            guided={guided}
            onGuide={() => setGuided(!guided)}
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
            inSight={ABOVE_PANELS}
            overlay={{
              gateAt,
              chosen,
              above: (
                <>
                  <GuideGhost job={job} next={next} />
                  <Ghost hands={hands} job={job} showCursor={focused} />
                </>
              ),
            }}
          />
          {isBare(job.board) && !guided && <BareBoard onGuide={() => setGuided(true)} />}
        </Box>
      </BoardMat>
      <Flex gap="10px" h="200px" flexShrink={0}>
        {guided ? (
          <GuidePanel next={next} onLay={layNext} onLeave={() => setGuided(false)} />
        ) : (
          <ThingsPanel chosen={chosen} onChoose={choose} />
        )}
        <ChosenPanel hands={hands} onDispatch={dispatch} onSay={say} />
        <SignalsPanel />
      </Flex>
    </Flex>
  );
}

interface Saying {
  readonly dispatch: (edit: Edit) => boolean;
  readonly choose: (what: string) => void;
  readonly refuse: (words: string) => void;
}

/** Does what a typed command says; a part that it seats is chosen. Returns whether it was done; otherwise why not goes to `refuse`. */
function useSaying({ dispatch, choose, refuse }: Saying): (text: string) => boolean {
  const { job, reading } = useJobView();
  return (text) => {
    const own = reading?.ownParts.map((p) => p.text);
    const read = readCommand(job.board, text, own);
    if (read.ok) {
      const done = dispatch(read.edit);
      if (done && read.edit.kind === 'seat') choose(read.edit.part.ref);
      return done;
    }
    refuse(`${says(read.finding)} ${remedy(read.finding)}`);
    return false;
  };
}

/** What should be in view: what comes next when the person is guided, otherwise what is chosen, otherwise the cursor. */
function areasInView(scene: BoardScene, chosen: ReadonlySet<string>, cursor: string, next: Edit | null): TargetArea[] {
  const holes = (...all: string[]): TargetArea[] =>
    areasAt(
      all.map((hole) => ({ kind: 'hole', hole })),
      scene,
    );
  if (next?.kind === 'lay-jumper') return holes(next.jumper.from, next.jumper.to);
  if (next?.kind === 'seat') return holes(...leadsOf(next.part).flatMap(({ hole }) => (hole ? [printHole(hole)] : [])));
  return chosen.size > 0 ? areasOfThings(chosen, scene) : holes(cursor);
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
  const hole = parseHole(jumper?.from ?? cursor);
  const net = hole && nets.ofStrip.get(stripOf(hole));
  return net == null ? undefined : names.get(net);
}
