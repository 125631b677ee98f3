import { Flex } from '@chakra-ui/react';
import { inputAt, isBare, labelledPlaces } from '@saddlebag/core';
import { useJobView } from '../app/job-context';
import { isWriting, useKeys } from '../app/keys';
import { useLatest } from '../app/use-latest';
import { BoardMat } from '../kit/board/BoardMat';
import { useScene } from '../kit/board/use-scene';
import { NoBoard } from '../kit/NoBoard';
import { Panel } from '../kit/Panel';
import { ControlPanel } from './ControlPanel';
import { LiveBoard } from './LiveBoard';
import { PowerTools } from './PowerTools';
import { switchKeys } from './switch-keys';
import { useWalk } from './use-walk';
import { WalkPanel } from './WalkPanel';

/**
 * The board under power: switches and LEDs live, levels on strips and in chips, and the table walked row
 * by row. The parts that change with every switch listen to the bench themselves; this one does not.
 */
export default function PowerStep() {
  const { id, job, reading, board, bench } = useJobView();
  const scene = useScene(board);
  const netlist = reading?.design.netlist ?? null;
  const inputs = netlist?.inputs ?? [];
  const stores = (reading?.design.behaviour?.stored.length ?? 0) > 0;
  const { walk, stop } = useWalk(netlist);
  const givers = labelledPlaces(job.board, 'give');
  const switches = inputs.map((name) => givers.find((p) => p.signal === name)?.called);
  const isOn = (): boolean => bench.snapshot().on;
  const power = useLatest((): void => (isOn() ? bench.powerOff() : bench.powerOn()));
  const startWalk = useLatest((): void => {
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
  useKeys((e) => {
    if (isWriting(e.target) || e.ctrlKey || e.altKey || e.metaKey) return false;
    const onButton = (e.target as HTMLElement).closest?.('button, a') !== null;
    if (e.key === ' ' && !onButton) power();
    else if (e.key.toLowerCase() === 'w' && !stores) startWalk();
    else {
      const index = inputs.findIndex((name) => keys.get(name) === e.key.toUpperCase());
      const ref = switches[index];
      if (ref === undefined) return false;
      bench.flip(ref);
    }
    return true;
  });
  if (isBare(job.board))
    return (
      <Panel title="Power up" flex="1">
        <NoBoard jobId={id} why="There is no board to power yet." />
      </Panel>
    );
  return (
    <>
      <WalkPanel netlist={netlist} switches={switches} onWalk={startWalk} onStop={stop} onSet={setRow} />
      <Flex direction="column" flex="1" minW="0" minH="0" gap="10px">
        <BoardMat scene={scene} tools={<PowerTools onPower={power} />}>
          <LiveBoard scene={scene} />
        </BoardMat>
        <ControlPanel />
      </Flex>
    </>
  );
}
