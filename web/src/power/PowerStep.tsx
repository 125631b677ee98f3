import { Flex } from '@chakra-ui/react';
import { type Board, checkWalk, inputAt, isBare, placeNamed, typeOf } from '@saddlebag/core';
import { useEffect, useSyncExternalStore } from 'react';
import { useJobView } from '../base/job-context';
import { useLinked } from '../base/links';
import { type Shortcut, useShortcuts } from '../base/shortcuts';
import { useLatest } from '../base/use-latest';
import { Beside } from '../kit/Beside';
import { BoardMat, useIsFolded } from '../kit/board/BoardMat';
import { useScene } from '../kit/board/use-scene';
import { NoBoard } from '../kit/NoBoard';
import { Panel } from '../kit/Panel';
import { ControlPanel } from './ControlPanel';
import { LiveBoard } from './LiveBoard';
import { PowerTools } from './PowerTools';
import { runsByItself, switchKeys } from './switch-keys';
import { TracePanel } from './TracePanel';
import { useTracedAsKept } from './use-trace-setup';
import { useWalk } from './use-walk';
import { WalkPanel } from './WalkPanel';

/** Whether a reference is that of a push-button, which is on only as long as it is held. */
const isButton = ({ parts }: Board, ref: string): boolean => typeOf(parts[ref] ?? { part: '' })?.kind === 'push-button';

/** Lets a push-button go when its key is, or when the page loses the keys. */
function useLettingGo(buttons: ReadonlySet<string>, keyOf: (ref: string) => string | undefined): void {
  const { bench } = useJobView();
  const letGo = useLatest((key: string | null): void => {
    const off = [...buttons].filter((ref) => bench.isOn(ref) && (key === null || keyOf(ref)?.toLowerCase() === key));
    if (off.length > 0) bench.setSwitches(new Map(off.map((ref) => [ref, false])));
  });
  useEffect(() => {
    const onUp = (e: KeyboardEvent): void => letGo(e.key.toLowerCase());
    const onBlur = (): void => letGo(null);
    window.addEventListener('keyup', onUp);
    window.addEventListener('blur', onBlur);
    return () => {
      window.removeEventListener('keyup', onUp);
      window.removeEventListener('blur', onBlur);
    };
  }, [letGo]);
}

/** The switches that set the inputs of what is walked, by input; undefined where there is none. */
function useSwitches(): readonly (string | undefined)[] {
  const { job, subject } = useJobView();
  return subject.inputs.map((name) => placeNamed(job.board, 'give', name)?.called);
}

/** Each switch has its key: a press flips it, and holds a push-button for as long as the key is held, two at once if need be. */
function useSwitchKeys(): readonly Shortcut[] {
  const { job, bench, subject } = useJobView();
  const { inputs } = subject;
  const switches = useSwitches();
  const keys = switchKeys(inputs.filter((name) => !runsByItself(job.board, name)));
  const buttons = new Set(switches.flatMap((ref) => (ref !== undefined && isButton(job.board, ref) ? [ref] : [])));
  useLettingGo(buttons, (ref) => keys.get(inputs[switches.indexOf(ref)] ?? ''));
  return inputs.flatMap((name, i): Shortcut[] => {
    const [cap, ref] = [keys.get(name), switches[i]];
    if (cap === undefined || ref === undefined || runsByItself(job.board, name)) return [];
    const hold = (e: KeyboardEvent): void => {
      if (!e.repeat) bench.setSwitches(new Map([[ref, true]]));
    };
    const isHeld = buttons.has(ref);
    return [
      {
        cap,
        does: `${isHeld ? 'hold' : 'switch'} ${name}`,
        keys: [cap.toLowerCase()],
        take: isHeld ? hold : () => bench.flip(ref),
      },
    ];
  });
}

/** What sets the power and walks the table. */
function usePower() {
  const { job, bench, subject } = useJobView();
  const { inputs, stores } = subject;
  const switches = useSwitches();
  const { walk, stop } = useWalk();
  const canWalk = inputs.length > 0 && !stores && checkWalk(inputs.length).length === 0;
  const isOn = (): boolean => bench.snapshot().on;
  const power = useLatest((): void => (isOn() ? bench.powerOff() : bench.powerOn()));
  const startWalk = useLatest((): void => {
    if (!canWalk) return;
    if (!isOn()) bench.powerOn();
    walk();
  });
  const setRow = useLatest((row: number): void => {
    if (!isOn()) bench.powerOn();
    const positions = switches.flatMap((ref, i) =>
      ref === undefined || runsByItself(job.board, inputs[i] ?? '')
        ? []
        : [[ref, inputAt(inputs.length, i, row) === 1] as const],
    );
    bench.setSwitches(new Map(positions));
  });
  return { switches, canWalk, power, startWalk, stop, setRow };
}

/**
 * The board under power: switches and LEDs live, levels on strips and in chips, and the table walked row
 * by row. The parts that change with every switch listen to the bench themselves; this one does not.
 */
export default function PowerStep() {
  const { id, job, board } = useJobView();
  useTracedAsKept();
  const scene = useScene(board);
  const work = usePower();
  const flips = useSwitchKeys();
  const isFolded = useIsFolded('power');
  useLinked(
    'row',
    (row) => {
      if (/^\d{1,5}$/.test(row)) work.setRow(Number(row));
    },
    work.canWalk,
  );
  useShortcuts('Under power', [
    // Space is power whatever has the focus: buttons answer to Enter as well.
    { cap: 'Space', does: 'power', keys: ['Space'], take: work.power, isFirst: true },
    ...(work.canWalk ? [{ cap: 'W', does: 'walk the table', keys: ['w'], take: work.startWalk, isFirst: true }] : []),
    ...flips,
  ]);
  if (isBare(job.board))
    return (
      <Panel title="Power up" flex="1">
        <NoBoard jobId={id} why="There is no board to power yet." />
      </Panel>
    );
  return (
    <>
      <Beside title="Table and trace" flexShrink={0} minH="0" display={isFolded ? 'none' : 'flex'}>
        <WhatIsSeen work={work} />
      </Beside>
      <Flex direction="column" flex="1" minW="0" minH="0" gap="10px">
        <BoardMat name="power" scene={scene} tools={<PowerTools onPower={work.power} />}>
          <LiveBoard scene={scene} />
        </BoardMat>
        <Beside title="Switches and lamps" direction="column" flexShrink={0} display={isFolded ? 'none' : 'flex'}>
          <ControlPanel />
        </Beside>
      </Flex>
    </>
  );
}

/** The table beside the board, or the trace: what stores something has no table, anything else may be traced. */
function WhatIsSeen({ work }: { readonly work: ReturnType<typeof usePower> }) {
  const { bench, subject } = useJobView();
  const shows = useSyncExternalStore(bench.subscribe, () => bench.snapshot().shows);
  if (subject.stores || shows === 'trace')
    return <TracePanel onTable={subject.stores ? null : () => bench.show('table')} />;
  const { switches, startWalk, stop, setRow } = work;
  return (
    <WalkPanel
      switches={switches}
      onWalk={startWalk}
      onStop={stop}
      onSet={setRow}
      onTrace={() => bench.show('trace')}
    />
  );
}
