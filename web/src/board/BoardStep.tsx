import { Box } from '@chakra-ui/react';
import { type Edit, isBare, leadsOf, parseHole, printHole, readCommand, stripOf } from '@saddlebag/core';
import { type ReactNode, type RefObject, useMemo, useReducer, useRef, useState } from 'react';
import { useJobView } from '../base/job-context';
import { useLinked } from '../base/links';
import { useShortcuts } from '../base/shortcuts';
import { remedy, says } from '../base/words';
import { Beside, SideBySide } from '../kit/Beside';
import { BoardDrawing } from '../kit/board/BoardDrawing';
import { BoardMat, useIsFolded } from '../kit/board/BoardMat';
import type { BoardScene } from '../kit/board/scene';
import { areasAt, areasOfThings, type TargetArea } from '../kit/board/target-areas';
import { ABOVE_PANELS } from '../kit/board/use-growing';
import { gatesByPin, useScene } from '../kit/board/use-scene';
import { pin } from '../kit/follow';
import { BareBoard } from './BareBoard';
import { BoardTools } from './BoardTools';
import { boardShortcuts } from './board-shortcuts';
import { ChosenPanel } from './ChosenPanel';
import { FingerLens } from './FingerLens';
import { Ghost } from './Ghost';
import { GuideGhost } from './GuideGhost';
import { GuidePanel } from './GuidePanel';
import { idleHands } from './hand';
import { SignalsPanel } from './SignalsPanel';
import { Spoken } from './Spoken';
import { ThingsPanel } from './ThingsPanel';
import { useGuide } from './use-guide';
import { useHands } from './use-hands';

/** The board under the person's hands: by mouse, by key, and by typing pins. */
export default function BoardStep() {
  const { board } = useJobView();
  const scene = useScene(board);
  const work = useHands();
  const { hands, setHands, take } = work;
  const [guided, guide] = useReducer((now: boolean) => !now, false);
  const isFolded = useIsFolded('board') && !guided;
  const next = useGuide(guided);
  const layNext = (): boolean => next?.step != null && work.dispatch(next.step.edit);
  const choose = (what: string): void => setHands({ ...idleHands, cursor: hands.cursor, chosen: what });
  const chosen = useMemo(
    () => new Set(hands.chosen === null ? [] : [hands.chosen, ...hands.others]),
    [hands.chosen, hands.others],
  );
  const inView = useMemo(
    () => areasInView(scene, chosen, hands.cursor, next?.step?.edit ?? null),
    [scene, chosen, hands.cursor, next],
  );
  useLinkedThing(choose);
  const say = useSaying({ dispatch: work.dispatch, choose, refuse: work.setRefusal });
  const line = useRef<HTMLInputElement>(null);
  return (
    <SideBySide direction="column" flex="1" gap="10px">
      <BoardMat
        name="board"
        scene={scene}
        inView={inView}
        onPinch={() => take({ kind: 'key', key: 'Escape', shift: false })}
        tools={<BoardTools work={work} onSay={say} line={line} guided={guided} onGuide={guide} />}
      >
        <BoardUnderHands
          work={work}
          scene={scene}
          chosen={chosen}
          next={next}
          layNext={guided && hands.laying === null ? layNext : null}
          line={line}
        >
          {!guided && <BareBoard onGuide={guide} />}
        </BoardUnderHands>
      </BoardMat>
      <Beside title="Parts and signals" gap="10px" h="200px" flexShrink={0} display={isFolded ? 'none' : 'flex'}>
        {guided ? (
          <GuidePanel next={next} onLay={layNext} onLeave={guide} />
        ) : (
          <ThingsPanel chosen={chosen} onChoose={choose} />
        )}
        <ChosenPanel hands={hands} onDispatch={work.dispatch} onSay={say} />
        <SignalsPanel />
      </Beside>
    </SideBySide>
  );
}

/** Chooses the part or jumper that the address points at. */
function useLinkedThing(choose: (what: string) => void): void {
  const { parts, jumpers } = useJobView().job.board;
  useLinked('show', (what) => {
    if (parts[what] || jumpers[what]) choose(what);
  });
}

interface BoardUnderHandsProps {
  readonly work: ReturnType<typeof useHands>;
  readonly scene: BoardScene;
  readonly chosen: ReadonlySet<string>;
  readonly next: ReturnType<typeof useGuide>;
  /** Lays what the guide shows, while it waits for that. */
  readonly layNext: (() => boolean) | null;
  readonly line: RefObject<HTMLInputElement | null>;
  /** What lies over the board while nothing is on it. */
  readonly children: ReactNode;
}

/** The drawing as the hands meet it: the pointer, the keys, the cursor, and what is carried or comes next above it. */
function BoardUnderHands({ work, scene, chosen, next, layNext, line, children }: BoardUnderHandsProps) {
  const { job, board, colours } = useJobView();
  const { hands, svg, take, command, handlers } = work;
  const gateAt = useMemo(() => gatesByPin(board.wired), [board.wired]);
  const [focused, setFocused] = useState(false);
  const region = useRef<HTMLDivElement>(null);
  useShortcuts(
    'On the board',
    boardShortcuts({
      take,
      command,
      isOnBoard: (target) => target === region.current || target === document.body,
      follow: () => pin(signalAt(hands.chosen, hands.cursor, board) ?? null),
      type: () => line.current?.focus(),
      layNext,
    }),
  );
  const above = (
    <>
      <GuideGhost job={job} next={next} />
      <Ghost hands={hands} job={job} showCursor={focused} />
    </>
  );
  return (
    <Box
      ref={region}
      h="100%"
      position="relative"
      touchAction="none"
      tabIndex={0}
      role="application"
      aria-roledescription="breadboard"
      aria-label="board; arrows move the cursor, Enter lays a jumper, N steps through the parts"
      onFocus={() => setFocused(true)}
      onBlur={() => setFocused(false)}
      {...handlers}
    >
      <BoardDrawing
        {...{ scene, colours }}
        svgRef={svg}
        title="board"
        inSight={ABOVE_PANELS}
        overlay={{ gateAt, chosen, above }}
      />
      {isBare(job.board) && children}
      <FingerLens region={region} svg={svg} scene={scene} />
      <Spoken hands={hands} isOnBoard={focused} />
    </Box>
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
