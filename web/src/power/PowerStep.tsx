import { Button, Flex, Text } from '@chakra-ui/react';
import { agrees, checkWalk, isBare, MAX_EVENTS, says, valueAt } from '@saddlebag/core';
import { type MouseEvent, useMemo, useSyncExternalStore } from 'react';
import { Link } from 'react-router';
import { useJobView } from '../app/job-context';
import { isWriting, useKeys } from '../app/keys';
import { useTable } from '../app/use-table';
import { BoardDrawing, type BoardOverlay } from '../kit/board/BoardDrawing';
import { BoardMat } from '../kit/board/BoardMat';
import { gatesByPin, useScene } from '../kit/board/use-scene';
import { Empty, Panel } from '../kit/Panel';
import { ControlPanel } from './ControlPanel';
import { switchKeys } from './switch-keys';
import { useWalk } from './use-walk';
import { WalkTable } from './WalkTable';

/** The board under power: switches and LEDs live, levels on strips and in chips, and the table walked row by row. */
export default function PowerStep() {
  const { id, job, packing, reading, board, colours, bench } = useJobView();
  const state = useSyncExternalStore(bench.subscribe, bench.snapshot);
  const scene = useScene(board);
  const gateAt = useMemo(() => gatesByPin(packing), [packing]);
  const netlist = reading?.design.netlist ?? null;
  const inputs = netlist?.inputs ?? [];
  const { walk, stop } = useWalk(netlist);
  const tooWide = checkWalk(inputs.length);
  const table = useTable(tooWide.length === 0 ? netlist : null);
  const switches = inputs.map(
    (name) => Object.values(job.board.parts).find((p) => p.part === 'switch' && p.signal === name)?.ref,
  );
  const power = (): void => (state.on ? bench.powerOff() : bench.powerOn());
  const startWalk = (): void => {
    if (!state.on) bench.powerOn();
    walk();
  };
  const setRow = (row: number): void => {
    if (!state.on) bench.powerOn();
    const positions = switches.flatMap((ref, i) =>
      ref === undefined ? [] : [[ref, ((row >>> (inputs.length - 1 - i)) & 1) === 1] as const],
    );
    bench.setSwitches(new Map(positions));
  };
  const current = state.on
    ? switches.reduce((row, ref) => 2 * row + Number(ref !== undefined && bench.isOn(ref)), 0)
    : null;
  const keys = switchKeys(inputs);
  useKeys((e) => {
    if (isWriting(e.target) || e.ctrlKey || e.altKey || e.metaKey) return false;
    const onButton = (e.target as HTMLElement).closest?.('button, a') !== null;
    if (e.key === ' ' && !onButton) power();
    else if (e.key.toLowerCase() === 'w') startWalk();
    else {
      const index = inputs.findIndex((name) => keys.get(name) === e.key.toUpperCase());
      const ref = switches[index];
      if (ref === undefined) return false;
      bench.flip(ref);
    }
    return true;
  });
  const press = (e: MouseEvent): void => {
    const ref = (e.target as Element).closest('[data-ref]')?.getAttribute('data-ref');
    if (ref && job.board.parts[ref]?.part === 'switch') bench.flip(ref);
  };
  // A new overlay for every state of the bench, since the drawing asks the bench for its levels.
  const overlay = useMemo((): BoardOverlay => {
    const live = state.on
      ? { levelOf: (net: number) => bench.levelOf(net), ledState: (ref: string) => bench.led(ref) }
      : {};
    return { gateAt, isOn: (ref) => bench.isOn(ref), ...live };
  }, [state, gateAt, bench]);
  if (isBare(job.board))
    return (
      <Panel title="Power up" flex="1">
        <Empty>
          There is no board to power yet.{' '}
          <Link to={`/job/${id}/board`} style={{ textDecoration: 'underline' }}>
            Lay it out at Board
          </Link>{' '}
          first.
        </Empty>
      </Panel>
    );
  const rows = table?.rows ?? 0;
  return (
    <>
      <Panel title="Truth table" hint="wanted by the sheet · seen on the board" w="372px" flexShrink={0}>
        {tooWide.length > 0 && <Empty>{tooWide.map(says).join(' ')} Set the rows you care about by hand.</Empty>}
        {netlist && table && (
          <WalkTable netlist={netlist} table={table} walked={state.walked} current={current} onSet={setRow} />
        )}
        {!netlist && (
          <Empty>The sheet has a mistake, so there is nothing to compare with. The switches work all the same.</Empty>
        )}
        <Flex gap="8px" p="10px 12px" borderTopWidth="1px" borderColor="line" align="center" flexShrink={0}>
          {state.walking ? (
            <Button size="md" onClick={stop}>
              Stop
            </Button>
          ) : (
            <Button size="md" variant="solid" disabled={!netlist || tooWide.length > 0} onClick={startWalk}>
              Walk the table
            </Button>
          )}
          <WalkCount rows={rows} />
        </Flex>
      </Panel>
      <Flex direction="column" flex="1" minW="0" minH="0" gap="10px">
        <BoardMat scene={scene} tools={<PowerTools onPower={power} />}>
          {/* biome-ignore lint/a11y/noStaticElementInteractions: every switch is a button with a key in the panel below */}
          {/* biome-ignore lint/a11y/useKeyWithClickEvents: see above */}
          <div style={{ height: '100%' }} onClick={press}>
            <BoardDrawing scene={scene} colours={colours} title="board under power" overlay={overlay} />
          </div>
        </BoardMat>
        <ControlPanel />
      </Flex>
    </>
  );
}

/** How many rows were run and how many of them agree. */
function WalkCount({ rows }: { readonly rows: number }) {
  const { bench, reading } = useJobView();
  const { walked, walking } = useSyncExternalStore(bench.subscribe, bench.snapshot);
  const differing = useDiffering();
  if (!reading || walked.size === 0)
    return (
      <Text color="soft" fontSize="12.5px">
        sets every row on the switches and reads the LEDs
      </Text>
    );
  return (
    <Text role="status" fontSize="13px" color={differing > 0 ? 'bad' : walking ? 'soft' : 'ok'} fontWeight="700">
      {walked.size} of {rows} rows seen
      {differing > 0 ? `, ${differing} differ` : walked.size === rows ? ', all agree' : ''}
    </Text>
  );
}

function useDiffering(): number {
  const { bench, reading } = useJobView();
  const { walked } = useSyncExternalStore(bench.subscribe, bench.snapshot);
  const table = useTable(reading?.design.netlist ?? null);
  return useMemo(() => {
    if (!table) return 0;
    const wanted = (row: number) => table.columns.map((_, o) => valueAt(table, o, row));
    return [...walked.values()].filter(({ row, seen }) => !agrees(seen, wanted(row))).length;
  }, [walked, table]);
}

function PowerTools({ onPower }: { readonly onPower: () => void }) {
  const { bench, findings } = useJobView();
  const { on, shorted, settled } = useSyncExternalStore(bench.subscribe, bench.snapshot);
  const toFix = findings?.filter((f) => f.severity === 'error').length ?? 0;
  return (
    <>
      <Button
        size="md"
        h="28px"
        variant="solid"
        bg={on ? 'bad' : 'moss'}
        borderColor={on ? 'bad' : 'moss'}
        color={on ? 'onBad' : 'onMoss'}
        onClick={onPower}
      >
        {on ? 'Power off' : 'Power on'}
      </Button>
      <Text fontSize="13px" role="status" color={shorted || settled?.settled === false ? 'bad' : 'ink'} truncate>
        {!on &&
          (toFix > 0 ? `${toFix} findings to fix before a real board is powered` : 'switches answer to their letters')}
        {on && shorted && 'supply and ground are joined: on the bench this would smoke'}
        {on &&
          !shorted &&
          settled?.settled === false &&
          `does not come to rest after ${MAX_EVENTS} changes; what swings is shown as ?`}
        {on &&
          !shorted &&
          settled?.settled === true &&
          `5 V · at rest after ${Math.round(settled.timeNs)} ns of changes`}
      </Text>
    </>
  );
}
