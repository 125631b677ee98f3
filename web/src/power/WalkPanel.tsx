import { Button, Flex, Text } from '@chakra-ui/react';
import { agrees, checkWalk, type Netlist, says, type Table, wantedAt } from '@saddlebag/core';
import { useMemo, useSyncExternalStore } from 'react';
import { useJobView } from '../app/job-context';
import { useTable } from '../app/use-table';
import { Empty, Panel } from '../kit/Panel';
import { isWide, WalkTable } from './WalkTable';

interface WalkPanelProps {
  readonly netlist: Netlist | null;
  /** The switch of each input, in order; undefined where the board has none. */
  readonly switches: readonly (string | undefined)[];
  readonly onWalk: () => void;
  readonly onStop: () => void;
  readonly onSet: (row: number) => void;
}

/** What the sheet wants beside what the board shows, and the walk that fills it in. */
export function WalkPanel({ netlist, switches, onWalk, onStop, onSet }: WalkPanelProps) {
  const tooWide = checkWalk(switches.length);
  const wide = netlist !== null && isWide(netlist);
  const { reading } = useJobView();
  const behaviour = reading?.design.behaviour ?? null;
  const stores = behaviour !== null && behaviour.stored.length > 0;
  const table = useTable(tooWide.length === 0 ? behaviour : null);
  return (
    <Panel
      title="Truth table"
      hint="wanted by the sheet · seen on the board"
      w={wide ? '430px' : '372px'}
      flexShrink={0}
    >
      {tooWide.length > 0 && <Empty>{tooWide.map(says).join(' ')} Set the rows you care about by hand.</Empty>}
      {netlist && table && <LiveTable netlist={netlist} table={table} switches={switches} onSet={onSet} />}
      {stores && (
        <Empty>
          It stores something, so a table of its switches cannot tell its lamps. Set the switches by hand; the states
          stand at Design.
        </Empty>
      )}
      {!netlist && (
        <Empty>The sheet has a mistake, so there is nothing to compare with. The switches work all the same.</Empty>
      )}
      <Flex gap="8px" p="10px 12px" borderTopWidth="1px" borderColor="line" align="center" flexShrink={0}>
        <WalkButton disabled={!netlist || stores || tooWide.length > 0} onWalk={onWalk} onStop={onStop} />
        {table && <WalkCount table={table} />}
      </Flex>
    </Panel>
  );
}

function LiveTable({
  netlist,
  table,
  switches,
  onSet,
}: Omit<WalkPanelProps, 'onWalk' | 'onStop' | 'netlist'> & { netlist: Netlist; table: Table }) {
  const { bench } = useJobView();
  const { on, walked } = useSyncExternalStore(bench.subscribe, bench.snapshot);
  const row = switches.reduce((sum, ref) => 2 * sum + Number(ref !== undefined && bench.isOn(ref)), 0);
  return <WalkTable netlist={netlist} table={table} walked={walked} current={on ? row : null} onSet={onSet} />;
}

interface WalkButtonProps extends Pick<WalkPanelProps, 'onWalk' | 'onStop'> {
  readonly disabled: boolean;
}

function WalkButton({ disabled, onWalk, onStop }: WalkButtonProps) {
  const { bench } = useJobView();
  const { walking } = useSyncExternalStore(bench.subscribe, bench.snapshot);
  if (walking)
    return (
      <Button size="md" onClick={onStop}>
        Stop
      </Button>
    );
  return (
    <Button size="md" variant="solid" disabled={disabled} onClick={onWalk}>
      Walk the table
    </Button>
  );
}

/** How many rows were run and how many of them agree. */
function WalkCount({ table }: { readonly table: Table }) {
  const { bench } = useJobView();
  const { walked, walking } = useSyncExternalStore(bench.subscribe, bench.snapshot);
  const differing = useMemo(() => {
    const wanted = (row: number) => table.columns.map((_, o) => wantedAt(table, o, row));
    return [...walked.values()].filter(({ row, seen }) => !agrees(seen, wanted(row))).length;
  }, [walked, table]);
  if (walked.size === 0)
    return (
      <Text color="soft" fontSize="12.5px">
        sets every row on the switches and reads the LEDs
      </Text>
    );
  return (
    <Text role="status" fontSize="13px" color={differing > 0 ? 'bad' : walking ? 'soft' : 'ok'} fontWeight="700">
      {walked.size} of {table.rows} rows seen
      {differing > 0 ? `, ${differing} differ` : walked.size === table.rows ? ', all agree' : ''}
    </Text>
  );
}
