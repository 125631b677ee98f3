import { Flex } from '@chakra-ui/react';
import { checkWalk, inputAt, isBare, placeNamed } from '@saddlebag/core';
import { useSyncExternalStore } from 'react';
import { useJobView } from '../base/job-context';
import { type Shortcut, useShortcuts } from '../base/shortcuts';
import { useLatest } from '../base/use-latest';
import { BoardMat } from '../kit/board/BoardMat';
import { useScene } from '../kit/board/use-scene';
import { NoBoard } from '../kit/NoBoard';
import { Panel } from '../kit/Panel';
import { ControlPanel } from './ControlPanel';
import { LiveBoard } from './LiveBoard';
import { PowerTools } from './PowerTools';
import { switchKeys } from './switch-keys';
import { TracePanel } from './TracePanel';
import { useWalk } from './use-walk';
import { WalkPanel } from './WalkPanel';

/**
 * The board under power: switches and LEDs live, levels on strips and in chips, and the table walked row
 * by row. The parts that change with every switch listen to the bench themselves; this one does not.
 */
export default function PowerStep() {
  const { id, job, board, bench, subject } = useJobView();
  const scene = useScene(board);
  const { inputs } = subject;
  const canWalk = inputs.length > 0 && !subject.stores && checkWalk(inputs.length).length === 0;
  const { walk, stop } = useWalk();
  // What stores something has no table: its signals are traced. Anything else may be.
  const shows = useSyncExternalStore(bench.subscribe, () => bench.snapshot().shows);
  const isTraced = shows === 'trace' || subject.stores;
  const switches = inputs.map((name) => placeNamed(job.board, 'give', name)?.called);
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
      ref === undefined ? [] : [[ref, inputAt(inputs.length, i, row) === 1] as const],
    );
    bench.setSwitches(new Map(positions));
  });
  const keys = switchKeys(inputs);
  const flips = inputs.flatMap((name, i): Shortcut[] => {
    const [key, ref] = [keys.get(name), switches[i]];
    if (key === undefined || ref === undefined) return [];
    return [{ cap: key, does: `switch ${name}`, keys: [key.toLowerCase()], take: () => bench.flip(ref) }];
  });
  useShortcuts('Under power', [
    // Space is power whatever has the focus: buttons answer to Enter as well.
    { cap: 'Space', does: 'power', keys: ['Space'], take: power, isFirst: true },
    ...(canWalk ? [{ cap: 'W', does: 'walk the table', keys: ['w'], take: startWalk, isFirst: true }] : []),
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
      {isTraced ? (
        <TracePanel onTable={subject.stores ? null : () => bench.show('table')} />
      ) : (
        <WalkPanel
          switches={switches}
          onWalk={startWalk}
          onStop={stop}
          onSet={setRow}
          onTrace={() => bench.show('trace')}
        />
      )}
      <Flex direction="column" flex="1" minW="0" minH="0" gap="10px">
        <BoardMat scene={scene} tools={<PowerTools onPower={power} />}>
          <LiveBoard scene={scene} />
        </BoardMat>
        <ControlPanel />
      </Flex>
    </>
  );
}
